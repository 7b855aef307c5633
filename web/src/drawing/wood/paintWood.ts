/* oxlint-disable typescript/no-non-null-assertion -- pixels and tables are read inside their own bounds, in the innermost loop of all painting. */
import type { Triple } from '#core/recipe/motion.ts';
import type { Log, LogMark } from './log.ts';

/** A plane cut through a log: its corner and the directions of its two sides, mm in the piece. */
export interface Cut {
  corner: Triple;
  right: Triple;
  down: Triple;
  /** Width and height, mm. */
  size: readonly [number, number];
}

/** Darkness of wood is looked up in a table of this many steps. */
const STEPS = 256;
/** Distance between the places where slow changes are worked out, mm. */
const COARSE_MM = 4;
/** Cells of fibre and of pores to the millimetre, along the grain and across it. */
const FIBRE_X = 1 / 9;
const FIBRE_Y = 1 / 0.6;
const PORE_X = 1 / 3.4;
const PORE_Y = 1 / 0.42;
/** A cell that no wood lies in. */
const NOWHERE = -1_000_000_000;

/**
 * Paints a cut through a log. Every pixel is what the log is at that place, so faces of one piece continue one another, and the picture is the same at any scale
 * but for detail too small to see.
 * @param scale pixels per mm
 * @param oiled oil deepens the colour
 * @returns red, green and blue of each pixel, row by row
 */
export function paintWood(
  log: Log,
  cut: Cut,
  scale: number,
  oiled: boolean,
): { width: number; height: number; rgb: Uint8Array } {
  const width = Math.max(1, Math.round(cut.size[0] * scale));
  const height = Math.max(1, Math.round(cut.size[1] * scale));
  const rgb = new Uint8Array(width * height * 3);
  const table = colourTable(log, oiled, Math.abs(cut.right[0]) + Math.abs(cut.down[0]) < 0.5);
  const marks = log.marks.filter((m) => meets(m, cut));
  paintRows(
    rgb,
    width,
    height,
    Float64Array.of(...cut.corner, ...cut.right, ...cut.down, ...cut.size),
    Float64Array.of(
      ...log.heart,
      ...log.lean,
      log.sway.size,
      log.sway.length,
      log.sway.phase,
      log.ringSpacing,
      log.seed,
    ),
    log.pores,
    flat(marks.filter((m) => m.kind === 'knot')),
    flat(marks.filter((m) => m.kind !== 'knot')),
    table.wood,
    table.sap,
  );
  return { width, height, rgb };
}

const MARK_KINDS = ['knot', 'sapwood', 'stain', 'hole', 'check', 'bark'] as const satisfies readonly LogMark['kind'][];
const [, SAPWOOD, STAIN, HOLE, CHECK] = MARK_KINDS.map((_, i) => i) as [number, number, number, number, number, number];
/** Numbers to a mark: its kind, its middle along and across, half its size along and across, from and to. */
const MARK_SIZE = 7;

function flat(marks: readonly LogMark[]): Float64Array {
  return Float64Array.from(marks.flatMap((m) => [MARK_KINDS.indexOf(m.kind), ...m.middle, ...m.half, m.from, m.to]));
}

/**
 * The pixels of a cut. It is given nothing but numbers, always of the same kind: compiled once, it stays compiled, whatever is painted next.
 * @param plane corner, right, down and size of the cut
 * @param tree heart, lean, sway, ring spacing and seed of the log
 * @param knots, others marks, flat
 */
