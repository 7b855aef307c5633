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
      b.strips
        .filter((s) => !isOfItsOwnHeight(context, s.demand.stripId))
        .map((s) =>
          s.way.shows === 'face' && s.layers === 1 ? s.planed : s.way.shows === 'face' ? s.way.thickness : Infinity,
        ),
    ),
  );
}

/** Whether a strip is milled to a height of its own, whatever those of the panels are. */
export function isOfItsOwnHeight({ allowances }: Pick<PlanContext, 'allowances'>, strip: string): boolean {
  return typeof allowances.loose[strip]?.height === 'number';
}

/** How high a strip is milled, mm: as those of the panels, or where it lies flat in a frame of another height what its piece leaves of that. */
export function gluedHeight(context: PlanContext, strip: string): number {
  const own = context.allowances.loose[strip]?.height ?? null;
  if (own === null) return glueThicknessReached(context);
  return Math.min(
    own,
    ...context.cutting.blanks.flatMap((b) =>
      b.strips
        .filter((s) => s.demand.stripId === strip && s.way.shows === 'face')
        .map((s) => (s.layers === 1 ? s.planed : s.way.thickness)),
    ),
  );
}
