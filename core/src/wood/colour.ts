import { certain } from '../lists/there.ts';
import { differenceCiede2000, parseHex, useMode as withMode, modeLab65, modeRgb, type Lab65 } from 'culori/fn';

withMode(modeRgb);
const toLab = withMode(modeLab65);

const LABS = new Map<string, Lab65>();

/** A drawing colour `#rrggbb` in CIELAB under D65. Remembered: a few species are asked for thousands of times. */
function labOf(hex: string): Lab65 {
  const known = LABS.get(hex);
  if (known) return known;
  const lab = certain(toLab(parseHex(hex)));
  LABS.set(hex, lab);
  return lab;
}

/** CIELAB lightness, 0 black to 100 white. */
export function lightness(hex: string): number {
  return labOf(hex).l;
}

const ciede2000 = differenceCiede2000();

/**
 * How different two colours look: CIEDE2000, after Sharma, Wu and Dalal, Color Research and Application 30 (2005). 1 is just seen side by side;
 * walnut beside maple is about 50.
 * @param one, two `#rrggbb`, or CIELAB under D65
 */
export function colourDifference(
  one: string | [l: number, a: number, b: number],
  two: string | [l: number, a: number, b: number],
): number {
  const lab = (c: typeof one): Lab65 =>
    typeof c === 'string' ? labOf(c) : { mode: 'lab65', l: c[0], a: c[1], b: c[2] };
  return ciede2000(lab(one), lab(two));
}
