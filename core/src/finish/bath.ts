import type { Bath } from '../shop/finishes.ts';
import type { BoardSize } from '../features/groove.ts';

/** So high the oil stands over what lies in it, mm (common practice). */
const COVER_MM = 5;

/** How boards are soaked. */
export interface BathPlan {
  /** Lying flat beside each other in one layer, or standing on a long edge. */
  how: 'lying' | 'standing';
  /** Boards of the batch in it at a time, and how many times it is filled. */
  atOnce: number;
  times: number;
  /** To cover them, litres. */
  litres: number;
  /** How high that stands, mm. */
  depth: number;
}

/** Boards beside each other are this far apart so that oil gets between them, mm (common practice). */
const APART_MM = 10;

const fits = (room: number, size: number): number => Math.floor((room + APART_MM) / (size + APART_MM));

/**
 * How many boards a tray takes, and what covers them: what the tray holds up to that height, less what the boards displace.
 * @param volume of one board, mm3 @param count boards of the batch
 * @returns null where the board does not go into it, lying or standing
 */
export function bathFor(
  bath: Bath,
  { length, width, thickness }: BoardSize,
  volume: number,
  count: number,
): BathPlan | null {
  const lying = Math.max(
    fits(bath.length, length) * fits(bath.width, width),
    fits(bath.length, width) * fits(bath.width, length),
  );
  const standing = Math.max(
    fits(bath.length, length) * fits(bath.width, thickness),
    fits(bath.length, thickness) * fits(bath.width, length),
  );
  const ways = [
    { how: 'lying' as const, most: lying, depth: thickness + COVER_MM },
    { how: 'standing' as const, most: standing, depth: width + COVER_MM },
  ]
    .filter((w) => w.most > 0 && w.depth <= bath.depth)
    .map(({ how, most, depth }): BathPlan => {
      const atOnce = Math.min(count, most);
      return {
        how,
        atOnce,
        times: Math.ceil(count / atOnce),
        litres: Math.max(0, bath.length * bath.width * depth - atOnce * volume) / 1e6,
        depth,
      };
    });
  // The fewest fillings, and of those the least oil.
  return ways.sort((a, b) => a.times - b.times || a.litres - b.litres)[0] ?? null;
}

/**
 * Whether boards lie in a tray together in one layer, each the long way: laid in rows, the widest first. A tighter order may exist; one that is found holds.
 * @example lieTogether({ length: 900, width: 300, depth: 60 }, [a, b])
 */
export function lieTogether(bath: Bath, boards: readonly BoardSize[]): boolean {
  if (boards.some((b) => b.thickness + COVER_MM > bath.depth)) return false;
  const long = bath.length >= bath.width;
  const room = long ? { along: bath.length, across: bath.width } : { along: bath.width, across: bath.length };
  const laid = boards
    .map(({ length, width }) => ({ along: Math.max(length, width), across: Math.min(length, width) }))
    .sort((a, b) => b.across - a.across);
  let [rowAlong, across] = [Infinity, -APART_MM];
  for (const board of laid) {
    if (board.along > room.along) return false;
    if (rowAlong + APART_MM + board.along > room.along) {
      rowAlong = board.along;
      across += APART_MM + board.across;
    } else rowAlong += APART_MM + board.along;
  }
  return across <= room.across;
}
