import { firstOf, lastOf, nth } from '../lists/there.ts';
import type { Section } from '../cutting/sections.ts';
import { lightness } from '../wood/colour.ts';
import type { Random } from './random.ts';

/** A strip on its way into a proposal. */
export interface Lath {
  species: string;
  width: number;
  /** Widest that the rack gives it, mm. */
  most: number;
  /** Keeps its width when the others give way. */
  accent: boolean;
}

/** What orders strips are proposed in. */
export const PATTERNS = ['alternating', 'bands', 'accents', 'shaded', 'centre', 'plain', 'scattered'] as const;
export type Pattern = (typeof PATTERNS)[number];

export interface Palette {
  /** Sections for wide strips, one or more species. */
  fields: Section[];
  /** Sections for thin strips between them; null when the rack has none. */
  accent: Section | null;
}

/** Narrowest accent worth a glue line, and the widest that still reads as a line, mm (common practice: 1/8 to 1/2 in). */
const ACCENT = { least: 3, greatest: 14 };

const lath = (section: Section, width = section.width, accent = false): Lath => ({
  species: section.species,
  width,
  most: section.width,
  accent,
});

/** An accent strip: the section, planed down where it is wider than a line should be. */
function line(section: Section, random: Random): Lath {
  const width = section.width <= ACCENT.greatest ? section.width : nth([5, 6.4, 8, 10, 12.7], random.below(5));
  return lath(section, Math.max(ACCENT.least, Math.min(width, section.width)), true);
}

/**
 * Strips in a pattern, enough to be at least `wanted` mm wide together, or null when the palette does not carry the pattern.
 * @param most more strips than this are not laid
 */
export function layPattern(
  pattern: Pattern,
  { fields, accent }: Palette,
  wanted: number,
  mirrored: boolean,
  most: number,
  colours: ReadonlyMap<string, string>,
  random: Random,
): Lath[] | null {
  const [first, second] = fields;
  if (!first) return null;
  const makers: Record<Pattern, () => (() => Lath[]) | null> = {
    plain: () => (fields.length === 1 ? () => [lath(first)] : null),
    alternating: () => {
      let n = 0;
      return second ? () => [lath(nth(fields, n++ % fields.length))] : null;
    },
    bands: () => {
      const run = 2 + random.below(2);
      let n = 0;
      return second
        ? () => Array.from({ length: run }, () => lath(nth(fields, Math.floor(n++ / run) % fields.length)))
        : null;
    },
    accents: () => {
      if (!accent) return null;
      const thin = line(accent, random);
      let n = 0;
      return () => [lath(nth(fields, n++ % fields.length)), { ...thin }];
    },
    shaded: () => {
      if (!second) return null;
      const byLight = [...fields].sort(
        (a, b) => lightness(colours.get(b.species) ?? '#888888') - lightness(colours.get(a.species) ?? '#888888'),
      );
      const each = wanted / (mirrored ? 2 : 1) / byLight.length;
      let k = 0;
      let sum = 0;
      return () => {
        const section = nth(byLight, Math.min(k, byLight.length - 1));
        sum += section.width;
        if (sum >= each * (k + 1)) k += 1;
        return [lath(section)];
      };
    },
    centre: () => {
      if (!second) return null;
      let begun = false;
      return () => {
        // Laid from the middle outward; turned round below.
        const strips = begun ? [lath(first)] : [lath(second), ...(accent ? [line(accent, random)] : [])];
        begun = true;
        return strips;
      };
    },
    scattered: () => (second ? () => [lath(random.pick(fields))] : null),
  };
  const make = makers[pattern]();
  if (!make) return null;
  const symmetrical = mirrored || pattern === 'centre';
  const laid: Lath[] = [];
  const width = () => laid.reduce((sum, l, i) => sum + l.width * (symmetrical && i > 0 ? 2 : 1), 0);
  while (width() < wanted - 1e-6) {
    laid.push(...make());
    if (laid.length * (symmetrical ? 2 : 1) > most) return null;
  }
  // A line outside a field would be trimmed away with the edge.
  if (lastOf(laid).accent) laid.push(lath(first));
  return symmetrical ? [...laid.slice(1).reverse(), ...laid] : firstOf(laid).accent ? laid.slice(1) : laid;
}
