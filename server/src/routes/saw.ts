import { Router } from 'express';
import type { Knex } from 'knex';
import { z } from 'zod';
import { bareCutSchema } from '#core/cutting/cutPlanSchema.ts';
import { stripNameSchema } from '#core/plan/sawRecords.ts';
import { validated } from '../problem.ts';
import { cutPiece, markFailed, undoCutting } from '../stores/cuttingStore.ts';
import { holdSawBook, keepPlan, releaseWood, sawBook } from '../stores/sawStore.ts';
import { versionSchema } from './version.ts';

const id = z.string({ error: 'must be text' }).min(1, { error: 'must not be empty' }).max(40, { error: 'must be at most 40 characters' });

export const keepSchema = z.strictObject({
  boards: z.array(z.strictObject({ id, revision: versionSchema })).min(1, { error: 'must name at least one board' }).max(50, { error: 'must be at most 50 boards' }),
  cut: bareCutSchema,
});
export const releaseSchema = z.strictObject({ boards: z.array(id).min(1, { error: 'must name at least one board' }).max(50, { error: 'must be at most 50 boards' }) });
export const cutSchema = z.strictObject({ planId: id, pieceId: id, unit: versionSchema });
export const failSchema = z.strictObject({ version: versionSchema, failed: z.array(stripNameSchema).max(400, { error: 'must be at most 400 strips' }) });

/** Promised wood and what the saw has done. Every write answers with the whole book as it is then. */
export function sawRoutes(db: Knex): Router {
  return Router()
    .get('/saw', async (_request, response) => {
      response.json(await sawBook(db));
    })
    .post('/saw/keep', async (request, response) => {
      const { boards, cut } = validated(keepSchema, request.body);
      response.json(await keepPlan(db, boards, cut));
    })
    .post('/saw/release', async (request, response) => {
      const { boards } = validated(releaseSchema, request.body);
      response.json(await db.transaction(async (tx) => {
        await holdSawBook(tx);
        await releaseWood(tx, boards);
        return sawBook(tx);
      }));
    })
    .post('/saw/cut', async (request, response) => {
      response.json(await cutPiece(db, validated(cutSchema, request.body)));
    })
    .post('/saw/cuttings/:id/undo', async (request, response) => {
      response.json(await undoCutting(db, request.params.id));
    })
    .post('/saw/cuttings/:id/fail', async (request, response) => {
      const { version, failed } = validated(failSchema, request.body);
      response.json(await markFailed(db, request.params.id, version, failed));
    });
}
