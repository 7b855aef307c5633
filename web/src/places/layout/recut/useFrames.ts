import { frameOf, FRAME_SIDES, type FrameSide } from '#core/board/frame.ts';
import {
  ringOf,
  withFrame,
  withFrameChanged,
  withFrameMoved,
  withoutFrame,
  type FrameWood,
} from '#core/board/frames.ts';
import { accentOf, USUAL } from '#core/board/looks.ts';
import { stripSchema, type FrameFirst } from '#core/board/recipe.ts';
import { useOpenBoard } from '../../../data/openBoard.tsx';
import { useDisplay } from '../../../quantities/display.tsx';

/** What hands do with the rings round a board; each is one step of undo, those with the same key together. */
export function useFrames() {
  const { board, input, session } = useOpenBoard();
  const { display } = useDisplay();
  const frame = frameOf(board, input.shop);
  /** Kept to what can be: a hand that goes too far stops there. */
  const possible = ({ width }: Partial<FrameWood>): boolean =>
    width === undefined || stripSchema.shape.width.safeParse(width).success;
  return {
    frame,
    rings: frame?.rings ?? [],
    /** @param sides that change alike */
    change: (id: string, sides: readonly FrameSide[], change: Partial<FrameWood>, mergeKey?: string) => {
      if (possible(change))
        session.edit(
          (b) => withFrameChanged(b, id, { strips: Object.fromEntries(sides.map((side) => [side, change])) }),
          mergeKey,
        );
    },
    /** All four strips of a ring like one of them. */
    allLike: (id: string, wood: FrameWood) =>
      session.edit((b) =>
        withFrameChanged(b, id, { strips: Object.fromEntries(FRAME_SIDES.map((side) => [side, wood])) }),
      ),
    first: (id: string, first: FrameFirst) => session.edit((b) => withFrameChanged(b, id, { first })),
    move: (id: string, by: 1 | -1) => session.edit((b) => withFrameMoved(b, id, by)),
    remove: (id: string) => session.edit((b) => withoutFrame(b, id)),
    /** One more ring, outside all others, like the strip in hand, or narrow and of the accent's wood. */
    add: (like: FrameWood | undefined) =>
      session.edit((b) =>
        withFrame(b, ringOf(like?.species ?? accentOf(b), like?.width ?? USUAL[display.system].frame)),
      ),
    endMerge: () => session.endMerge(),
  };
}
