import type { Triple } from '#core/plan/stripBody.ts';
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
export function paintWood(log: Log, cut: Cut, scale: number, oiled: boolean): { width: number; height: number; rgb: Uint8Array } {
  const width = Math.max(1, Math.round(cut.size[0] * scale));
  const height = Math.max(1, Math.round(cut.size[1] * scale));
  const rgb = new Uint8Array(width * height * 3);
  const [stepX, stepY] = [cut.size[0] / width, cut.size[1] / height];
  const pixel = Math.max(stepX, stepY);
  const table = colourTable(log, oiled, Math.abs(cut.right[0]) + Math.abs(cut.down[0]) < 0.5);
  const { heart, lean, sway, ringSpacing, seed } = log;
  const marks = log.marks.filter((m) => meets(m, cut));
  const knots = marks.filter((m) => m.kind === 'knot');
  const others = marks.filter((m) => m.kind !== 'knot');
  // Detail that is finer than a pixel fades into its own mean.
  const ringSeen = 1 / (1 + (pixel / (0.42 * ringSpacing)) ** 2);
  const fibreSeen = 1 / (1 + (pixel / 0.8) ** 2);
  const poreSeen = 1 / (1 + (pixel / 0.55) ** 2);
  const poreShare = log.pores === 'ring' ? 0.5 : log.pores === 'semiRing' ? 0.2 : 0.05;
  const late = log.pores === 'ring' ? 0.62 : 0.8;
  // Outside early wood a ring-porous tree has few pores, a diffuse one nearly as many.
  const later = log.pores === 'diffuse' ? 0.6 : 0.12;

  // Distance from the heart and slow changes are worked out at coarse places and are straight between them: nothing in a tree turns sharper.
  const coarse = Math.max(2, Math.round(COARSE_MM / pixel));
  const columns = Math.ceil(width / coarse) + 2;
  let above = new Float64Array(3 * columns);
  let below = new Float64Array(3 * columns);
  const coarseRow = (row: Float64Array, y: number) => {
    for (let c = 0; c < columns; c += 1) {
      const right = (c * coarse + 0.5) * stepX;
      const px = cut.corner[0] + cut.right[0] * right + cut.down[0] * y;
      const py = cut.corner[1] + cut.right[1] * right + cut.down[1] * y;
      const pz = cut.corner[2] + cut.right[2] * right + cut.down[2] * y;
      const swing = sway.size * Math.sin((px / sway.length) * 6.2832 + sway.phase);
      const waviness = 1.7 * noise(px / 170, py / 24, pz / 24, seed);
      const dy = py - heart[0] - lean[0] * px - swing;
      const dz = pz - heart[1] - lean[1] * px - swing * 0.6;
      row[3 * c] = Math.sqrt(dy * dy + dz * dz) + waviness;
      row[3 * c + 1] = noise(px / 420, py / 55, pz / 55, seed + 7);
      row[3 * c + 2] = waviness;
    }
  };
  coarseRow(below, 0.5 * stepY);
  const [rightX, rightY, rightZ] = [cut.right[0] * stepX, cut.right[1] * stepX, cut.right[2] * stepX];
  const lying = rightY === 0 && rightZ === 0;
  const blended = new Float64Array(3 * columns);
  const { wood, sap: sapwood } = table;
  for (let j = 0; j < height; j += 1) {
    const part = j % coarse;
    if (part === 0) {
      [above, below] = [below, above];
      coarseRow(below, (j + coarse + 0.5) * stepY);
    }
    for (let k = 0; k < blended.length; k += 1) blended[k] = above[k]! + ((below[k]! - above[k]!) * part) / coarse;
    let [x, y, z] = at(cut, 0.5 * stepX, (j + 0.5) * stepY);
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
    for (let i = 0; i < width; i += 1, x += rightX, y += rightY, z += rightZ, r += rStep, drift += driftStep, wave += waveStep) {
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
      for (let k = 0; k < knots.length; k += 1) {
        const m = knots[k]!;
        if (z < m.from || z > m.to) continue;
        const ex = (x - m.middle[0]) / m.half[0];
        const ey = (y - m.middle[1]) / m.half[1];
        const d = ex * ex + ey * ey;
        if (d < 1) {
          knot = 1 - d * 0.55;
          radius = Math.sqrt(d) * 4 * ringSpacing;
        } else if (d < 12) radius += ((12 - d) / 11) ** 2 * m.half[1] * 0.8;
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
      let dark = 0.3 + 0.16 * drift + 0.13 * (year - 0.5) * ringSeen + ringSeen * late * 0.46 * (lateness - 0.22) * (0.6 + 0.7 * year);
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
      for (let k = 0; k < others.length; k += 1) {
        const m = others[k]!;
        if (z < m.from || z > m.to) continue;
        const ex = Math.abs(x - m.middle[0]) / m.half[0];
        const ey = Math.abs(y - m.middle[1]) / m.half[1];
        const d = Math.max(ex, ey);
        if (m.kind === 'sapwood') {
          if (d < 1.25) sap = Math.max(sap, Math.min(1, (1.25 - d + 0.2 * wave) * 4));
        } else if (m.kind === 'stain') {
          if (ex * ex + ey * ey < 1) dark += 0.3 * (1 - ex * ex - ey * ey);
        } else if (m.kind === 'hole') {
          if (ex * ex + ey * ey < 1) dark = 1.6;
        } else if (m.kind === 'check') {
          if (ex < 1 && Math.abs(y - m.middle[1] - 0.5 * wave) < 0.5) dark = 1.5;
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
  return { width, height, rgb };
}

/** A point of a cut as a point in the piece. */
function at(cut: Cut, right: number, down: number): Triple {
  return [0, 1, 2].map((k) => cut.corner[k]! + cut.right[k]! * right + cut.down[k]! * down) as unknown as Triple;
}

/** Whether a mark may show on a cut: its surroundings touch the cut's box. */
function meets(mark: LogMark, cut: Cut): boolean {
  const far = at(cut, ...cut.size);
  const within = (k: 0 | 1 | 2, from: number, to: number) => Math.min(cut.corner[k], far[k]) < to && Math.max(cut.corner[k], far[k]) > from;
  const reach = mark.kind === 'knot' ? 3.6 : 1.4;
  return within(0, mark.middle[0] - reach * mark.half[0] - 1, mark.middle[0] + reach * mark.half[0] + 1)
    && within(1, mark.middle[1] - reach * mark.half[1] - 1, mark.middle[1] + reach * mark.half[1] + 1) && within(2, mark.from - 1, mark.to + 1);
}

/** Colours from light to dark, for the wood and for its sapwood. End grain drinks more light, and more oil. */
function colourTable({ colours }: Log, oiled: boolean, end: boolean): { wood: Uint8Array; sap: Uint8Array } {
  const table = (body: readonly number[], late: readonly number[]) => {
    const colour = new Uint8Array(3 * STEPS);
    for (let s = 0; s < STEPS; s += 1) {
      const dark = s / STEPS / 0.62;
      // Through the body at 0.3 and the late wood at 0.75; beyond it on towards black.
      const mix = (dark - 0.3) / 0.45;
      let channels = body.map((b, k) => (mix < 1 ? b + (late[k]! - b) * mix : late[k]! * Math.max(0.16, 1 - (mix - 1) * 0.7)));
      if (end) channels = channels.map((v) => v * 0.88);
      if (oiled) channels = oil(channels, end ? 1.5 : 1.32);
      channels.forEach((v, k) => {
        colour[3 * s + k] = Math.max(0, Math.min(255, v));
      });
    }
    return colour;
  };
  return { wood: table(colours.body, colours.late), sap: table(colours.sap, colours.body.map((b, k) => (b + colours.sap[k]!) / 2)) };
}

/** Wet or oiled wood scatters less light at its surface: darker, and its colour fuller. */
function oil(channels: number[], depth: number): number[] {
  const deep = channels.map((v) => 255 * (v / 255) ** depth);
  const grey = (deep[0]! + deep[1]! + deep[2]!) / 3;
  return deep.map((v) => grey + (v - grey) * 1.1);
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
  const near = between(between(hash(ix, iy, iz, seed), hash(ix + 1, iy, iz, seed), fx), between(hash(ix, iy + 1, iz, seed), hash(ix + 1, iy + 1, iz, seed), fx), fy);
  const far = between(between(hash(ix, iy, iz + 1, seed), hash(ix + 1, iy, iz + 1, seed), fx), between(hash(ix, iy + 1, iz + 1, seed), hash(ix + 1, iy + 1, iz + 1, seed), fx), fy);
  return 2 * between(near, far, fz) - 1;
}

function ease(v: number): number {
  return v * v * (3 - 2 * v);
}

function between(a: number, b: number, share: number): number {
  return a + (b - a) * share;
}
