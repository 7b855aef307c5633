import { movedBy, turnedBy, type Triple } from '#core/recipe/motion.ts';
import { showFace } from '#core/recipe/face.ts';
import type { Cell, Workpiece } from '#core/recipe/workpiece.ts';
import type { Species } from '#core/wood/species.ts';
import { logOf, type Log } from './log.ts';
import type { Tile } from './mosaic.ts';
import { paintedScale } from './woodSide.ts';
import type { PaintRequest } from './woodWorker.ts';

/** A cell of a face as it is drawn. */
export interface DrawnCell {
  polygon: [number, number][];
  strip: string;
}

/** The cells of one side of a thing, mm from its left end and upper edge as it is seen. */
export function drawnCells(thing: Workpiece, side: 'top' | 'under'): DrawnCell[] {
  return showFace(thing, side).map(({ polygon, cell }) => ({ polygon, strip: cell.strip }));
}

/** Everything the painter needs for one side of a thing glued of many cells; the same wood lying the same way has the same key. */
export function faceRequest(
  thing: Workpiece,
  side: 'top' | 'under',
  speciesOf: (strip: string) => Species | undefined,
  scale: number,
  oiled: boolean,
): PaintRequest {
  const logs: Log[] = [];
  const known = new Map<string, number>();
  const at = paintedScale(scale);
  const hash = new Hash();
  const tiles = showFace(thing, side).map(({ polygon, cell }): Tile => {
    const [left, top] = [Math.min(...polygon.map((p) => p[0])), Math.min(...polygon.map((p) => p[1]))];
    const size = [Math.max(...polygon.map((p) => p[0])) - left, Math.max(...polygon.map((p) => p[1])) - top] as const;
    const log = logIndex(cell, speciesOf(cell.strip), logs, known);
    const corner: Triple = side === 'top' ? [left, top, thing.size[2]] : [left, thing.size[1] - top, 0];
    const cut = {
      corner: movedBy(cell.inPiece, corner),
      right: turnedBy(cell.inPiece, [1, 0, 0]),
      down: turnedBy(cell.inPiece, [0, side === 'top' ? 1 : -1, 0]),
      size,
    };
    hash.add(log, left, top, ...size, ...cut.corner, ...cut.right, ...cut.down);
    return { log, cut, at: [left, top], polygon };
  });
  const size = [thing.size[0], thing.size[1]] as const;
  const key = ['face', ...known.keys(), hash.value, size.join('x'), at.toFixed(4), oiled].join('|');
  const nowhere: Triple = [0, 0, 0];
  return {
    key,
    log: logs[0] ?? logOf({ key: '', rings: 'flat', size: [60, 60], defects: [] }, undefined),
    cut: { corner: nowhere, right: [1, 0, 0], down: [0, 1, 0], size },
    mosaic: { logs, tiles },
    scale: at,
    oiled,
    first: true,
  };
}

function logIndex(cell: Cell, species: Species | undefined, logs: Log[], known: Map<string, number>): number {
  const { piece } = cell;
  const source = piece
    ? {
        key: `${piece.id}/${cell.unit}`,
        rings: piece.rings,
        size: [piece.width, piece.thickness] as const,
        defects: piece.defects,
      }
    : { key: `strip/${cell.strip}`, rings: 'flat' as const, size: [60, 60] as const, defects: [] };
  const key = `${source.key}/${source.rings}/${species?.code ?? ''}/${species?.colour ?? ''}/${source.defects.length}`;
  const found = known.get(key);
  if (found !== undefined) return found;
  logs.push(logOf(source, species));
  known.set(key, logs.length - 1);
  return logs.length - 1;
}

/** Many numbers told apart by one, to a tenth of a millimetre. */
class Hash {
  value = 2166136261;
  add(...numbers: number[]): void {
    for (const n of numbers) this.value = Math.imul(this.value ^ Math.round(n * 10), 16777619);
  }
}
