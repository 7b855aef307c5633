import { Router } from 'express';
import type { Knex } from 'knex';
import { z } from 'zod';
import { boardSchema } from '#core/board/board.ts';
import { readBoardJson, writeBoardFile } from '#core/format/boardFile.ts';
import { invalid, validated } from '../problem.ts';
import { addBoard, allBoards, readBoard, removeBoard, restoreBoard, saveBoard } from '../stores/boardStore.ts';
import { addMissingPieces, piecesInRack } from '../stores/rackStore.ts';
import { readShop } from '../stores/shopStore.ts';
import { addMissingSpecies, allSpecies } from '../stores/speciesStore.ts';
import { versionSchema } from './version.ts';

export const boardChangeSchema = z.strictObject({ basedOn: versionSchema, board: boardSchema });
export const boardRemovalSchema = z.strictObject({ basedOn: versionSchema });
export const importSchema = z.strictObject({ file: z.unknown(), addPieces: z.boolean({ error: 'must be true or false' }) });

export function boardRoutes(db: Knex): Router {
  return Router()
    .get('/boards', async (_request, response) => {
      response.json(await allBoards(db));
    })
    .post('/boards', async (request, response) => {
      response.status(201).json(await addBoard(db, validated(boardSchema, request.body)));
    })
    .post('/boards/import', async (request, response) => {
      const { file: json, addPieces } = validated(importSchema, request.body);
      const read = readBoardJson(json);
      if (!read.ok) throw invalid(read.problems);
      const stored = await db.transaction(async (tx) => {
        await addMissingSpecies(tx, read.file.species);
        if (addPieces) await addMissingPieces(tx, read.file.rack);
        return addBoard(tx, read.file.board);
      });
      response.status(201).json(stored);
    })
    .get('/boards/:id', async (request, response) => {
      response.json(await readBoard(db, request.params.id));
    })
    .put('/boards/:id', async (request, response) => {
      const { basedOn, board } = validated(boardChangeSchema, request.body);
      response.json(await saveBoard(db, request.params.id, basedOn, board));
    })
    .post('/boards/:id/remove', async (request, response) => {
      await removeBoard(db, request.params.id, validated(boardRemovalSchema, request.body).basedOn);
      response.status(204).end();
    })
    .post('/boards/:id/restore', async (request, response) => {
      response.json(await restoreBoard(db, request.params.id));
    })
    .get('/boards/:id/file', async (request, response) => {
      const { board } = await readBoard(db, request.params.id);
      const [rack, { shop }, species] = await Promise.all([piecesInRack(db), readShop(db), allSpecies(db)]);
      const pieces = rack.map((r) => r.piece);
      const named = new Set([...board.strips.map((s) => s.species), ...pieces.map((p) => p.species)]);
      const text = writeBoardFile({ board, rack: pieces, species: species.filter((s) => named.has(s.code)), shop });
      response.attachment(`${fileName(board.name)}.cadenza.json`).type('application/json').send(text);
    });
}

/** A board's name as a file name: letters and digits of any script, hyphens for the rest. */
function fileName(name: string): string {
  return name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '').slice(0, 60) || 'board';
}
