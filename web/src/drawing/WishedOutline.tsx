import type { Board } from '#core/board/board.ts';

/** The outline that is wished for. */
export function WishedOutline({ board, scale }: { board: Pick<Board, 'length' | 'width'>; scale: number }) {
  return (
    <rect
      width={board.length * scale}
      height={board.width * scale}
      fill="none"
      stroke="var(--line-strong)"
      strokeDasharray="4 3"
    />
  );
}
