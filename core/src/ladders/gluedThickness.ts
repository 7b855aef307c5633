import { stripsOf } from '../board/recipe.ts';
import { pitRun } from '../shop/grits.ts';
import type { Made } from '../facts/made.ts';
import type { PlanContext } from './context.ts';

/**
 * The thickness to which strips can be milled for gluing, mm: what the board asks for, or where strips lie flat what the thinnest of
 * their pieces leaves once flat. Rows are as high as they were sawn, or as thick as their panel.
 */
export function glueThicknessReached(context: PlanContext): number {
  const known = REACHED.get(context) ?? thinnestGlued(context);
  REACHED.set(context, known);
  return known;
}

/** Every strip of a plan asks for it. */
const REACHED = new WeakMap<PlanContext, number>();

function thinnestGlued(context: PlanContext): number {
  const { allowances, again } = context;
  if (again) return again.block.height;
  const counts = countsAmong(context);
  return Math.min(
    allowances.glueThickness,
    ...context.cutting.blanks.flatMap((b) =>
      b.strips
        .filter((s) => counts(s.demand.stripId))
        .map((s) =>
          s.way.shows === 'face' && s.layers === 1 ? s.planed : s.way.shows === 'face' ? s.way.thickness : Infinity,
        ),
    ),
  );
}

/** Which strips decide how thick a panel is glued: all that have no height of their own, or, of a panel whose strips have one, such as a back, those alone. */
function countsAmong(context: PlanContext): (strip: string) => boolean {
  const { allowances, board } = context;
  // Most boards have no such strips, and this is asked often.
  if (Object.values(allowances.loose).every((l) => l.height === null)) return () => true;
  const own = new Set(stripsOf(board).map((s) => s.id));
  const alone = [...own].some((id) => isOfItsOwnHeight(context, id));
  return (id) => (alone ? own.has(id) : !isOfItsOwnHeight(context, id));
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

/** How thick panels or blocks come out of their clamps, mm: as they were measured there, or as the thinnest of their strips was; planned where nobody measured. */
export function panelThickness(context: PlanContext): number {
  const { made, again, frame, back } = context;
  const planned = glueThicknessReached(context);
  // What was measured with a frame on, or a back under it, is another thing.
  if (frame || back) return planned;
  if (made.thickness.glued !== null) return made.thickness.glued;
  if (again || made.strips.size === 0) return planned;
  return Math.min(planned, ...[...made.strips.values()].flatMap((s) => s.thickness ?? []));
}

/** How thick they are once they are flat, mm: as they were measured then; else what flattening leaves, and no more than was planned. */
export function panelFlat(context: PlanContext): number {
  const { made, shop, frame, back } = context;
  if (made.thickness.flat !== null && !frame && !back) return made.thickness.flat;
  const left = Math.min(panelThickness(context), glueThicknessReached(context)) - shop.habits.panelFlatten;
  return Math.max(0, left);
}

/** How thick it is once it is flat, with all that is glued to it so far, before it is sanded, mm. */
export function flatThickness(context: PlanContext): number {
  const { made, frame, back } = context;
  if (made.thickness.flat !== null && (frame || back)) return made.thickness.flat;
  return panelFlat(context) + (back?.thickness ?? 0);
}

/** What sanding takes off both faces together, mm: as the habit has it, and of a face with a pit all that its papers take. */
export function sandedOff({ shop, made: { pits } }: Pick<PlanContext, 'shop'> & { made: Pick<Made, 'pits'> }): number {
  const each = shop.habits.sanding / 2;
  const more = (pit: number | undefined) => (pit === undefined ? 0 : Math.max(0, pitRun(shop, pit).takes - each));
  return shop.habits.sanding + more(pits.top) + more(pits.bottom);
}
