import { fieldOf, partsOf } from '#core/board/again.ts';
import type { Insert } from '#core/board/inset.ts';
import { withInsert, withInsertChanged, withoutInsert, type Wanted } from '#core/board/inserts.ts';
import { insertSchema, stripsOf, stripSchema } from '#core/board/recipe.ts';
import { useOpenBoard } from '../../../data/openBoard.tsx';

/** What one more strip is like that is put in, mm: a band. */
const NEW_WIDTH = 20;

/** What hands do with the strips that are put into a board; each is one step of undo, those with the same key together. */
export function useInserts() {
  const { board, input, session } = useOpenBoard();
  const inset = partsOf(board, input.shop);
  const { length } = fieldOf(board, input.shop);
  const inserts: readonly Insert[] = inset?.inserts ?? [];
  /** Kept to what can be: a hand that goes too far stops there. */
  const possible = ({ at, angle, width }: Partial<Wanted>): boolean =>
    (at === undefined || (insertSchema.shape.at.safeParse(at).success && at <= length)) &&
    (angle === undefined || insertSchema.shape.angle.safeParse(angle).success) &&
    (width === undefined || stripSchema.shape.width.safeParse(width).success);
  return {
    inset,
    inserts,
    change: (id: string, change: Partial<Wanted>, mergeKey?: string) => {
      if (possible(change)) session.edit((b) => withInsertChanged(b, id, change), mergeKey);
    },
    remove: (id: string) => session.edit((b) => withoutInsert(b, id)),
    /** One more, like the one in hand, in the middle of the widest gap. */
    add: (like: Insert | undefined) =>
      session.edit((b) => {
        const edges = [0, ...inserts.map((i) => i.operation.at), length];
        const gaps = edges.slice(1).map((to, i) => ({ size: to - (edges[i] ?? 0), at: (to + (edges[i] ?? 0)) / 2 }));
        const widest = gaps.reduce((a, g) => (g.size > a.size ? g : a));
        return withInsert(b, {
          species: like?.strip.species ?? stripsOf(b)[0]?.species ?? '',
          width: like?.width ?? NEW_WIDTH,
          angle: like?.angle ?? 0,
          jog: 0,
          at: widest.at,
        });
      }),
    endMerge: () => session.endMerge(),
  };
}
