import { formOfPart, thicknessLost } from '../cutting/flattening.ts';
import { firstFaceOnSled, flattenerLimits } from '../shop/flattener.ts';
import { glueOf, type Shop } from '../shop/shop.ts';
import { MITRE_REACH_MM, SAFE_RIP_LENGTH_MM, SAFE_WIDTH_MM, ripTool, shopHas, type ToolId } from '../shop/tools.ts';
import { slowness } from '../shop/gluing.ts';
import { isMetal } from '../stock/defect.ts';
import type { Piece } from '../stock/piece.ts';
import { thicknessAt, widthAt } from '../stock/shape.ts';
import { passDepthFor } from '../steps/ways.ts';
import { stockThing, type Instruction, type InstructionOf, type Thing } from '../steps/instruction.ts';
import type { Species } from '../wood/species.ts';
import { overlaps, placeOf, type Failure, type FailureCode, type Laid, type Made, type Panel, type Wood } from './bench.ts';

/** What the blind maker knows: solid wood with what is in it, the shop, and what lies on the bench already. Nothing of any plan. */
export interface Workshop {
  rack: readonly Piece[];
  shop: Shop;
  species: readonly Species[];
  /** Strips that are cut already. */
  bench: readonly Wood[];
}

/** A step as he is given it: a number and what to do. */
export interface ToldStep {
  number: number;
  instructions: readonly Instruction[];
  /** Minutes until the next step. */
  waitMinutes: number | null;
}

export interface Followed {
  steps: number;
  failures: Failure[];
  boards: Made[];
  /** Parts that were made and lie about unused. */
  left: Wood[];
}

const TOLERANCE = 0.05;
const FINE = 1e-3;
/** Flattened to this much less than it must lose is still flat, mm: what rounding leaves. */
const FLAT_TOLERANCE = 0.01;

/**
 * Does instructions one after the other on solid wood and says where he fails: he carries on after a failure as well as he can, so that one slip is told once.
 *
 * @example follow(plan.operations, { rack, shop, species, bench: [] }).failures
 */
export function follow(steps: readonly ToldStep[], workshop: Workshop): Followed {
  const maker = new BlindMaker(workshop);
  for (const step of steps) {
    maker.step = step;
    for (const instruction of step.instructions) maker.carryOut(instruction);
  }
  return maker.result(steps.length);
}

class BlindMaker {
  step: ToldStep = { number: 0, instructions: [], waitMinutes: null };
  private readonly things = new Map<string, Wood>();
  private readonly panels = new Map<string, Panel>();
  private readonly boards = new Map<string, Made>();
  private readonly used = new Set<string>();
  private readonly laid = new Map<string, { up: 'edge' | 'face'; turned: boolean; endForEnd: boolean }>();
  private readonly failures: Failure[] = [];
  private readonly rest: Wood[] = [];
  private readonly keyed = new Set<string>();
  private readonly oily: ReadonlySet<string>;

  constructor(private readonly workshop: Workshop) {
    for (const wood of workshop.bench) this.things.set(wood.thing.id, { ...wood });
    this.oily = new Set(workshop.species.filter((s) => s.oily).map((s) => s.code));
  }

  carryOut(i: Instruction): void {
    switch (i.do) {
      case 'crosscut': return this.crosscut(i);
      case 'split': return this.split(i);
      case 'flatten': return this.flatten(i);
      case 'straighten': return this.straighten(i);
      case 'rip': return this.rip(i);
      case 'remill': return this.remill(i);
      case 'resaw': return this.resaw(i);
      case 'thickness': return this.toThickness(i);
      case 'joint': return this.joint(i);
      case 'layOut': return this.layOut(i);
      case 'keys': return i.parts.forEach((p) => this.keyed.add(p.id));
      case 'rehearse': return this.clampsThere(i, i.clamps);
      case 'wipe': return i.parts.forEach((p) => this.wipe(p));
      case 'glue': return this.glue(i);
      case 'scrape': return i.parts.forEach((p) => this.scrape(i, p));
      case 'flush': return this.flush(i);
      case 'trimEdge': return this.trimEdge(i);
      case 'crosscutPanel': return this.cutBoards(i);
      case 'work': return this.work(i);
      case 'inlay': return this.onBoards(i, (b) => b.features.push(i.feature));
      case 'sand': return this.sand(i);
      case 'resand': return this.onBoards(i, (b) => { if (!b.wetted) this.fail('stillWet', i, b.thing); });
      case 'wet': return this.onBoards(i, (b) => { b.wetted = true; if (b.coats.length > 0) this.fail('finishOverFinish', i, b.thing); });
      case 'coat': return this.coat(i);
      case 'feet': return this.onBoards(i, (b) => { b.feet += i.count; if (b.thickness < i.depth - TOLERANCE) this.fail('notEnoughThickness', i, b.thing, { is: b.thickness, limit: i.depth }); });
      case 'wait': case 'fat': case 'sneak': case 'lanes': return undefined;
    }
  }