function paintRows(
  rgb: Uint8Array,
  width: number,
  height: number,
  plane: Float64Array,
  tree: Float64Array,
  pores: Log['pores'],
  knots: Float64Array,
  others: Float64Array,
  wood: Uint8Array,
  sapwood: Uint8Array,
): void {
  const [cornerX, cornerY, cornerZ, alongX, alongY, alongZ, downX, downY, downZ, sizeX, sizeY] =
    plane as unknown as number[] as [
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
    ];
  const [heartY, heartZ, leanY, leanZ, swaySize, swayLength, swayPhase, ringSpacing, seed] =
    tree as unknown as number[] as [number, number, number, number, number, number, number, number, number];
  const [stepX, stepY] = [sizeX / width, sizeY / height];
  const pixel = Math.max(stepX, stepY);
  // Detail that is finer than a pixel fades into its own mean.
  const ringSeen = 1 / (1 + (pixel / (0.42 * ringSpacing)) ** 2);
  const fibreSeen = 1 / (1 + (pixel / 0.8) ** 2);
  const poreSeen = 1 / (1 + (pixel / 0.55) ** 2);
  const poreShare = pores === 'ring' ? 0.5 : pores === 'semiRing' ? 0.2 : 0.05;
  const late = pores === 'ring' ? 0.62 : 0.8;
  // Outside early wood a ring-porous tree has few pores, a diffuse one nearly as many.
  const later = pores === 'diffuse' ? 0.6 : 0.12;

  // Distance from the heart and slow changes are worked out at coarse places and are straight between them: nothing in a tree turns sharper.
  const coarse = Math.max(2, Math.round(COARSE_MM / pixel));
  const columns = Math.ceil(width / coarse) + 2;
  let above = new Float64Array(3 * columns);
  let below = new Float64Array(3 * columns);
  const coarseRow = (row: Float64Array, y: number) => {
    for (let c = 0; c < columns; c += 1) {
      const right = (c * coarse + 0.5) * stepX;
      const px = cornerX + alongX * right + downX * y;
      const py = cornerY + alongY * right + downY * y;
      const pz = cornerZ + alongZ * right + downZ * y;
      const swing = swaySize * Math.sin((px / swayLength) * 6.2832 + swayPhase);
      const waviness = 1.7 * noise(px / 170, py / 24, pz / 24, seed);
      const dy = py - heartY - leanY * px - swing;
      const dz = pz - heartZ - leanZ * px - swing * 0.6;
      row[3 * c] = Math.sqrt(dy * dy + dz * dz) + waviness;
      row[3 * c + 1] = noise(px / 420, py / 55, pz / 55, seed + 7);
      row[3 * c + 2] = waviness;
    }
  };
  coarseRow(below, 0.5 * stepY);
  const [rightX, rightY, rightZ] = [alongX * stepX, alongY * stepX, alongZ * stepX];
  const lying = rightY === 0 && rightZ === 0;
  const blended = new Float64Array(3 * columns);
  for (let j = 0; j < height; j += 1) {
    const part = j % coarse;
    if (part === 0) {
      [above, below] = [below, above];
      coarseRow(below, (j + coarse + 0.5) * stepY);
    }
    for (let k = 0; k < blended.length; k += 1) blended[k] = above[k]! + ((below[k]! - above[k]!) * part) / coarse;
    let x = cornerX + alongX * 0.5 * stepX + downX * (j + 0.5) * stepY;
    let y = cornerY + alongY * 0.5 * stepX + downY * (j + 0.5) * stepY;
    let z = cornerZ + alongZ * 0.5 * stepX + downZ * (j + 0.5) * stepY;
    let r = 0;
    let drift = 0;
    let wave = 0;
    let [rStep, driftStep, waveStep] = [0, 0, 0];
    // What belongs to a cell of fibre, of pores or to a year is looked up when the next one begins.
    let fibreX = NOWHERE;
    let fibreY = NOWHERE;
    let fibreZ = NOWHERE;
    let poreX = NOWHERE;
    let poreY = NOWHERE;
    let poreZ = NOWHERE;
    let ringNow = NOWHERE;
    let near = 0;
    let next = 0;
    let poreDraw = 0;
    let year = 0;
    // Along the grain a row stays in its cells across it.
    let cellY = Math.floor(y * FIBRE_Y) | 0;
    let cellZ = Math.floor(z * FIBRE_Y) | 0;
    let pY = Math.floor(y * PORE_Y) | 0;
    let pZ = Math.floor(z * PORE_Y) | 0;
    for (
      let i = 0;
      i < width;
      i += 1, x += rightX, y += rightY, z += rightZ, r += rStep, drift += driftStep, wave += waveStep
    ) {
      if (i % coarse === 0) {
        const c = 3 * (i / coarse);
        r = blended[c]!;
        drift = blended[c + 1]!;
        wave = blended[c + 2]!;
        rStep = (blended[c + 3]! - r) / coarse;
        driftStep = (blended[c + 4]! - drift) / coarse;
        waveStep = (blended[c + 5]! - wave) / coarse;
      }
      if (!lying) {
        cellY = Math.floor(y * FIBRE_Y) | 0;
        cellZ = Math.floor(z * FIBRE_Y) | 0;
        pY = Math.floor(y * PORE_Y) | 0;
        pZ = Math.floor(z * PORE_Y) | 0;
      }
      let radius = r;
      let knot = 0;
      for (let k = 0; k < knots.length; k += MARK_SIZE) {
        if (z < knots[k + 5]! || z > knots[k + 6]!) continue;
        const ex = (x - knots[k + 1]!) / knots[k + 3]!;
        const ey = (y - knots[k + 2]!) / knots[k + 4]!;
        const d = ex * ex + ey * ey;
        if (d < 1) {
          knot = 1 - d * 0.55;
          radius = Math.sqrt(d) * 4 * ringSpacing;
        } else if (d < 12) radius += ((12 - d) / 11) ** 2 * knots[k + 4]! * 0.8;
      }
      const t = radius / ringSpacing;
      const ring = t | 0;
      const f = t - ring;
      if (ring !== ringNow) {
        ringNow = ring;
        year = hash(ring, 3, 5, seed);
      }
      // Late wood darkens slowly toward the end of each year and stops sharply.
      const lateness = f < 0.45 ? 0 : f < 0.93 ? ((f - 0.45) / 0.48) * ((f - 0.45) / 0.48) : (1 - f) / 0.07;
      let dark =
        0.3 +
        0.16 * drift +
        0.13 * (year - 0.5) * ringSeen +
        ringSeen * late * 0.46 * (lateness - 0.22) * (0.6 + 0.7 * year);
      const cellX = Math.floor(x * FIBRE_X) | 0;
      if (cellX !== fibreX || cellY !== fibreY || cellZ !== fibreZ) {
        fibreX = cellX;
        fibreY = cellY;
        fibreZ = cellZ;
        near = hash(cellX, cellY, cellZ, seed + 1);
        next = hash(cellX + 1, cellY, cellZ, seed + 1);
      }
      dark += fibreSeen * 0.15 * (near + (next - near) * (x * FIBRE_X - cellX) - 0.5);
      const pX = Math.floor(x * PORE_X) | 0;
      if (pX !== poreX || pY !== poreY || pZ !== poreZ) {
        poreX = pX;
        poreY = pY;
        poreZ = pZ;
        poreDraw = hash(pX, pY, pZ, seed + 2);
      }
      if (poreDraw < poreShare * (f < 0.3 ? 1 : later)) dark += poreSeen * 0.36;
      if (knot > 0) dark = 0.62 + 0.38 * knot + 0.18 * (lateness - 0.3);
      let sap = 0;
      for (let k = 0; k < others.length; k += MARK_SIZE) {
        if (z < others[k + 5]! || z > others[k + 6]!) continue;
        const kind = others[k]!;
        const ex = Math.abs(x - others[k + 1]!) / others[k + 3]!;
        const ey = Math.abs(y - others[k + 2]!) / others[k + 4]!;
        const d = Math.max(ex, ey);
        if (kind === SAPWOOD) {
          if (d < 1.25) sap = Math.max(sap, Math.min(1, (1.25 - d + 0.2 * wave) * 4));
        } else if (kind === STAIN) {
          if (ex * ex + ey * ey < 1) dark += 0.3 * (1 - ex * ex - ey * ey);
        } else if (kind === HOLE) {
          if (ex * ex + ey * ey < 1) dark = 1.6;
        } else if (kind === CHECK) {
          if (ex < 1 && Math.abs(y - others[k + 2]! - 0.5 * wave) < 0.5) dark = 1.5;
        } else if (d < 1) dark = 1.15 + 0.4 * (near - 0.5);
      }
      const step = 3 * Math.max(0, Math.min(STEPS - 1, (dark * 0.62 * STEPS) | 0));
      const o = 3 * (j * width + i);
      if (sap === 0) {
        rgb[o] = wood[step]!;
        rgb[o + 1] = wood[step + 1]!;
        rgb[o + 2] = wood[step + 2]!;
      } else for (let k = 0; k < 3; k += 1) rgb[o + k] = wood[step + k]! * (1 - sap) + sapwood[step + k]! * sap;
    }
  }
}

