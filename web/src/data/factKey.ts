/** What this device noted and has not sent yet stands in its storage under names that begin so. */
export const FACT_KEY = 'cadenza.facts.';
