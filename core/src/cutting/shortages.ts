import type { Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { atLeast, length, say, type Phrase } from '../units/phrase.ts';
import type { Shortage, ShortageReason, StripDemand } from './cutPlan.ts';
import { usableSize } from './usable.ts';

/**
 * Groups the demands that could not be met and says why, with the figure by which the best piece of the species falls short.
 * @param thicknessMayFallShort true when thin stock was accepted, so that thickness is never the reason
 */
export function shortagesOf(unmet: readonly StripDemand[], rack: readonly Piece[], shop: Shop, thicknessMayFallShort: boolean): Shortage[] {
  const groups = new Map<string, StripDemand[]>();
  for (const demand of unmet) {
    const key = [demand.species, demand.length, demand.rip, demand.thickness].join('|');
    groups.set(key, [...(groups.get(key) ?? []), demand]);
  }
  return [...groups.values()].map((group) => {
    const first = group[0]!;
    const { reason, shortBy } = reasonFor(first, rack, shop, thicknessMayFallShort);
    return {
      species: first.species, length: first.length, rip: first.rip, thickness: first.thickness,
      strips: [...new Set(group.map((d) => d.strip))].sort((a, b) => a - b),
      parts: group.length, reason, shortBy, say: sentenceFor(reason, shortBy, first),
    };
  });
}

function reasonFor(demand: StripDemand, rack: readonly Piece[], shop: Shop, anyThickness: boolean): { reason: ShortageReason; shortBy: number } {
  let sizes = rack.filter((p) => p.species === demand.species).map((p) => usableSize(p, shop.habits));
  if (sizes.length === 0) return { reason: 'noSpecies', shortBy: 0 };
  const tests: [ShortageReason, 'thickness' | 'width' | 'length', number][] = [
    ['tooThin', 'thickness', anyThickness ? 0 : demand.thickness],
    ['tooNarrow', 'width', demand.rip],
    ['tooShort', 'length', demand.length],
  ];
  for (const [reason, side, need] of tests) {
    const best = Math.max(...sizes.map((s) => s[side]));
    if (best < need - LENGTH_TOLERANCE_MM) return { reason, shortBy: need - best };
    sizes = sizes.filter((s) => s[side] >= need - LENGTH_TOLERANCE_MM);
  }
  return { reason: 'usedUp', shortBy: 0 };
}

function sentenceFor(reason: ShortageReason, shortBy: number, demand: StripDemand): Phrase {
  switch (reason) {
    case 'noSpecies': return say`The rack holds none of this species.`;
    case 'tooThin': return say`The thickest piece is ${atLeast(shortBy)} too thin once planed; ${length(demand.thickness)} is needed.`;
    case 'tooNarrow': return say`The widest piece that is thick enough is ${atLeast(shortBy)} too narrow; the rip needs ${length(demand.rip)}.`;
    case 'tooShort': return say`The longest piece that fits is ${atLeast(shortBy)} too short; ${length(demand.length)} is needed.`;
    case 'usedUp': return say`The pieces that fit are used up by the other strips.`;
  }
}
