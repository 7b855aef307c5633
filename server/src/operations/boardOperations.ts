import { certain, firstOf } from '#core/lists/there.ts';
import { z } from 'zod';
import {
  boardChangeSchema,
  boardRemovalSchema,
  importSchema,
  listedBoardSchema,
  newestImportSchema,
  oneStepSchema,
  revisionNameSchema,
  revisionSchema,
  stepsSchema,
  storedBoardSchema,
  type BoardStep,
} from '#contract/boards.ts';
import { boardFactsSchema, newFactsSchema } from '#contract/facts.ts';
import { writtenBoardSchema } from '#core/board/writtenBoard.ts';
import { NO_PRICES } from '#core/shop/prices.ts';
import { boardFileSchema, readBoardJson, writeBoardFile } from '#core/format/boardFile.ts';
import { numberIn, queryOf, type Operation } from '../operation.ts';
import { invalid, Problem, validated } from '../problem.ts';
import { NOTHING_TO_SAY, reply } from '../reply.ts';
import {
  addBoard,
  boardsPage,
  nameRevision,
  readBoard,
  readRevision,
  restoreBoard,
  revisionsOf,
  saveBoard,
} from '../stores/boardStore.ts';
import { addFacts, factsOf, notedFacts } from '../stores/factStore.ts';
import { removeBoard } from '../stores/boardRemoval.ts';
import { addMissingPieces, piecesInRack } from '../stores/rackStore.ts';
import { readShop } from '../stores/shopStore.ts';
import { addMissingSpecies, allSpecies, speciesProblems } from '../stores/speciesStore.ts';
import { pageQuerySchema, pageReply } from './listing.ts';
import { cutStripsOf } from '#core/board/recipe.ts';

/** Revisions sent at once. */
const REVISIONS_A_PAGE = 40;

