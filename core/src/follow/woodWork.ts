import { nth } from '../lists/there.ts';
import { formOfPart, thicknessLost } from '../cutting/flattening.ts';
import { firstFaceOnSled } from '../shop/flattener.ts';
import { ripTool, SAFE_RIP_LENGTH_MM, SAFE_WIDTH_MM } from '../shop/tools.ts';
import { isMetal } from '../stock/defect.ts';
import { thicknessAt, widthAt } from '../stock/shape.ts';
import type { Instruction, InstructionOf, Thing } from '../steps/instruction.ts';
import { passDepthFor } from '../steps/ways.ts';
import { overlaps, placeOf, type Wood } from './bench.ts';
import { FINE, TOLERANCE, woodsIn, type Bench } from './makersBench.ts';
import { flattenPanel } from './panelWork.ts';

export function crosscut(bench: Bench, i: InstructionOf<'crosscut'>): void {
  const stock = bench.stock(i.part, i);
  if (!stock) return;
  bench.tool(i.saw.tool, i, i.part);
  const { piece } = stock;
  const parts = i.cuts.map(({ part, at, length }): Wood => {
    const from = i.end === 'far' ? piece.length - at - length : at;
    const x = { from, to: from + length };
    if (x.from < -FINE || x.to > piece.length + FINE)
      bench.fail('notEnoughLength', i, part, { is: piece.length, limit: x.to });
    for (const cut of [
      { from: x.from - i.saw.kerf, to: x.from },
      { from: x.to, to: x.to + i.saw.kerf },
    ])
      if (bench.metal(piece, cut, stock.y)) bench.fail('metalUnderBlade', i, part);
    const y =
      stock.flat && piece.farEnd === null
        ? stock.y
        : { from: 0, to: Math.min(widthAt(piece, x.from), widthAt(piece, x.to)) };
    const ends = [thicknessAt(piece, x.from), thicknessAt(piece, x.to)];
    return {
      ...stock,
      thing: part,
      x,
      y,
      ...(!stock.flat ? { thickness: Math.min(...ends), thickest: Math.max(...ends) } : {}),
    };
  });
  const sorted = [...parts].sort((a, b) => a.x.from - b.x.from);
  sorted.forEach((p, k) => {
    if (k > 0 && p.x.from < nth(sorted, k - 1).x.to + i.saw.kerf - FINE)
      bench.fail('notEnoughLength', i, p.thing, { is: p.x.from, limit: nth(sorted, k - 1).x.to + i.saw.kerf });
  });
  bench.replace(stock, parts);
}

export function splitRough(bench: Bench, i: InstructionOf<'split'>): void {
  const wood = bench.wood(i.part, i);
  if (!wood) return;
  bench.tool(i.saw.tool, i, i.part);
  if (i.saw.tool === 'tableSaw') bench.fail('noStraightEdge', i, i.part);
  const straight = i.saw.tool === 'carrierSled' || i.saw.tool === 'circularSaw';
  const parts = i.parts.map(({ part, from, to }): Wood => {
    if (from < wood.y.from - FINE || to > wood.y.to + FINE)
      bench.fail('notEnoughWidth', i, part, { is: wood.y.to, limit: to });
    const cuts = [
      ...(from > wood.y.from + FINE ? [{ from: from - i.saw.kerf, to: from }] : []),
      ...(to < wood.y.to - FINE ? [{ from: to, to: to + i.saw.kerf }] : []),
    ];
    if (cuts.some((c) => bench.metal(wood.piece, wood.x, c))) bench.fail('metalUnderBlade', i, part);
    return {
      ...wood,
      thing: part,
      y: { from, to },
      near: from > wood.y.from + FINE ? (straight ? 'straight' : 'rough') : wood.near,
      far: to < wood.y.to - FINE ? (straight ? 'straight' : 'rough') : wood.far,
    };
  });
  bench.replace(wood, parts);
}

/** What a part loses until it is flat, as the piece was measured or as the shop knows its stock, mm. */
function lossOf(bench: Bench, wood: Wood): number {
  const { piece } = wood;
  const { habits } = bench.workshop.shop;
  if (piece.surface === 'ready') return 0;
  const part = { length: wood.x.to - wood.x.from, width: wood.y.to - wood.y.from };
  const form = piece.form
    ? thicknessLost(formOfPart(piece.form, piece, part))
    : piece.surface === 'rough'
      ? habits.flattenRough
      : habits.flattenSurfaced;
  const rough = { rough: 2, oneFace: 1, twoFaces: 0, fourSides: 0 }[piece.surface];
  return form + rough * habits.skimRough + (2 - rough) * habits.skimSurfaced;
}

