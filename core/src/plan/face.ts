import type { Board } from '../board/board.ts';
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
  /** Which of the panels alike, and which row of the board, from 1; 1 and null in a flat board. */
  panel: number;
  row: number | null;
  species: string;
  /** The way the wood's length runs in the board: along it, across it, up; of length 1. */
  grain: Triple;
}

/** What shows of the first board: each cell of its upper face. Empty while there are no strips. */
export function faceOf({ wood, recut, trim }: Plan, board: Pick<Board, 'recipe'>): FaceCell[] {
  if (!wood) return [];
  const strips = new Map(cutStripsOf(board).map((s, i) => [s.id, { number: i + 1, species: s.species }]));
  const place = trim.boards[0] ?? { x: 0, y: 0 };
  return showFace(wood.board).flatMap(({ polygon, cell }): FaceCell[] => {
    const strip = strips.get(cell.strip);
    if (!strip) return [];
    const middle = (axis: 0 | 1) => polygon.reduce((sum, corner) => sum + corner[axis], 0) / polygon.length;
    const stacked = recut && (recut.last.runs === 'across' ? middle(0) + place.x : middle(1) + place.y);
    const row = recut && stacked !== null ? recut.all[Math.floor(stacked / recut.row)] : undefined;
    return [
      {
        polygon,
        strip: strip.number,
        panel: row?.panel ?? 1,
        row: row?.number ?? null,
        species: strip.species,
        grain: grainOf(cell),
      },
    ];
  });
}
