/** What is looked at of a board that is more than strips side by side: its accents of bits, its slices and rows, what is put into its panel, its frame. */
const STAGES = {
  rows: ['panel', 'slices', 'rows'],
  parts: ['panel', 'parts'],
  flat: ['panel'],
} as const;
export type RecutStage = (typeof STAGES)[keyof typeof STAGES][number] | 'bits' | 'frame' | 'back' | 'board';

/** The stages of a board in order. @param how its panel is cut again; flat where it is not */
export const stagesIn = (
  how: keyof typeof STAGES,
  { stacked, framed, backed }: Record<'stacked' | 'framed' | 'backed', boolean>,
): readonly RecutStage[] => [
  ...(stacked ? (['bits'] as const) : []),
  ...STAGES[how],
  ...(framed ? (['frame'] as const) : []),
  ...(backed ? (['back'] as const) : []),
  'board',
];
