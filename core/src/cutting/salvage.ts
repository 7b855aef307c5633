import { nth } from '../lists/there.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Defect } from '../stock/defect.ts';
import { PLAIN_CONDITION, type PieceFields } from '../stock/piece.ts';

/** A salvaged thing as it stands on the bench. Lengths in mm. */
export interface SalvagedThing {
  /** What it was, e.g. a bench top. */
  of: string;
  species: string;
  length: number;
  width: number;
  thickness: number;
  /** Thickness taken off each face until it is clean wood: paint, veneer, weathered skin. */
  skinUp: number;
  skinDown: number;
  /** Glue seams across it, from its first end: it is cut there, because short bits glued end to end do not hold. */
  seams: readonly number[];
  /** Metal that was found, and is drilled or cut out round: middle of each place. */
  metal: readonly { at: number; across: number }[];
  /** Equal things. */
  count: number;
}

/** Wood that goes on every side of a screw or nail: its hole and the stain about it, mm (common practice). */
export const METAL_CLEARANCE = 16;
/** Bits shorter than this are not worth a mark, mm. */
const SHORTEST_BIT = 20;

/** One solid bit of a salvaged thing. */
export interface SalvagedBit {
  from: number;
  length: number;
  metal: { at: number; across: number }[];
}

/** What is on the faces of a salvaged thing. */
export const skins = ['bare', 'painted', 'veneered', 'treated'] as const;
export type Skin = (typeof skins)[number];

/** A thing of common size of which nothing is known yet. */
export const UNKNOWN_THING: SalvagedThing = {
  of: '',
  species: '',
  length: 1200,
  width: 60,
  thickness: 30,
  skinUp: 0,
  skinDown: 0,
  seams: [],
  metal: [],
  count: 1,
};

/** Off each face of painted or veneered wood to begin with, mm (common practice: until clean wood shows). */
const USUAL_SKIN = 2;

/** The thing once it is said what is on its faces: what is painted or veneered loses some of each, unless it is said how much. */
export function withSkin(thing: SalvagedThing, skin: Skin): SalvagedThing {
  return (skin === 'painted' || skin === 'veneered') && thing.skinUp + thing.skinDown === 0
    ? { ...thing, skinUp: USUAL_SKIN, skinDown: USUAL_SKIN }
    : thing;
}

/** The thing at another size: seams and metal that no longer lie on it are gone. */
export function withSize(
  thing: SalvagedThing,
  size: Partial<Pick<SalvagedThing, 'length' | 'width' | 'thickness'>>,
): SalvagedThing {
  const next = { ...thing, ...size };
  return {
    ...next,
    seams: next.seams.filter((s) => s < next.length),
    metal: next.metal.filter((m) => m.at <= next.length && m.across <= next.width),
  };
}

/** What is still to be said or done before a thing may go into the rack, the first of it; null when nothing is. @param solid bits that come of it */
export function salvageTrouble(
  thing: SalvagedThing,
  { skin, metalSought, solid }: { skin: Skin | null; metalSought: boolean; solid: number },
): string | null {
  if (thing.species === '') return 'Choose the species.';
  if (thing.of.trim() === '') return 'Say what it was.';
  if (skin === null) return 'Say what is on its faces.';
  if (skin === 'treated') return 'Treated wood is never for food.';
  if (!metalSought) return 'Go over it with a metal detector first.';
  return solid === 0 ? 'Nothing solid is left of it.' : null;
}

/** Where the thing falls apart once it is cut at its seams; half a kerf goes on each side of a seam. */
export function salvagedBits(thing: SalvagedThing, kerf: number): SalvagedBit[] {
  const seams = [...new Set(thing.seams)].filter((s) => s > 0 && s < thing.length).sort((a, b) => a - b);
  const edges = [0, ...seams, thing.length];
  return edges.slice(1).flatMap((end, i) => {
    const from = nth(edges, i) + (i === 0 ? 0 : kerf / 2);
    const length = end - (i === edges.length - 2 ? 0 : kerf / 2) - from;
    if (length < SHORTEST_BIT) return [];
    return [{ from, length, metal: thing.metal.filter((m) => m.at >= from && m.at <= from + length) }];
  });
}

/**
 * The bits as pieces for the rack: equal ones under one mark with a count.
 * @param marks called for each new mark
 * @returns nothing when no clean thickness is left
 */
export function salvagedPieces(thing: SalvagedThing, kerf: number, marks: () => string): PieceFields[] {
  const thickness = thing.thickness - thing.skinUp - thing.skinDown;
  if (thickness < 2 - LENGTH_TOLERANCE_MM) return [];
  const bits = salvagedBits(thing, kerf);
  const groups: { bit: SalvagedBit; bits: number }[] = [];
  for (const bit of bits) {
    const twin =
      bit.metal.length === 0
        ? groups.find(
            (g) =>
              g.bit.metal.length === 0 &&
              Math.abs(g.bit.length - bit.length) < LENGTH_TOLERANCE_MM &&
              endsOf(g.bit, thing) === endsOf(bit, thing),
          )
        : undefined;
    if (twin) twin.bits += 1;
    else groups.push({ bit, bits: 1 });
  }
  return groups.map(({ bit, bits: same }) => ({
    ...PLAIN_CONDITION,
    mark: marks(),
    species: thing.species,
    length: bit.length,
    width: thing.width,
    thickness,
    surface:
      thing.skinUp > 0 && thing.skinDown > 0
        ? 'twoFaces'
        : thing.skinUp > 0 || thing.skinDown > 0
          ? 'oneFace'
          : 'rough',
    ends: {
      mark: { checked: 0, snipe: 0, sawn: bit.from > 0 },
      far: { checked: 0, snipe: 0, sawn: bit.from + bit.length < thing.length - LENGTH_TOLERANCE_MM },
    },
    defects: bit.metal.map((m, i) => hole(m, bit, thing, i)),
    origin: { kind: 'salvage', of: thing.of },
    shelf: '',
    note: '',
    price: null,
    count: same * thing.count,
  }));
}

function endsOf(bit: SalvagedBit, thing: SalvagedThing): string {
  return `${bit.from > 0}/${bit.from + bit.length < thing.length - LENGTH_TOLERANCE_MM}`;
}

function hole(
  { at, across }: { at: number; across: number },
  bit: SalvagedBit,
  thing: SalvagedThing,
  i: number,
): Defect {
  const length = Math.min(2 * METAL_CLEARANCE, bit.length);
  const width = Math.min(2 * METAL_CLEARANCE, thing.width);
  return {
    id: `d${i + 1}`,
    kind: 'screw',
    face: 'through',
    treatment: 'cut',
    length,
    width,
    from: Math.min(bit.length - length, Math.max(0, at - bit.from - length / 2)),
    across: Math.min(thing.width - width, Math.max(0, across - width / 2)),
  };
}
