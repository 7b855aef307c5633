import { firstOf } from '../lists/there.ts';
import { lightness } from '../wood/colour.ts';
import { say } from '../units/phrase.ts';
import type { Rule } from './finding.ts';
import { stripsOf } from '../board/recipe.ts';
import { woodsOf } from '../board/accents.ts';

/** CIELAB lightness from which wood shows another's dust, and how much darker the bleeding one must be (common practice: maple beside padauk, walnut). */
const PALE = 70;
const DARKER_BY = 20;

/** Pale strips beside a species whose dust or extractives stain. */
export const bleedingNeighbours: Rule = (_plan, { board, species }) => {
  const bySpecies = new Map(species.map((s) => [s.code, s]));
  const stained = stripsOf(board).flatMap((strip, i) => {
    const wood = bySpecies.get(strip.species);
    if (!wood || wood.bleeds || lightness(wood.colour) < PALE) return [];
    const from = [stripsOf(board)[i - 1], stripsOf(board)[i + 1]]
      .flatMap((s) => (s ? woodsOf(board, s).map((code) => bySpecies.get(code)) : []))
      .find((s) => s?.bleeds && lightness(wood.colour) - lightness(s.colour) > DARKER_BY);
    return from ? [{ number: i + 1, wood, from }] : [];
  });
  if (stained.length === 0) return [];
  const { wood, from } = firstOf(stained);
  return [
    {
      rule: 'bleeding-neighbour',
      severity: 'note',
      strips: stained.map((s) => s.number),
      source: from.cautionSource,
      what: say`${from.name} lies beside ${wood.name}: its dust stains the pale wood.`,
      why: say`Sanding dust and wet glue carry the colour into the pores of the pale strip, and oil drives it deeper.`,
      waysOut: [
        say`Scrape instead of sanding across the joint, and blow the dust off before anything wet touches the board.`,
        say`Seal the pale strips, or put a strip of middling colour between.`,
      ],
    },
  ];
};
