import { grouped } from '../lists/grouped.ts';
import { firstOf } from '../lists/there.ts';
import { layerGap, layeringOf } from '../shop/layering.ts';
import type { Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { ripVolume, thicknessAt, volumeBetween, widthAt } from '../stock/shape.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Blank, Leftover, PromisedRange, RippedStrip } from './cutPlan.ts';

const TOLERANCE = 10 * LENGTH_TOLERANCE_MM;

/** Something a cut plan must never do. */
export interface CutFault {
  pieceId: string;
  unit: number;
  fault:
    | 'noPiece'
    | 'outside'
    | 'blanksOverlap'
    | 'stripsOverlap'
    | 'promised'
    | 'defect'
    | 'noCleanSide'
    | 'tooThin'
    | 'species';
}

/**
 * Checks where blanks and strips lie against the pieces themselves, by rectangles on the piece: nothing of the search is used. The server
 * asks this before it promises wood.
 */
export function auditCut(
  blanks: readonly Blank[],
  rack: readonly Piece[],
  promised: readonly PromisedRange[],
  shop: Shop,
): CutFault[] {
  const pieces = new Map(rack.map((p) => [p.id, p]));
  const unitOf = (place: { pieceId: string; unit: number }) => `${place.pieceId}/${place.unit}`;
  const promisedOf = grouped(promised, unitOf);
  const beside = new Map<string, Blank[]>();
  const faults: CutFault[] = [];
  for (const blank of blanks) {
    const piece = pieces.get(blank.pieceId);
    const report = (fault: CutFault['fault']) => faults.push({ pieceId: blank.pieceId, unit: blank.unit, fault });
    if (!piece || blank.unit >= piece.count) {
      report('noPiece');
      continue;
    }
    const to = blank.from + blank.length;
    const kerf = shop.crosscutSaw.kerf;
    const touches = (from: number, end: number) => blank.from < end + kerf - TOLERANCE && to > from - kerf + TOLERANCE;
    const trim = (end: Piece['ends']['mark']) =>
      Math.max(end.sawn ? 0 : shop.habits.stockEndTrim, end.checked, end.snipe);
    const nearest = trim(piece.ends.mark);
    const farthest = piece.length - trim(piece.ends.far);
    if (blank.from < nearest - TOLERANCE || to > farthest + TOLERANCE) report('outside');
    const before = beside.get(unitOf(blank)) ?? [];
    if (before.some((b) => touches(b.from, b.from + b.length))) report('blanksOverlap');
    before.push(blank);
    beside.set(unitOf(blank), before);
    if (promisedOf.get(unitOf(blank))?.some((r) => touches(r.from, r.to))) report('promised');
    const width = Math.min(widthAt(piece, blank.from), widthAt(piece, to));
    blank.strips.forEach((strip, k) => {
      const end = strip.from + strip.way.rip;
      if (strip.demand.species !== piece.species) report('species');
      if (strip.from < -TOLERANCE || end > width + TOLERANCE) report('outside');
      for (const other of blank.strips.slice(0, k)) {
        const sameRip =
          Math.abs(other.from - strip.from) < TOLERANCE && other.layers === strip.layers && other.layer !== strip.layer;
        if (
          !sameRip &&
          strip.from < other.from + other.way.rip + shop.saw.kerf - TOLERANCE &&
          end + shop.saw.kerf > other.from + TOLERANCE
        )
          report('stripsOverlap');
      }
      const meets = piece.defects.filter(
        (d) =>
          d.treatment !== 'harmless' &&
          d.from < to - TOLERANCE &&
          d.from + d.length > blank.from + TOLERANCE &&
          d.across < end - TOLERANCE &&
          d.across + d.width > strip.from + TOLERANCE,
      );
      if (meets.some((d) => d.treatment === 'cut')) report('defect');
      const hidden = meets.filter((d) => d.treatment === 'under');
      const spoils =
        strip.way.shows === 'face'
          ? hidden.some((d) => d.face !== 'down') && hidden.some((d) => d.face !== 'up')
          : hidden.some((d) => d.across <= strip.from + TOLERANCE) &&
            hidden.some((d) => d.across + d.width >= end - TOLERANCE);
      if (spoils) report('noCleanSide');
    });
    const thickness = Math.min(thicknessAt(piece, blank.from), thicknessAt(piece, to));
    for (const layers of ripsOf(blank)) {
      const between = (layers.length - 1) * (layerGap(shop, firstOf(layers).way.rip) ?? Infinity);
      const needed = layers.reduce((sum, s) => sum + s.way.thickness, 0) + (layers.length > 1 ? between : 0);
      if (needed > firstOf(layers).planed + TOLERANCE || firstOf(layers).planed > thickness + TOLERANCE)
        report('tooThin');
    }
  }
  return faults;
}

/** Strips of a blank by the rip they come from, layer on layer. */
export function ripsOf(blank: Pick<Blank, 'strips'>): RippedStrip[][] {
  const rips = grouped(blank.strips, (s) => s.from);
  return [...rips.values()].sort((a, b) => firstOf(a).from - firstOf(b).from);
}

/** Where a piece's volume goes, mm3. */
export interface VolumeAccount {
  stock: number;
  /** As long, wide and thick as they are asked for. */
  strips: number;
  kept: number;
  kerf: number;
  /** Trims, edges, wood beside or between that is too small to keep, and what the planer takes. */
  waste: number;
}

/**
 * Adds up a piece from the places of its cuts, each part measured on its own: stock must come out as strips + kept + kerf + waste.
 * @param blanks of this unit; `leftovers` of this unit
 */
export function volumeAccount(
  piece: Piece,
  blanks: readonly Blank[],
  leftovers: readonly Leftover[],
  shop: Shop,
): VolumeAccount {
  const account: VolumeAccount = {
    stock: volumeBetween(piece, 0, piece.length),
    strips: 0,
    kept: 0,
    kerf: 0,
    waste: 0,
  };
  const sorted = [...blanks].sort((a, b) => a.from - b.from);
  const crosscut = shop.crosscutSaw.kerf;
  let at = 0;
  for (const [i, blank] of sorted.entries()) {
    const to = blank.from + blank.length;
    const before = Math.min(crosscut, blank.from - at);
    account.kerf += volumeBetween(piece, blank.from - before, blank.from);
    settle(at, blank.from - before);
    const next = sorted[i + 1]?.from ?? piece.length;
    const after = Math.min(crosscut, next - to);
    account.kerf += volumeBetween(piece, to, to + after);
    at = to + after;
    insideBlank(blank);
  }
  settle(at, piece.length);
  return account;

  function settle(from: number, to: number): void {
    if (to <= from) return;
    const volume = volumeBetween(piece, from, to);
    const left = leftovers.find(
      (l) => !l.side && l.kept && l.from < to - TOLERANCE && l.from + l.length > from + TOLERANCE,
    );
    if (left) account.kept += volume;
    else account.waste += volume;
  }

  function insideBlank(blank: Blank): void {
    const to = blank.from + blank.length;
    const slice = (width: number) => ripVolume(piece, blank.from, to, width);
    const side = leftovers.find(
      (l) =>
        l.side && l.kept && Math.abs(l.from - blank.from) < TOLERANCE && Math.abs(l.length - blank.length) < TOLERANCE,
    );
    let y = 0;
    const narrow = Math.min(widthAt(piece, blank.from), widthAt(piece, to));
    for (const layers of ripsOf(blank)) {
      const first = firstOf(layers);
      // What lies before a rip is one cut and waste, except at a straight edge.
      const gap = first.from - y;
      const cut = y === 0 ? 0 : Math.min(shop.saw.kerf, gap);
      account.kerf += slice(cut);
      account.waste += slice(gap - cut);
      const strips = layers.reduce((sum, s) => sum + blank.length * s.way.rip * s.way.thickness, 0);
      const resaw =
        layers.length > 1 ? (layers.length - 1) * (layeringOf(shop)?.kerf ?? 0) * blank.length * first.way.rip : 0;
      account.strips += strips;
      account.kerf += resaw;
      account.waste += slice(first.way.rip) - strips - resaw;
      y = first.from + first.way.rip;
    }
    const beside = narrow - y;
    const lastCut = Math.min(shop.saw.kerf, beside);
    account.kerf += slice(lastCut);
    if (side) account.kept += slice(side.width);
    const wedge = volumeBetween(piece, blank.from, to) - slice(narrow);
    account.waste += slice(beside - lastCut - (side?.width ?? 0)) + wedge;
  }
}
