import { firstOf } from '../lists/there.ts';
import { ripsOf } from '../cutting/auditCut.ts';
import type { Blank, RippedStrip } from '../cutting/cutPlan.ts';
import { metalMargin, nearLoss } from '../cutting/unitGeometry.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import { layerGap, layeringOf, type Layering } from '../shop/layering.ts';
import type { Shop } from '../shop/shop.ts';
import { roughSaw, SAFE_WIDTH_MM } from '../shop/tools.ts';
import { isMetal } from '../stock/defect.ts';
import type { Piece } from '../stock/piece.ts';
import { widthAt } from '../stock/shape.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { straightEdgeOf } from './ways.ts';
import { blankThing, type Thing } from './instruction.ts';

/** A layer that is left over is worth sawing off when it could be an accent, mm (common practice: 1/4 in); else it is planed away. */
const LEAST_REST_MM = 6;
/** Left beside the last strip when what lies beyond is sawn off, mm (common practice: a pencil line and a little). */
const BESIDE_MM = 2;

/** One rip of a blank, with the strips it holds, layer on layer. Places across from the near edge, mm. */
export interface Lane {
  thing: Thing;
  strips: RippedStrip[];
  from: number;
  rip: number;
  /** Thickness its part must have when it is ripped, and once it is flat could have, mm. */
  need: number;
  planed: number;
}

/** What is flattened as one: a blank, or what a rough cut along it leaves. */
export interface RoughPart {
  thing: Thing;
  blank: Blank;
  piece: Piece;
  from: number;
  to: number;
  /** It still has the far edge of the stock. */
  toFarEdge: boolean;
  /** To be taken off its near edge until it is straight, mm. */
  straighten: number;
  lanes: Lane[];
}

/** A blank with the rough parts it is sawn into before anything is flat; one part that is the blank itself where it is not. */
export interface BlankWork {
  thing: Thing;
  blank: Blank;
  piece: Piece;
  split: 'metal' | 'tooWide' | 'ripFirst' | null;
  parts: RoughPart[];
}

/** @param gluedOf how thick a strip lying flat is glued, by its id, mm */
export function blankWork(blank: Blank, piece: Piece, shop: Shop, gluedOf: (strip: string) => number): BlankWork {
  const thing = blankThing(piece, blank.unit, blank.number);
  const far = Math.min(widthAt(piece, blank.from), widthAt(piece, blank.from + blank.length));
  const rips = ripsOf(blank).map((strips, i) =>
    laneOf(strips, { id: `${thing.id}/${i + 1}`, label: `${thing.label}/${i + 1}` }, gluedOf),
  );
  const cuts = roughCuts(blank, piece, shop, rips, far);
  if (cuts.bounds.length === 1 && firstOf(cuts.bounds).from === 0 && firstOf(cuts.bounds).to === far) {
    return {
      thing,
      blank,
      piece,
      split: null,
      parts: [partOf(thing, { from: 0, to: far, lanes: rips }, blank, piece, shop, far)],
    };
  }
  const letters = 'abcdefghijklmnopqrstuvwxyz';
  return {
    thing,
    blank,
    piece,
    split: cuts.why,
    parts: cuts.bounds.map((b, i) =>
      partOf(
        { id: `${thing.id}${letters[i] ?? `-${i}`}`, label: `${thing.label}${letters[i] ?? `-${i}`}` },
        b,
        blank,
        piece,
        shop,
        far,
      ),
    ),
  };
}

function laneOf(strips: RippedStrip[], thing: Thing, gluedOf: (strip: string) => number): Lane {
  const first = firstOf(strips);
  const { way, planed } = first;
  const wanted = wantedThickness(first, strips.length, gluedOf(first.demand.stripId));
  return { thing, strips, from: first.from, rip: way.rip, need: strips.length > 1 ? planed : wanted, planed };
}

/** Thickness a strip is glued at, as it lay in the stock, mm: what lies flat is as thick as the panel, or as its layer. */
export function wantedThickness({ way, planed }: RippedStrip, layers: number, glued: number): number {
  if (way.shows === 'edge') return way.thickness;
  return layers === 1 ? Math.min(glued, planed) : Math.min(glued, way.thickness);
}

/** What is left of a ripping beside its layers when the last of them is sawn off as well, mm; 0 where it is planed to size instead. @param thickness of the ripping, mm */
export function sawnRest(strips: readonly RippedStrip[], thickness: number, wanted: number, shop: Shop): number {
  const { way } = firstOf(strips);
  const gap = layerGap(shop, way.rip);
  const layering = layeringOf(shop);
  if (gap === null || !layering) return 0;
  const layers = strips.length === 1 ? wanted : strips.reduce((sum, s) => sum + s.way.thickness, 0);
  return sawnRestOf(layering, thickness, layers, strips.length);
}

