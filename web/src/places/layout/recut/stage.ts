/** What is looked at of a board that is cut and glued again. */
export const STAGES = ['panel', 'slices', 'rows', 'board'] as const;
export type RecutStage = (typeof STAGES)[number];
