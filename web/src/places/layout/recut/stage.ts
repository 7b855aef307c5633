/** What is looked at of a board that is cut and glued again: its slices and rows, what is put into its panel, its frame. */
const STAGES = {
  rows: ['panel', 'slices', 'rows'],
  parts: ['panel', 'parts'],
  flat: ['panel'],
} as const;
export type RecutStage = (typeof STAGES)[keyof typeof STAGES][number] | 'frame' | 'back' | 'board';

/** The stages of a board in order. @param how its panel is cut again; flat where it is not */
export const stagesIn = (how: keyof typeof STAGES, framed: boolean, backed: boolean): readonly RecutStage[] => [
  ...STAGES[how],
  ...(framed ? (['frame'] as const) : []),
  ...(backed ? (['back'] as const) : []),
  'board',
];