export function flatten(bench: Bench, i: InstructionOf<'flatten'>): void {
  for (const thing of i.parts) {
    const panel = bench.panels.get(thing.id);
    if (panel) {
      flattenPanel(bench, i, panel);
      continue;
    }
    const wood = bench.stock(thing, i);
    if (!wood) continue;
    if (bench.laid.get(thing.id)?.up === 'edge') {
      levelStanding(bench, i, wood);
      continue;
    }
    machine(bench, i, wood);
    if (bench.metal(wood.piece, wood.x, wood.y)) bench.fail('metalUnderBlade', i, thing);
    const wasFlat = wood.flat;
    const loss = wasFlat ? 0 : lossOf(bench, wood);
    if (wasFlat && wood.thickest - i.to < FINE) bench.fail('nothingToPlane', i, thing);
    if (wood.thickness - loss < i.to - TOLERANCE)
      bench.fail('notEnoughThickness', i, thing, { is: wood.thickness - loss, limit: i.to });
    passes(bench, i, wood.thickest - i.to, wood.y.to - wood.y.from, wood.piece.species, thing);
    wood.flat = true;
    wood.thickness = Math.min(wood.thickness, i.to);
    wood.thickest = wood.thickness;
  }
}

/** A strip that stands in the panel alone is levelled with the sections: what comes off is its width in the stock. */
function levelStanding(bench: Bench, i: InstructionOf<'flatten'>, wood: Wood): void {
  const high = wood.y.to - wood.y.from;
  if (high < i.to - TOLERANCE) bench.fail('notEnoughThickness', i, wood.thing, { is: high, limit: i.to });
  const middle = (wood.y.from + wood.y.to) / 2;
  wood.y = { from: middle - i.to / 2, to: middle + i.to / 2 };
}

/** Passes that are told take off what they must, none of them too deep. */
function passes(
  bench: Bench,
  i: InstructionOf<'flatten'> | InstructionOf<'thickness'>,
  removal: number,
  width: number,
  species: string,
  thing: Thing,
): void {
  const { planer } = bench.workshop.shop;
  if (i.passes === null || !planer) return;
  const hardness = bench.workshop.species.find((s) => s.code === species)?.hardness ?? null;
  const needed = Math.ceil(removal / passDepthFor(planer, { width, hardness }) - 1e-6);
  if (i.passes < needed) bench.fail('notEnoughThickness', i, thing, { is: i.passes, limit: needed });
}

/** What a machine takes: its widths, lengths and thicknesses. */
function machine(bench: Bench, i: InstructionOf<'flatten'> | InstructionOf<'thickness'>, wood: Wood): void {
  const { shop } = bench.workshop;
  bench.tool(i.tool, i, wood.thing);
  const [long, wide] = [wood.x.to - wood.x.from, wood.y.to - wood.y.from];
  if (i.do === 'flatten' && i.first === 'jointer' && firstFaceOnSled(shop, { length: long, width: wide }))
    bench.fail(wide > (shop.jointer?.width ?? 0) ? 'tooWideForMachine' : 'partTooShort', i, wood.thing, {
      is: long,
      limit: shop.jointer?.leastLength ?? 0,
    });
  if (i.tool === 'planer' && shop.planer) {
    const { width, leastLength, leastThickness, leastWidth } = shop.planer;
    if (wide > width + FINE) bench.fail('tooWideForMachine', i, wood.thing, { is: wide, limit: width });
    if (long < leastLength - FINE) bench.fail('partTooShort', i, wood.thing, { is: long, limit: leastLength });
    if (wide < leastWidth - FINE) bench.fail('tooNarrowForMachine', i, wood.thing, { is: wide, limit: leastWidth });
    if (i.to < leastThickness - FINE && !(i.do === 'thickness' && i.carrier))
      bench.fail('tooThinForMachine', i, wood.thing, { is: i.to, limit: leastThickness });
  }
  if (i.tool === 'drumSander' && shop.drumSander) {
    if (wide > shop.drumSander.width + FINE)
      bench.fail('tooWideForMachine', i, wood.thing, { is: wide, limit: shop.drumSander.width });
    if (long < shop.drumSander.leastLength - FINE)
      bench.fail('partTooShort', i, wood.thing, { is: long, limit: shop.drumSander.leastLength });
  }
  if (i.tool === 'routerSled' && shop.routerSled && wide > shop.routerSled.width + FINE)
    bench.fail('tooWideForMachine', i, wood.thing, { is: wide, limit: shop.routerSled.width });
}

