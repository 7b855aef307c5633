import { entryOf } from '../lists/there.ts';
import type { RippedStrip } from '../cutting/cutPlan.ts';
import { flatteningLoss } from '../cutting/flattening.ts';
import { firstFaceOnSled } from '../shop/flattener.ts';
import { layeringOf } from '../shop/layering.ts';
import type { Shop } from '../shop/shop.ts';
import { thicknessAt } from '../stock/shape.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { PlanContext } from '../ladders/context.ts';
import { gluedHeight } from '../ladders/gluedThickness.ts';
import type { Thing } from './instruction.ts';
import { demandThing } from './panelThings.ts';
import { blankWork, sawnRest, wantedThickness, type BlankWork, type Lane, type RoughPart } from './stockWork.ts';

/** A strip between the saw and the glue: where it is cut from and what it still wants. */
export interface MilledStrip {
  thing: Thing;
  strip: RippedStrip;
  lane: Lane;
  part: RoughPart;
  /** Thickness off the saw, and ready for glue, mm. */
  sawn: number;
  wanted: number;
  /** Sawn through the thickness of its ripping, and what is left of that then, mm. */
  resawn: boolean;
  rest: number;
}

/** What the milling steps share. */
export interface Milling {
  context: PlanContext;
  /** All that is or was cut, and what is still to be cut. */
  all: BlankWork[];
  open: BlankWork[];
  strips: MilledStrip[];
  /** Thickness each rough part is planed to, by its id, mm. */
  planeTo: ReadonlyMap<string, number>;
}

export function millingOf(context: PlanContext): Milling {
  const heights = new Map<string, number>();
  const gluedOf = (strip: string): number => {
    const known = heights.get(strip) ?? gluedHeight(context, strip);
    heights.set(strip, known);
    return known;
  };
  const all = context.cutting.blanks.flatMap((blank) => {
    const piece = context.pieces.get(blank.pieceId);
    return piece ? [blankWork(blank, piece, context.shop, gluedOf)] : [];
  });
  const planeTo = planedThicknesses(all, context.shop);
  const strips = all.flatMap((work) =>
    work.parts.flatMap((part) =>
      part.lanes.flatMap((lane) => stripsOfLane(lane, part, entryOf(planeTo, part.thing.id), context, gluedOf)),
    ),
  );
  return {
    context,
    all,
    open: all.filter((w) => !w.blank.done),
    strips,
    planeTo,
  };
}

/**
 * All parts of a piece are planed to what the thickest of their strips wants, if they give it; strips that were ripped first each to their own. What would be planed to
 * shavings, where a saw can take it off whole, stays as thick as it can.
 */
function planedThicknesses(all: readonly BlankWork[], shop: Shop): Map<string, number> {
  const planeTo = new Map<string, number>();
  const key = ({ piece, blank }: BlankWork) => `${blank.done}/${piece.id}`;
  const lanesOf = new Map<string, Lane[]>();
  for (const work of all) {
    if (work.split === 'ripFirst') continue;
    lanesOf.set(key(work), [...(lanesOf.get(key(work)) ?? []), ...work.parts.flatMap((p) => p.lanes)]);
  }
  const together = new Map([...lanesOf].map(([of, lanes]) => [of, thicknessTogether(lanes, shop)]));
  for (const work of all) {
    for (const part of work.parts) {
      const own = Math.max(...part.lanes.map((l) => l.need));
      const wanted = work.split === 'ripFirst' ? thicknessTogether(part.lanes, shop) : entryOf(together, key(work));
      planeTo.set(
        part.thing.id,
        Math.max(own, Math.min(wanted, flatThickness(part, shop), ...part.lanes.map((l) => l.planed))),
      );
    }
  }
  return planeTo;
}

/** What a rough part has once it is flat, at the width it is really sawn to: a little beside its strips takes a little of the cup with it, mm. */
function flatThickness({ piece, blank, from, to }: RoughPart, shop: Shop): number {
  const part = { length: blank.length, width: to - from };
  const thinnest = Math.min(thicknessAt(piece, blank.from), thicknessAt(piece, blank.from + blank.length));
  return thinnest - flatteningLoss(piece, part, shop.habits, firstFaceOnSled(shop, part)).total;
}

function thicknessTogether(lanes: readonly Lane[], shop: Shop): number {
  const most = Math.max(...lanes.map((l) => l.need));
  const thickest = lanes.filter((l) => l.need >= most - LENGTH_TOLERANCE_MM);
  return thickest.every((l) => l.strips.length === 1 && sawnRest(l.strips, l.planed, l.need, shop) > 0)
    ? Math.min(...thickest.map((l) => l.planed))
    : most;
}

function stripsOfLane(
  lane: Lane,
  part: RoughPart,
  thickness: number,
  context: PlanContext,
  gluedOf: (strip: string) => number,
): MilledStrip[] {
  const layering = layeringOf(context.shop);
  const last = lane.strips.length - 1;
  return lane.strips.map((strip, i) => {
    const wanted = wantedThickness(strip, lane.strips.length, gluedOf(strip.demand.stripId));
    const rest = layering
      ? sawnRest(lane.strips, thickness, lane.strips.length === 1 ? wanted : strip.way.thickness, context.shop)
      : 0;
    const resawn = lane.strips.length > 1 || rest > 0;
    // The last layer is what is left, unless a rest is sawn off it.
    const used = lane.strips
      .slice(0, last)
      .reduce((sum, s) => sum + s.way.thickness + (layering ? layering.kerf + 2 * layering.clean : 0), 0);
    const sawn =
      !resawn || !layering
        ? thickness
        : i < last || rest > 0
          ? strip.way.thickness + layering.clean
          : thickness - used + layering.clean;
    return {
      thing: demandThing(strip.demand, context),
      strip,
      lane,
      part,
      sawn: resawn && lane.strips.length === 1 && layering ? wanted + layering.clean : sawn,
      wanted,
      resawn,
      rest,
    };
  });
}
