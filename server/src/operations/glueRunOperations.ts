import { certain } from '#core/lists/there.ts';
import { runChangeSchema, runsSchema, runStartSchema, storedRunSchema } from '#contract/glueRuns.ts';
import type { Operation } from '../operation.ts';
import { validated } from '../problem.ts';
import { reply } from '../reply.ts';
import { changeRun, runsOf, startRun } from '../stores/glueRunStore.ts';

/** Clocks of glue-ups: the server keeps the time, so that every device shows the same. */
export const glueRunOperations: readonly Operation[] = [
  {
    method: 'get',
    path: '/boards/{id}/runs',
    summary: "Clocks of glue-ups, newest first, with the server's time",
    ok: [200, 'Runs', runsSchema],
    errors: [],
    run: async (db, { params }) =>
      reply({ now: new Date().toISOString(), runs: await runsOf(db, certain(params.id, 'the id of the address')) }),
  },
  {
    method: 'post',
    path: '/boards/{id}/runs',
    touches: ['runs'],
    summary: 'Start the clock of a glue-up',
    ok: [201, 'Started', storedRunSchema],
    errors: [400, 404, 409],
    input: runStartSchema,
    run: async (tx, { params, body }) => {
      const { glueUp, copy, title, due } = validated(runStartSchema, body);
      return reply(
        await startRun(tx, certain(params.id, 'the id of the address'), glueUp, copy, {
          title,
          due,
          marks: [],
          note: '',
        }),
        201,
      );
    },
  },
  {
    method: 'put',
    path: '/runs/{id}',
    touches: ['runs'],
    summary: "Note what happened in a glue-up, at the server's time",
    ok: [200, 'Noted', storedRunSchema],
    errors: [400, 404, 409],
    input: runChangeSchema,
    run: async (tx, { params, body }) => {
      const { version, ...change } = validated(runChangeSchema, body);
      return reply(await changeRun(tx, certain(params.id, 'the id of the address'), version, change));
    },
  },
];
