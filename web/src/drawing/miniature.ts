import type { Board } from '#core/board/board.ts';
import type { PlanInput } from '#core/saw/planInput.ts';

/** A board that is drawn small. */
export interface BoardMiniatureProps {
  board: Board;
  /** What the board is planned with: its wood is drawn from there. */
  input: Omit<PlanInput, 'board'>;
  /** Pixels per mm. */
  scale: number;
  oiled?: boolean;
}
