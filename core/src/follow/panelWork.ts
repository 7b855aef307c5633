import { certain, entryOf, firstOf, lastOf } from '../lists/there.ts';
import { opensFor, reachesMiddle, wantedPressure } from '../gluing/clamping.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import { slowness, clampCount } from '../shop/gluing.ts';
import { glueOf } from '../shop/shop.ts';
import { MITRE_REACH_MM } from '../shop/tools.ts';
import type { ClampUse, Instruction, InstructionOf, Thing } from '../steps/instruction.ts';
import type { Laid, Made, Panel, Wood } from './bench.ts';
import { marksOnStrips } from './boardWork.ts';
import { FINE, TOLERANCE, woodsIn, type Bench } from './makersBench.ts';

/** Pressure told in whole hundredths is not better known than this, MPa. */
const PRESSURE_TOLERANCE = 0.005;

export function layOut(bench: Bench, i: InstructionOf<'layOut'>): void {
  for (const strip of i.strips) bench.laid.set(strip.part.id, strip);
  // A single strip is the panel: nothing is glued.
  const [only, ...others] = i.strips;
  if (!only || others.length > 0) return;
  const wood = bench.wood(only.part, i);
  if (!wood) return;
  bench.used.add(only.part.id);
  const laid = asMeasured(bench, laidFrom(wood, only));
  bench.panels.set(i.panel.id, {
    thing: i.panel,
    strips: [laid],
    length: wood.x.to - wood.x.from,
    width: laid.width,
    trimmedFar: 0,
    trimmedNear: 0,
    thickness: laid.height,
    proud: 0,
    flat: wood.flat && only.up === 'face',
    hardGlue: false,
  });
}

export function wipe(bench: Bench, thing: Thing): void {
  const wood = bench.things.get(thing.id) ?? bench.slices.get(thing.id) ?? bench.parts.get(thing.id);
  if (wood) wood.wiped = true;
  else bench.wiped.add(thing.id);
}

/** A strip as it lies: standing on edge its thickness shows, lying flat what it was ripped to. */
export function laidFrom(wood: Wood, how: Pick<Laid, 'up' | 'turned' | 'endForEnd' | 'ahead'>): Laid {
  const across = wood.y.to - wood.y.from;
  return {
    wood,
    ...how,
    ...(how.up === 'edge' ? { width: wood.thickness, height: across } : { width: across, height: wood.thickness }),
  };
}

