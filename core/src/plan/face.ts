import type { Board } from '../board/board.ts';
import { insideOf } from '../board/frame.ts';
import type { Row } from '../board/recut.ts';
import { cutStripsOf } from '../board/recipe.ts';
import { showFace } from '../recipe/face.ts';
import { grainOf } from '../recipe/sliceOperation.ts';
import type { Triple } from '../recipe/motion.ts';
import type { Plan } from './plan.ts';

/** A cell of the show face of a finished board, before edges and features. */
export interface FaceCell {
  /** Corners, mm from the board's left end and its far edge. */
  polygon: [number, number][];
  /** Number of the strip it was, from 1. */
  strip: number;
  /** Number of the accent that it is a bit of; null for any other strip. */
  accent: number | null;
  /** Which of the panels alike, and which row of the board, from 1; 1 and null in a flat board. */
  panel: number;
  row: number | null;
  species: string;
  /** The way the wood's length runs in the board: along it, across it, up; of length 1. */
  grain: Triple;
}

/** The row that a place is of; none where it is the frame's. @param at mm from the left end and the far edge of what the board is trimmed from */
function rowAt({ recut, frame }: Pick<Plan, 'recut' | 'frame'>, at: [number, number]): Row | undefined {
  if (!recut) return undefined;
  let [x, y] = at;
  if (frame) {
    for (const ring of frame.rings) {
      const inside = insideOf(ring);
      [x, y] = [x - inside.x, y - inside.y];
    }
    const field = frame.fields.trim.boards[0] ?? { x: 0, y: 0, length: 0, width: 0 };
    if (x < 0 || y < 0 || x > field.length || y > field.width) return undefined;
    [x, y] = [x + field.x, y + field.y];
  }
  return recut.all[Math.floor((recut.last.runs === 'across' ? x : y) / recut.row)];
}

/** What shows of the first board: each cell of its upper face. Empty while there are no strips. */
export function faceOf({ wood, recut, frame, trim }: Plan, board: Pick<Board, 'recipe'>): FaceCell[] {
  if (!wood) return [];
  const strips = new Map(cutStripsOf(board).map((s, i) => [s.id, { number: i + 1, species: s.species }]));
  const place = trim.boards[0] ?? { x: 0, y: 0 };
  return showFace(wood.board).flatMap(({ polygon, cell }): FaceCell[] => {
    const strip = strips.get(cell.strip);
    if (!strip) return [];
    const middle = (axis: 0 | 1) => polygon.reduce((sum, corner) => sum + corner[axis], 0) / polygon.length;
    const row = recut ? rowAt({ recut, frame }, [middle(0) + place.x, middle(1) + place.y]) : undefined;
    return [
      {
        polygon,
        strip: strip.number,
        accent: (cell.accent !== undefined && strips.get(cell.accent)?.number) || null,
        panel: row?.panel ?? 1,
        row: row?.number ?? null,
        species: strip.species,
        grain: grainOf(cell),
      },
    ];
  });
}
