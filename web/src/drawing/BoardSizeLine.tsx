import type { Board } from '#core/board/board.ts';
import { Length } from '../quantities/Length.tsx';
import { stripsOf } from '#core/board/recipe.ts';

const CONSTRUCTION_WORDS = { edge: 'edge grain', face: 'face grain' } as const;

/** A board in one line: length x width x thickness, construction, strips, how many. */
export function BoardSizeLine({ board }: { board: Board }) {
  return (
    <>
      <Length mm={board.length} bare /> × <Length mm={board.width} bare /> × <Length mm={board.thickness} />,{' '}
      {CONSTRUCTION_WORDS[board.construction]}, {stripsOf(board).length}{' '}
      {stripsOf(board).length === 1 ? 'strip' : 'strips'}
      {board.count > 1 && `, ${board.count} boards`}
    </>
  );
}
