import type { Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Blank, CutPlan, Leftover, StripDemand } from './cutPlan.ts';
import { shortagesOf } from './shortages.ts';
import { type UsableSize, usableSize } from './usable.ts';

interface OpenPiece {
  piece: Piece;
  usable: UsableSize;
  /** Next free position along the piece, mm. */
  next: number;
  /** Where the far end trim begins, mm. */
  farEnd: number;
  blanks: OpenBlank[];
}

interface OpenBlank {
  blank: Blank;
  /** Next free position across the blank, mm. */
  next: number;
}

/**
 * Assigns every demand to a piece by first fit, decreasing rip width: open blanks first, then a new crosscut. Among pieces of the species
 * the one that loses least thickness comes first, then the shortest, so that offcuts go before planks.
 *
 * @param demands strips of all copies; sizes in mm
 * @param fallback tried, thickest piece first, for demands that no piece is thick enough for; false leaves them short
 * @returns blanks whose rips never overlap and stay inside the usable size of their piece
 */
export function firstFit(demands: readonly StripDemand[], rack: readonly Piece[], shop: Shop, fallback: boolean): CutPlan {
  const bySpecies = new Map<string, OpenPiece[]>();
  for (const piece of rack) {
    const trim = shop.habits.stockEndTrim;
    const open = { piece, usable: usableSize(piece, shop.habits), next: trim, farEnd: piece.length - trim, blanks: [] };
    bySpecies.set(piece.species, [...(bySpecies.get(piece.species) ?? []), open]);
  }
  for (const pieces of bySpecies.values()) {
    pieces.sort((a, b) => a.usable.thickness - b.usable.thickness || a.piece.length - b.piece.length || (a.piece.id < b.piece.id ? -1 : 1));
  }

  const unmet: StripDemand[] = [];
  for (const demand of [...demands].sort(byDifficulty)) {
    const pieces = bySpecies.get(demand.species) ?? [];
    const thickEnough = pieces.filter((p) => p.usable.thickness >= demand.thickness - LENGTH_TOLERANCE_MM);
    // Too thin for all: still say which wood it would be, so that the ladder can tell what thickness is possible.
    const candidates = thickEnough.length > 0 || !fallback ? thickEnough : [...pieces].reverse();
    if (!candidates.some((open) => place(demand, open, shop.saw.kerf))) unmet.push(demand);
  }

  // By species, so that the plan does not depend on the order of the rack.
  const open = [...bySpecies.keys()].sort().flatMap((code) => bySpecies.get(code)!).filter((p) => p.blanks.length > 0);
  return {
    method: 'first-fit',
    blanks: open.flatMap((p) => p.blanks.map(({ blank, next }) => ({ ...blank, leftoverWidth: Math.max(0, p.usable.width - next) }))),
    leftovers: open.map((p) => leftoverOf(p, shop)),
    shortages: shortagesOf(unmet, rack, shop, fallback),
  };
}

function byDifficulty(a: StripDemand, b: StripDemand): number {
  return b.rip - a.rip || b.thickness - a.thickness || a.copy - b.copy || a.strip - b.strip;
}

function place(demand: StripDemand, open: OpenPiece, kerf: number): boolean {
  for (const candidate of open.blanks) {
    if (candidate.next + demand.rip <= open.usable.width + LENGTH_TOLERANCE_MM) {
      ripFrom(candidate, demand, kerf);
      return true;
    }
  }
  if (open.next + demand.length > open.farEnd + LENGTH_TOLERANCE_MM) return false;
  if (demand.rip > open.usable.width + LENGTH_TOLERANCE_MM) return false;
  const opened: OpenBlank = {
    blank: { number: open.blanks.length + 1, pieceId: open.piece.id, from: open.next, length: demand.length, strips: [], leftoverWidth: 0 },
    next: 0,
  };
  open.next += demand.length + kerf;
  open.blanks.push(opened);
  ripFrom(opened, demand, kerf);
  return true;
}

function ripFrom(open: OpenBlank, demand: StripDemand, kerf: number): void {
  open.blank.strips.push({ demand, from: open.next });
  open.next += demand.rip + kerf;
}

function leftoverOf(open: OpenPiece, shop: Shop): Leftover {
  const length = Math.max(0, open.piece.length - open.next);
  return { pieceId: open.piece.id, length, kept: length >= shop.habits.keepLength };
}
