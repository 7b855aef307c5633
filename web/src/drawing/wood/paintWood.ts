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
/** Distance between the places where slow changes are worked out, pixels; between them they are straight. */
const COARSE_PX = 8;

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

  const columns = Math.ceil(width / COARSE_PX) + 1;
  let above = new Float64Array(2 * columns);
  let below = new Float64Array(2 * columns);
  const slowRow = (row: Float64Array, y: number) => {
    for (let c = 0; c < columns; c += 1) {
      const [px, py, pz] = at(cut, (c * COARSE_PX + 0.5) * stepX, y);
      row[2 * c] = 1.7 * noise(px / 170, py / 24, pz / 24, seed);
      row[2 * c + 1] = noise(px / 420, py / 55, pz / 55, seed + 7);
    }
  };
  slowRow(below, 0);
  for (let j = 0; j < height; j += 1) {
    if (j % COARSE_PX === 0) {
      [above, below] = [below, above];
      slowRow(below, (j + COARSE_PX) * stepY);
    }
    const fy = (j % COARSE_PX) / COARSE_PX;
    const [rowX, rowY, rowZ] = at(cut, 0.5 * stepX, (j + 0.5) * stepY);
    for (let i = 0; i < width; i += 1) {
      const c = (i / COARSE_PX) | 0;
      const fx = (i % COARSE_PX) / COARSE_PX;
      const slow = (k: number) => (above[2 * c + k]! * (1 - fx) + above[2 * c + 2 + k]! * fx) * (1 - fy) + (below[2 * c + k]! * (1 - fx) + below[2 * c + 2 + k]! * fx) * fy;
      const x = rowX + cut.right[0] * stepX * i;
      const y = rowY + cut.right[1] * stepX * i;
      const z = rowZ + cut.right[2] * stepX * i;
      const swing = sway.size * Math.sin((x / sway.length) * 6.2832 + sway.phase);
      const dy = y - heart[0] - lean[0] * x - swing;
      const dz = z - heart[1] - lean[1] * x - swing * 0.6;
      let r = Math.sqrt(dy * dy + dz * dz) + slow(0);
      let knot = 0;
      for (const m of knots) {
        if (z < m.from || z > m.to) continue;
        const ex = (x - m.middle[0]) / m.half[0];
        const ey = (y - m.middle[1]) / m.half[1];
        const d = ex * ex + ey * ey;
        if (d < 1) {
          knot = 1 - d * 0.55;
          r = Math.sqrt(d) * 4 * ringSpacing;
        } else if (d < 12) r += ((12 - d) / 11) ** 2 * m.half[1] * 0.8;
      }
      const t = r / ringSpacing;
      const ring = Math.floor(t);
      const f = t - ring;
      const year = hash(ring, 3, 5, seed);
      // Late wood darkens slowly toward the end of each year and stops sharply.
      const lateness = f < 0.45 ? 0 : f < 0.93 ? ((f - 0.45) / 0.48) ** 2 : (1 - f) / 0.07;
      let dark = 0.3 + 0.16 * slow(1) + 0.13 * (year - 0.5) * ringSeen + ringSeen * late * 0.46 * (lateness - 0.22) * (0.6 + 0.7 * year);
      const fx0 = Math.floor(x / 9);
      const near = hash(fx0, Math.floor(y / 0.6), Math.floor(z / 0.6), seed + 1);
      const next = hash(fx0 + 1, Math.floor(y / 0.6), Math.floor(z / 0.6), seed + 1);
      dark += fibreSeen * 0.15 * (near + (next - near) * (x / 9 - fx0) - 0.5);
      const early = f < 0.3 ? 1 : log.pores === 'diffuse' ? 0.6 : 0.12;
      if (hash(Math.floor(x / 3.4), Math.floor(y / 0.42), Math.floor(z / 0.42), seed + 2) < poreShare * early) dark += poreSeen * 0.36;
      if (knot > 0) dark = 0.62 + 0.38 * knot + 0.18 * (lateness - 0.3);
      let sap = 0;
      for (const m of others) {
        if (z < m.from || z > m.to) continue;
        const ex = Math.abs(x - m.middle[0]) / m.half[0];
        const ey = Math.abs(y - m.middle[1]) / m.half[1];
        const d = Math.max(ex, ey);
        if (m.kind === 'sapwood') {
          if (d < 1.25) sap = Math.max(sap, Math.min(1, (1.25 - d + 0.2 * slow(1)) * 4));
        } else if (m.kind === 'stain') {
          if (ex * ex + ey * ey < 1) dark += 0.3 * (1 - ex * ex - ey * ey);
        } else if (m.kind === 'hole') {
          if (ex * ex + ey * ey < 1) dark = 1.6;
        } else if (m.kind === 'check') {
          if (ex < 1 && Math.abs(y - m.middle[1] - 0.5 * slow(0)) < 0.5) dark = 1.5;
        } else if (d < 1) dark = 1.15 + 0.4 * (near - 0.5);
      }
      const step = 3 * Math.max(0, Math.min(STEPS - 1, (dark * 0.62 * STEPS) | 0));
      const o = 3 * (j * width + i);
      for (let k = 0; k < 3; k += 1) rgb[o + k] = table.wood[step + k]! * (1 - sap) + table.sap[step + k]! * sap;
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
  const [ix, iy, iz] = [Math.floor(x), Math.floor(y), Math.floor(z)];
  const ease = (v: number) => v * v * (3 - 2 * v);
  const [fx, fy, fz] = [ease(x - ix), ease(y - iy), ease(z - iz)];
  const along = (dy: number, dz: number) => {
    const a = hash(ix, iy + dy, iz + dz, seed);
    return a + (hash(ix + 1, iy + dy, iz + dz, seed) - a) * fx;
  };
  const low = along(0, 0) + (along(1, 0) - along(0, 0)) * fy;
  const high = along(0, 1) + (along(1, 1) - along(0, 1)) * fy;
  return 2 * (low + (high - low) * fz) - 1;
}
