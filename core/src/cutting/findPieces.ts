import { stripsOfAll } from './usable.ts';
import type { PromisedRange, Way } from './cutPlan.ts';
import type { Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import type { Species } from '../wood/species.ts';

export type SortKey = 'mark' | 'length' | 'width' | 'thickness' | 'volume';

/** What is looked for in the rack. */
export interface Search {
  text: string;
  species: string | null;
  /** A strip that the piece must still give, mm; null when anything will do. */
  strip: { length: number; width: number; thickness: number } | null;
  sort: SortKey;
}

export const FIND_ALL: Search = { text: '', species: null, strip: null, sort: 'mark' };

const natural = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' });

/** Pieces that fit a search, in its order. Every word must be found in mark, species, note, shelf or origin. */
export function findPieces<P extends { piece: Piece }>(
  pieces: readonly P[],
  search: Search,
  species: readonly Species[],
  shop: Shop,
  promised: readonly PromisedRange[],
): P[] {
  const words = search.text.toLowerCase().split(/\s+/).filter(Boolean);
  const names = new Map(species.map((s) => [s.code, s.name]));
  const found = pieces.filter(({ piece }) => {
    if (search.species !== null && piece.species !== search.species) return false;
    if (words.length > 0) {
      const told = [
        piece.mark,
        names.get(piece.species),
        piece.note,
        piece.shelf,
        piece.origin.kind,
        piece.origin.of,
        ...piece.defects.map((d) => d.kind),
      ]
        .join(' ')
        .toLowerCase();
      if (!words.every((w) => told.includes(w))) return false;
    }
    return search.strip === null || givesStrip(piece, search.strip, shop, promised);
  });
  const size = ({ piece: p }: P) =>
    search.sort === 'volume' ? p.length * p.width * p.thickness : search.sort === 'mark' ? 0 : p[search.sort];
  return found.sort((a, b) => size(b) - size(a) || natural.compare(a.piece.mark, b.piece.mark));
}

/** Whether a piece still gives a strip of a size, either way round, from what is not promised. */
export function givesStrip(
  piece: Piece,
  strip: { length: number; width: number; thickness: number },
  shop: Shop,
  promised: readonly PromisedRange[],
): boolean {
  const { length, width, thickness } = strip;
  const gives = (way: Way) => stripsOfAll(piece, shop, length, way, promised) > 0;
  return gives({ shows: 'face', rip: width, thickness }) || gives({ shows: 'edge', rip: thickness, thickness: width });
}