/** A strip as his rule showed it, where he has measured it. */
export function asMeasured({ workshop: { measured } }: Bench, laid: Laid): Laid {
  const was = measured?.get(Number(/^strip (\d+)\//.exec(laid.wood.thing.id)?.[1]));
  return was ? { ...laid, width: was.width ?? laid.width, height: was.thickness ?? laid.height } : laid;
}

export function clampsThere(bench: Bench, i: Instruction, clamps: readonly ClampUse[]): void {
  for (const { kind, count } of clamps) {
    const owned = clampCount(bench.workshop.shop.clamps.filter((c) => c.kind === kind));
    if (count > owned) bench.fail('fewerClamps', i, { id: kind, label: kind }, { is: owned, limit: count });
  }
  if (clamps.length === 0) bench.fail('fewerClamps', i, { id: 'none', label: 'no clamp' }, null);
}

/** What the told clamps really press, those of the shop that get round the panel and reach its middle, against what its hardest wood wants. @param battens through which they press: they need not reach its middle */
export function pressed(bench: Bench, i: InstructionOf<'glue'>, panel: Panel, battens = false): void {
  const { clamps } = bench.workshop.shop;
  const hardness = panel.strips
    .flatMap(({ wood }) => woodsIn(wood))
    .map(({ piece }) => bench.workshop.species.find((s) => s.code === piece.species)?.hardness ?? null);
  const forces = i.clamps.flatMap(({ kind, count }) => {
    const fitting = clamps
      .filter((c) => c.kind === kind && opensFor(c, panel.width) && (battens || reachesMiddle(c, panel.thickness)))
      .sort((x, y) => y.force - x.force)
      .flatMap((c) => Array<number>(c.count).fill(c.force));
    if (fitting.length < count)
      bench.fail(
        'fewerClamps',
        i,
        { id: kind, label: `${i.makes.label}: ${kind}` },
        { is: fitting.length, limit: count },
      );
    return fitting.slice(0, count);
  });
  const pressure = (forces.reduce((sum, f) => sum + f, 0) * 1000) / (panel.length * panel.thickness);
  const wanted = wantedPressure(hardness.some((h) => h === null) ? null : Math.max(...hardness.map((h) => certain(h))));
  if (pressure < wanted - PRESSURE_TOLERANCE) bench.fail('lowPressure', i, i.makes, { is: pressure, limit: wanted });
}

/** The clamps and the glue are there, and the glue leaves the time that is told. */
export function inTime(bench: Bench, i: InstructionOf<'glue'>): void {
  const { shop } = bench.workshop;
  clampsThere(bench, i, i.clamps);
  const glue = shop.glues.find((g) => g.id === i.glue);
  if (!glue) bench.fail('noTool', i, i.makes);
  const slow = slowness(shop.room.temperature);
  const { openMinutes, closedMinutes } = glue ?? glueOf(shop);
  if (
    i.assemblyMinutes > closedMinutes * slow * shop.pace.reserve + 1e-6 ||
    i.layingMinutes > openMinutes * slow + 1e-6
  )
    bench.fail('glueTime', i, i.makes);
}

export function glueUp(bench: Bench, i: InstructionOf<'glue'>): void {
  const { shop } = bench.workshop;
  inTime(bench, i);
  const strips = i.parts.flatMap((thing): Laid[] => {
    const group = bench.panels.get(thing.id);
    if (group) {
      if (bench.used.has(thing.id)) bench.fail('missingPart', i, thing);
      bench.used.add(thing.id);
      return group.strips;
    }
    const wood = bench.wood(thing, i);
    if (!wood) return [];
    bench.used.add(thing.id);
    const how = bench.laid.get(thing.id) ?? { up: 'face' as const, turned: false, endForEnd: false };
    if (!wood.flat) bench.fail('notFlat', i, thing);
    return [asMeasured(bench, laidFrom(wood, how))];
  });
  if (strips.length === 0) return;
  // Oily faces that meet glue now were wiped for it.
  for (const thing of i.parts) {
    const group = bench.panels.get(thing.id);
    const faces = group
      ? [firstOf(group.strips).wood, lastOf(group.strips).wood]
      : [bench.things.get(thing.id)].filter((w) => w !== undefined);
    faces.forEach((wood, k) => {
      if (!bench.isOily(wood)) return;
      const outer =
        (i.parts[0] === thing && group !== undefined && k === 0) ||
        (i.parts.at(-1) === thing && group !== undefined && k === faces.length - 1);
      if (!outer && !wood.wiped) bench.fail('oilyFace', i, wood.thing);
    });
  }
  for (const { wood } of strips) wood.wiped = false;
  const heights = strips.map((s) => s.height);
  const least = Math.min(...heights);
  bench.panels.set(i.makes.id, {
    thing: i.makes,
    strips,
    length: Math.min(...strips.map(({ wood }) => wood.x.to - wood.x.from)),
    width: strips.reduce((sum, s) => sum + s.width, 0),
    trimmedFar: 0,
    trimmedNear: 0,
    thickness: least,
    proud: Math.max(...heights) - least,
    flat: false,
    hardGlue: true,
  });
  pressed(bench, i, entryOf(bench.panels, i.makes.id));
  if (shop.schools.level === 'keys' && i.parts.some((p) => !bench.panels.has(p.id) && !bench.keyed.has(p.id)))
    bench.fail('missingPart', i, i.makes);
}

export function scrape(bench: Bench, i: InstructionOf<'scrape'>, thing: Thing): void {
  const made = bench.panels.get(thing.id) ?? bench.things.get(thing.id);
  if (!made) bench.fail('missingPart', i, thing);
  else made.hardGlue = false;
}

export function guard(bench: Bench, i: InstructionOf<'guard'>): void {
  for (const thing of i.parts) {
    const panel = bench.panels.get(thing.id);
    if (!panel) bench.fail('missingPart', i, thing);
    // Lower than what it guards it would not break out instead.
    else if (i.high < panel.thickness - TOLERANCE) bench.fail('notFlat', i, thing);
    else panel.guarded = i.wide;
  }
}

export function flush(bench: Bench, i: InstructionOf<'flush'>): void {
  bench.tool(i.tool, i, firstOf(i.parts));
  for (const thing of i.parts) {
    const panel = bench.panels.get(thing.id);
    if (!panel) continue;
    const tall = panel.strips.filter((s) => s.height > panel.thickness + TOLERANCE).map((s) => s.wood.thing.id);
    const told = new Set(i.strips.map((s) => s.id));
    if (!tall.every((id) => told.has(id))) continue;
    panel.proud = 0;
    if (!panel.frame) continue;
    // What a frame goes round is flat already.
    if (panel.hardGlue) bench.fail('stillWet', i, thing);
    for (const s of panel.strips) s.height = Math.min(s.height, panel.thickness);
    panel.flat = true;
  }
}

export function flattenPanel(bench: Bench, i: InstructionOf<'flatten'>, panel: Panel): void {
  const { shop } = bench.workshop;
  bench.tool(i.tool, i, panel.thing);
  if (panel.hardGlue) bench.fail('stillWet', i, panel.thing);
  const guarded = shop.schools.endGrain === 'guarded' && shop.planer?.head === 'helical' && panel.guarded !== undefined;
  if (i.tool === 'planer' && !guarded && panel.rows?.slices.some((s) => s.turns.includes('up')))
    bench.fail('endGrainKnives', i, panel.thing);
  const limit =
    { planer: shop.planer?.width, drumSander: shop.drumSander?.width, routerSled: shop.routerSled?.width }[
      i.tool as string
    ] ?? Infinity;
  const width = panel.width + 2 * (panel.guarded ?? 0);
  if (width > limit + FINE) bench.fail('tooWideForMachine', i, panel.thing, { is: width, limit });
  const least =
    { planer: flattenerLimits({ ...shop, jointer: null }).leastLength, drumSander: shop.drumSander?.leastLength }[
      i.tool as string
    ] ?? 0;
  if (panel.length < least - FINE) bench.fail('partTooShort', i, panel.thing, { is: panel.length, limit: least });
  if (panel.thickness < i.to - TOLERANCE)
    bench.fail('notEnoughThickness', i, panel.thing, { is: panel.thickness, limit: i.to });
  if (panel.thickness - i.to < FINE && panel.proud < FINE) bench.fail('nothingToPlane', i, panel.thing);
  for (const s of panel.strips) s.height = Math.min(s.height, i.to);
  panel.thickness = Math.min(panel.thickness, i.to);
  panel.proud = 0;
  panel.flat = true;
}

export function trimEdge(bench: Bench, i: InstructionOf<'trimEdge'>): void {
  const { shop } = bench.workshop;
  for (const thing of i.parts) {
    const panel = bench.panels.get(thing.id);
    if (!panel) {
      bench.fail('missingPart', i, thing);
      continue;
    }
    bench.tool(i.saw.tool, i, thing);
    if (!panel.flat) bench.fail('notFlat', i, thing);
    if (i.saw.tool !== 'handSaw' && panel.thickness > shop.saw.cutDepth + FINE)
      bench.fail('tooThick', i, thing, { is: panel.thickness, limit: shop.saw.cutDepth });
    if (panel.width - i.off < i.leaves - TOLERANCE)
      bench.fail('notEnoughWidth', i, thing, { is: panel.width - i.off, limit: i.leaves });
    if (i.side === 'far') panel.trimmedFar += i.off;
    else panel.trimmedNear += i.off;
    panel.width = Math.max(0, panel.width - i.off);
  }
}

export function cutBoards(bench: Bench, i: InstructionOf<'crosscutPanel'>): void {
  const panel = bench.panels.get(i.part.id);
  if (!panel) return bench.fail('missingPart', i, i.part);
  bench.used.add(i.part.id);
  bench.tool(i.saw.tool, i, i.part);
  if (!panel.flat) bench.fail('notFlat', i, i.part);
  if (i.saw.tool === 'mitreSaw' && panel.width > MITRE_REACH_MM + FINE)
    bench.fail('tooWideForMachine', i, i.part, { is: panel.width, limit: MITRE_REACH_MM });
  let free = 0;
  // Where rows end in clean faces the blade may run half beside the wood, or nothing is cut; of a block what falls off is told with its kerf.
  const kerf = panel.rows || panel.parts || panel.frame || panel.back ? 0 : i.saw.kerf;
  if ((panel.over ?? 0) > TOLERANCE) bench.fail('notFlat', i, i.part);
  for (const cut of i.cuts) {
    if (cut.at - kerf < free - FINE || cut.at + cut.length + kerf > panel.length + FINE)
      bench.fail('notEnoughLength', i, cut.part, { is: panel.length, limit: cut.at + cut.length + kerf });
    free = cut.at + cut.length;
    if (cut.width > panel.width + TOLERANCE)
      bench.fail('notEnoughWidth', i, cut.part, { is: panel.width, limit: cut.width });
    const board: Made = {
      thing: cut.part,
      panel,
      x: cut.at,
      y: panel.trimmedFar,
      length: cut.length,
      width: Math.min(cut.width, panel.width),
      thickness: panel.thickness,
      features: [],
      worked: [],
      sanded: false,
      wetted: false,
      coats: [],
      fitted: [],
      feet: 0,
    };
    bench.boards.set(cut.part.id, board);
    if (cut.part.id.startsWith('board ')) marksOnStrips(bench, i, board);
  }
}