/** A point of a cut as a point in the piece. */
function at(cut: Cut, right: number, down: number): Triple {
  return [0, 1, 2].map((k) => cut.corner[k]! + cut.right[k]! * right + cut.down[k]! * down) as unknown as Triple;
}

/** Whether a mark may show on a cut: its surroundings touch the cut's box. */
function meets(mark: LogMark, cut: Cut): boolean {
  const far = at(cut, ...cut.size);
  const within = (k: 0 | 1 | 2, from: number, to: number) =>
    Math.min(cut.corner[k], far[k]) < to && Math.max(cut.corner[k], far[k]) > from;
  const reach = mark.kind === 'knot' ? 3.6 : 1.4;
  return (
    within(0, mark.middle[0] - reach * mark.half[0] - 1, mark.middle[0] + reach * mark.half[0] + 1) &&
    within(1, mark.middle[1] - reach * mark.half[1] - 1, mark.middle[1] + reach * mark.half[1] + 1) &&
    within(2, mark.from - 1, mark.to + 1)
  );
}

interface ColourTable {
  wood: Uint8Array;
  sap: Uint8Array;
}

/** Tables by their colours: sides and pictures of one piece share them, and a table costs as much as a small picture. */
const TABLES = new Map<string, ColourTable>();
/** More pieces than a board is made from. */
const MOST_TABLES = 400;

