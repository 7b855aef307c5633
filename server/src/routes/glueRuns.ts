import { Router } from 'express';
import type { Knex } from 'knex';
import { z } from 'zod';
import { runDocumentSchema, runEvents } from '#core/gluing/glueRun.ts';
import { lineOfText } from '#core/units/lengthSchema.ts';
import { validated } from '../problem.ts';
import { changeRun, runsOf, startRun } from '../stores/glueRunStore.ts';
import { versionSchema } from './version.ts';

const event = z.enum(runEvents, { error: `must be one of ${runEvents.join(', ')}` });
export const runStartSchema = z.strictObject({
  glueUp: z.string({ error: 'must be text' }).regex(/^[A-Za-z0-9.]{1,20}$/, { error: 'must be the id of a glue-up' }),
  copy: z.int({ error: 'must be a whole number' }).min(1, { error: 'must be at least 1' }).max(50, { error: 'must be at most 50' }),
  title: runDocumentSchema.shape.title, due: runDocumentSchema.shape.due,
});
export const runChangeSchema = z.strictObject({
  version: versionSchema, mark: event.optional(), unmark: event.optional(), note: lineOfText(0, 300).optional(), end: z.boolean({ error: 'must be true or false' }).optional(),
});

/** Clocks of glue-ups: the server keeps the time, so that every device shows the same. */
export function glueRunRoutes(db: Knex): Router {
  return Router()
    .get('/boards/:id/runs', async (request, response) => {
      response.json({ now: new Date().toISOString(), runs: await runsOf(db, request.params.id) });
    })
    .post('/boards/:id/runs', async (request, response) => {
      const { glueUp, copy, title, due } = validated(runStartSchema, request.body);
      response.status(201).json(await startRun(db, request.params.id, glueUp, copy, { title, due, marks: [], note: '' }));
    })
    .put('/runs/:id', async (request, response) => {
      const { version, ...change } = validated(runChangeSchema, request.body);
      response.json(await changeRun(db, request.params.id, version, change));
    });
}
