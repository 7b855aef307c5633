import { each, isRecord, type Json, type VersionStep } from './step.ts';

/** What was glued lay flush, along the board, as thick as the board asks: now a glue-up says so. */
function glued({ recipe, ...rest }: Json): Json {
  if (recipe === undefined) return rest;
  const flush = (operation: Json): Json =>
    operation.kind === 'glue' ? { ...operation, stagger: 0, shifts: [], runs: 'along', thickness: null } : operation;
  return { ...rest, recipe: each(recipe, flush) };
}

const THIRTY_SECOND_MM = 25.4 / 32;

/** What flattening end grain takes: 3/32 in where long grain is flattened by whole thirty-seconds of an inch, else 2.5 mm (common practice: 2 to 3 mm). */
function endGrain(panelFlatten: unknown): number {
  if (typeof panelFlatten !== 'number' || panelFlatten === 0) return 2.5;
  const parts = panelFlatten / THIRTY_SECOND_MM;
  return Math.abs(parts - Math.round(parts)) < 1e-6 ? 3 * THIRTY_SECOND_MM : 2.5;
}

/** Panels are cut and glued again: glue-ups say how their parts lie, and a shop what flattening end grain takes. */
export const TO_10 = {
  version: 10,
  board: (board: Json): Json => ({
    ...glued(board),
    ...('versions' in board ? { versions: each(board.versions, glued) } : {}),
  }),
  shop: (shop: Json): Json =>
    isRecord(shop.habits)
      ? { ...shop, habits: { ...shop.habits, endGrainFlatten: endGrain(shop.habits.panelFlatten) } }
      : shop,
} satisfies VersionStep;
