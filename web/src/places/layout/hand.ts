import { firstOf, nth } from '#core/lists/there.ts';
import type { Strip } from '#core/board/recipe.ts';

/** What the hands hold: one strip, and others picked up with it. */
export interface Hand {
  strip: string | null;
  also: readonly string[];
}

export const EMPTY_HAND: Hand = { strip: null, also: [] };

/** Index of the strip in hand: the chosen one, else the first; -1 while there are none. */
export function inHandIndex(strips: readonly Pick<Strip, 'id'>[], chosen: string | null): number {
  const found = strips.findIndex((s) => s.id === chosen);
  return found >= 0 ? found : strips.length > 0 ? 0 : -1;
}

/** Indices of everything held, in the order of the board; never empty while there are strips. */
export function heldIndices(strips: readonly Pick<Strip, 'id'>[], hand: Hand): number[] {
  const first = inHandIndex(strips, hand.strip);
  return strips.flatMap((s, i) => (i === first || hand.also.includes(s.id) ? [i] : []));
}

/** How a strip joins what is held: alone, added or put back, or with all between it and the one in hand. */
export type PickUp = 'only' | 'also' | 'through';

export function pickUp(strips: readonly Pick<Strip, 'id'>[], hand: Hand, index: number, how: PickUp): Hand {
  const strip = strips[index];
  if (!strip) return hand;
  if (how === 'only') return { strip: strip.id, also: [] };
  const first = inHandIndex(strips, hand.strip);
  if (how === 'through') {
    const [from, to] = [Math.min(first, index), Math.max(first, index)];
    return { strip: strip.id, also: [...new Set([...hand.also, ...strips.slice(from, to + 1).map((s) => s.id)])] };
  }
  const held = new Set(heldIndices(strips, hand).map((i) => nth(strips, i).id));
  if (!held.has(strip.id)) return { strip: strip.id, also: [...held] };
  held.delete(strip.id);
  const left = [...held];
  return left.length === 0
    ? { strip: strip.id, also: [] }
    : { strip: hand.strip === strip.id ? firstOf(left) : hand.strip, also: left };
}
