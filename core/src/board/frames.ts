import { aboveTheBack } from './backs.ts';
import { FRAME_SIDES, framesOf, type FrameSide } from './frame.ts';
import { freeId } from './inserts.ts';
import {
  AS_IT_LIES,
  stripsOf,
  type FrameFirst,
  type Recipe,
  type RecipeOperation,
  type StripOperation,
} from './recipe.ts';

/** What a strip of a frame is like. */
export type FrameWood = Pick<StripOperation, 'species' | 'width'>;

/** A ring to be glued round a board. */
export interface WantedRing {
  strips: Readonly<Record<FrameSide, FrameWood>>;
  first: FrameFirst;
}

/** Four strips of one wood. @param sides how wide along the board, mm @param ends and at its ends */
export const ringOf = (species: string, sides: number, ends = sides): WantedRing => ({
  strips: {
    far: { species, width: sides },
    near: { species, width: sides },
    left: { species, width: ends },
    right: { species, width: ends },
  },
  first: 'sides',
});

/** The same board with what is inside its frame changed; the frame stays round it. */
export function withInside<B extends { readonly recipe: Recipe }>(board: B, change: (inside: B) => B): B {
  return aboveTheBack(board, (above) => insideRings(above, change));
}

function insideRings<B extends { readonly recipe: Recipe }>(board: B, change: (inside: B) => B): B {
  const rings = framesOf(board.recipe);
  const strips = new Set<RecipeOperation>(rings.flatMap((r) => Object.values(r.strips)));
  const inside = board.recipe.filter((o) => o.kind !== 'frame' && !strips.has(o));
  const changed = change({ ...board, recipe: inside });
  // A frame needs something to go round.
  if (stripsOf(changed).length === 0) return changed;
  return rings.reduce(
    (so, { operation, strips: own }) => withFrame(so, { strips: own, first: operation.first }, own),
    changed,
  );
}

/** The same board with one more ring round all there is. A board without strips has nothing to go round. @param own strips that are there already */
export function withFrame<B extends { readonly recipe: Recipe }>(
  board: B,
  ring: WantedRing,
  own?: Readonly<Record<FrameSide, StripOperation>>,
): B {
  return aboveTheBack(board, (above) => ringRound(above, ring, own));
}

function ringRound<B extends { readonly recipe: Recipe }>(
  board: B,
  { strips, first }: WantedRing,
  own?: Readonly<Record<FrameSide, StripOperation>>,
): B {
  const last = board.recipe.at(-1);
  if (!last || stripsOf(board).length === 0) return board;
  let recipe: Recipe = [...board.recipe];
  const ids = FRAME_SIDES.map((side) => {
    const known = own?.[side];
    const id = known && !recipe.some((o) => o.id === known.id) ? known.id : freeId(recipe, 'frame-strip');
    recipe = [...recipe, known ? { ...known, id } : { kind: 'strip', ...AS_IT_LIES, id, ...strips[side] }];
    return id;
  });
  return {
    ...board,
    recipe: [...recipe, { kind: 'frame', id: freeId(recipe, 'frame'), takes: [last.id, ...ids], first }],
  };
}

/** The same board without one of its rings: what went round it goes round what was inside. @param id of the frame */
export function withoutFrame<B extends { readonly recipe: Recipe }>(board: B, id: string): B {
  return aboveTheBack(board, (above) => ringOff(above, id));
}

function ringOff<B extends { readonly recipe: Recipe }>(board: B, id: string): B {
  const out = framesOf(board.recipe).find((f) => f.operation.id === id);
  if (!out) return board;
  const [inside] = out.operation.takes;
  const strips = new Set<RecipeOperation>(Object.values(out.strips));
  return {
    ...board,
    recipe: board.recipe.flatMap((o): RecipeOperation[] => {
      if (o === out.operation || strips.has(o)) return [];
      if (o.kind !== 'frame') return [o];
      return [{ ...o, takes: o.takes.map((t) => (t === id && inside !== undefined ? inside : t)) }];
    }),
  };
}

/** The same board with strips of a ring of other wood or width, or glued on in the other order. @param id of the frame */
export function withFrameChanged<B extends { readonly recipe: Recipe }>(
  board: B,
  id: string,
  change: { strips?: Partial<Record<FrameSide, Partial<FrameWood>>>; first?: FrameFirst },
): B {
  const changed = framesOf(board.recipe).find((f) => f.operation.id === id);
  if (!changed) return board;
  const sides = new Map<RecipeOperation, FrameSide>(FRAME_SIDES.map((side) => [changed.strips[side], side]));
  return {
    ...board,
    recipe: board.recipe.map((o): RecipeOperation => {
      if (o === changed.operation) return { ...changed.operation, first: change.first ?? changed.operation.first };
      const side = sides.get(o);
      return o.kind === 'strip' && side ? { ...o, ...change.strips?.[side] } : o;
    }),
  };
}

/** The same board with a ring one place further out, or in: what is inside another ring changes places with it. @param id of the frame */
export function withFrameMoved<B extends { readonly recipe: Recipe }>(board: B, id: string, by: 1 | -1): B {
  return aboveTheBack(board, (above) => ringMoved(above, id, by));
}

function ringMoved<B extends { readonly recipe: Recipe }>(board: B, id: string, by: 1 | -1): B {
  const rings = framesOf(board.recipe);
  const at = rings.findIndex((f) => f.operation.id === id);
  const [one, other] = [rings[at], rings[at + by]];
  if (!one || !other) return board;
  // Both stay operations of their places; their strips and the order of gluing change places.
  const swapped = (f: typeof one, inside: string | undefined): RecipeOperation => ({
    ...f.operation,
    takes: [inside ?? '', ...f.operation.takes.slice(1)],
  });
  const recipe = board.recipe.map((o): RecipeOperation => {
    if (o === one.operation)
      return swapped({ ...other, operation: { ...other.operation, id: one.operation.id } }, one.operation.takes[0]);
    if (o === other.operation)
      return swapped({ ...one, operation: { ...one.operation, id: other.operation.id } }, other.operation.takes[0]);
    return o;
  });
  // Strips are made before what takes them.
  const frames = recipe.filter((o) => o.kind === 'frame');
  return { ...board, recipe: [...recipe.filter((o) => o.kind !== 'frame'), ...frames] };
}