const historyQuerySchema = z.object({
  before: z.coerce
    .number({ error: 'must be a whole number' })
    .int({ error: 'must be a whole number' })
    .min(1, { error: 'must be at least 1' })
    .max(2 ** 31 - 1, { error: 'must be at most 2147483647' })
    .default(2 ** 31 - 1),
  named: z.enum(['true', 'false'], { error: 'must be true or false' }).default('false'),
});
export const boardOperations: readonly Operation[] = [
  {
    method: 'get',
    path: '/boards',
    summary: 'Boards as lists show them (without versions and features), the newest change first, a page at a time',
    ok: [200, 'A page of boards; `Link` names the next one', z.array(listedBoardSchema)],
    errors: [400],
    query: pageQuerySchema,
    run: async (db, call) =>
      pageReply('/api/boards', await boardsPage(db, queryOf(pageQuerySchema, call).after ?? null)),
  },
  {
    method: 'post',
    path: '/boards',
    touches: ['boards'],
    summary: 'Add a board',
    ok: [201, 'Added', storedBoardSchema],
    errors: [400],
    input: writtenBoardSchema,
    run: async (tx, { body }) => reply(await addBoard(tx, validated(writtenBoardSchema, body)), 201),
  },
  {
    method: 'post',
    path: '/boards/import',
    touches: ['boards', 'rack', 'species'],
    summary: 'Add a board from a board file',
    ok: [201, 'Added', storedBoardSchema],
    errors: [400, 413],
    input: newestImportSchema,
    run: async (tx, { body }) => {
      const { file: json, addPieces } = validated(importSchema, body);
      const read = readBoardJson(json);
      if (!read.ok) throw invalid(read.problems);
      await addMissingSpecies(tx, read.file.species);
      if (addPieces) await addMissingPieces(tx, read.file.rack);
      const { board } = validated(z.object({ board: writtenBoardSchema }), { board: read.file.board });
      const added = await addBoard(tx, board);
      await addFacts(tx, added.id, read.file.facts);
      return reply(added, 201);
    },
  },
  {
    method: 'get',
    path: '/boards/{id}',
    summary: 'A board',
    ok: [200, 'The newest revision', storedBoardSchema],
    errors: [404],
    run: async (db, { params }) => reply(await readBoard(db, certain(params.id, 'the id of the address'))),
  },
  {
    method: 'put',
    path: '/boards/{id}',
    touches: ['boards'],
    summary: 'Save a board: one new state, or every step since a revision',
    ok: [200, 'Saved', storedBoardSchema],
    errors: [400, 404, 409],
    input: boardChangeSchema,
    run: async (tx, { params, body }) =>
      reply(await saveBoard(tx, certain(params.id, 'the id of the address'), ...readChange(body))),
  },
  {
    method: 'get',
    path: '/boards/{id}/revisions',
    summary: 'History of a board, newest first',
    ok: [200, 'Revisions', z.array(revisionSchema)],
    errors: [400, 404],
    query: historyQuerySchema,
    run: async (db, call) => {
      const { before, named } = queryOf(historyQuerySchema, call);
      return reply(
        await revisionsOf(db, certain(call.params.id, 'the id of the address'), {
          before,
          limit: REVISIONS_A_PAGE,
          named: named === 'true',
        }),
      );
    },
  },
  {
    method: 'get',
    path: '/boards/{id}/revisions/{number}',
    summary: 'One revision',
    ok: [200, 'The revision', revisionSchema],
    errors: [404],
    run: async (db, { params }) =>
      reply(
        await readRevision(
          db,
          certain(params.id, 'the id of the address'),
          numberIn(certain(params.number, 'the number of the address'), 'This revision'),
        ),
      ),
  },
  {
    method: 'put',
    path: '/boards/{id}/revisions/{number}/name',
    touches: [],
    summary: 'Name a revision',
    ok: [200, 'The revision', revisionSchema],
    errors: [400, 404],
    input: revisionNameSchema,
    run: async (tx, { params, body }) =>
      reply(
        await nameRevision(
          tx,
          certain(params.id, 'the id of the address'),
          numberIn(certain(params.number, 'the number of the address'), 'This revision'),
          validated(revisionNameSchema, body).name,
        ),
      ),
  },
  {
    method: 'post',
    path: '/boards/{id}/remove',
    touches: ['boards', 'saw'],
    summary: 'Take a board off the list',
    ok: [204, 'Removed'],
    errors: [400, 404, 409],
    input: boardRemovalSchema,
    run: async (tx, { params, body }) => {
      await removeBoard(tx, certain(params.id, 'the id of the address'), validated(boardRemovalSchema, body).basedOn);
      return NOTHING_TO_SAY;
    },
  },
  {
    method: 'post',
    path: '/boards/{id}/restore',
    touches: ['boards', 'saw'],
    summary: 'Bring a removed board back',
    ok: [200, 'Restored', storedBoardSchema],
    errors: [404],
    input: null,
    run: async (tx, { params }) => reply(await restoreBoard(tx, certain(params.id, 'the id of the address'))),
  },
  {
    method: 'get',
    path: '/boards/{id}/facts',
    summary: 'What happened to a board at the bench, in the order it arrived',
    ok: [200, 'Its facts', boardFactsSchema],
    errors: [404],
    run: async (db, { params }) => {
      await readBoard(db, certain(params.id, 'the id of the address'));
      return reply(await notedFacts(db, certain(params.id, 'the id of the address')));
    },
  },
  {
    method: 'post',
    path: '/boards/{id}/facts',
    touches: ['facts'],
    summary: 'Add to what happened to a board; nothing of it is ever edited, only taken back by another fact',
    ok: [200, 'All its facts', boardFactsSchema],
    errors: [400, 404, 409],
    input: newFactsSchema,
    run: async (tx, { params, body, asker }) => {
      const board = certain(params.id, 'the id of the address');
      await addFacts(tx, board, validated(newFactsSchema, body).facts, asker.person);
      return reply(await notedFacts(tx, board));
    },
  },
  {
    method: 'get',
    path: '/boards/{id}/file',
    summary: 'The board as a file, with the rack and shop it is planned with',
    ok: [200, 'Board file', boardFileSchema],
    errors: [404, 409],
    inWorker: true,
    run: async (db, { params }) => {
      const { board } = await readBoard(db, certain(params.id, 'the id of the address'));
      const unknown = await speciesProblems(db, board);
      if (unknown.length > 0)
        throw new Problem(
          409,
          'unknown-species',
          `${firstOf(unknown).message} Choose one that is, then save the file.`,
          unknown,
        );
      const [rack, { shop }, species] = await Promise.all([piecesInRack(db), readShop(db), allSpecies(db)]);
      const pieces = rack.map((r) => r.piece);
      const named = new Set(
        [...cutStripsOf(board), ...board.versions.flatMap((v) => cutStripsOf(v)), ...pieces].map((s) => s.species),
      );
      const text = writeBoardFile({
        board,
        facts: await factsOf(db, certain(params.id, 'the id of the address')),
        rack: pieces,
        species: species.filter((s) => named.has(s.code)),
        // Whoever gets the board need not know what an hour is paid here.
        shop: { ...shop, prices: NO_PRICES },
      });
      return {
        status: 200,
        json: text,
        headers: { 'Content-Disposition': attachment(`${fileName(board.name)}.cadenza.json`) },
      };
    },
  },
];

/** Either form of a change, told as steps; what is wrong is said of the form that was meant. */
function readChange(body: unknown): [basedOn: number, steps: BoardStep[]] {
  if (typeof body === 'object' && body !== null && 'steps' in body) {
    const { basedOn, steps } = validated(stepsSchema, body);
    return [basedOn, steps];
  }
  const { basedOn, board } = validated(oneStepSchema, body);
  return [basedOn, [{ board, undo: basedOn, redo: null }]];
}

/** A board's name as a file name: letters and digits of any script, hyphens for the rest. */
function fileName(name: string): string {
  return (
    name
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 60)
      .toWellFormed() || 'board'
  );
}

/** The header that makes a browser save an answer under a name (RFC 6266: a plain form, and one for every script). */
function attachment(name: string): string {
  const plain = name.replace(/[^\x20-\x7e]/g, '-').replace(/["\\]/g, '-');
  return `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`;
}
