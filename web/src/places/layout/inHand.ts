import type { Strip } from '#core/board/board.ts';

/** Index of the strip in hand: the chosen one, else the first; -1 while there are none. */
export function inHandIndex(strips: readonly Strip[], chosen: string | null): number {
  const found = strips.findIndex((s) => s.id === chosen);
  return found >= 0 ? found : strips.length > 0 ? 0 : -1;
}
