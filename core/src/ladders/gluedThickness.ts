import type { PlanContext } from './context.ts';

/**
 * The thickness to which strips can be milled for gluing, mm: what the board asks for, or where strips lie flat what the thinnest of
 * their pieces leaves once flat. Rows are as high as they were sawn, or as thick as their panel.
 */
export function glueThicknessReached(context: PlanContext): number {
  const { allowances, again } = context;
  if (again) return again.block.height;
  return Math.min(
    allowances.glueThickness,
    ...context.cutting.blanks.flatMap((b) =>
      b.strips.map((s) =>
        s.way.shows === 'face' && s.layers === 1 ? s.planed : s.way.shows === 'face' ? s.way.thickness : Infinity,
      ),
    ),
  );
}
