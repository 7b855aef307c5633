import type { MadeStrip } from '../facts/made.ts';
import { shopHas, type ToolId } from '../shop/tools.ts';
import type { Shop } from '../shop/shop.ts';
import { isMetal } from '../stock/defect.ts';
import type { Piece } from '../stock/piece.ts';
import { stockThing, type Instruction, type InstructionOf, type PlugWood, type Thing } from '../steps/instruction.ts';
import type { Species } from '../wood/species.ts';
import {
  overlaps,
  placeOf,
  type Failure,
  type FailureCode,
  type Laid,
  type Made,
  type Panel,
  type Part,
  type Slice,
  type Wood,
  type WorkedPlace,
} from './bench.ts';

/** What the blind maker knows: solid wood with what is in it, the shop, and what lies on the bench already. Nothing of any plan. */
export interface Workshop {
  rack: readonly Piece[];
  shop: Shop;
  species: readonly Species[];
  /** Strips that are cut already. */
  bench: readonly Wood[];
  /** What his own rule showed of strips once they were milled, by their number: wood does not always come out as it was set. */
  measured?: ReadonlyMap<number, MadeStrip>;
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

/** Sizes closer than this are told as one, mm: what a rule shows. */
export const TOLERANCE = 0.05;
/** What rounding leaves of a sum, mm. */
export const FINE = 1e-3;

/** All the wood of a thing: of what was glued of bits each of them. */
export const woodsIn = (wood: Wood): Wood[] => wood.bits?.map((b) => b.wood) ?? [wood];

/** What lies on the blind maker's bench, what he knows of it, and where he failed. */
export class Bench {
  step: ToldStep = { number: 0, instructions: [], waitMinutes: null };
  readonly things = new Map<string, Wood>();
  readonly panels = new Map<string, Panel>();
  /** Slices of panels, turned and laid out as rows. */
  readonly slices = new Map<string, Slice>();
  readonly runs = new Map<string, 'along' | 'across'>();
  /** Parts of panels that were sawn through, and how much nearer what lies behind each strip shall lie. */
  readonly parts = new Map<string, Part>();
  readonly steps = new Map<string, number>();
  /** What is glued of parts and strips so far. */
  readonly pieces = new Map<string, (Part | Laid)[]>();
  /** Strips that are laid round a thing: along which side, and how far they are told to reach over. */
  readonly around = new Map<string, InstructionOf<'layFrame'>['strips'][number]>();
  /** Bits that are laid end to end: which way up they stand in their stack. */
  readonly bits = new Map<string, InstructionOf<'layBits'>['bits'][number]['up']>();
  /** Backs laid under things. */
  readonly backs = new Map<string, InstructionOf<'layBack'>>();
  /** Whole things whose joints were wiped. */
  readonly wiped = new Set<string>();
  readonly boards = new Map<string, Made>();
  readonly used = new Set<string>();
  /** How strips lie in the panel that is laid out. */
  readonly laid = new Map<string, Pick<Laid, 'up' | 'turned' | 'endForEnd' | 'ahead'>>();
  readonly failures: Failure[] = [];
  /** Strips with joints cut for dowels or tenons. */
  readonly keyed = new Set<string>();
  /** Marks made on strips that are still loose. */
  readonly early: { strip: string; place: string; worked: WorkedPlace }[] = [];
  /** Wood that went into plugs. */
  readonly plugs: PlugWood[] = [];
  readonly oily: ReadonlySet<string>;

  constructor(readonly workshop: Workshop) {
    for (const wood of workshop.bench) this.things.set(wood.thing.id, { ...wood });
    this.oily = new Set(workshop.species.filter((s) => s.oily).map((s) => s.code));
  }

  result(steps: number): Followed {
    const left = [...this.things.values()].filter((w) => !this.used.has(w.thing.id));
    return { steps, failures: this.failures, boards: [...this.boards.values()], left };
  }

  fail(code: FailureCode, i: Instruction, thing: Thing, mm: Failure['mm'] = null): void {
    // The same harm to the same thing is told once.
    if (this.failures.some((f) => f.code === code && f.thing === thing.label)) return;
    const strips = [...thing.id.matchAll(/^strip (\d+)\//g)].map((m) => Number(m[1]));
    this.failures.push({ code, step: this.step.number, instruction: i.do, thing: thing.label, strips, mm });
  }

  tool(tool: ToolId, i: Instruction, thing: Thing): void {
    if (!shopHas(this.workshop.shop, tool)) this.fail('noTool', i, { ...thing, label: `${thing.label} (${tool})` });
  }

  wood(thing: Thing, i: Instruction): Wood | null {
    const found = this.things.get(thing.id);
    if (!found || this.used.has(thing.id)) {
      this.fail('missingPart', i, thing);
      return null;
    }
    return found;
  }

  replace(old: Wood, parts: readonly Wood[]): void {
    this.used.add(old.thing.id);
    for (const part of parts) this.things.set(part.thing.id, part);
  }

  /** A piece of stock is taken from the rack when it is first named. */
  stock(thing: Thing, i: Instruction): Wood | null {
    const known = this.things.get(thing.id);
    if (known) return this.wood(thing, i);
    for (const piece of this.workshop.rack) {
      for (let unit = 0; unit < piece.count; unit += 1) {
        if (stockThing(piece, unit).id !== thing.id) continue;
        const ready = piece.surface === 'ready';
        const wood: Wood = {
          thing,
          piece,
          unit,
          x: { from: 0, to: piece.length },
          y: { from: 0, to: Math.min(piece.width, piece.farEnd?.width ?? piece.width) },
          thickness: Math.min(piece.thickness, piece.farEnd?.thickness ?? piece.thickness),
          thickest: Math.max(piece.thickness, piece.farEnd?.thickness ?? piece.thickness),
          flat: ready,
          near: ready || piece.straight === 'near' || piece.straight === 'both' ? 'straight' : 'raw',
          far: ready || piece.straight === 'far' || piece.straight === 'both' ? 'straight' : 'raw',
          wiped: false,
        };
        this.things.set(thing.id, wood);
        return wood;
      }
    }
    this.fail('missingPart', i, thing);
    return null;
  }

  /** Whether anything of it is of an oily species. */
  isOily(wood: Wood): boolean {
    return woodsIn(wood).some(({ piece }) => this.oily.has(piece.species));
  }

  metal(piece: Piece, x: { from: number; to: number }, y: { from: number; to: number }): boolean {
    return piece.defects.some((d) => isMetal(d) && overlaps(placeOf(d).x, x) && overlaps(placeOf(d).y, y));
  }
}
