import { z } from 'zod';
import { confirmSchema } from '#contract/devices.ts';
import { liveQuerySchema } from '#contract/live.ts';
import { problemSchema } from '#contract/problem.ts';
import { BACKUP_DESCRIBED } from './backup/backupRoutes.ts';
import type { Operation } from './operation.ts';
import { operations } from './operations/index.ts';

type Json = Record<string, unknown>;

function schemaOf(schema: z.ZodType): Json {
  const { $schema: _, ...json } = z.toJSONSchema(schema, { unrepresentable: 'any', io: 'input' }) as Json;
  return json;
}

const PROBLEM = { $ref: '#/components/responses/Problem' };
/** What any request may meet: a device that is not known, a name this server is not known by, a database that is gone or busy. */
const ALWAYS = [401, 421, 503];
/** What any write may meet beside that: another site, another form than JSON, half a body, a full disk. */
const ON_WRITES = [400, 403, 413, 415, 422, 507];

const WRITE_ID = {
  name: 'Idempotency-Key',
  in: 'header',
  required: false,
  schema: { type: 'string', pattern: '^[\\x21-\\x7e]{8,64}$' },
  description: 'A name of its own for this write. Sent again by the same name it is done once, and answered as it was.',
};

function operationDescribed(operation: Operation): Json {
  const {
    summary,
    ok: [status, description, schema],
    errors,
  } = operation;
  const writes = operation.method !== 'get';
  const refusals = [...new Set([...errors, ...ALWAYS, ...(writes ? ON_WRITES : [])])].sort();
  const query = Object.entries(operation.method === 'get' ? (operation.query?.shape ?? {}) : {}).map(
    ([name, field]) => ({ name, in: 'query', required: false, schema: schemaOf(field as z.ZodType) }),
  );
  return {
    summary,
    ...(query.length > 0 || writes ? { parameters: [...query, ...(writes ? [WRITE_ID] : [])] } : {}),
    ...(writes
      ? {
          requestBody: {
            required: operation.input !== null,
            content: { 'application/json': { schema: operation.input ? schemaOf(operation.input) : {} } },
          },
        }
      : {}),
    responses: {
      [status]: schema
        ? { description, content: { 'application/json': { schema: schemaOf(schema) } } }
        : { description },
      ...Object.fromEntries(refusals.map((code) => [code, PROBLEM])),
    },
  };
}

/** Parameters in a path such as `/boards/{id}`. */
function pathParameters(path: string): Json[] {
  return [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: name === 'number' ? 'integer' : 'string' },
  }));
}

let made: Json | null = null;

/** The API described in OpenAPI 3.1, from the list that serves it; made for the first who asks: it takes a quarter of a second, which no start has to wait for. */
export function openApiDocument(): Json {
  return (made ??= described());
}

function described(): Json {
  const paths: Record<string, Json> = {
    '/api/health': {
      get: {
        summary: 'State of server and database',
        responses: { 200: { description: 'Ready' }, 503: { description: 'The database is gone' } },
      },
    },
  };
  paths['/api/live'] = {
    get: {
      summary:
        'What is stored from now on, as server-sent events: change, here (who is at the board), you (what this device may), anew (too much was missed)',
      parameters: Object.entries(liveQuerySchema.shape).map(([name, field]) => ({
        name,
        in: 'query',
        required: name === 'tab',
        schema: schemaOf(field as z.ZodType),
      })),
      responses: { 200: { description: 'text/event-stream' }, 400: PROBLEM, 401: PROBLEM, 503: PROBLEM },
    },
  };
  paths['/api/devices/confirm'] = {
    post: {
      summary: 'Say the passphrase once more on a device that is let in, before it decides on others',
      requestBody: { required: true, content: { 'application/json': { schema: schemaOf(confirmSchema) } } },
      responses: { 204: { description: 'So it is' }, 400: PROBLEM, 401: PROBLEM, 429: PROBLEM, 503: PROBLEM },
    },
  };
  for (const [path, method, summary, answer] of BACKUP_DESCRIBED) {
    const parameters = pathParameters(path);
    paths[`/api${path}`] = {
      ...paths[`/api${path}`],
      ...(parameters.length > 0 ? { parameters } : {}),
      [method]: {
        summary,
        responses: {
          200: answer
            ? { description: 'So it is then', content: { 'application/json': { schema: schemaOf(answer) } } }
            : { description: 'application/sql' },
          ...Object.fromEntries(
            [401, 403, 409, ...(method === 'get' ? [] : [400, 413, 415, 507]), 503].map((c) => [c, PROBLEM]),
          ),
        },
      },
    };
  }
  for (const operation of operations) {
    const path = `/api${operation.path}`;
    const parameters = pathParameters(operation.path);
    paths[path] = {
      ...(parameters.length > 0 ? { parameters } : {}),
      ...paths[path],
      [operation.method]: operationDescribed(operation),
    };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Cadenza', version: '1', description: 'Boards, rack and shop. Lengths are millimetres.' },
    paths,
    components: {
      responses: {
        Problem: {
          description: 'What is wrong, as a sentence; a stale write carries the stored version as `current`',
          content: {
            'application/problem+json': {
              schema: schemaOf(problemSchema),
            },
          },
        },
      },
    },
  };
}
