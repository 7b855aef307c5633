import type { Board } from '../board/board.ts';
import type { TurnOperation } from '../board/recipe.ts';
import type { Plan } from './plan.ts';

/** A stage on the way from strips to the board, with what it measures, mm. */
export type Stage =
  | { kind: 'panel'; count: number; length: number; width: number; thickness: number; strips: number }
  | { kind: 'slices'; count: number; each: number[]; pitch: number; angle: number; kerf: number }
  | {
      kind: 'rows';
      count: number;
      adds: number;
      runs: 'along' | 'across';
      turns: Pick<TurnOperation, 'turn' | 'pattern'>[];
    }
  | { kind: 'block'; count: number; length: number; width: number; thickness: number }
  | { kind: 'board'; count: number; length: number; width: number; thickness: number };

/** The stages of a board in order; of a flat one its panel and itself. */
export function stagesOf(
  { recut, allowances, panelWidth, ladders, strips }: Plan,
  board: Pick<Board, 'count'>,
): Stage[] {
  const finished: Stage = {
    kind: 'board',
    count: board.count,
    length: ladders.length.reached,
    width: ladders.width.reached,
    thickness: ladders.thickness.reached,
  };
  const panel: Stage = {
    kind: 'panel',
    count: allowances.panels.length,
    length: allowances.panels[0]?.length ?? 0,
    width: panelWidth,
    thickness: recut?.thickness ?? allowances.glueThickness,
    strips: strips.length,
  };
  if (!recut) return [panel, finished];
  const { slices, pitch, angle, kerf, rows, row, last, turns, block } = recut;
  return [
    panel,
    { kind: 'slices', count: recut.all.length, each: slices, pitch, angle, kerf },
    {
      kind: 'rows',
      count: rows,
      adds: row,
      runs: last.runs,
      turns: turns.map(({ turn, pattern }) => ({ turn, pattern })),
    },
    { kind: 'block', count: board.count, length: block.length, width: block.width, thickness: block.height },
    finished,
  ];
}
