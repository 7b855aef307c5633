import type { Allowances } from '../board/allowances.ts';
import type { Board } from '../board/board.ts';
import type { Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { partsAcross, widestPart } from './rips.ts';
import { usableSize } from './usable.ts';

/** A strip width that a piece of the rack gives for this board. */
export interface Section {
  pieceId: string;
  mark: string;
  species: string;
  rings: Piece['rings'];
  /** Strip width in the panel, mm. */
  width: number;
  /** Strips of it that the whole piece gives at this board's rough length. */
  count: number;
  /** How far the piece is below what the board's thickness asks for, mm; 0 when it is enough. */
  tooThinBy: number;
}

/** Narrowest strip offered from a rip: thinner ones are accents, cut on purpose (common practice: 1/2 in). */
const LEAST_OFFERED_RIP = 12;
/** Rips offered from one width: whole, halves, thirds ... */
const MOST_RIPS_OFFERED = 6;

/**
 * The widths each piece offers for a board, before anything is cut.
 * Edge grain: the planed thickness, if its width gives at least one rip of the board's thickness. Face grain: the usable width whole and in
 * equal parts. Offered widths are what is there, to a tenth of a millimetre downward.
 */
export function sectionsFor(board: Board, allowances: Allowances, rack: readonly Piece[], shop: Shop): Section[] {
  const sections: Section[] = [];
  for (const piece of rack) {
    const usable = usableSize(piece, shop.habits);
    const lengths = partsAcross(usable.length, allowances.roughLength, shop.saw.kerf);
    if (lengths === 0) continue;
    const base = { pieceId: piece.id, mark: piece.mark, species: piece.species, rings: piece.rings };
    if (board.construction === 'edge') {
      const rips = partsAcross(usable.width, allowances.glueThickness, shop.saw.kerf);
      const width = downToTenth(usable.thickness);
      if (rips > 0 && width >= 1) sections.push({ ...base, width, count: lengths * rips, tooThinBy: 0 });
      continue;
    }
    const tooThinBy = Math.max(0, allowances.glueThickness - usable.thickness);
    for (let rips = 1; rips <= MOST_RIPS_OFFERED; rips += 1) {
      const width = downToTenth(widestPart(usable.width, rips, shop.saw.kerf) - allowances.ripExtra);
      if (width < LEAST_OFFERED_RIP) break;
      sections.push({ ...base, width, count: lengths * rips, tooThinBy });
    }
  }
  return sections;
}

/**
 * The widest strip of a species that any piece gives for this board, mm, or 0 when there is none.
 * A face-grain piece that is too thin for the board still counts: that is the thickness ladder's finding, not the width's.
 */
export function widestStrip(sections: readonly Section[], species: string): number {
  return sections.reduce((widest, s) => (s.species === species ? Math.max(widest, s.width) : widest), 0);
}

function downToTenth(mm: number): number {
  return Math.floor(mm * 10 + 1e-6) / 10;
}
