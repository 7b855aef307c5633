import { lastOf } from '#core/lists/there.ts';
import { MM_PER_INCH } from '#core/units/length.ts';
import type { LengthDisplay } from '#core/units/formatLength.ts';

/** CSS pixels in a millimetre: 96 to the inch. */
const PX_PER_MM = 96 / MM_PER_INCH;

/**
 * The largest scale that fits, pixels per mm.
 * @param mm size of the thing @param px room for it
 */
export function fitScale(mm: [number, number], px: [number, number], most = 4): number {
  return Math.max(0.02, Math.min(px[0] / Math.max(1, mm[0]), px[1] / Math.max(1, mm[1]), most));
}

/** The scale in words, `1:2.5`; drawings on a screen are true only as far as its pixels are. */
export function scaleWords(scale: number): string {
  const ratio = PX_PER_MM / scale;
  return ratio >= 1 ? `1:${Number(ratio.toFixed(1))}` : `${Number((1 / ratio).toFixed(1))}:1`;
}

/** Ruler graduation for a scale: distance of the smallest ticks in mm, and every how many of them a longer one and a number come. */
export function graduation(scale: number, { system }: LengthDisplay): { step: number; middle: number; major: number } {
  const options =
    system === 'metric'
      ? [
          { step: 1, middle: 5, major: 10 },
          { step: 5, middle: 2, major: 10 },
          { step: 10, middle: 5, major: 10 },
          { step: 50, middle: 2, major: 10 },
        ]
      : [
          { step: MM_PER_INCH / 8, middle: 4, major: 8 },
          { step: MM_PER_INCH / 4, middle: 2, major: 4 },
          { step: MM_PER_INCH / 2, middle: 2, major: 4 },
          { step: MM_PER_INCH, middle: 6, major: 12 },
        ];
  return options.find((o) => o.step * scale >= 3.2 && o.step * o.major * scale >= 26) ?? lastOf(options);
}
