import { allPairsSchema, entryChangeSchema, logPageSchema, logQuerySchema, storedEntrySchema } from '#contract/log.ts';
import { certain } from '#core/lists/there.ts';
import { logEntrySchema } from '#core/log/entry.ts';
import { queryOf, type Operation } from '../operation.ts';
import { validated } from '../problem.ts';
import { NOTHING_TO_SAY, reply } from '../reply.ts';
import { addEntry, allPairs, changeEntry, logPage, readEntry, removeEntry } from '../stores/logStore.ts';

/** Boards that are done. */
export const logOperations: Operation[] = [
  {
    method: 'get',
    path: '/log',
    summary: 'Finished boards, a page at a time, by words, species and order',
    ok: [200, 'A page of the log', logPageSchema],
    errors: [400],
    query: logQuerySchema,
    run: async (db, call) => reply(await logPage(db, queryOf(logQuerySchema, call))),
  },
  {
    method: 'post',
    path: '/log',
    touches: ['log'],
    summary: 'Take a finished board into the log, as it is now',
    ok: [201, 'In the log', storedEntrySchema],
    errors: [400, 409],
    input: logEntrySchema,
    run: async (tx, { body }) => reply(await addEntry(tx, validated(logEntrySchema, body)), 201),
  },
  {
    method: 'get',
    path: '/log/pairs',
    summary: 'What was planned and what happened, of all finished boards',
    ok: [200, 'All pairs', allPairsSchema],
    errors: [],
    run: async (db) => reply({ pairs: await allPairs(db) }),
  },
  {
    method: 'get',
    path: '/log/{id}',
    summary: 'A finished board',
    ok: [200, 'As it was', storedEntrySchema],
    errors: [404],
    run: async (db, { params }) => reply(await readEntry(db, certain(params.id, 'the id of the address'))),
  },
  {
    method: 'put',
    path: '/log/{id}',
    touches: ['log'],
    summary: 'Say whose a finished board is, or what was done to it since',
    ok: [200, 'With what was said', storedEntrySchema],
    errors: [400, 404, 409],
    input: entryChangeSchema,
    run: async (tx, { params, body }) =>
      reply(await changeEntry(tx, certain(params.id, 'the id of the address'), validated(entryChangeSchema, body))),
  },
  {
    method: 'post',
    path: '/log/{id}/remove',
    touches: ['log'],
    summary: 'Take a board out of the log; it can be brought back',
    ok: [204, 'Taken out'],
    errors: [404],
    input: null,
    run: async (tx, { params }) => {
      await removeEntry(tx, certain(params.id, 'the id of the address'), true);
      return NOTHING_TO_SAY;
    },
  },
  {
    method: 'post',
    path: '/log/{id}/restore',
    touches: ['log'],
    summary: 'Bring a board back into the log',
    ok: [204, 'Brought back'],
    errors: [404, 409],
    input: null,
    run: async (tx, { params }) => {
      await removeEntry(tx, certain(params.id, 'the id of the address'), false);
      return NOTHING_TO_SAY;
    },
  },
];