/** The same of layers that are so much wood together, mm. @param many how many they are */
export function sawnRestOf({ kerf, clean }: Layering, thickness: number, layers: number, many: number): number {
  const rest = thickness - layers - many * (kerf + 2 * clean) + clean;
  return rest >= LEAST_REST_MM ? rest : 0;
}

/** Where a blank is sawn apart while it is rough: round metal, where it is wider than what flattens it, and strip by strip where that loses less. */
function roughCuts(
  blank: Blank,
  piece: Piece,
  shop: Shop,
  lanes: Lane[],
  far: number,
): { why: NonNullable<BlankWork['split']>; bounds: { from: number; to: number; lanes: Lane[] }[] } {
  const { kerf } = roughSaw(shop);
  const limit = flattenerLimits(shop).width;
  const ripFirst = lanes.some((l) => l.strips.some((s) => s.order === 'ripFirst'));
  const metal = piece.defects
    .filter(
      (d) =>
        isMetal(d) &&
        d.treatment === 'cut' &&
        d.from < blank.from + blank.length - LENGTH_TOLERANCE_MM &&
        d.from + d.length > blank.from + LENGTH_TOLERANCE_MM,
    )
    .map((d) => ({ from: d.across, to: d.across + d.width }));
  const metalIn = (from: number, to: number) =>
    metal.some((m) => m.from < to - LENGTH_TOLERANCE_MM && m.to > from + LENGTH_TOLERANCE_MM);
  // Wood between the cut and a strip: what the strip's edge is straightened by.
  const spare = metalMargin(shop) - shop.saw.kerf;
  const bounds: { from: number; to: number; lanes: Lane[] }[] = [];
  // A strip that is flattened alone takes no waste with it.
  const wasteFirst = ripFirst && firstOf(lanes).from > nearLoss(piece, blank.length, shop) + LENGTH_TOLERANCE_MM;
  let from = metalIn(0, firstOf(lanes).from) || wasteFirst ? firstOf(lanes).from - spare : 0;
  let why: NonNullable<BlankWork['split']> = metalIn(0, firstOf(lanes).from)
    ? 'metal'
    : ripFirst
      ? 'ripFirst'
      : 'tooWide';
  let open: Lane[] = [];
  /** No wider than what flattens it, where the strips themselves are not. */
  const within = (to: number, end: number) => Math.max(end, Math.min(to, from + limit));
  lanes.forEach((lane, i) => {
    open.push(lane);
    const end = lane.from + lane.rip;
    const next = lanes[i + 1];
    if (!next) {
      const beyond = metalIn(end, far);
      const wide = far - from > limit + LENGTH_TOLERANCE_MM && end + kerf < far;
      const alone = ripFirst && far - end > (shop.saw.kerf - kerf) / 2;
      if (beyond) why = 'metal';
      bounds.push({
        from,
        to: beyond
          ? Math.min(far, end + spare)
          : alone
            ? end + (shop.saw.kerf - kerf) / 2
            : wide
              ? within(end + BESIDE_MM, end)
              : far,
        lanes: open,
      });
      return;
    }
    const gap = next.from - end;
    const metalHere = metalIn(end, next.from);
    const wide = next.from + next.rip - from > limit + LENGTH_TOLERANCE_MM && gap >= kerf - LENGTH_TOLERANCE_MM;
    // Neighbours that lose no more together stay together.
    const alone = ripFirst && [lane, next].some((l) => l.strips.some((s) => s.order === 'ripFirst'));
    if (!metalHere && !wide && !alone) return;
    if (metalHere) why = 'metal';
    const side = metalHere ? spare : Math.max(0, (gap - kerf) / 2);
    // A wide gap is left to the part before it, so that an offcut stays whole.
    const close = metalHere || ripFirst || gap < kerf + 4 * BESIDE_MM;
    const to = close ? end + Math.min(side, spare) : within(next.from - kerf - BESIDE_MM, end);
    bounds.push({ from, to, lanes: open });
    from = close ? next.from - Math.min(side, spare) : next.from - BESIDE_MM;
    open = [];
  });
  return { why, bounds };
}

function partOf(
  thing: Thing,
  { from, to, lanes }: { from: number; to: number; lanes: Lane[] },
  blank: Blank,
  piece: Piece,
  shop: Shop,
  far: number,
): RoughPart {
  const first = firstOf(lanes);
  // A raw edge loses its crook; one that was sawn here only what is left beside the first strip.
  const asSawn = straightEdgeOf(shop) === 'offSaw';
  const straighten =
    from > 0 ? first.from - from : asSawn && piece.straight !== 'far' ? 0 : nearLoss(piece, blank.length, shop);
  return { thing, blank, piece, from, to, toFarEdge: to >= far - LENGTH_TOLERANCE_MM, straighten, lanes };
}

/** Whether a rip leaves no room for a push stick. */
export function isNarrow(rip: number): boolean {
  return rip < SAFE_WIDTH_MM - LENGTH_TOLERANCE_MM;
}
