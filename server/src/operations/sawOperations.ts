import { certain } from '#core/lists/there.ts';
import { z } from 'zod';
import {
  failSchema,
  keepSchema,
  MOST_BOARDS_AT_SAW,
  plannedUnitSchema,
  releaseSchema,
  sawBookSchema,
} from '#contract/saw.ts';
import { queryOf, type Operation } from '../operation.ts';
import { validated } from '../problem.ts';
import { reply } from '../reply.ts';
import { cutPiece, markFailed, undoCutting } from '../stores/cuttingStore.ts';
import { holdSawBook, keepPlan, releaseWood, sawBook } from '../stores/sawStore.ts';

/** Boards whose plans and cuttings are wanted, in one text with commas. */
const bookQuerySchema = z.object({
  boards: z
    .string()
    .regex(/^[A-Za-z0-9_,-]*$/, { error: 'must be ids of boards with commas between them' })
    .max(41 * MOST_BOARDS_AT_SAW, { error: `must be at most ${MOST_BOARDS_AT_SAW} boards` })
    .default(''),
});

/** Promised wood and what the saw has done. A write answers with the book of the boards it was about, as it is then. */
export const sawOperations: readonly Operation[] = [
  {
    method: 'get',
    path: '/saw',
    summary: 'All promised wood, and the kept plans and cuttings of some boards',
    ok: [200, 'The saw book', sawBookSchema],
    errors: [400],
    query: bookQuerySchema,
    run: async (db, call) =>
      reply(
        await sawBook(
          db,
          queryOf(bookQuerySchema, call)
            .boards.split(',')
            .filter((id) => id !== ''),
        ),
      ),
  },
  {
    method: 'post',
    path: '/saw/keep',
    touches: ['saw', 'rack'],
    summary: 'Keep a cut plan: its wood is promised to the boards',
    ok: [200, 'The saw book', sawBookSchema],
    errors: [400, 404, 409],
    input: keepSchema,
    inWorker: true,
    run: async (tx, { body }) => {
      const { boards, cut } = validated(keepSchema, body);
      return reply(await keepPlan(tx, boards, cut));
    },
  },
  {
    method: 'post',
    path: '/saw/release',
    touches: ['saw', 'rack'],
    summary: 'Let go of the wood promised to boards',
    ok: [200, 'The saw book', sawBookSchema],
    errors: [400],
    input: releaseSchema,
    run: async (tx, { body }) => {
      const { boards } = validated(releaseSchema, body);
      await holdSawBook(tx);
      await releaseWood(tx, boards);
      return reply(await sawBook(tx, boards));
    },
  },
  {
    method: 'post',
    path: '/saw/cut',
    touches: ['saw', 'rack'],
    summary: 'Book a piece of a kept plan as cut',
    ok: [200, 'The saw book', sawBookSchema],
    errors: [400, 404, 409],
    input: plannedUnitSchema,
    run: async (tx, { body }) => reply(await cutPiece(tx, validated(plannedUnitSchema, body))),
  },
  {
    method: 'post',
    path: '/saw/cuttings/{id}/undo',
    touches: ['saw', 'rack'],
    summary: 'Take a cutting back',
    ok: [200, 'The saw book', sawBookSchema],
    errors: [404, 409],
    input: null,
    run: async (tx, { params }) => reply(await undoCutting(tx, certain(params.id, 'the id of the address'))),
  },
  {
    method: 'post',
    path: '/saw/cuttings/{id}/fail',
    touches: ['saw', 'rack'],
    summary: 'Say which strips of a cutting failed',
    ok: [200, 'The saw book', sawBookSchema],
    errors: [400, 404, 409],
    input: failSchema,
    run: async (tx, { params, body }) => {
      const { version, failed } = validated(failSchema, body);
      return reply(await markFailed(tx, certain(params.id, 'the id of the address'), version, failed));
    },
  },
];
