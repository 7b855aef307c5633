import { nth } from '#core/lists/there.ts';
import type { Defect } from '#core/stock/defect.ts';
import type { Species } from '#core/wood/species.ts';
import type { RingOrientation } from '#core/wood/rings.ts';
import { seeded } from '../seed.ts';

/** A piece's inside as it is drawn: where the heart of its tree lay, how far apart its rings are, what grew into it. Lengths in mm in the piece. */
export interface Log {
  /** Of its noise. */
  seed: number;
  /** Heart of the tree at the marked end, across and up, and how it wanders along the piece. */
  heart: readonly [across: number, up: number];
  lean: readonly [across: number, up: number];
  sway: { size: number; length: number; phase: number };
  ringSpacing: number;
  pores: Species['pores'];
  /** Body, late wood and sapwood, red, green and blue 0..255. */
  colours: { body: readonly number[]; late: readonly number[]; sap: readonly number[] };
  marks: readonly LogMark[];
}

/** A place in the wood: an upright cylinder (knot, hole, stain) or a slab (sapwood, bark), between two heights. */
export interface LogMark {
  kind: 'knot' | 'sapwood' | 'bark' | 'stain' | 'hole' | 'check';
  middle: readonly [along: number, across: number];
  half: readonly [along: number, across: number];
  from: number;
  to: number;
}

/** What a log is made from: a piece of the rack, or a strip that has none yet. */
export interface LogSource {
  /** The same key gives the same wood everywhere and at any scale. */
  key: string;
  rings: RingOrientation;
  /** Across and up, mm. */
  size: readonly [across: number, up: number];
  defects: readonly Defect[];
}

/** Drawn for wood whose species is not known any more. */
const UNKNOWN = { colour: '#b9bec4', lineColour: '#8d949c', sapColour: '#ccd1d6', pores: 'diffuse' } as const;

const MARK_KINDS: Readonly<Record<Defect['kind'], LogMark['kind'] | null>> = {
  knot: 'knot',
  check: 'check',
  bark: 'bark',
  sapwood: 'sapwood',
  screw: 'hole',
  nail: 'hole',
  worm: 'hole',
  veneer: null,
  paint: null,
  stain: 'stain',
};

/** Depth that a mark on one face reaches, as a share of the thickness. */
const SHALLOW = 0.45;

export function logOf({ key, rings, size: [width, thickness], defects }: LogSource, species: Species | undefined): Log {
  const random = seeded(key);
  const { colour, lineColour, sapColour, pores } = species ?? UNKNOWN;
  const far = 55 + random() * 90;
  const side = random() < 0.5 ? -1 : 1;
  const heart: [number, number] =
    rings === 'flat'
      ? [width * (0.25 + 0.5 * random()), side > 0 ? thickness + far : -far]
      : rings === 'quarter'
        ? [side > 0 ? width + far : -far, thickness * (0.2 + 0.6 * random())]
        : [side > 0 ? width * 0.5 + far * 0.8 : width * 0.5 - far * 0.8, thickness * 0.5 - far * 0.8];
  // The same species varies from tree to tree, in lightness and a little in hue.
  const tone = 1 + (random() - 0.5) * 0.13;
  const hue = (random() - 0.35) * 0.035;
  const tinted = (hex: string) => {
    const inHue = [1 + hue, 1, 1 - hue];
    return rgb(hex).map((v, i) => Math.max(0, Math.min(255, v * tone * nth(inHue, i))));
  };
  return {
    seed: Math.floor(random() * 2 ** 31),
    heart,
    lean: [(random() - 0.5) * 0.02, (random() - 0.5) * 0.045],
    sway: { size: 0.8 + random() * 2.2, length: 260 + random() * 420, phase: random() * 6.283 },
    ringSpacing: 2.1 + random() * 2,
    pores,
    colours: { body: tinted(colour), late: tinted(lineColour), sap: tinted(sapColour) },
    marks: defects.flatMap((d): LogMark[] => {
      const kind = MARK_KINDS[d.kind];
      if (!kind) return [];
      const depth = thickness * SHALLOW;
      return [
        {
          kind,
          middle: [d.from + d.length / 2, d.across + d.width / 2],
          half: [d.length / 2, d.width / 2],
          from: d.face === 'up' ? thickness - depth : -1,
          to: d.face === 'down' ? depth : thickness + 1,
        },
      ];
    }),
  };
}

export function rgb(hex: string): number[] {
  return [1, 3, 5].map((i) => Number.parseInt(hex.slice(i, i + 2), 16));
}
