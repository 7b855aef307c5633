import { fieldOf, partsOf } from '#core/board/again.ts';
import type { Insert } from '#core/board/inset.ts';
import { withInsertChanged, withInsertInGap, withoutInsert, type Wanted } from '#core/board/inserts.ts';
import { accentOf, USUAL } from '#core/board/looks.ts';
import { insertSchema, stripSchema } from '#core/board/recipe.ts';
import { useOpenBoard } from '../../../data/openBoard.tsx';
import { useDisplay } from '../../../quantities/display.tsx';

/** What hands do with the strips that are put into a board; each is one step of undo, those with the same key together. */
export function useInserts() {
  const { board, input, session } = useOpenBoard();
  const { display } = useDisplay();
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
    /** Of what they are put into, mm. */
    length,
    inserts,
    change: (id: string, change: Partial<Wanted>, mergeKey?: string) => {
      if (possible(change)) session.edit((b) => withInsertChanged(b, id, change), mergeKey);
    },
    remove: (id: string) => session.edit((b) => withoutInsert(b, id)),
    /** One more, like the one in hand, or a band, in the middle of the widest gap. */
    add: (like: Insert | undefined) =>
      session.edit((b) =>
        withInsertInGap(b, length, {
          species: like?.strip.species ?? accentOf(b),
          width: like?.width ?? USUAL[display.system].band,
          angle: like?.angle ?? 0,
        }),
      ),
    endMerge: () => session.endMerge(),
  };
}
