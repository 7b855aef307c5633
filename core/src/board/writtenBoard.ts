import { boardSchema, type Board } from './board.ts';

/** More strips nobody cuts for one batch, and a plan of them would keep everybody waiting. */
export const MOST_STRIPS_CUT = 1500;

/** It is asked of boards that may be wrong in other ways too, so it takes nothing of them for granted. */
function stripsCut({ count, perPanel, recipe }: Pick<Board, 'count' | 'perPanel' | 'recipe'>): number {
  const panels = Math.ceil(count / Math.max(1, Math.min(count, perPanel)));
  return panels * recipe.filter((o) => o.kind === 'strip').length;
}

const tooMany = (strips: number): string =>
  `must be less: ${strips} strips would be cut for it, and no more than ${MOST_STRIPS_CUT} are cut at once`;

/** How many of a board may be made. */
export const countSchemaOf = (board: Pick<Board, 'perPanel' | 'recipe'>) =>
  boardSchema.shape.count.refine((count) => stripsCut({ ...board, count }) <= MOST_STRIPS_CUT, {
    error: ({ input }) => tooMany(stripsCut({ ...board, count: Number(input) })),
  });

/** A board as it may be stored from now on: one that was stored before there was a limit can still be read. */
export const writtenBoardSchema = boardSchema.refine((board) => stripsCut(board) <= MOST_STRIPS_CUT, {
  path: ['count'],
  error: ({ input }) => tooMany(stripsCut(input as Board)),
});
