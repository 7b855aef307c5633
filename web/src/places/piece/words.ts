import type { DefectKind, Treatment } from '#core/stock/defect.ts';
import type { MillingOrder } from '#core/cutting/millingOrder.ts';
import type { Piece } from '#core/stock/piece.ts';

export const DEFECT_WORDS: Readonly<Record<DefectKind, string>> = {
  knot: 'Knot',
  check: 'Check',
  bark: 'Bark',
  sapwood: 'Sapwood',
  screw: 'Screw hole',
  nail: 'Nail hole',
  worm: 'Worm',
  veneer: 'Veneer',
  paint: 'Paint',
  stain: 'Stain',
};
export const TREATMENT_WORDS: Readonly<Record<Treatment, string>> = {
  cut: 'must be cut out',
  under: 'may go underneath',
  harmless: 'is harmless',
};
export const ORDER_WORDS: Readonly<Record<MillingOrder, string>> = {
  crosscutFirst: 'Crosscut first',
  ripFirst: 'Crosscut and rip first',
  fullLength: 'Flatten at full length',
};
export const FORBIDDEN_WORDS = {
  tooShort: 'too short for the planer',
  tooNarrow: 'too narrow for the planer',
  tooWide: 'wider than the planer',
  noBandSaw: 'needs a band saw',
  tapers: 'it tapers',
} as const;
export const SURFACE_WORDS: Readonly<Record<Piece['surface'], string>> = {
  rough: 'rough',
  oneFace: 'one face planed',
  twoFaces: 'both faces planed',
  fourSides: 'planed all round',
  ready: 'ready: used as it is',
};
