import { Router } from 'express';
import type { Knex } from 'knex';
import { z } from 'zod';
import { pieceFieldsSchema } from '#core/stock/piece.ts';
import { validated } from '../problem.ts';
import { addPiece, changePiece, piecesInRack, removePiece, restorePiece } from '../stores/rackStore.ts';
import { versionSchema } from './version.ts';

export const pieceChangeSchema = z.strictObject({ version: versionSchema, piece: pieceFieldsSchema });
export const versionOnlySchema = z.strictObject({ version: versionSchema });

export function rackRoutes(db: Knex): Router {
  return Router()
    .get('/rack', async (_request, response) => {
      response.json(await piecesInRack(db));
    })
    .post('/rack', async (request, response) => {
      response.status(201).json(await addPiece(db, validated(pieceFieldsSchema, request.body)));
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
