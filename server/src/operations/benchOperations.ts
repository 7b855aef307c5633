import { pictureSchema, readingSchema, readingsQuerySchema, readingsSchema, waitsSchema } from '#contract/bench.ts';
import { certain } from '#core/lists/there.ts';
import { queryOf, type Operation } from '../operation.ts';
import { validated } from '../problem.ts';
import { NOTHING_TO_SAY, reply } from '../reply.ts';
import { keepPicture, readPicture } from '../stores/pictureStore.ts';
import { addReading, readingsAfter } from '../stores/readingStore.ts';
import { waitsOfBoards } from '../stores/waitStore.ts';

/** What the bench asks for beside the facts of one board. */
export const benchOperations: Operation[] = [
  {
    method: 'get',
    path: '/waits',
    summary: 'What glue, oil and rests are waited for on all boards, and until when',
    ok: [200, 'Every wait', waitsSchema],
    errors: [],
    run: async (db) => {
      const now = Date.now();
      return reply({ now: new Date(now).toISOString(), waits: await waitsOfBoards(db, now) });
    },
  },
  {
    method: 'get',
    path: '/readings',
    summary: 'What instruments sent since a reading',
    ok: [200, 'Readings', readingsSchema],
    errors: [400],
    query: readingsQuerySchema,
    run: async (db, call) => reply(await readingsAfter(db, queryOf(readingsQuerySchema, call).after)),
  },
  {
    method: 'post',
    path: '/readings',
    touches: ['readings'],
    summary: 'Send a reading of an instrument to the field that waits for it',
    ok: [204, 'Sent'],
    errors: [400, 429],
    input: readingSchema,
    run: async (tx, { body }) => {
      await addReading(tx, validated(readingSchema, body));
      return NOTHING_TO_SAY;
    },
  },
  {
    method: 'put',
    path: '/boards/{id}/pictures/{picture}',
    touches: ['pictures'],
    summary: 'Keep a picture that was taken at the bench',
    ok: [204, 'Kept'],
    errors: [400, 404, 409],
    input: pictureSchema,
    run: async (tx, { params, body }) => {
      await keepPicture(
        tx,
        certain(params.id, 'the id of the address'),
        certain(params.picture, 'the picture of the address'),
        validated(pictureSchema, body),
      );
      return NOTHING_TO_SAY;
    },
  },
  {
    method: 'get',
    path: '/boards/{id}/pictures/{picture}',
    summary: 'A picture that was taken at the bench',
    ok: [200, 'The picture', pictureSchema],
    errors: [404],
    run: async (db, { params }) =>
      reply(
        await readPicture(
          db,
          certain(params.id, 'the id of the address'),
          certain(params.picture, 'the picture of the address'),
        ),
      ),
  },
];
