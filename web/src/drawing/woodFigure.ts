import type { RingOrientation } from '#core/wood/rings.ts';
import { seeded } from './seed.ts';

/** Distance between growth rings as drawn, mm; a medium-grown hardwood. */
const RING_SPACING = 3.2;
const LEAST_SPACING_SHOWN = 1.6;

/**
 * Lines of figure on a strip's show face as SVG path data in mm, the strip lying along x from 0 to `length`, y from 0 to `width`.
 * An edge of flat-sawn stock shows long, nearly straight lines; its broad face shows arches; quartered stock the other way round.
 * @param seed the same seed gives the same figure
 * @param face which side of the stock shows: its edge or its broad face
 */
export function faceFigure(seed: string, length: number, width: number, face: 'edge' | 'broad', rings: RingOrientation): string {
  const arched = face === 'broad' ? rings === 'flat' : rings === 'quarter';
  return arched && width > 25 ? arches(seed, length, width) : longLines(seed, length, width);
}

function longLines(seed: string, length: number, width: number): string {
  const random = seeded(seed);
  const spacing = Math.max(LEAST_SPACING_SHOWN, RING_SPACING * (0.7 + random() * 0.6));
  const drift = (random() - 0.5) * width * 0.25;
  const paths: string[] = [];
  for (let y = spacing * random(); y < width + Math.abs(drift); y += spacing * (0.75 + random() * 0.5)) {
    const wave = (random() - 0.5) * spacing * 0.8;
    const clamp = (v: number) => Math.min(width, Math.max(0, v)).toFixed(1);
    paths.push(`M0 ${clamp(y - drift / 2)}C${(length * 0.3).toFixed(0)} ${clamp(y + wave)} ${(length * 0.6).toFixed(0)} ${clamp(y - wave)} ${length.toFixed(0)} ${clamp(y + drift / 2)}`);
  }
  return paths.join('');
}

/** Cathedral arches: rings cut nearly along their own plane, open to one end, as on a plain-sawn face. */
function arches(seed: string, length: number, width: number): string {
  const random = seeded(seed);
  const middle = width * (0.35 + random() * 0.3);
  const paths: string[] = [];
  const step = length * (0.045 + random() * 0.02);
  for (let apex = length * -0.6, k = 0; apex < length; apex += step * (0.8 + random() * 0.5), k += 1) {
    const tail = length * (1.1 + random() * 0.3);
    const reach = (apex + tail - apex) / length;
    const up = middle * Math.min(1, 0.75 * reach) * (0.92 + random() * 0.1);
    const down = (width - middle) * Math.min(1, 0.75 * reach) * (0.92 + random() * 0.1);
    // Each arch is two flanks of a parabola from its apex towards the far end; the drawing clips what leaves the strip.
    paths.push(`M${(apex + tail).toFixed(0)} ${(middle - up).toFixed(1)}Q${(apex - step).toFixed(0)} ${(middle - up * 0.75).toFixed(1)} ${apex.toFixed(0)} ${middle.toFixed(1)}`
      + `Q${(apex - step).toFixed(0)} ${(middle + down * 0.75).toFixed(1)} ${(apex + tail).toFixed(0)} ${(middle + down).toFixed(1)}`);
  }
  return paths.join('');
}

/**
 * Growth rings on the end of a part, as SVG path data in mm in a box of `across` (x) by `up` (y). In stock coordinates the broad faces lie
 * above and below; a part turned on edge has them left and right.
 * @param turned true when the part stands on edge
 */
export function endRings(seed: string, across: number, up: number, rings: RingOrientation, turned: boolean): string {
  const random = seeded(seed);
  const [u, v] = turned ? [up, across] : [across, up];
  // Where the heart of the tree lies, seen from the part: under a flat-sawn face, beside a quartered one.
  const away = 70 + random() * 90;
  const [cu, cv] = rings === 'flat' ? [u * (0.3 + 0.4 * random()), v + away] : rings === 'quarter' ? [-away, v * (0.3 + 0.4 * random())] : [-away * 0.7, v + away * 0.7];
  const corners = [[0, 0], [u, 0], [0, v], [u, v]].map(([x, y]) => Math.hypot(x! - cu, y! - cv));
  const nearest = Math.hypot(Math.max(0, -cu, cu - u), Math.max(0, -cv, cv - v));
  const [cx, cy] = turned ? [cv, cu] : [cu, cv];
  const paths: string[] = [];
  for (let r = nearest + RING_SPACING * random(); r < Math.max(...corners); r += RING_SPACING * (0.7 + random() * 0.6)) {
    const d = r.toFixed(1);
    paths.push(`M${(cx - r).toFixed(1)} ${cy.toFixed(1)}a${d} ${d} 0 1 1 ${(2 * r).toFixed(1)} 0a${d} ${d} 0 1 1 ${(-2 * r).toFixed(1)} 0`);
  }
  return paths.join('');
}