  result(steps: number): Followed {
    const left = [...this.things.values()].filter((w) => !this.used.has(w.thing.id));
    return { steps, failures: this.failures, boards: [...this.boards.values()], left };
  }

  private fail(code: FailureCode, i: Instruction, thing: Thing, mm: Failure['mm'] = null): void {
    // The same harm to the same thing is told once.
    if (this.failures.some((f) => f.code === code && f.thing === thing.label)) return;
    const strips = [...thing.id.matchAll(/^strip (\d+)\//g)].map((m) => Number(m[1]));
    this.failures.push({ code, step: this.step.number, instruction: i.do, thing: thing.label, strips, mm });
  }

  private tool(tool: ToolId, i: Instruction, thing: Thing): void {
    if (!shopHas(this.workshop.shop, tool)) this.fail('noTool', i, { ...thing, label: `${thing.label} (${tool})` });
  }

  private wood(thing: Thing, i: Instruction): Wood | null {
    const found = this.things.get(thing.id);
    if (!found || this.used.has(thing.id)) {
      this.fail('missingPart', i, thing);
      return null;
    }
    return found;
  }

  private replace(old: Wood, parts: readonly Wood[]): void {
    this.used.add(old.thing.id);
    for (const part of parts) this.things.set(part.thing.id, part);
  }

  /** A piece of stock is taken from the rack when it is first named. */
  private stock(thing: Thing, i: Instruction): Wood | null {
    const known = this.things.get(thing.id);
    if (known) return this.wood(thing, i);
    for (const piece of this.workshop.rack) {
      for (let unit = 0; unit < piece.count; unit += 1) {
        if (stockThing(piece, unit).id !== thing.id) continue;
        const ready = piece.surface === 'ready';
        const wood: Wood = {
          thing, piece, unit, x: { from: 0, to: piece.length }, y: { from: 0, to: Math.min(piece.width, piece.farEnd?.width ?? piece.width) },
          thickness: Math.min(piece.thickness, piece.farEnd?.thickness ?? piece.thickness), thickest: Math.max(piece.thickness, piece.farEnd?.thickness ?? piece.thickness), flat: ready,
          near: ready || piece.straight === 'near' || piece.straight === 'both' ? 'straight' : 'raw', far: ready || piece.straight === 'far' || piece.straight === 'both' ? 'straight' : 'raw', wiped: false, keyed: false,
        };
        this.things.set(thing.id, wood);
        return wood;
      }
    }
    this.fail('missingPart', i, thing);
    return null;
  }

  private crosscut(i: InstructionOf<'crosscut'>): void {
    const stock = this.stock(i.part, i);
    if (!stock) return;
    this.tool(i.saw.tool, i, i.part);
    const { piece } = stock;
    const parts = i.cuts.map(({ part, at, length }): Wood => {
      const from = i.end === 'far' ? piece.length - at - length : at;
      const x = { from, to: from + length };
      if (x.from < -FINE || x.to > piece.length + FINE) this.fail('notEnoughLength', i, part, { is: piece.length, limit: x.to });
      for (const cut of [{ from: x.from - i.saw.kerf, to: x.from }, { from: x.to, to: x.to + i.saw.kerf }]) if (this.metal(piece, cut, stock.y)) this.fail('metalUnderBlade', i, part);
      const y = stock.flat && piece.farEnd === null ? stock.y : { from: 0, to: Math.min(widthAt(piece, x.from), widthAt(piece, x.to)) };
      const ends = [thicknessAt(piece, x.from), thicknessAt(piece, x.to)];
      return { ...stock, thing: part, x, y, ...(!stock.flat ? { thickness: Math.min(...ends), thickest: Math.max(...ends) } : {}) };
    });
    const sorted = [...parts].sort((a, b) => a.x.from - b.x.from);
    sorted.forEach((p, k) => { if (k > 0 && p.x.from < sorted[k - 1]!.x.to + i.saw.kerf - FINE) this.fail('notEnoughLength', i, p.thing, { is: p.x.from, limit: sorted[k - 1]!.x.to + i.saw.kerf }); });
    this.replace(stock, parts);
  }

  private metal(piece: Piece, x: { from: number; to: number }, y: { from: number; to: number }): boolean {
    return piece.defects.some((d) => isMetal(d) && overlaps(placeOf(d).x, x) && overlaps(placeOf(d).y, y));
  }

  private split(i: InstructionOf<'split'>): void {
    const wood = this.wood(i.part, i);
    if (!wood) return;
    this.tool(i.saw.tool, i, i.part);
    if (i.saw.tool === 'tableSaw') this.fail('noStraightEdge', i, i.part);
    const straight = i.saw.tool === 'carrierSled' || i.saw.tool === 'circularSaw';
    const parts = i.parts.map(({ part, from, to }): Wood => {
      if (from < wood.y.from - FINE || to > wood.y.to + FINE) this.fail('notEnoughWidth', i, part, { is: wood.y.to, limit: to });
      const cuts = [...(from > wood.y.from + FINE ? [{ from: from - i.saw.kerf, to: from }] : []), ...(to < wood.y.to - FINE ? [{ from: to, to: to + i.saw.kerf }] : [])];
      if (cuts.some((c) => this.metal(wood.piece, wood.x, c))) this.fail('metalUnderBlade', i, part);
      return { ...wood, thing: part, y: { from, to }, near: from > wood.y.from + FINE ? (straight ? 'straight' : 'rough') : wood.near, far: to < wood.y.to - FINE ? (straight ? 'straight' : 'rough') : wood.far };
    });
    this.replace(wood, parts);
  }

  /** What a part loses until it is flat, as the piece was measured or as the shop knows its stock, mm. */
  private loss(wood: Wood): number {
    const { piece } = wood;
    const { habits } = this.workshop.shop;
    if (piece.surface === 'ready') return 0;
    const part = { length: wood.x.to - wood.x.from, width: wood.y.to - wood.y.from };
    const form = piece.form ? thicknessLost(formOfPart(piece.form, piece, part)) : piece.surface === 'rough' ? habits.flattenRough : habits.flattenSurfaced;
    const rough = { rough: 2, oneFace: 1, twoFaces: 0, fourSides: 0 }[piece.surface];
    return form + rough * habits.skimRough + (2 - rough) * habits.skimSurfaced;
  }

  private flatten(i: InstructionOf<'flatten'>): void {
    for (const thing of i.parts) {
      const panel = this.panels.get(thing.id);
      if (panel) {
        this.flattenPanel(i, panel);
        continue;
      }
      const wood = this.stock(thing, i);
      if (!wood) continue;
      if (this.laid.get(thing.id)?.up === 'edge') {
        this.levelStanding(i, wood);
        continue;
      }
      this.machine(i, wood);
      if (this.metal(wood.piece, wood.x, wood.y)) this.fail('metalUnderBlade', i, thing);
      const wasFlat = wood.flat;
      const loss = wasFlat ? 0 : this.loss(wood);
      if (wasFlat && wood.thickest - i.to < FINE) this.fail('nothingToPlane', i, thing);
      if (wood.thickness - loss < i.to - FLAT_TOLERANCE) this.fail('notEnoughThickness', i, thing, { is: wood.thickness - loss, limit: i.to });
      this.passes(i, wood.thickest - i.to, wood.y.to - wood.y.from, wood.piece.species, thing);
      wood.flat = true;
      wood.thickness = Math.min(wood.thickness, i.to);
      wood.thickest = wood.thickness;
    }
  }

  /** A strip that stands in the panel alone is levelled with the sections: what comes off is its width in the stock. */
  private levelStanding(i: InstructionOf<'flatten'>, wood: Wood): void {
    const high = wood.y.to - wood.y.from;
    if (high < i.to - FLAT_TOLERANCE) this.fail('notEnoughThickness', i, wood.thing, { is: high, limit: i.to });
    const middle = (wood.y.from + wood.y.to) / 2;
    wood.y = { from: middle - i.to / 2, to: middle + i.to / 2 };
  }

  /** Passes that are told take off what they must, none of them too deep. */
  private passes(i: InstructionOf<'flatten'> | InstructionOf<'thickness'>, removal: number, width: number, species: string, thing: Thing): void {
    const { planer } = this.workshop.shop;
    if (i.passes === null || !planer) return;
    const hardness = this.workshop.species.find((s) => s.code === species)?.hardness ?? null;
    const needed = Math.ceil(removal / passDepthFor(planer, { width, hardness }) - 1e-6);
    if (i.passes < needed) this.fail('notEnoughThickness', i, thing, { is: i.passes, limit: needed });
  }

  /** What a machine takes: its widths, lengths and thicknesses. */
  private machine(i: InstructionOf<'flatten'> | InstructionOf<'thickness'>, wood: Wood): void {
    const { shop } = this.workshop;
    this.tool(i.tool, i, wood.thing);
    const [long, wide] = [wood.x.to - wood.x.from, wood.y.to - wood.y.from];
    if (i.do === 'flatten' && i.first === 'jointer' && firstFaceOnSled(shop, { length: long, width: wide })) this.fail(wide > (shop.jointer?.width ?? 0) ? 'tooWideForMachine' : 'partTooShort', i, wood.thing, { is: long, limit: shop.jointer?.leastLength ?? 0 });
    if (i.tool === 'planer' && shop.planer) {
      const { width, leastLength, leastThickness, leastWidth } = shop.planer;
      if (wide > width + FINE) this.fail('tooWideForMachine', i, wood.thing, { is: wide, limit: width });
      if (long < leastLength - FINE) this.fail('partTooShort', i, wood.thing, { is: long, limit: leastLength });
      if (wide < leastWidth - FINE) this.fail('tooNarrowForMachine', i, wood.thing, { is: wide, limit: leastWidth });
      if (i.to < leastThickness - FINE && !(i.do === 'thickness' && i.carrier)) this.fail('tooThinForMachine', i, wood.thing, { is: i.to, limit: leastThickness });
    }
    if (i.tool === 'drumSander' && shop.drumSander) {
      if (wide > shop.drumSander.width + FINE) this.fail('tooWideForMachine', i, wood.thing, { is: wide, limit: shop.drumSander.width });
      if (long < shop.drumSander.leastLength - FINE) this.fail('partTooShort', i, wood.thing, { is: long, limit: shop.drumSander.leastLength });
    }
    if (i.tool === 'routerSled' && shop.routerSled && wide > shop.routerSled.width + FINE) this.fail('tooWideForMachine', i, wood.thing, { is: wide, limit: shop.routerSled.width });
  }

  private straighten(i: InstructionOf<'straighten'>): void {
    for (const thing of i.parts) {
      const wood = this.wood(thing, i);
      if (!wood) continue;
      this.tool(i.tool, i, thing);
      const long = wood.x.to - wood.x.from;
      const { jointer } = this.workshop.shop;
      if (i.tool === 'jointer' && jointer && long < jointer.leastLength - FINE) this.fail('partTooShort', i, thing, { is: long, limit: jointer.leastLength });
      if (i.tool === 'jointer' && wood.y.to - wood.y.from < SAFE_WIDTH_MM - FINE) this.fail('tooNarrowForMachine', i, thing, { is: wood.y.to - wood.y.from, limit: SAFE_WIDTH_MM });
      const crook = wood.near === 'raw' && wood.piece.form && wood.piece.straight === 'none' ? formOfPart(wood.piece.form, wood.piece, { length: long, width: wood.y.to - wood.y.from }).crook : 0;
      if (ripTool(this.workshop.shop) === i.tool && wood.far !== 'straight') this.fail('noStraightEdge', i, thing);
      if (i.by < crook - FINE) this.fail('noStraightEdge', i, thing, { is: i.by, limit: crook });
      if (this.metal(wood.piece, wood.x, { from: wood.y.from, to: wood.y.from + i.by })) this.fail('metalUnderBlade', i, thing);
      wood.y = { from: wood.y.from + i.by, to: wood.y.to };
      wood.near = 'straight';
    }
  }

  private rip(i: InstructionOf<'rip'>): void {
    for (const thing of i.parts) {
      const wood = this.wood(thing, i);
      if (!wood) continue;
      this.ripOne(i, wood);
    }
  }

  private ripOne(i: InstructionOf<'rip'>, wood: Wood): void {
    const { shop } = this.workshop;
    const whole = i.saw.tool === 'hands';
    if (!whole) this.tool(i.saw.tool, i, wood.thing);
    const long = wood.x.to - wood.x.from;
    const guided = i.guide === 'fence' || i.guide === 'stop';
    if (!whole && guided && wood.near !== 'straight') this.fail('noStraightEdge', i, wood.thing);
    if (!whole && !wood.flat) this.fail('notFlat', i, wood.thing);
    if (i.saw.tool === 'tableSaw' && i.guide === 'fence' && long < SAFE_RIP_LENGTH_MM - FINE) this.fail('partTooShort', i, wood.thing, { is: long, limit: SAFE_RIP_LENGTH_MM });
    const reach = i.saw.tool === 'bandSaw' ? shop.bandSaw?.resawHeight ?? 0 : shop.saw.cutDepth;
    if (!whole && i.saw.tool !== 'handSaw' && wood.thickness > reach + FINE) this.fail('tooThick', i, wood.thing, { is: wood.thickness, limit: reach });
    if (i.guide === 'stop' && i.saw.tool === 'tableSaw' && (i.parallel ?? 0) < SAFE_WIDTH_MM - FINE && wood.far !== 'straight') this.fail('trapped', i, wood.thing, { is: i.parallel ?? 0, limit: SAFE_WIDTH_MM });
    let edge = wood.y.from;
    let last = false;
    for (const cut of i.cuts) {
      edge += cut.skip;
      const y = { from: edge, to: edge + cut.width };
      // The part that he rips is the one he was told of; where it lies he measures from the edge he has.
      if (y.to > wood.y.to + FINE) this.fail('notEnoughWidth', i, cut.part, { is: wood.y.to - y.from, limit: cut.width });
      if (i.saw.tool === 'tableSaw' && i.guide === 'fence' && cut.width < SAFE_WIDTH_MM - FINE) this.fail('trapped', i, cut.part, { is: cut.width, limit: SAFE_WIDTH_MM });
      const blade = { from: y.to, to: Math.min(wood.y.to, y.to + i.saw.kerf) };
      const before = cut.skip > 0 ? { from: y.from - Math.min(i.saw.kerf, cut.skip), to: y.from } : null;
      if (!whole && [blade, before].some((b) => b && this.metal(wood.piece, wood.x, b))) this.fail('metalUnderBlade', i, cut.part);
      const sawn = whole ? wood.far : 'straight';
      this.addStrip(i, { ...wood, thing: cut.part, y, near: 'straight', far: sawn });
      edge = y.to + i.saw.kerf;
      last = edge >= wood.y.to - FINE;
    }
    // What is left keeps its name while another saw goes on with it.
    if (last) this.used.add(wood.thing.id);
    else {
      wood.y = { from: edge - 0, to: wood.y.to };
      wood.near = 'straight';
      this.rest.push(wood);
    }
  }

  private addStrip(i: Instruction, wood: Wood): void {
    const bad = wood.piece.defects.filter((d) => overlaps(placeOf(d).x, wood.x) && overlaps(placeOf(d).y, wood.y));
    if (bad.some((d) => isMetal(d))) this.fail('metalUnderBlade', i, wood.thing);
    else if (bad.some((d) => d.treatment === 'cut')) this.fail('badPlaceInPart', i, wood.thing);
    this.things.set(wood.thing.id, wood);
  }

  private remill(i: InstructionOf<'remill'>): void {
    for (const thing of i.parts) {
      const wood = this.wood(thing, i);
      if (!wood) continue;
      this.tool(i.tool, i, thing);
      const wide = wood.y.to - wood.y.from;
      if (Math.abs(wide - i.from) > TOLERANCE) this.fail('sizes', i, thing, { is: wide, limit: i.from });
      const middle = (wood.y.from + wood.y.to) / 2;
      wood.y = { from: middle - i.to / 2, to: middle + i.to / 2 };
      if (i.tool === 'jointer' && i.to < SAFE_WIDTH_MM - FINE) this.fail('tooNarrowForMachine', i, thing, { is: i.to, limit: SAFE_WIDTH_MM });
      wood.near = wood.far = 'straight';
    }
  }

  private resaw(i: InstructionOf<'resaw'>): void {
    const wood = this.wood(i.part, i);
    if (!wood) return;
    const { shop } = this.workshop;
    this.tool(i.saw.tool, i, i.part);
    const high = wood.y.to - wood.y.from;
    const reach = i.saw.tool === 'bandSaw' ? shop.bandSaw?.resawHeight ?? 0 : shop.saw.cutDepth;
    if (high > reach + FINE) this.fail('tooThick', i, i.part, { is: high, limit: reach });
    if (!wood.flat) this.fail('notFlat', i, i.part);
    if (i.saw.tool === 'tableSaw' && i.guide === 'fence') this.fail('trapped', i, i.part);
    let left = wood.thickness;
    const parts = i.layers.map(({ part, setting }, k): Wood => {
      const lastOne = k === i.layers.length - 1 && i.rest === 0;
      // The rest's sawn face is cleaned before the next cut.
      if (!lastOne) left -= setting + i.saw.kerf + (k < i.layers.length - 1 ? i.clean : 0);
      const thickness = lastOne ? left + i.clean : setting;
      if (left < -FINE || thickness < setting - FLAT_TOLERANCE) this.fail('notEnoughThickness', i, part, { is: Math.min(left, thickness), limit: setting });
      return { ...wood, thing: part, thickness: setting, thickest: setting };
    });
    this.replace(wood, []);
    for (const part of parts) this.addStrip(i, part);
  }

  private toThickness(i: InstructionOf<'thickness'>): void {
    for (const thing of i.parts) {
      const wood = this.wood(thing, i);
      if (!wood) continue;
      this.machine(i, wood);
      if (wood.thickness < i.to - FLAT_TOLERANCE) this.fail('notEnoughThickness', i, thing, { is: wood.thickness, limit: i.to });
      if (wood.thickness - i.to < FINE) this.fail('nothingToPlane', i, thing);
      this.passes(i, wood.thickness - i.to, wood.y.to - wood.y.from, wood.piece.species, thing);
      wood.thickness = wood.thickest = Math.min(wood.thickness, i.to);
    }
  }

  private joint(i: InstructionOf<'joint'>): void {
    const { jointer } = this.workshop.shop;
    for (const thing of i.parts) {
      const wood = this.wood(thing, i);
      if (!wood) continue;
      this.tool(i.tool, i, thing);
      const long = wood.x.to - wood.x.from;
      if (i.by < FINE) this.fail('nothingToPlane', i, thing);
      if (i.tool === 'jointer' && jointer && long < jointer.leastLength - FINE) this.fail('partTooShort', i, thing, { is: long, limit: jointer.leastLength });
      if (i.tool === 'jointer' && wood.y.to - wood.y.from < SAFE_WIDTH_MM - FINE) this.fail('tooNarrowForMachine', i, thing, { is: wood.y.to - wood.y.from, limit: SAFE_WIDTH_MM });
      wood.y = { from: wood.y.from + i.by, to: wood.y.to - i.by };
      wood.near = wood.far = 'jointed';
      if (Math.abs(wood.y.to - wood.y.from - i.width) > TOLERANCE) this.fail('sizes', i, thing, { is: wood.y.to - wood.y.from, limit: i.width });
    }
  }

  private layOut(i: InstructionOf<'layOut'>): void {
    for (const strip of i.strips) this.laid.set(strip.part.id, strip);
    // A single strip is the panel: nothing is glued.
    const [only, ...others] = i.strips;
    if (!only || others.length > 0) return;
    const wood = this.wood(only.part, i);
    if (!wood) return;
    this.used.add(only.part.id);
    const across = wood.y.to - wood.y.from;
    const laid: Laid = { wood, ...only, ...(only.up === 'edge' ? { width: wood.thickness, height: across } : { width: across, height: wood.thickness }) };
    this.panels.set(i.panel.id, { thing: i.panel, strips: [laid], length: wood.x.to - wood.x.from, width: laid.width, trimmedFar: 0, trimmedNear: 0, thickness: laid.height, proud: 0, flat: wood.flat && only.up === 'face', hardGlue: false });
  }

  private wipe(thing: Thing): void {
    const wood = this.things.get(thing.id);
    if (wood) wood.wiped = true;
  }

  private clampsThere(i: Instruction, clamps: readonly { kind: string; count: number }[]): void {
    for (const { kind, count } of clamps) {
      const owned = this.workshop.shop.clamps.filter((c) => c.kind === kind).reduce((sum, c) => sum + c.count, 0);
      if (count > owned) this.fail('fewerClamps', i, { id: kind, label: kind }, { is: owned, limit: count });
    }
    if (clamps.length === 0) this.fail('fewerClamps', i, { id: 'none', label: 'no clamp' }, null);
  }

  private glue(i: InstructionOf<'glue'>): void {
    const { shop } = this.workshop;
    this.clampsThere(i, i.clamps);
    const glue = shop.glues.find((g) => g.id === i.glue);
    if (!glue) this.fail('noTool', i, i.makes);
    const slow = slowness(shop.room.temperature);
    const { openMinutes, closedMinutes } = glue ?? glueOf(shop);
    if (i.assemblyMinutes > closedMinutes * slow * shop.pace.reserve + 1e-6 || i.layingMinutes > openMinutes * slow + 1e-6) this.fail('glueTime', i, i.makes);
    if (i.clamps.reduce((sum, c) => sum + c.count, 0) < i.wanted) this.fail('lowPressure', i, i.makes);
    const strips = i.parts.flatMap((thing): Laid[] => {
      const group = this.panels.get(thing.id);
      if (group) {
        if (this.used.has(thing.id)) this.fail('missingPart', i, thing);
        this.used.add(thing.id);
        return group.strips.map((s, k) => ({ ...s, ...(k === 0 || k === group.strips.length - 1 ? {} : {}) }));
      }
      const wood = this.wood(thing, i);
      if (!wood) return [];
      this.used.add(thing.id);
      const how = this.laid.get(thing.id) ?? { up: 'face' as const, turned: false, endForEnd: false };
      const across = wood.y.to - wood.y.from;
      if (!wood.flat) this.fail('notFlat', i, thing);
      return [{ wood, ...how, ...(how.up === 'edge' ? { width: wood.thickness, height: across } : { width: across, height: wood.thickness }) }];
    });
    if (strips.length === 0) return;
    // Oily faces that meet glue now were wiped for it.
    for (const thing of i.parts) {
      const group = this.panels.get(thing.id);
      const faces = group ? [group.strips[0]!.wood, group.strips.at(-1)!.wood] : [this.things.get(thing.id)].filter((w) => w !== undefined);
      faces.forEach((wood, k) => {
        if (!this.oily.has(wood.piece.species)) return;
        const outer = (i.parts[0] === thing && group !== undefined && k === 0) || (i.parts.at(-1) === thing && group !== undefined && k === faces.length - 1);
        if (!outer && !wood.wiped) this.fail('oilyFace', i, wood.thing);
      });
    }
    for (const { wood } of strips) wood.wiped = false;
    const heights = strips.map((s) => s.height);
    const least = Math.min(...heights);
    this.panels.set(i.makes.id, {
      thing: i.makes, strips, length: Math.min(...strips.map(({ wood }) => wood.x.to - wood.x.from)), width: strips.reduce((sum, s) => sum + s.width, 0), trimmedFar: 0, trimmedNear: 0, thickness: least, proud: Math.max(...heights) - least, flat: false, hardGlue: true,
    });
    if (shop.schools.level === 'keys' && i.parts.some((p) => !this.panels.has(p.id) && !this.keyed.has(p.id))) this.fail('missingPart', i, i.makes);
  }

  private scrape(i: InstructionOf<'scrape'>, thing: Thing): void {
    const panel = this.panels.get(thing.id);
    if (!panel) this.fail('missingPart', i, thing);
    else panel.hardGlue = false;
  }

  private flush(i: InstructionOf<'flush'>): void {
    this.tool(i.tool, i, i.parts[0]!);
    for (const thing of i.parts) {
      const panel = this.panels.get(thing.id);
      if (!panel) continue;
      const tall = panel.strips.filter((s) => s.height > panel.thickness + TOLERANCE).map((s) => s.wood.thing.id);
      const told = new Set(i.strips.map((s) => s.id));
      if (tall.every((id) => told.has(id))) panel.proud = 0;
    }
  }

  private flattenPanel(i: InstructionOf<'flatten'>, panel: Panel): void {
    const { shop } = this.workshop;
    this.tool(i.tool, i, panel.thing);
    if (panel.hardGlue) this.fail('stillWet', i, panel.thing);
    const limit = { planer: shop.planer?.width, drumSander: shop.drumSander?.width, routerSled: shop.routerSled?.width }[i.tool as string] ?? Infinity;
    if (panel.width > limit + FINE) this.fail('tooWideForMachine', i, panel.thing, { is: panel.width, limit });
    const least = { planer: flattenerLimits({ ...shop, jointer: null }).leastLength, drumSander: shop.drumSander?.leastLength }[i.tool as string] ?? 0;
    if (panel.length < least - FINE) this.fail('partTooShort', i, panel.thing, { is: panel.length, limit: least });
    if (panel.thickness < i.to - TOLERANCE) this.fail('notEnoughThickness', i, panel.thing, { is: panel.thickness, limit: i.to });
    if (panel.thickness - i.to < FINE && panel.proud < FINE) this.fail('nothingToPlane', i, panel.thing);
    for (const s of panel.strips) s.height = Math.min(s.height, i.to);
    panel.thickness = Math.min(panel.thickness, i.to);
    panel.proud = 0;
    panel.flat = true;
  }

  private trimEdge(i: InstructionOf<'trimEdge'>): void {
    const { shop } = this.workshop;
    for (const thing of i.parts) {
      const panel = this.panels.get(thing.id);
      if (!panel) {
        this.fail('missingPart', i, thing);
        continue;
      }
      this.tool(i.saw.tool, i, thing);
      if (!panel.flat) this.fail('notFlat', i, thing);
      if (i.saw.tool !== 'handSaw' && panel.thickness > shop.saw.cutDepth + FINE) this.fail('tooThick', i, thing, { is: panel.thickness, limit: shop.saw.cutDepth });
      if (panel.width - i.off < i.leaves - TOLERANCE) this.fail('notEnoughWidth', i, thing, { is: panel.width - i.off, limit: i.leaves });
      if (i.side === 'far') panel.trimmedFar += i.off;
      else panel.trimmedNear += i.off;
      panel.width -= i.off;
    }
  }

  private cutBoards(i: InstructionOf<'crosscutPanel'>): void {
    const panel = this.panels.get(i.part.id);
    if (!panel) return this.fail('missingPart', i, i.part);
    this.used.add(i.part.id);
    this.tool(i.saw.tool, i, i.part);
    if (!panel.flat) this.fail('notFlat', i, i.part);
    if (i.saw.tool === 'mitreSaw' && panel.width > MITRE_REACH_MM + FINE) this.fail('tooWideForMachine', i, i.part, { is: panel.width, limit: MITRE_REACH_MM });
    let free = 0;
    for (const cut of i.cuts) {
      if (cut.at - i.saw.kerf < free - FINE || cut.at + cut.length + i.saw.kerf > panel.length + FINE) this.fail('notEnoughLength', i, cut.part, { is: panel.length, limit: cut.at + cut.length + i.saw.kerf });
      free = cut.at + cut.length;
      if (cut.width > panel.width + TOLERANCE) this.fail('notEnoughWidth', i, cut.part, { is: panel.width, limit: cut.width });
      this.boards.set(cut.part.id, {
        thing: cut.part, panel, x: cut.at, y: panel.trimmedFar, length: cut.length, width: Math.min(cut.width, panel.width), thickness: panel.thickness, features: [], sanded: false, wetted: false, coats: [], feet: 0,
      });
    }
  }

  private onBoards(i: Instruction & { parts: Thing[] }, act: (board: Made) => void): void {
    for (const thing of i.parts) {
      const board = this.boards.get(thing.id);
      if (board) act(board);
      else this.fail('missingPart', i, thing);
    }
  }

  private work(i: InstructionOf<'work'>): void {
    this.tool(i.tool, i, i.parts[0]!);
    for (const thing of i.parts) {
      const board = this.boards.get(thing.id);
      if (board) {
        // What comes after the last sanding keeps its depth; what comes before is deeper by what sanding takes.
        board.features.push(i.feature);
        continue;
      }
      const strip = this.things.get(thing.id);
      if (!strip || i.what !== 'mark') this.fail('missingPart', i, thing);
      else this.early.push({ strip: thing.id, feature: i.feature, place: i.place });
    }
  }

  private readonly early: { strip: string; feature: string; place: string }[] = [];

  private sand(i: InstructionOf<'sand'>): void {
    this.onBoards(i, (b) => {
      this.tool(i.tool, i, b.thing);
      if (b.thickness - i.take < i.to - TOLERANCE || b.thickness - i.from > TOLERANCE) this.fail('notEnoughThickness', i, b.thing, { is: b.thickness - i.take, limit: i.to });
      if (i.tool === 'drumSander' && this.workshop.shop.drumSander && b.width > this.workshop.shop.drumSander.width + FINE) this.fail('tooWideForMachine', i, b.thing, { is: b.width, limit: this.workshop.shop.drumSander.width });
      if (b.coats.length > 0) this.fail('finishOverFinish', i, b.thing);
      b.thickness -= i.take;
      b.sanded = true;
      // A mark made on a strip is still there where its edge was never cut.
      for (const { strip, feature, place } of this.early) {
        const at = b.panel.strips.findIndex((s) => s.wood.thing.id === strip);
        if (at < 0) continue;
        const kept = place === 'far' ? at === 0 && b.panel.trimmedFar === 0 : at === b.panel.strips.length - 1 && b.panel.trimmedNear === 0;
        if (!kept) this.fail('markLost', i, b.thing);
        else if (!b.features.includes(feature)) b.features.push(feature);
      }
    });
  }

  private coat(i: InstructionOf<'coat'>): void {
    this.onBoards(i, (b) => {
      if (!b.sanded) this.fail('finishOverFinish', i, b.thing);
      if (i.finish === 'hardWaxOil' && b.coats.length > 0) this.fail('finishOverFinish', i, b.thing);
      b.coats.push(i.finish);
    });
  }
}
