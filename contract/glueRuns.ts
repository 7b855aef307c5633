import { z } from 'zod';
import { runDocumentSchema, runEvents } from '#core/gluing/glueRun.ts';
import { lineOfText } from '#core/units/textSchema.ts';
import { versionSchema } from './version.ts';

/** A glue-up of one panel as it went, or as it is going. */
export const storedRunSchema = z.strictObject({
  id: z.string(),
  boardId: z.string(),
  glueUp: z.string(),
  copy: z.int(),
  version: z.int(),
  startedAt: z.iso.datetime(),
  /** Null while its clock runs. */
  endedAt: z.iso.datetime().nullable(),
  run: runDocumentSchema,
});
export type StoredRun = z.infer<typeof storedRunSchema>;

/** All runs of a board, the newest first, with the server's time. */
export const runsSchema = z.strictObject({ now: z.iso.datetime(), runs: z.array(storedRunSchema) });
export type Runs = z.infer<typeof runsSchema>;

export const runStartSchema = z.strictObject({
  glueUp: z.string().regex(/^[A-Za-z0-9.]{1,20}$/, { error: 'must be the id of a glue-up' }),
  copy: z.int().min(1).max(50),
  title: runDocumentSchema.shape.title,
  due: runDocumentSchema.shape.due,
});
export type RunStart = z.infer<typeof runStartSchema>;

const event = z.enum(runEvents);
/** What a device says of a run: something happened now, the last mark is taken back, a note, or that it is over. */
const runChangeShape = {
  mark: event.optional(),
  unmark: event.optional(),
  note: lineOfText(0, 300).optional(),
  end: z.boolean().optional(),
};
export type RunChange = z.infer<z.ZodObject<typeof runChangeShape>>;
export const runChangeSchema = z.strictObject({ version: versionSchema, ...runChangeShape });
