import type { LengthDisplay } from '#core/units/formatLength.ts';
import { MM_PER_INCH } from '#core/units/length.ts';

/** A depth that is told finer than anything is cut: hundredths of a millimetre, or thousandths of an inch. @param mm from 0 */
export function fineDepth(mm: number, { system }: Pick<LengthDisplay, 'system'>): string {
  return system === 'metric' ? `${mm.toFixed(2)} mm` : `${(mm / MM_PER_INCH).toFixed(3).replace(/^0/, '')}"`;
}
