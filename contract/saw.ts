import { z } from 'zod';
import { bareCutSchema } from '#core/cutting/cutPlanSchema.ts';
import { stripNameSchema } from '#core/saw/sawRecords.ts';
import { idSchema } from '#core/units/textSchema.ts';
import { versionSchema } from './version.ts';

export { sawBookSchema } from '#core/saw/sawRecords.ts';

/** Boards that may be asked for, kept or let go at once. */
export const MOST_BOARDS_AT_SAW = 50;

function boardsOnce<T>(entry: z.ZodType<T>, idOf: (value: T) => string) {
  return z
    .array(entry)
    .min(1, { error: 'must name at least one board' })
    .max(MOST_BOARDS_AT_SAW, { error: `must be at most ${MOST_BOARDS_AT_SAW} boards` })
    .refine((list) => new Set(list.map(idOf)).size === list.length, { error: 'must name each board once' });
}

/** A board at the revision a plan was made for. */
export const plannedBoardSchema = z.strictObject({ id: idSchema, revision: versionSchema });
export type PlannedBoard = z.infer<typeof plannedBoardSchema>;

export const keepSchema = z.strictObject({ boards: boardsOnce(plannedBoardSchema, (b) => b.id), cut: bareCutSchema });
export const releaseSchema = z.strictObject({ boards: boardsOnce(idSchema, (id) => id) });

/** One unit of a piece of a kept plan. */
export const plannedUnitSchema = z.strictObject({ planId: idSchema, pieceId: idSchema, unit: versionSchema });
export type PlannedUnit = z.infer<typeof plannedUnitSchema>;

export const failSchema = z.strictObject({
  version: versionSchema,
  failed: z.array(stripNameSchema).max(400, { error: 'must be at most 400 strips' }),
});