/** An edge over the jointer: long enough for its tables, and wide enough for a push block. */
function overJointer(
  bench: Bench,
  i: InstructionOf<'straighten'> | InstructionOf<'joint'>,
  { thing, x, y }: Wood,
): void {
  const { jointer } = bench.workshop.shop;
  if (i.tool !== 'jointer') return;
  const [long, wide] = [x.to - x.from, y.to - y.from];
  if (jointer && long < jointer.leastLength - FINE)
    bench.fail('partTooShort', i, thing, { is: long, limit: jointer.leastLength });
  if (wide < SAFE_WIDTH_MM - FINE) bench.fail('tooNarrowForMachine', i, thing, { is: wide, limit: SAFE_WIDTH_MM });
}

export function straighten(bench: Bench, i: InstructionOf<'straighten'>): void {
  for (const thing of i.parts) {
    const wood = bench.wood(thing, i);
    if (!wood) continue;
    bench.tool(i.tool, i, thing);
    const long = wood.x.to - wood.x.from;
    overJointer(bench, i, wood);
    const crook =
      wood.near === 'raw' && wood.piece.form && wood.piece.straight === 'none'
        ? formOfPart(wood.piece.form, wood.piece, { length: long, width: wood.y.to - wood.y.from }).crook
        : 0;
    if (ripTool(bench.workshop.shop) === i.tool && wood.far !== 'straight') bench.fail('noStraightEdge', i, thing);
    if (i.by < crook - FINE) bench.fail('noStraightEdge', i, thing, { is: i.by, limit: crook });
    if (bench.metal(wood.piece, wood.x, { from: wood.y.from, to: wood.y.from + i.by }))
      bench.fail('metalUnderBlade', i, thing);
    wood.y = { from: wood.y.from + i.by, to: wood.y.to };
    wood.near = 'straight';
  }
}

export function ripParts(bench: Bench, i: InstructionOf<'rip'>): void {
  for (const thing of i.parts) {
    const wood = bench.wood(thing, i);
    if (!wood) continue;
    ripOne(bench, i, wood);
  }
}

function ripOne(bench: Bench, i: InstructionOf<'rip'>, wood: Wood): void {
  const { shop } = bench.workshop;
  const whole = i.saw.tool === 'hands';
  if (!whole) bench.tool(i.saw.tool, i, wood.thing);
  const long = wood.x.to - wood.x.from;
  const guided = i.guide === 'fence' || i.guide === 'stop';
  if (!whole && guided && wood.near !== 'straight') bench.fail('noStraightEdge', i, wood.thing);
  if (!whole && !wood.flat) bench.fail('notFlat', i, wood.thing);
  if (i.saw.tool === 'tableSaw' && i.guide === 'fence' && long < SAFE_RIP_LENGTH_MM - FINE)
    bench.fail('partTooShort', i, wood.thing, { is: long, limit: SAFE_RIP_LENGTH_MM });
  const reach = i.saw.tool === 'bandSaw' ? (shop.bandSaw?.resawHeight ?? 0) : shop.saw.cutDepth;
  if (!whole && i.saw.tool !== 'handSaw' && wood.thickness > reach + FINE)
    bench.fail('tooThick', i, wood.thing, { is: wood.thickness, limit: reach });
  if (
    i.guide === 'stop' &&
    i.saw.tool === 'tableSaw' &&
    (i.parallel ?? 0) < SAFE_WIDTH_MM - FINE &&
    wood.far !== 'straight'
  )
    bench.fail('trapped', i, wood.thing, { is: i.parallel ?? 0, limit: SAFE_WIDTH_MM });
  let edge = wood.y.from;
  let last = false;
  for (const cut of i.cuts) {
    edge += cut.skip;
    const y = { from: edge, to: edge + cut.width };
    // The part that he rips is the one he was told of; where it lies he measures from the edge he has.
    if (y.to > wood.y.to + FINE)
      bench.fail('notEnoughWidth', i, cut.part, { is: wood.y.to - y.from, limit: cut.width });
    if (i.saw.tool === 'tableSaw' && i.guide === 'fence' && cut.width < SAFE_WIDTH_MM - FINE)
      bench.fail('trapped', i, cut.part, { is: cut.width, limit: SAFE_WIDTH_MM });
    const blade = { from: y.to, to: Math.min(wood.y.to, y.to + i.saw.kerf) };
    const before = cut.skip > 0 ? { from: y.from - Math.min(i.saw.kerf, cut.skip), to: y.from } : null;
    if (!whole && [blade, before].some((b) => b && bench.metal(wood.piece, wood.x, b)))
      bench.fail('metalUnderBlade', i, cut.part);
    const sawn = whole ? wood.far : 'straight';
    addStrip(bench, i, { ...wood, thing: cut.part, y, near: 'straight', far: sawn });
    edge = y.to + i.saw.kerf;
    last = edge >= wood.y.to - FINE;
  }
  // What is left keeps its name while another saw goes on with it.
  if (last) bench.used.add(wood.thing.id);
  else {
    wood.y = { from: edge, to: wood.y.to };
    wood.near = 'straight';
  }
}

