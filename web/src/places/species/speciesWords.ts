import type { Species } from '#core/wood/species.ts';

export const PORE_WORDS: Readonly<Record<Species['pores'], string>> = {
  diffuse: 'diffuse',
  semiRing: 'half ring',
  ring: 'open ring',
};

/** What to mind with a species, in a word each. */
export const CAUTION_WORDS: readonly (readonly [word: string, holds: (species: Species) => boolean])[] = [
  ['dust sensitises', (s) => s.dust === 'sensitiser'],
  ['dust irritates', (s) => s.dust === 'irritant'],
  ['oily', (s) => s.oily],
  ['bleeds', (s) => s.bleeds],
  ['open pores hold dirt', (s) => s.pores === 'ring'],
  ['food', (s) => s.foodNote !== ''],
];
