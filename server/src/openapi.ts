import { z } from 'zod';
import { boardSchema } from '#core/board/board.ts';
import { runDocumentSchema } from '#core/gluing/glueRun.ts';
import { boardFileSchema } from '#core/format/boardFile.ts';
import { cutPlanSchema } from '#core/cutting/cutPlanSchema.ts';
import { cuttingRecordSchema } from '#core/plan/sawRecords.ts';
import { shopSchema } from '#core/shop/shop.ts';
import { pieceFieldsSchema, pieceSchema } from '#core/stock/piece.ts';
import { speciesSchema } from '#core/wood/species.ts';
import { boardChangeSchema, boardRemovalSchema, revisionNameSchema } from './routes/boards.ts';
import { runChangeSchema, runStartSchema } from './routes/glueRuns.ts';
import { batchSchema, pieceChangeSchema, versionOnlySchema } from './routes/rack.ts';
import { cutSchema, failSchema, keepSchema, releaseSchema } from './routes/saw.ts';
import { shopChangeSchema } from './routes/shop.ts';

const storedPiece = z.strictObject({ piece: pieceSchema, version: z.int() });
const storedShop = z.strictObject({ shop: shopSchema, version: z.int() });
const storedBoard = z.strictObject({ id: z.string(), revision: z.int(), savedAt: z.iso.datetime(), undo: z.int().nullable(), redo: z.int().nullable(), board: boardSchema });
const revision = z.strictObject({ number: z.int(), madeAt: z.iso.datetime(), name: z.string(), undo: z.int().nullable(), redo: z.int().nullable(), board: boardSchema });

const sawBookSchema = z.strictObject({
  plans: z.array(z.strictObject({ id: z.string(), boards: z.array(z.string()), keptAt: z.iso.datetime(), plan: cutPlanSchema })),
  cuttings: z.array(z.strictObject({ id: z.string(), boards: z.array(z.string()), cutAt: z.iso.datetime(), version: z.int(), record: cuttingRecordSchema })),
});

const storedRun = z.strictObject({
  id: z.string(), boardId: z.string(), glueUp: z.string(), copy: z.int(), version: z.int(), startedAt: z.iso.datetime(), endedAt: z.iso.datetime().nullable(), run: runDocumentSchema,
});

type Json = Record<string, unknown>;

function schemaOf(schema: z.ZodType): Json {
  const { $schema: _, ...json } = z.toJSONSchema(schema, { unrepresentable: 'any', io: 'input' }) as Json;
  return json;
}

function body(schema: z.ZodType): Json {
  return { required: true, content: { 'application/json': { schema: schemaOf(schema) } } };
}

function answer(description: string, schema?: z.ZodType): Json {
  return schema ? { description, content: { 'application/json': { schema: schemaOf(schema) } } } : { description };
}

const PROBLEM = { $ref: '#/components/responses/Problem' };

function operation(summary: string, ok: [status: number, description: string, schema?: z.ZodType], errors: number[], input?: z.ZodType): Json {
  return {
    summary,
    ...(input ? { requestBody: body(input) } : {}),
    responses: { [ok[0]]: answer(ok[1], ok[2]), ...Object.fromEntries([...errors, 503].map((status) => [status, PROBLEM])) },
  };
}

