import { nth } from '../lists/there.ts';

/** Random choices that come out the same for the same seed. */
export interface Random {
  /** 0 up to 1. */
  next(): number;
  /** 0 to `count` - 1. */
  below(count: number): number;
  pick<T>(items: readonly T[]): T;
  shuffled<T>(items: readonly T[]): T[];
}

/** @param seed any whole number; mulberry32 */
export function randomFrom(seed: number): Random {
  let state = seed | 0;
  const next = () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const below = (count: number) => Math.floor(next() * count);
  return {
    next,
    below,
    pick: (items) => nth(items, below(items.length)),
    shuffled: (items) => {
      const list = [...items];
      for (let i = list.length - 1; i > 0; i -= 1) {
        const k = below(i + 1);
        [list[i], list[k]] = [nth(list, k), nth(list, i)];
      }
      return list;
    },
  };
}
