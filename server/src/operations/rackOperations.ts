import { certain } from '#core/lists/there.ts';
import { z } from 'zod';
import {
  pieceChangeSchema,
  pieceVersionSchema,
  pileAddedSchema,
  pileSchema,
  storedPieceSchema,
} from '#contract/rack.ts';
import { pieceFieldsSchema } from '#core/stock/piece.ts';
import { queryOf, type Operation } from '../operation.ts';
import { validated } from '../problem.ts';
import { reply } from '../reply.ts';
import { addPiece, addPieces, changePiece, rackPage, removePiece, restorePiece } from '../stores/rackStore.ts';
import { addMissingSpecies } from '../stores/speciesStore.ts';
import { pageQuerySchema, pageReply } from './listing.ts';

export const rackOperations: readonly Operation[] = [
  {
    method: 'get',
    path: '/rack',
    summary: 'Pieces in the rack by species and mark, a page at a time',
    ok: [200, 'A page of pieces; `Link` names the next one', z.array(storedPieceSchema)],
    errors: [400],
    query: pageQuerySchema,
    run: async (db, call) => pageReply('/api/rack', await rackPage(db, queryOf(pageQuerySchema, call).after ?? null)),
  },
  {
    method: 'post',
    path: '/rack',
    touches: ['rack'],
    summary: 'Add a piece',
    ok: [201, 'Added', storedPieceSchema],
    errors: [400, 409],
    input: pieceFieldsSchema,
    run: async (tx, { body }) => reply(await addPiece(tx, validated(pieceFieldsSchema, body)), 201),
  },
  {
    method: 'post',
    path: '/rack/batch',
    touches: ['rack', 'species'],
    summary: 'Add a pile of pieces, all or none',
    ok: [201, 'Added', pileAddedSchema],
    errors: [400, 409, 413],
    input: pileSchema,
    run: async (tx, { body }) => {
      const { pieces, species } = validated(pileSchema, body);
      await addMissingSpecies(tx, species);
      return reply({ added: await addPieces(tx, pieces) }, 201);
    },
  },
  {
    method: 'put',
    path: '/rack/{id}',
    touches: ['rack'],
    summary: 'Change a piece',
    ok: [200, 'Saved', storedPieceSchema],
    errors: [400, 404, 409],
    input: pieceChangeSchema,
    run: async (tx, { params, body }) => {
      const { version, piece } = validated(pieceChangeSchema, body);
      return reply(await changePiece(tx, certain(params.id, 'the id of the address'), version, piece));
    },
  },
  {
    method: 'post',
    path: '/rack/{id}/remove',
    touches: ['rack'],
    summary: 'Take a piece out of the rack',
    ok: [200, 'Removed', storedPieceSchema],
    errors: [400, 404, 409],
    input: pieceVersionSchema,
    run: async (tx, { params, body }) =>
      reply(
        await removePiece(tx, certain(params.id, 'the id of the address'), validated(pieceVersionSchema, body).version),
      ),
  },
  {
    method: 'post',
    path: '/rack/{id}/restore',
    touches: ['rack'],
    summary: 'Put a removed piece back',
    ok: [200, 'Restored', storedPieceSchema],
    errors: [400, 404, 409],
    input: pieceVersionSchema,
    run: async (tx, { params, body }) =>
      reply(
        await restorePiece(
          tx,
          certain(params.id, 'the id of the address'),
          validated(pieceVersionSchema, body).version,
        ),
      ),
  },
];
