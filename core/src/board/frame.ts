import { certain, lastOf } from '../lists/there.ts';
import { NOTHING_WORKED } from '../features/feature.ts';
import type { Shop } from '../shop/shop.ts';
import { aboveBack } from './back.ts';
import type { Board } from './board.ts';
import { cutStripsOf, inWorkingOrder, type FrameOperation, type Recipe, type StripOperation } from './recipe.ts';
import { remembered } from './remembered.ts';

/** The sides of a board that a frame has strips along, as a frame names them. */
export const FRAME_SIDES = ['far', 'near', 'left', 'right'] as const;
export type FrameSide = (typeof FRAME_SIDES)[number];

/** A strip of a frame. Lengths in mm. */
export interface FrameStrip {
  side: FrameSide;
  strip: StripOperation;
  /** Of the strip, on the board. */
  number: number;
  /** What it adds to the board. */
  width: number;
  /** The joint it covers, and as it is crosscut: its ends are cut off flush. */
  covers: number;
  length: number;
}

/** One ring round a board. Lengths in mm. */
export interface FrameRing {
  operation: FrameOperation;
  /** The pair that is glued on first, and the pair that covers its ends: far or left first. */
  pairs: [FrameStrip[], FrameStrip[]];
  /** What it goes round, and how large that is then. */
  inner: { length: number; width: number };
  outer: { length: number; width: number };
}

/** What a frame asks of the board inside it, read backward. Lengths in mm. */
export interface Frame {
  rings: FrameRing[];
  /** The board that the frame goes round, as a board of its own. */
  field: Board;
  /** With all rings on it. */
  block: { length: number; width: number };
  /** Off each long edge of that, and off each of its ends, at the end. */
  side: number;
  end: number;
  /** How high the strips are milled; null for as high as all others. */
  height: number | null;
  /** Whether all rings together are wider than the board they go round. */
  tooWide: boolean;
}

/** The operations that frame a board, from the inside out, each with its strips by side; none for other boards. */
export function framesOf(recipe: Recipe): { operation: FrameOperation; strips: Record<FrameSide, StripOperation> }[] {
  if (!recipe.some((o) => o.kind === 'frame')) return [];
  const strips = new Map(recipe.flatMap((o) => (o.kind === 'strip' ? [[o.id, o] as const] : [])));
  return recipe.flatMap((operation) => {
    if (operation.kind !== 'frame') return [];
    const [far, near, left, right] = operation.takes.slice(1).map((id) => strips.get(id));
    return far && near && left && right ? [{ operation, strips: { far, near, left, right } }] : [];
  });
}

/** What a frame goes round is at least so long and wide: less is no board, and a stop says so, mm. */
const LEAST_FIELD_MM = 10;

/**
 * What the frame of a board asks of what is inside it: trimmed to a size that strips and the last trim make up to the board.
 * Check: a frame of 30 all round with 3 off each edge at the end leaves 400 by 250 a field of 346 by 196.
 * @param own the shop; where the board differs from it is taken into account here
 * @returns null for a board without a frame
 */
export function frameOf(given: Board, own: Shop): Frame | null {
  const frames = framesOf(given.recipe);
  // It goes round what a back is glued under.
  return frames.length === 0 ? null : FRAME(aboveBack(given, own), frames, own);
}

const FRAME = remembered(readFrame);

function readFrame(board: Board, frames: ReturnType<typeof framesOf>, shop: Shop): Frame {
  const { habits } = shop;
  // The frame is made level by hand: no machine snipes its ends.
  const [side, end] = [habits.panelEdgeTrim, habits.panelEdgeTrim];
  const wide = (a: FrameSide, b: FrameSide) =>
    frames.reduce((sum, { strips }) => sum + strips[a].width + strips[b].width, 0);
  const length = board.length + 2 * end - wide('left', 'right');
  const width = board.width + 2 * side - wide('far', 'near');
  const numbers = new Map(cutStripsOf(board).map((s, i) => [s.id, i + 1]));
  const field = { length: Math.max(LEAST_FIELD_MM, length), width: Math.max(LEAST_FIELD_MM, width) };
  const rings = ringsRound(
    field,
    frames.map(({ operation, strips }) => ({
      operation,
      of: (at: FrameSide, covers: number) => ({
        side: at,
        strip: strips[at],
        number: numbers.get(strips[at].id) ?? 0,
        width: strips[at].width,
        covers,
        length: covers + habits.creep,
      }),
    })),
  );
  return {
    rings,
    field: fieldOf(board, field),
    block: lastOf(rings).outer,
    side,
    end,
    height: turnedUp(board.recipe) ? board.thickness + habits.sanding + habits.panelFlatten : null,
    tooWide: length < LEAST_FIELD_MM || width < LEAST_FIELD_MM,
  };
}

/** Rings round a rectangle, from the inside out. */
function ringsRound(
  field: { length: number; width: number },
  frames: readonly { operation: FrameOperation; of: (side: FrameSide, covers: number) => FrameStrip }[],
): FrameRing[] {
  let inner = field;
  return frames.map(({ operation, of }): FrameRing => {
    const wide = (a: FrameSide, b: FrameSide) => of(a, 0).width + of(b, 0).width;
    const outer = { length: inner.length + wide('left', 'right'), width: inner.width + wide('far', 'near') };
    const sidesFirst = operation.first === 'sides';
    const along = sidesFirst ? inner.length : outer.length;
    const across = sidesFirst ? outer.width : inner.width;
    const long = [of('far', along), of('near', along)];
    const short = [of('left', across), of('right', across)];
    const ring: FrameRing = { operation, pairs: sidesFirst ? [long, short] : [short, long], inner, outer };
    inner = outer;
    return ring;
  });
}

/** The same frame round a field that came out otherwise than it was asked: its strips are as long as they were cut. */
export function framedAround(frame: Frame, field: { length: number; width: number }): Frame {
  const rings = ringsRound(
    field,
    frame.rings.map(({ operation, pairs }) => ({
      operation,
      of: (side: FrameSide, covers: number) => ({ ...certain(pairs.flat().find((s) => s.side === side)), covers }),
    })),
  );
  return { ...frame, rings, block: lastOf(rings).outer };
}

/** Whether the slices of a board are turned up: it is as high as they were sawn, not as its strips were glued. */
const turnedUp = (recipe: Recipe): boolean => recipe.some((o) => o.kind === 'turn' && o.turn === 'up');

/** The board inside a frame; the strips of the frame are cut with its own. */
function fieldOf(board: Board, size: { length: number; width: number }): Board {
  return {
    ...board,
    ...size,
    recipe: inWorkingOrder(board.recipe.filter((o) => o.kind !== 'frame')),
    // What is worked into the board is worked into the whole of it.
    worked: NOTHING_WORKED,
  };
}

/** Where what a ring goes round lies in what it is then, mm from its left end and its far edge. */
export function insideOf({ pairs }: FrameRing): { x: number; y: number } {
  const widthOf = (side: FrameSide) => pairs.flat().find((s) => s.side === side)?.width ?? 0;
  return { x: widthOf('left'), y: widthOf('far') };
}

/** How far a strip reaches beyond its joint at each end before it is cut off flush, mm. */
export const overOf = ({ length, covers }: Pick<FrameStrip, 'length' | 'covers'>): number =>
  Math.max(0, (length - covers) / 2);

/** The strips of a frame in the order they are glued on. */
export const frameStrips = ({ rings }: Pick<Frame, 'rings'>): FrameStrip[] => rings.flatMap((r) => r.pairs.flat());
