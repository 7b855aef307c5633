/** What is looked at of a board that is cut and glued again: its slices and rows, or what is put into its panel. */
export const STAGES = {
  rows: ['panel', 'slices', 'rows', 'board'],
  parts: ['panel', 'parts', 'board'],
} as const;
export type RecutStage = (typeof STAGES)[keyof typeof STAGES][number];
