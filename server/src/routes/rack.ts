import { Router } from 'express';
import type { Knex } from 'knex';
import { z } from 'zod';
import { GREATEST_CSV_ROWS } from '#core/format/rackCsv.ts';
import { pieceFieldsSchema } from '#core/stock/piece.ts';
import { speciesSchema } from '#core/wood/species.ts';
import { validated } from '../problem.ts';
import { addPiece, addPieces, changePiece, piecesInRack, removePiece, restorePiece } from '../stores/rackStore.ts';
import { addMissingSpecies } from '../stores/speciesStore.ts';
import { versionSchema } from './version.ts';

export const pieceChangeSchema = z.strictObject({ version: versionSchema, piece: pieceFieldsSchema });
/** A pile at once: everything or nothing. Species nobody knew come along. */
export const batchSchema = z.strictObject({
  pieces: z.array(pieceFieldsSchema).min(1, { error: 'must hold at least one piece' }).max(GREATEST_CSV_ROWS, { error: `must be at most ${GREATEST_CSV_ROWS} pieces` }),
  species: z.array(speciesSchema).max(200, { error: 'must be at most 200 species' }),
});
export const versionOnlySchema = z.strictObject({ version: versionSchema });

export function rackRoutes(db: Knex): Router {
  return Router()
    .get('/rack', async (_request, response) => {
      response.json(await piecesInRack(db));
    })
    .post('/rack', async (request, response) => {
      response.status(201).json(await addPiece(db, validated(pieceFieldsSchema, request.body)));
    })
    .post('/rack/batch', async (request, response) => {
      const { pieces, species } = validated(batchSchema, request.body);
      const added = await db.transaction(async (tx) => {
        await addMissingSpecies(tx, species);
        return addPieces(tx, pieces);
      });
      response.status(201).json({ added });
    })
    .put('/rack/:id', async (request, response) => {
      const { version, piece } = validated(pieceChangeSchema, request.body);
      response.json(await changePiece(db, request.params.id, version, piece));
    })
    .post('/rack/:id/remove', async (request, response) => {
      response.json(await removePiece(db, request.params.id, validated(versionOnlySchema, request.body).version));
    })
    .post('/rack/:id/restore', async (request, response) => {
      response.json(await restorePiece(db, request.params.id, validated(versionOnlySchema, request.body).version));
    });
}