/** The API described in OpenAPI 3.1, from the same schemas that check every request. */
export function openApiDocument(): Json {
  const id = { name: 'id', in: 'path', required: true, schema: { type: 'string' } };
  const number = { name: 'number', in: 'path', required: true, schema: { type: 'integer' } };
  return {
    openapi: '3.1.0',
    info: { title: 'Cadenza', version: '1', description: 'Boards, rack and shop. Lengths are millimetres.' },
    paths: {
      '/api/health': { get: operation('State of server and database', [200, 'Ready'], []) },
      '/api/species': { get: operation('Known species', [200, 'All species', z.array(speciesSchema)], []) },
      '/api/shop': {
        get: operation('The shop', [200, 'The shop', storedShop], []),
        put: operation('Change the shop', [200, 'Saved', storedShop], [400, 409], shopChangeSchema),
      },
      '/api/rack': {
        get: operation('Pieces in the rack', [200, 'All pieces', z.array(storedPiece)], []),
        post: operation('Add a piece', [201, 'Added', storedPiece], [400, 409], pieceFieldsSchema),
      },
      '/api/rack/batch': { post: operation('Add a pile of pieces, all or none', [201, 'Added', z.strictObject({ added: z.int() })], [400, 409, 413], batchSchema) },
      '/api/rack/{id}': { parameters: [id], put: operation('Change a piece', [200, 'Saved', storedPiece], [400, 404, 409], pieceChangeSchema) },
      '/api/rack/{id}/remove': { parameters: [id], post: operation('Take a piece out of the rack', [200, 'Removed', storedPiece], [400, 404, 409], versionOnlySchema) },
      '/api/rack/{id}/restore': { parameters: [id], post: operation('Put a removed piece back', [200, 'Restored', storedPiece], [400, 404, 409], versionOnlySchema) },
      '/api/saw': { get: operation('Promised wood and what the saw has done', [200, 'The saw book', sawBookSchema], []) },
      '/api/saw/keep': { post: operation('Keep a cut plan: its wood is promised to the boards', [200, 'The saw book', sawBookSchema], [400, 404, 409], keepSchema) },
      '/api/saw/release': { post: operation('Let go of the wood promised to boards', [200, 'The saw book', sawBookSchema], [400], releaseSchema) },
      '/api/saw/cut': { post: operation('Book a piece of a kept plan as cut', [200, 'The saw book', sawBookSchema], [400, 404, 409], cutSchema) },
      '/api/saw/cuttings/{id}/undo': { parameters: [id], post: operation('Take a cutting back', [200, 'The saw book', sawBookSchema], [404, 409]) },
      '/api/saw/cuttings/{id}/fail': { parameters: [id], post: operation('Say which strips of a cutting failed', [200, 'The saw book', sawBookSchema], [400, 404, 409], failSchema) },
      '/api/boards': {
        get: operation('All boards, newest change first', [200, 'All boards', z.array(storedBoard)], []),
        post: operation('Add a board', [201, 'Added', storedBoard], [400], boardSchema),
      },
      '/api/boards/import': {
        post: operation('Add a board from a board file', [201, 'Added', storedBoard], [400, 413], z.strictObject({ file: boardFileSchema, addPieces: z.boolean() })),
      },
      '/api/boards/{id}': {
        parameters: [id],
        get: operation('A board', [200, 'The newest revision', storedBoard], [404]),
        put: operation('Save a board: one new state, or every step since a revision', [200, 'Saved', storedBoard], [400, 404, 409], boardChangeSchema),
      },
      '/api/boards/{id}/revisions': {
        parameters: [id, { name: 'before', in: 'query', schema: { type: 'integer' } }, { name: 'named', in: 'query', schema: { type: 'string', enum: ['true', 'false'] } }],
        get: operation('History of a board, newest first', [200, 'Revisions', z.array(revision)], [400, 404]),
      },
      '/api/boards/{id}/revisions/{number}': { parameters: [id, number], get: operation('One revision', [200, 'The revision', revision], [404]) },
      '/api/boards/{id}/revisions/{number}/name': { parameters: [id, number], put: operation('Name a revision', [200, 'The revision', revision], [400, 404], revisionNameSchema) },
      '/api/boards/{id}/remove': { parameters: [id], post: operation('Take a board off the list', [204, 'Removed'], [400, 404, 409], boardRemovalSchema) },
      '/api/boards/{id}/restore': { parameters: [id], post: operation('Bring a removed board back', [200, 'Restored', storedBoard], [404]) },
      '/api/boards/{id}/runs': {
        parameters: [id],
        get: operation('Clocks of glue-ups, newest first, with the server\'s time', [200, 'Runs', z.strictObject({ now: z.iso.datetime(), runs: z.array(storedRun) })], []),
        post: operation('Start the clock of a glue-up', [201, 'Started', storedRun], [400, 404, 409], runStartSchema),
      },
      '/api/runs/{id}': { parameters: [id], put: operation('Note what happened in a glue-up, at the server\'s time', [200, 'Noted', storedRun], [400, 404, 409], runChangeSchema) },
      '/api/boards/{id}/file': { parameters: [id], get: operation('The board as a file, with the rack and shop it is planned with', [200, 'Board file', boardFileSchema], [404]) },
    },
    components: {
      responses: {
        Problem: {
          description: 'What is wrong, as a sentence; a stale write carries the stored version as `current`',
          content: {
            'application/problem+json': {
              schema: {
                type: 'object', required: ['type', 'title', 'status', 'code', 'detail', 'fields'],
                properties: {
                  type: { type: 'string' }, title: { type: 'string' }, status: { type: 'integer' }, code: { type: 'string' }, detail: { type: 'string' },
                  fields: { type: 'array', items: { type: 'object', properties: { path: { type: 'string' }, message: { type: 'string' } } } },
                },
              },
            },
          },
        },
      },
    },
  };
}
