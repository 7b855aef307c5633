import type { Made } from '../facts/made.ts';
import { say } from '../units/phrase.ts';
import type { PlanContext } from './context.ts';
import { panelFlat, panelThickness, glueThicknessReached } from './gluedThickness.ts';
import { asTheyAre, buildLadder, startOf, type Dimension, type Ladder, type RungSpec } from './ladder.ts';

const MEASURED = { source: 'piece', habit: undefined, why: say`It was measured at the bench.` } as const;

/** What flattening and sanding take of a panel or a block, with what was measured of it before and after. */
export function faceRungs(context: PlanContext, flatten: RungSpec, sand: RungSpec): RungSpec[] {
  const { made } = context;
  const thick = panelThickness(context);
  const differs = Math.abs(thick - glueThicknessReached(context)) > 1e-9;
  const flat = made.thickness.flat === null ? {} : MEASURED;
  return [
    ...(differs
      ? [{ id: 'as-glued', label: say`As it came out of the clamps`, taken: 0, is: thick, ...MEASURED }]
      : []),
    { ...flatten, taken: thick - panelFlat(context), ...flat },
    sand,
  ];
}

const MEASURED_WORDS: Readonly<Record<Dimension, string>> = {
  thickness: 'Sanded, as measured',
  width: 'Trimmed, as measured',
  length: 'Cut to length, as measured',
};

/** The ladders of a board, each ending at what was measured last of it. */
export function asMeasured(
  ladders: Record<Dimension, Ladder>,
  { thickness, width, length }: Pick<Made, 'thickness' | 'width' | 'length'>,
): Record<Dimension, Ladder> {
  const at = { thickness: thickness.finished, width: width.trimmed, length };
  if (Object.values(at).every((size) => size === null)) return ladders;
  const ends = (dimension: Dimension): Ladder => {
    const [ladder, is] = [ladders[dimension], at[dimension]];
    if (is === null) return ladder;
    const end: RungSpec = { id: 'measured', label: say`${MEASURED_WORDS[dimension]}`, taken: 0, is, ...MEASURED };
    return buildLadder(dimension, startOf(ladder), ladder.target, [...asTheyAre(ladder, ''), end], ladder.limiting);
  };
  return { thickness: ends('thickness'), width: ends('width'), length: ends('length') };
}
