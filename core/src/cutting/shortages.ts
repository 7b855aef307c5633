import { grouped } from '../lists/grouped.ts';
import { firstOf } from '../lists/there.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { atLeast, length, say, type Phrase } from '../units/phrase.ts';
import type { Shortage, ShortageReason, StripDemand } from './cutPlan.ts';
import type { CutProblem } from './cutProblem.ts';
import { purchaseFor } from './purchase.ts';
import { usableSize } from './usable.ts';

/**
 * Groups the demands that could not be met and says why, with the figure by which the best piece of the species falls short and the stock
 * that would do. Spares that cannot be had are no shortage: the board can be made without them.
 */
export function shortagesOf(unmet: readonly StripDemand[], problem: CutProblem): Shortage[] {
  const groups = grouped(
    unmet.filter((d) => d.spare === 0),
    ({ species, length, ways }) => [species, length, firstOf(ways).rip, firstOf(ways).thickness].join('|'),
  );
  return [...groups.values()].map((group) => {
    const first = firstOf(group);
    const { rip, thickness } = firstOf(first.ways);
    const { reason, shortBy } = reasonFor(first, problem);
    const buy = purchaseFor(first.species, { length: first.length, rip, thickness }, group.length, problem.shop);
    return {
      species: first.species,
      length: first.length,
      rip,
      thickness,
      strips: [...new Set(group.map((d) => d.strip))].sort((a, b) => a - b),
      parts: group.length,
      reason,
      shortBy,
      say: sentenceFor(reason, shortBy, first),
      buy,
    };
  });
}

function reasonFor(
  demand: StripDemand,
  { rack, shop, banned }: CutProblem,
): { reason: ShortageReason; shortBy: number } {
  const { rip, thickness } = firstOf(demand.ways);
  let sizes = rack
    .filter(
      (p) => p.species === demand.species && !banned.has(p.id) && (demand.from === null || demand.from.includes(p.id)),
    )
    .map((p) => usableSize(p, shop, { length: demand.length, width: rip }));
  if (sizes.length === 0) return { reason: 'noSpecies', shortBy: 0 };
  const tests: [ShortageReason, 'thickness' | 'width' | 'length', number][] = [
    ['tooThin', 'thickness', thickness],
    ['tooNarrow', 'width', rip],
    ['tooShort', 'length', demand.length],
  ];
  for (const [reason, side, need] of tests) {
    const best = Math.max(...sizes.map((s) => s[side]));
    if (best < need - LENGTH_TOLERANCE_MM) return { reason, shortBy: need - best };
    sizes = sizes.filter((s) => s[side] >= need - LENGTH_TOLERANCE_MM);
  }
  return { reason: sizes.every((s) => s.clear) ? 'usedUp' : 'defects', shortBy: 0 };
}

function sentenceFor(reason: ShortageReason, shortBy: number, demand: StripDemand): Phrase {
  const { rip, thickness } = firstOf(demand.ways);
  switch (reason) {
    case 'noSpecies':
      return say`The rack holds none of this species that may be used.`;
    case 'tooThin':
      return say`The thickest piece is ${atLeast(shortBy)} too thin once planed; ${length(thickness)} is needed, ${length(thickness - shortBy)} can be had.`;
    case 'tooNarrow':
      return say`The widest piece that is thick enough is ${atLeast(shortBy)} too narrow; the rip needs ${length(rip)}, ${length(rip - shortBy)} can be had.`;
    case 'tooShort':
      return say`The longest piece that fits is ${atLeast(shortBy)} too short; ${length(demand.length)} is needed, ${length(demand.length - shortBy)} can be had.`;
    case 'defects':
      return say`The pieces that are large enough are used up, promised, or have defects in the way.`;
    case 'usedUp':
      return say`The pieces that fit are used up by the other strips, or promised to other boards.`;
  }
}
