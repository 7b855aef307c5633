import { firstOf, nth } from '../lists/there.ts';
import { length, say, type Phrase } from '../units/phrase.ts';

/**
 * How far a board is out of square. Corners are named as it lies with its reference edge towards the maker: A near left, B near right, C far right, D far left; the
 * reference edge is AB.
 */
export interface Squareness {
  /** How much the angle at B exceeds 90 degrees: the right end leans outward when positive. */
  degrees: number;
  /** How far the end runs out over the board's width, and over its length, mm. */
  overWidth: number;
  overLength: number;
  /** Which way to correct. */
  correction: Phrase;
}

/** A reading that can be true of a board, or a sentence that names what cannot. */
export type SquareReading = ({ ok: true } & Squareness) | { ok: false; what: Phrase };

/** Lengths measured with a tape agree within this, mm, or this share of the length. */
const TAPE_MM = 1;
const TAPE_SHARE = 0.003;
/** Angles read with a square agree within this, degrees. */
const SQUARE_DEGREES = 0.4;
/** Less than this is square by any means at hand, mm over the width. */
const SQUARE_MM = 0.05;

const degreesOf = (radians: number) => (radians * 180) / Math.PI;

function reading(radians: number, size: { length: number; width: number }, correction: Phrase): SquareReading {
  const lean = Math.tan(radians);
  return {
    ok: true,
    degrees: degreesOf(radians),
    overWidth: size.width * lean,
    overLength: size.length * lean,
    correction,
  };
}

function endCorrection(overWidth: number): Phrase {
  if (Math.abs(overWidth) <= SQUARE_MM) return say`Square: nothing to correct.`;
  const [off, stays] =
    overWidth > 0
      ? ([
          ['C', 'B'],
          ['A', 'D'],
        ] as const)
      : ([
          ['B', 'C'],
          ['D', 'A'],
        ] as const);
  return say`Take ${length(Math.abs(overWidth))} off at corner ${off[0]}, tapering to nothing at ${off[1]}; at the other end the same at ${stays[0]}, to nothing at ${stays[1]}.`;
}

/**
 * From the two diagonals. The sides of a board with parallel edges and its diagonals obey the law of the parallelogram, AC^2 + BD^2 = 2 (L^2 + W^2), and
 * AC^2 - BD^2 = 4 L W sin(lean).
 * @param size sides, mm @param ac from near left to far right, mm @param bd from near right to far left, mm
 */
export function fromDiagonals(size: { length: number; width: number }, ac: number, bd: number): SquareReading {
  const sides = Math.hypot(size.length, size.width);
  const mean = Math.sqrt((ac ** 2 + bd ** 2) / 2);
  if (Math.abs(mean - sides) > Math.max(TAPE_MM, sides * TAPE_SHARE)) {
    return {
      ok: false,
      what: say`No board of ${length(size.length)} by ${length(size.width)} has diagonals of ${length(ac)} and ${length(bd)}: together they should average ${length(sides)}. Measure them again, and the sides; if all are right, the edges are not parallel.`,
    };
  }
  const sine = (ac ** 2 - bd ** 2) / (4 * size.length * size.width);
  const lean = Math.asin(Math.max(-1, Math.min(1, sine)));
  return reading(lean, size, endCorrection(size.width * Math.tan(lean)));
}

/**
 * From a try square held into each corner: the gap at the tip of its blade, positive where the corner is wider than 90 degrees.
 * @param gaps at A, B, C, D, mm @param blade length of the square's blade, mm
 */
export function fromCorners(
  size: { length: number; width: number },
  gaps: readonly [number, number, number, number],
  blade: number,
): SquareReading {
  const [a, b, c, d] = gaps.map((gap) => Math.atan(gap / blade)) as [number, number, number, number];
  const sum = degreesOf(a + b + c + d);
  if (Math.abs(sum) > SQUARE_DEGREES) {
    return {
      ok: false,
      what: say`These four corners do not belong to one board with straight edges: its angles add up to 360°, these to ${(360 + sum).toFixed(1)}°. Check that the edges are straight, and whether a gap was read on the wrong side.`,
    };
  }
  const ends = [say`At the left end`, say`At the right end`].map((where, i): Phrase => {
    const over = size.width * Math.tan(i === 0 ? a : b);
    if (Math.abs(over) <= SQUARE_MM) return say`${where} nothing.`;
    const [off, stays] = i === 0 ? (over > 0 ? ['D', 'A'] : ['A', 'D']) : over > 0 ? ['C', 'B'] : ['B', 'C'];
    return say`${where} take ${length(Math.abs(over))} off at ${off}, tapering to nothing at ${stays}.`;
  });
  // The worse end is what the board is out by; both are told. An angle that is wide at A leans the board the other way than one that is wide at B.
  return reading(Math.abs(a) > Math.abs(b) ? -a : b, size, say`${firstOf(ends)} ${nth(ends, 1)}`);
}

/**
 * From five cuts, each with the edge just cut against the fence: the fifth sliver is wider at one end by four times what one cut is out over its length.
 * @param sliver its length, and its width at the end that lay at the fence and at the other, mm
 * @param pivot from the screw the fence turns on to where it is moved, mm
 */
export function fromFiveCuts(
  size: { length: number; width: number },
  sliver: { length: number; fence: number; far: number },
  pivot: number,
): SquareReading {
  const ratio = (sliver.fence - sliver.far) / (4 * sliver.length);
  if (Math.abs(ratio) > 0.05) {
    return {
      ok: false,
      what: say`A sliver of ${length(sliver.length)} that differs by ${length(Math.abs(sliver.fence - sliver.far))} would put the fence out by more than 2.8°: set it with a square first, then cut five times.`,
    };
  }
  const move = Math.abs(ratio) * pivot;
  const correction =
    Math.abs(size.width * ratio) <= SQUARE_MM
      ? say`Square: leave the fence where it is.`
      : say`The fence stands ${ratio > 0 ? 'open' : 'closed'}: ${length(pivot)} from its pivot move it ${length(move)} ${ratio > 0 ? 'towards' : 'away from'} the work. A feeler of that thickness against a stop does it.`;
  return reading(Math.atan(ratio), size, correction);
}

/** How much out of square the next step stands, mm over the board's width: bevels show where they meet, a plain edge hides more (common practice). */
export function squareEnough(edge: string): number {
  return edge === 'underBevel' ? 0.3 : 1;
}
