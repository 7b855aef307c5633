import { Router } from 'express';
import type { Knex } from 'knex';
import { z } from 'zod';
import { boardSchema } from '#core/board/board.ts';
import { lineOfText } from '#core/units/lengthSchema.ts';
import { readBoardJson, writeBoardFile } from '#core/format/boardFile.ts';
import { invalid, notFound, validated } from '../problem.ts';
import { addBoard, allBoards, nameRevision, readBoard, readRevision, removeBoard, restoreBoard, revisionsOf, saveBoard, type BoardStep } from '../stores/boardStore.ts';
import { addMissingPieces, piecesInRack } from '../stores/rackStore.ts';
import { readShop } from '../stores/shopStore.ts';
import { addMissingSpecies, allSpecies } from '../stores/speciesStore.ts';
import { versionSchema } from './version.ts';

/** More steps than hands take between two saves; a longer list comes in parts. */
const GREATEST_STEP_COUNT = 200;
/** Revisions sent at once. */
const REVISIONS_A_PAGE = 40;

const stepSchema = z.strictObject({ board: boardSchema, undo: versionSchema.nullable(), redo: versionSchema.nullable() });
/** One new state, or every step that led to it. */
export const boardChangeSchema = z.union([
  z.strictObject({ basedOn: versionSchema, board: boardSchema }),
  z.strictObject({ basedOn: versionSchema, steps: z.array(stepSchema).min(1, { error: 'must be at least one step' }).max(GREATEST_STEP_COUNT, { error: `must be at most ${GREATEST_STEP_COUNT} steps` }) }),
]);
const stepsSchema = boardChangeSchema.options[1];
const boardOnlySchema = boardChangeSchema.options[0];
export const revisionNameSchema = z.strictObject({ name: lineOfText(0, 80) });
export const historyQuerySchema = z.object({
  before: z.coerce.number({ error: 'must be a whole number' }).int({ error: 'must be a whole number' }).min(1, { error: 'must be at least 1' }).default(2 ** 31 - 1),
  named: z.enum(['true', 'false'], { error: 'must be true or false' }).default('false'),
});
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
      response.json(await saveBoard(db, request.params.id, ...readChange(request.body)));
    })
    .get('/boards/:id/revisions', async (request, response) => {
      const { before, named } = validated(historyQuerySchema as z.ZodType<z.infer<typeof historyQuerySchema>>, request.query);
      response.json(await revisionsOf(db, request.params.id, { before, limit: REVISIONS_A_PAGE, named: named === 'true' }));
    })
    .get('/boards/:id/revisions/:number', async (request, response) => {
      response.json(await readRevision(db, request.params.id, revisionNumber(request.params.number)));
    })
    .put('/boards/:id/revisions/:number/name', async (request, response) => {
      response.json(await nameRevision(db, request.params.id, revisionNumber(request.params.number), validated(revisionNameSchema, request.body).name));
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

/** @throws Problem 404 for what is no number */
function revisionNumber(text: string): number {
  if (!/^\d{1,9}$/.test(text)) throw notFound('This revision');
  return Number(text);
}

/** Either form of a change, told as steps; what is wrong is said of the form that was meant. */
function readChange(body: unknown): [basedOn: number, steps: BoardStep[]] {
  if (typeof body === 'object' && body !== null && 'steps' in body) {
    const { basedOn, steps } = validated(stepsSchema, body);
    return [basedOn, steps];
  }
  const { basedOn, board } = validated(boardOnlySchema, body);
  return [basedOn, [{ board, undo: basedOn, redo: null }]];
}

/** A board's name as a file name: letters and digits of any script, hyphens for the rest. */
function fileName(name: string): string {
  return name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '').slice(0, 60) || 'board';
}
