import { expect, it } from 'vitest';
import { fieldProblems } from '../format/fieldProblems.ts';
import { plainBoard } from '../plan/planArbitrary.ts';
import { boardSchema } from './board.ts';
import { countSchemaOf, MOST_STRIPS_CUT, writtenBoardSchema } from './writtenBoard.ts';

const board = (strips: number, count: number, perPanel = 1) =>
  plainBoard({ count, perPanel, width: 1500 }, Array<number>(strips).fill(10));

it('so many strips are cut at once and no more: said at the number of boards', () => {
  expect(writtenBoardSchema.safeParse(board(150, 10)).success).toBe(true);
  const refused = writtenBoardSchema.safeParse(board(150, 11));
  expect(fieldProblems(refused.error!)).toEqual([
    {
      path: 'count',
      message: `Count must be less: 1650 strips would be cut for it, and no more than ${MOST_STRIPS_CUT} are cut at once.`,
    },
  ]);
  // Five boards out of one panel ask for its strips once.
  expect(writtenBoardSchema.safeParse(board(150, 50, 5)).success).toBe(true);
  expect(countSchemaOf(board(150, 1)).safeParse(11).success).toBe(false);
  expect(countSchemaOf(board(30, 1)).safeParse(50).success).toBe(true);
});

it('what was stored before there was a limit can still be read', () => {
  expect(boardSchema.safeParse(board(150, 50)).success).toBe(true);
});
