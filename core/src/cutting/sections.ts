import { grouped } from '../lists/grouped.ts';
import { edgeRip, faceRip, isThinFace, type Allowances } from '../board/allowances.ts';
import type { Board } from '../board/board.ts';
import { layerGap } from '../shop/layering.ts';
import type { Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import type { PromisedRange, Way } from './cutPlan.ts';
import { MM_PER_INCH } from '../units/length.ts';
import { widestPart } from './rips.ts';
import { stripsOfAll, usableSize } from './usable.ts';

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
  /** Half of a piece that is resawn. */
  resawn: boolean;
  /** How far the piece is below what the board's thickness asks for, mm; 0 when it is enough. */
  tooThinBy: number;
}

/** Narrowest strip offered from a rip: thinner ones are accents, cut on purpose (common practice: 1/2 in). */
export const LEAST_OFFERED_RIP = 12;
/** Rips offered from one width: whole, halves, thirds ... */
const MOST_RIPS_OFFERED = 6;

/**
 * The widths each piece offers for a board, before anything is cut.
 * Edge grain: the planed thickness, and half of it resawn, if the piece's width gives at least one rip of the board's thickness. Face grain: the usable width whole and in
 * equal parts. Offered widths are what is there, to a tenth of a millimetre downward.
 */
export function sectionsFor(
  board: Board,
  allowances: Allowances,
  rack: readonly Piece[],
  shop: Shop,
  promised: readonly PromisedRange[],
): Section[] {
  // While a joint is dragged only widths change, and what the rack offers stays the same.
  const key = [
    board.construction,
    allowances.roughLength,
    allowances.glueThickness,
    allowances.ripExtra.edge,
    allowances.ripExtra.face,
    allowances.thinFace.extra,
    allowances.proud.by,
  ].join('/');
  const last = LAST.get(rack);
  if (last && last.key === key && last.shop === shop && last.promised === promised) return last.sections;
  const sections = offersOf(board, allowances, rack, shop, promised);
  LAST.set(rack, { key, shop, promised, sections });
  return sections;
}

const LAST = new WeakMap<
  readonly Piece[],
  { key: string; shop: Shop; promised: readonly PromisedRange[]; sections: Section[] }
>();

function offersOf(
  board: Board,
  allowances: Allowances,
  rack: readonly Piece[],
  shop: Shop,
  promised: readonly PromisedRange[],
): Section[] {
  const sections: Section[] = [];
  const promisedOf = grouped(promised, (r) => r.pieceId);
  for (const piece of rack) {
    const length = allowances.roughLength;
    const onEdge = allowances.glueThickness + allowances.ripExtra.edge;
    const usable = usableSize(piece, shop, { length, width: onEdge });
    if (usable.length < length) continue;
    const count = (way: Way) => stripsOfAll(piece, shop, length, way, promisedOf.get(piece.id) ?? []);
    const base = { pieceId: piece.id, mark: piece.mark, species: piece.species, rings: piece.rings };
    if (board.construction === 'edge') {
      const width = downToTenth(usable.thickness);
      const strips = width >= 1 ? count({ shows: 'edge', rip: edgeRip(allowances, width), thickness: width }) : 0;
      if (strips > 0) sections.push({ ...base, width, count: strips, resawn: false, tooThinBy: 0 });
      const half = resawnHalf(usable.thickness, onEdge, shop);
      const halves = half === null ? 0 : 2 * count({ shows: 'edge', rip: edgeRip(allowances, half), thickness: width });
      if (half !== null && halves > 0)
        sections.push({ ...base, width: half, count: halves, resawn: true, tooThinBy: 0 });
      continue;
    }
    for (let rips = 1; rips <= MOST_RIPS_OFFERED; rips += 1) {
      const width = downToTenth(widestFaceStrip(widestPart(usable.width, rips, shop.saw.kerf), allowances));
      if (width < LEAST_OFFERED_RIP) break;
      const rip = faceRip(allowances, width);
      const { thickness } = usableSize(piece, shop, { length, width: rip });
      const tooThinBy = Math.max(0, allowances.glueThickness - thickness);
      const strips = count({ shows: 'face', rip, thickness: Math.min(thickness, allowances.glueThickness) });
      if (strips > 0) sections.push({ ...base, width, count: strips, resawn: false, tooThinBy });
    }
  }
  return sections;
}

/** The widest strip lying flat that comes out of a rip, mm: one too narrow to be jointed has other allowances. */
function widestFaceStrip(rip: number, { ripExtra, thinFace }: Pick<Allowances, 'ripExtra' | 'thinFace'>): number {
  const jointed = rip - ripExtra.face;
  return isThinFace({ thinFace }, jointed) ? Math.min(rip - thinFace.extra, thinFace.below - 0.1) : jointed;
}

/** Thinner halves are accents, cut on purpose (common practice: 1/4 in). */
const LEAST_OFFERED_HALF = 6;

/** Each half of a ripping that is resawn in two and cleaned, mm; null when no saw can or it is not worth it. */
function resawnHalf(thickness: number, height: number, shop: Shop): number | null {
  const gap = layerGap(shop, height);
  if (gap === null) return null;
  const half = downToTenth((thickness - gap) / 2);
  return half >= LEAST_OFFERED_HALF ? half : null;
}

/**
 * The widest strip of a species that any piece gives for this board, mm, or 0 when there is none.
 * A face-grain piece that is too thin for the board still counts: that is the thickness ladder's finding, not the width's.
 */
export function widestStrip(sections: readonly Section[], species: string): number {
  return sections.reduce((widest, s) => (s.species === species ? Math.max(widest, s.width) : widest), 0);
}

/** To a tenth downward; what lies on a sixty-fourth of an inch is what an inch maker planed it to, and stays. */
function downToTenth(mm: number): number {
  const sixtyFourths = (mm * 64) / MM_PER_INCH;
  return Math.abs(sixtyFourths - Math.round(sixtyFourths)) < 1e-6 ? mm : Math.floor(mm * 10 + 1e-6) / 10;
}