/** Colours from light to dark, for the wood and for its sapwood. End grain drinks more light, and more oil. */
function colourTable({ colours: { body, late, sap } }: Log, oiled: boolean, end: boolean): ColourTable {
  const key = [...body, ...late, ...sap, oiled, end].join();
  const known = TABLES.get(key);
  if (known) return known;
  if (TABLES.size >= MOST_TABLES) TABLES.clear();
  const made = {
    wood: coloursBetween(body, late, oiled, end),
    sap: coloursBetween(
      sap,
      body.map((b, k) => (b + sap[k]!) / 2),
      oiled,
      end,
    ),
  };
  TABLES.set(key, made);
  return made;
}

function coloursBetween(body: readonly number[], late: readonly number[], oiled: boolean, end: boolean): Uint8Array {
  const table = new Uint8Array(3 * STEPS);
  const depth = end ? 1.5 : 1.32;
  const channels = [0, 0, 0];
  for (let s = 0; s < STEPS; s += 1) {
    const dark = s / STEPS / 0.62;
    // Through the body at 0.3 and the late wood at 0.75; beyond it on towards black.
    const mix = (dark - 0.3) / 0.45;
    for (let k = 0; k < 3; k += 1) {
      const plain = mix < 1 ? body[k]! + (late[k]! - body[k]!) * mix : late[k]! * Math.max(0.16, 1 - (mix - 1) * 0.7);
      channels[k] = end ? plain * 0.88 : plain;
    }
    if (oiled) oil(channels, depth);
    for (let k = 0; k < 3; k += 1) table[3 * s + k] = Math.max(0, Math.min(255, channels[k]!));
  }
  return table;
}

/** Wet or oiled wood scatters less light at its surface: darker, and its colour fuller. Changes the three channels. */
function oil(channels: number[], depth: number): void {
  for (let k = 0; k < 3; k += 1) channels[k] = 255 * (channels[k]! / 255) ** depth;
  const grey = (channels[0]! + channels[1]! + channels[2]!) / 3;
  for (let k = 0; k < 3; k += 1) channels[k] = grey + (channels[k]! - grey) * 1.1;
}

/** A number in 0..1 for a cell of space, always the same. */
function hash(x: number, y: number, z: number, seed: number): number {
  let h = Math.imul(x, 374761393) ^ Math.imul(y, 668265263) ^ Math.imul(z, 2147483647) ^ Math.imul(seed, 1274126177);
  h = Math.imul(h ^ (h >>> 13), 1103515245);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}

/** Smooth noise in -1..1. */
function noise(x: number, y: number, z: number, seed: number): number {
  const ix = Math.floor(x);
  const iy = Math.floor(y);
  const iz = Math.floor(z);
  const fx = ease(x - ix);
  const fy = ease(y - iy);
  const fz = ease(z - iz);
  const near = between(
    between(hash(ix, iy, iz, seed), hash(ix + 1, iy, iz, seed), fx),
    between(hash(ix, iy + 1, iz, seed), hash(ix + 1, iy + 1, iz, seed), fx),
    fy,
  );
  const far = between(
    between(hash(ix, iy, iz + 1, seed), hash(ix + 1, iy, iz + 1, seed), fx),
    between(hash(ix, iy + 1, iz + 1, seed), hash(ix + 1, iy + 1, iz + 1, seed), fx),
    fy,
  );
  return 2 * between(near, far, fz) - 1;
}

function ease(v: number): number {
  return v * v * (3 - 2 * v);
}

function between(a: number, b: number, share: number): number {
  return a + (b - a) * share;
}