function addStrip(bench: Bench, i: Instruction, wood: Wood): void {
  // What is in bits was looked at when their strips were ripped.
  const bad = wood.bits
    ? []
    : wood.piece.defects.filter((d) => overlaps(placeOf(d).x, wood.x) && overlaps(placeOf(d).y, wood.y));
  if (bad.some((d) => isMetal(d))) bench.fail('metalUnderBlade', i, wood.thing);
  else if (bad.some((d) => d.treatment === 'cut')) bench.fail('badPlaceInPart', i, wood.thing);
  bench.things.set(wood.thing.id, wood);
}

export function remill(bench: Bench, i: InstructionOf<'remill'>): void {
  for (const thing of i.parts) {
    const wood = bench.wood(thing, i);
    if (!wood) continue;
    bench.tool(i.tool, i, thing);
    const wide = wood.y.to - wood.y.from;
    if (Math.abs(wide - i.from) > TOLERANCE + FINE) bench.fail('sizes', i, thing, { is: wide, limit: i.from });
    const middle = (wood.y.from + wood.y.to) / 2;
    wood.y = { from: middle - i.to / 2, to: middle + i.to / 2 };
    if (i.tool === 'jointer' && i.to < SAFE_WIDTH_MM - FINE)
      bench.fail('tooNarrowForMachine', i, thing, { is: i.to, limit: SAFE_WIDTH_MM });
    wood.near = wood.far = 'straight';
  }
}

export function resaw(bench: Bench, i: InstructionOf<'resaw'>): void {
  const wood = bench.wood(i.part, i);
  if (!wood) return;
  const { shop } = bench.workshop;
  bench.tool(i.saw.tool, i, i.part);
  const high = wood.y.to - wood.y.from;
  const reach = i.saw.tool === 'bandSaw' ? (shop.bandSaw?.resawHeight ?? 0) : shop.saw.cutDepth;
  if (high > reach + FINE) bench.fail('tooThick', i, i.part, { is: high, limit: reach });
  if (!wood.flat) bench.fail('notFlat', i, i.part);
  if (wood.hardGlue) bench.fail('stillWet', i, i.part);
  if (i.saw.tool === 'tableSaw' && i.guide === 'fence') bench.fail('trapped', i, i.part);
  let left = wood.thickness;
  const parts = i.layers.map(({ part, setting }, k): Wood => {
    const lastOne = k === i.layers.length - 1 && i.rest === 0;
    // The rest's sawn face is cleaned before the next cut.
    if (!lastOne) left -= setting + i.saw.kerf + (k < i.layers.length - 1 ? i.clean : 0);
    const thickness = lastOne ? left + i.clean : setting;
    if (left < -FINE || thickness < setting - TOLERANCE)
      bench.fail('notEnoughThickness', i, part, { is: Math.min(left, thickness), limit: setting });
    return { ...wood, thing: part, thickness: setting, thickest: setting };
  });
  bench.replace(wood, []);
  for (const part of parts) addStrip(bench, i, part);
}

export function toThickness(bench: Bench, i: InstructionOf<'thickness'>): void {
  for (const thing of i.parts) {
    const wood = bench.wood(thing, i);
    if (!wood) continue;
    machine(bench, i, wood);
    if (wood.thickness < i.to - TOLERANCE)
      bench.fail('notEnoughThickness', i, thing, { is: wood.thickness, limit: i.to });
    if (wood.thickness - i.to < FINE) bench.fail('nothingToPlane', i, thing);
    if (wood.hardGlue) bench.fail('stillWet', i, thing);
    for (const { piece } of woodsIn(wood))
      passes(bench, i, wood.thickness - i.to, wood.y.to - wood.y.from, piece.species, thing);
    wood.thickness = wood.thickest = Math.min(wood.thickness, i.to);
  }
}

export function joint(bench: Bench, i: InstructionOf<'joint'>): void {
  for (const thing of i.parts) {
    const wood = bench.wood(thing, i);
    if (!wood) continue;
    bench.tool(i.tool, i, thing);
    if (i.by < FINE) bench.fail('nothingToPlane', i, thing);
    overJointer(bench, i, wood);
    wood.y = { from: wood.y.from + i.by, to: wood.y.to - i.by };
    wood.near = wood.far = 'jointed';
    if (Math.abs(wood.y.to - wood.y.from - i.width) > TOLERANCE + FINE)
      bench.fail('sizes', i, thing, { is: wood.y.to - wood.y.from, limit: i.width });
  }
}
