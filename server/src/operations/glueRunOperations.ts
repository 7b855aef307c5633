import { z } from 'zod';
import { runDocumentSchema, runEvents } from '#core/gluing/glueRun.ts';
import { lineOfText } from '#core/units/textSchema.ts';
import type { Operation } from '../operation.ts';
import { validated } from '../problem.ts';
import { reply } from '../reply.ts';
import { changeRun, runsOf, startRun } from '../stores/glueRunStore.ts';
import { versionSchema } from './version.ts';

const event = z.enum(runEvents, { error: `must be one of ${runEvents.join(', ')}` });
const runStartSchema = z.strictObject({
  glueUp: z.string({ error: 'must be text' }).regex(/^[A-Za-z0-9.]{1,20}$/, { error: 'must be the id of a glue-up' }),
  copy: z
    .int({ error: 'must be a whole number' })
    .min(1, { error: 'must be at least 1' })
    .max(50, { error: 'must be at most 50' }),
  title: runDocumentSchema.shape.title,
  due: runDocumentSchema.shape.due,
});
const runChangeSchema = z.strictObject({
  version: versionSchema,
  mark: event.optional(),
  unmark: event.optional(),
  note: lineOfText(0, 300).optional(),
  end: z.boolean({ error: 'must be true or false' }).optional(),
});

const storedRun = z.strictObject({
  id: z.string(),
  boardId: z.string(),
  glueUp: z.string(),
  copy: z.int(),
  version: z.int(),
  startedAt: z.iso.datetime(),
  endedAt: z.iso.datetime().nullable(),
  run: runDocumentSchema,
});

/** Clocks of glue-ups: the server keeps the time, so that every device shows the same. */
export const glueRunOperations: readonly Operation[] = [
  {
    method: 'get',
    path: '/boards/{id}/runs',
    summary: "Clocks of glue-ups, newest first, with the server's time",
    ok: [200, 'Runs', z.strictObject({ now: z.iso.datetime(), runs: z.array(storedRun) })],
    errors: [],
    run: async (db, { params }) => reply({ now: new Date().toISOString(), runs: await runsOf(db, params.id!) }),
  },
  {
    method: 'post',
    path: '/boards/{id}/runs',
    summary: 'Start the clock of a glue-up',
    ok: [201, 'Started', storedRun],
    errors: [400, 404, 409],
    input: runStartSchema,
    run: async (tx, { params, body }) => {
      const { glueUp, copy, title, due } = validated(runStartSchema, body);
      return reply(await startRun(tx, params.id!, glueUp, copy, { title, due, marks: [], note: '' }), 201);
    },
  },
  {
    method: 'put',
    path: '/runs/{id}',
    summary: "Note what happened in a glue-up, at the server's time",
    ok: [200, 'Noted', storedRun],
    errors: [400, 404, 409],
    input: runChangeSchema,
    run: async (tx, { params, body }) => {
      const { version, ...change } = validated(runChangeSchema, body);
      return reply(await changeRun(tx, params.id!, version, change));
    },
  },
];
