import type { Recut, Row } from '../board/recut.ts';
import { nth } from '../lists/there.ts';
import { after, shift, type Motion, type Triple } from './motion.ts';
import { slicesIn, type LyingSlice } from './sliceOperation.ts';
import { turnMotion } from './turnOperation.ts';
import { carried, cellsWithin, cutOut, type Cell, type Workpiece } from './workpiece.ts';

/** How a first panel lies when it is sliced. Lengths in mm. */
export interface PanelToSlice {
  /** As it came out of the clamps, its strips flush. */
  panel: Workpiece;
  /** Off each long edge, and off each face, before it is sliced. */
  edge: number;
  planed: number;
}

/** The slices of a first panel, its strips staggered as the recipe says and its edges and faces true, in the order they are sawn. */
export function slicesOf(recut: Recut, { panel, edge, planed }: PanelToSlice, count: number): LyingSlice[] {
  const at = new Map(recut.panel.takes.map((id, i) => [id, nth(recut.offsets, i)]));
  const [length, width, height] = panel.size;
  const furthest = Math.max(0, ...recut.offsets);
  const cells = panel.cells.flatMap((cell) => carried([cell], shift([at.get(cell.strip) ?? 0, 0, 0])));
  const trued = cutOut({ cells }, [0, edge, planed], [length + furthest, width - edge, height - planed]);
  return slicesIn(trued, {
    angle: recut.angle,
    pitch: recut.pitch,
    kerf: recut.kerf,
    // Measured from the corner that the saw meets first.
    first: recut.firstCut - Math.min(0, (width - 2 * edge) * Math.sin((recut.angle * Math.PI) / 180)),
    count,
  }).slices;
}

/** Rows lie across the board: along the board is where they are stacked. */
const ACROSS: Motion = { origin: [0, 0, 0], along: [0, -1, 0], across: [1, 0, 0], up: [0, 0, 1] };

/**
 * The rows of one board glued together, as far as all of them reach: along the board, across it and up. It is the largest square-cornered piece that they all are in.
 * @param slices of each panel of those alike, in the order they are sawn
 */
export function blockOf(recut: Recut, rows: readonly Row[], slices: readonly (readonly LyingSlice[])[]): Workpiece {
  const { length, width, height } = recut.block;
  const end: Triple = [length, width, height];
  return { size: end, cells: cellsWithin(rowsLaid(recut, rows, slices), [0, 0, 0], end) };
}

/** All the wood of rows that lie side by side, whole: the block begins at the corner that they have in common. */
export function rowsLaid(recut: Recut, rows: readonly Row[], slices: readonly (readonly LyingSlice[])[]): Cell[] {
  const least = Math.min(0, ...rows.map((r) => r.shift));
  const slant = recut.pitch * Math.abs(Math.tan((recut.angle * Math.PI) / 180));
  const from = slant + Math.max(...recut.all.map((r) => r.shift)) - least;
  const across = recut.last.runs === 'across';
  // Along the rows the block begins where all of them are there; laid across the board their near end is its far edge.
  const lie = across ? { ...ACROSS, origin: [0, from + recut.rowLength, 0] as Triple } : shift([-from, 0, 0]);
  let at = 0;
  return rows.flatMap((row): Cell[] => {
    const slice = slices[row.panel - 1]?.[row.slice];
    if (!slice) return [];
    const turned = row.turns.reduce(
      (so, turn) => {
        const next = turnMotion(turn, so.size);
        return { motion: after(next.motion, so.motion), size: next.size };
      },
      { motion: slice.home, size: slice.size },
    );
    const place = after(lie, after(shift([row.shift - least, at, 0]), turned.motion));
    at += turned.size[1];
    return carried(slice.cells, place);
  });
}
