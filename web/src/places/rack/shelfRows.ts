import type { Species } from '#core/wood/species.ts';
import type { StoredPiece } from '#contract/rack.ts';

/** One line of the rack: a shelf's name, or pieces that stand beside each other. */
export type ShelfRow =
  | { kind: 'name'; species: Species; count: number; height: number }
  | { kind: 'pieces'; species: Species; pieces: StoredPiece[]; height: number; last: boolean };

const GAP = 18;
/** Room a piece's label and padding take, pixels. */
const LABEL = 34;
const PADDING = 24;
const LEAST_WIDTH = 190;
const NAME_HEIGHT = 30;
const SHELF_GAP = 12;

/** Packs pieces into lines of a width, shelf by shelf, with every height known: then only the lines in sight need to be drawn. */
export function shelfRows(
  pieces: readonly StoredPiece[],
  species: readonly Species[],
  scale: number,
  width: number,
): ShelfRow[] {
  const rows: ShelfRow[] = [];
  for (const s of species) {
    const mine = pieces.filter((p) => p.piece.species === s.code);
    if (mine.length === 0) continue;
    rows.push({
      kind: 'name',
      species: s,
      count: mine.reduce((sum, p) => sum + p.piece.count, 0),
      height: NAME_HEIGHT,
    });
    let line: StoredPiece[] = [];
    let used = 0;
    const close = (last: boolean) => {
      if (line.length === 0) return;
      const tallest = Math.max(...line.map(({ piece }) => Math.max(piece.width, piece.farEnd?.width ?? 0)));
      rows.push({
        kind: 'pieces',
        species: s,
        pieces: line,
        height: Math.max(3, tallest * scale) + LABEL + (last ? SHELF_GAP : 0),
        last,
      });
      line = [];
      used = 0;
    };
    for (const stored of mine) {
      const wide = Math.max(LEAST_WIDTH, (stored.piece.length + stored.piece.thickness) * scale + PADDING);
      if (line.length > 0 && used + GAP + wide > width) close(false);
      used += (line.length > 0 ? GAP : 0) + wide;
      line.push(stored);
    }
    close(true);
  }
  return rows;
}
