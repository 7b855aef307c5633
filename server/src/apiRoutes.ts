import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { Router, type Request, type Response } from 'express';
import type { Knex } from 'knex';
import { LRUCache } from 'lru-cache';
import { TAB_HEADER } from '#contract/live.ts';
import { askerOf, isConfirmed, mayWork, type Asker } from './auth/gate.ts';
import type { WorkerPool } from './workers/workerPool.ts';
import { jsonBytes, readJson } from './jsonBody.ts';
import { nameOf, perform, type Around, type Call, type Operation } from './operation.ts';
import { operations } from './operations/index.ts';
import type { PlannedWork } from './planning/plannedWork.ts';
import { Problem, validated } from './problem.ts';
import { nameAsked } from './watch/requestLog.ts';
import type { Reply } from './reply.ts';

/** A body above this is read and checked in a thread of its own, bytes. */
const LARGE_BYTES = 60_000;
const TAB = /^[\w-]{1,40}$/;
const WRITE_ID = /^[\x21-\x7e]{8,64}$/;
/** Pages of lists, as they are sent, kept for those who ask the same next, bytes. */
const KEPT_PAGES_BYTES = 20_000_000;

const compress = promisify(gzip);

/** Serves every operation of the API. @param workers threads for what may take long; null does everything in this one @param around how the server stands in its network @param work what is to be done in the shop */
export function apiRoutes(db: Knex, workers: WorkerPool | null, around: Around, work: PlannedWork): Router {
  const router = Router();
  const pages = new LRUCache<string, Buffer>({ maxSize: KEPT_PAGES_BYTES, sizeCalculation: (page) => page.length + 1 });
  for (const operation of operations) {
    const path = operation.path.replace(/\{(\w+)\}/g, ':$1');
    const read = operation.method === 'get' ? [] : jsonBytes();
    router[operation.method](path, ...read, async (request: Request, response: Response) => {
      nameAsked(response, nameOf(operation));
      const asker = askerOf(response);
      if (operation.method !== 'get') mayWork(asker);
      // A write is carried out whoever has gone.
      const gone = operation.method === 'get' ? goneOf(response) : undefined;
      await send(request, response, await carryOut(operation, request, asker, gone), pages);
    });
  }

  async function carryOut(operation: Operation, request: Request, asker: Asker, gone?: AbortSignal): Promise<Reply> {
    const { device, may } = asker;
    const bytes = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
    const call: Omit<Call, 'body'> = {
      params: request.params as Record<string, string>,
      query: { ...request.query },
      writeId: operation.method === 'get' ? null : writeIdOf(request),
      tab: tabOf(request),
      asker: { device: device?.id ?? null, person: device?.person ?? null, may, confirmed: isConfirmed(asker) },
      around,
    };
    if (workers && bytes.length > LARGE_BYTES) return workers.run({ operation: nameOf(operation), call, bytes });
    const body = readJson(bytes);
    if (!workers || !operation.inWorker)
      return perform(operation, db, { ...call, body }, { work, ...(gone ? { gone } : {}) });
    // What is small and wrong is not worth a thread.
    if (operation.method !== 'get' && operation.input) validated(operation.input, body);
    return workers.run({ operation: nameOf(operation), call, bytes });
  }
  return router;
}

/** Says when whoever asked has gone, or was answered. */
function goneOf(response: Response): AbortSignal {
  const left = new AbortController();
  response.once('close', () => left.abort());
  return left.signal;
}

/** What a page calls itself; anything odd is no name. */
function tabOf(request: Request): string | null {
  const tab = request.headers[TAB_HEADER];
  return typeof tab === 'string' && TAB.test(tab) ? tab : null;
}

/** @throws Problem 400 */
function writeIdOf(request: Request): string | null {
  const id = request.headers['idempotency-key'];
  if (id === undefined) return null;
  if (typeof id === 'string' && WRITE_ID.test(id)) return id;
  throw new Problem(400, 'invalid', 'Idempotency-Key must be 8 to 64 letters, digits or signs.', [
    { path: 'Idempotency-Key', message: 'Idempotency-Key must be 8 to 64 letters, digits or signs.' },
  ]);
}

/** Sends an answer. One with a tag is not sent again to whoever has it, and is written out and compressed once for all. */
async function send(
  request: Request,
  response: Response,
  { status, json, write, headers = {} }: Reply,
  pages: LRUCache<string, Buffer>,
): Promise<void> {
  response.status(status).set(headers);
  if (write) {
    await sendPage(request, response, `${request.path} ${headers.ETag}`, write, pages);
    return;
  }
  if (json === null) response.end();
  else if (headers['Content-Type'] === undefined) response.type('application/json').send(json);
  else response.send(json);
}

async function sendPage(
  request: Request,
  response: Response,
  key: string,
  write: () => string,
  pages: LRUCache<string, Buffer>,
): Promise<void> {
  // Whoever has it asks whether it is still so, every time.
  response.set('Cache-Control', 'no-cache').vary('Accept-Encoding').type('application/json');
  if (request.fresh) {
    response.status(304).end();
    return;
  }
  const encoding = request.acceptsEncodings('gzip') ? 'gzip' : 'identity';
  const known = pages.get(`${encoding} ${key}`);
  const page = known ?? (encoding === 'gzip' ? await compress(write(), { level: 5 }) : Buffer.from(write()));
  if (!known) pages.set(`${encoding} ${key}`, page);
  response.set({ 'Content-Encoding': encoding, 'Content-Length': String(page.length) }).end(page);
}
