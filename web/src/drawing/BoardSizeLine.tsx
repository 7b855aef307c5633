import type { Board } from '#core/board/board.ts';
import { Length } from '../quantities/Length.tsx';
import { LOOK_WORDS, lookOf } from '#core/board/looks.ts';
import { looseStripsOf, stripsOf } from '#core/board/recipe.ts';
import { stackOperationsOf } from '#core/board/stack.ts';

/** A board in one line: length x width x thickness, construction, strips, how many. */
export function BoardSizeLine({ board }: { board: Board }) {
  const sticks = stackOperationsOf(board.recipe).flatMap((o) => o.takes).length;
  const putIn = looseStripsOf(board).length - sticks;
  const accents = stripsOf(board).filter((s) => s.stack !== null).length;
  return (
    <>
      <Length mm={board.length} bare /> × <Length mm={board.width} bare /> × <Length mm={board.thickness} />,{' '}
      {LOOK_WORDS[lookOf(board)]}, {stripsOf(board).length} {stripsOf(board).length === 1 ? 'strip' : 'strips'}
      {accents > 0 && `, ${accents} of bits`}
      {putIn > 0 && `, ${putIn} put in`}
      {board.count > 1 && `, ${board.count} boards`}
    </>
  );
}
