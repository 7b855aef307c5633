import fc from 'fast-check';

/** The boards that random tests meet in every clone: what passes in one passes in the next. CADENZA_SEED draws others, which whoever changes the core looks at before it lands. */
const USUAL_SEED = 20_261_128;

fc.configureGlobal({ seed: process.env.CADENZA_SEED ? Number(process.env.CADENZA_SEED) : USUAL_SEED });
