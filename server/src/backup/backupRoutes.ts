import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Router, type Request, type Response } from 'express';
import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import {
  copiesChangeSchema,
  copiesSchema,
  insideSchema,
  tokenSchema,
  COPY_NAME,
  type Copies,
  type Inside,
} from '#contract/backup.ts';
import { askerOf, isConfirmed, mayWork, mustBeConfirmed } from '../auth/gate.ts';
import { jsonBytes, readJson } from '../jsonBody.ts';
import { notFound, Problem, validated } from '../problem.ts';
import { nameAsked } from '../watch/requestLog.ts';
import { bringIn } from './bringIn.ts';
import { changeCopies, copiesOf, makeCopy } from './copies.ts';
import { dump, fileTrouble } from './dump.ts';
import { BackupError, type Keeper } from './keeper.ts';
import { compared, goBack, restore } from './restore.ts';

/** More than any shop grows to, with its pictures, bytes. */
const MOST_BYTES = 4e9;
/** What was brought to be looked at waits so long for what becomes of it, ms. */
const KEPT_MS = 3_600_000;
/** A form of another site can send none of these. */
const SENT_AS = /^application\/(sql|octet-stream)\s*(;|$)/i;
const BROUGHT = /^brought-[\w-]{10,40}\.sql$/;

/** What was looked at, by its token: its file and what its owner calls it. */
interface Waiting {
  file: string;
  name: string;
  /** It was brought, and goes when it is done with; a copy stays. */
  brought: boolean;
  at: number;
}

/**
 * Backups over the network, for devices that may work: all of it as one stream, a look into what is brought before anything is done with it, and the copies that
 * are made every day. None of it is a transaction of the store, so it stands beside the operations.
 */
export function backupRoutes(db: Knex, keeper: Keeper): Router {
  const waiting = new Map<string, Waiting>();
  const router = Router();
  const handle =
    (name: string, work: (request: Request, response: Response) => Promise<unknown>) =>
    async (request: Request, response: Response): Promise<void> => {
      nameAsked(response, name);
      mayWork(askerOf(response));
      try {
        const answer = await work(request, response);
        if (answer !== undefined) response.json(answer);
      } catch (error) {
        throw error instanceof BackupError ? new Problem(409, 'backup', error.message) : error;
      }
    };
  const copies = (): Promise<Copies> => copiesOf(db, keeper, Date.now());
  const lookAt = async (known: Omit<Waiting, 'at'>, response: Response): Promise<Inside> => {
    const gone = new AbortController();
    response.once('close', () => gone.abort());
    const inside = await compared(keeper, known, gone.signal);
    const token = nanoid();
    waiting.set(token, { ...known, at: Date.now() });
    return { token, ...inside };
  };
  const taken = async <T>(request: Request, work: (known: Waiting) => Promise<T>): Promise<T> => {
    const { token } = validated(tokenSchema, readJson(request.body as Buffer));
    const known = waiting.get(token);
    if (!known)
      throw new Problem(409, 'look-again', 'It is too long since this backup was looked into. Open it once more.');
    const done = await work(known);
    waiting.delete(token);
    if (known.brought) await rm(known.file, { force: true });
    return done;
  };

  router.get(
    '/backups',
    handle('get /backups', () => copies()),
  );
  router.put(
    '/backups',
    ...jsonBytes(),
    handle('put /backups', async (request) => {
      await changeCopies(db, validated(copiesChangeSchema, readJson(request.body as Buffer)));
      return copies();
    }),
  );
  router.post(
    '/backups/now',
    ...jsonBytes(),
    handle('post /backups/now', async () => {
      await makeCopy(db, keeper, new Date());
      return copies();
    }),
  );
  router.get(
    '/backups/all',
    handle('get /backups/all', async (_request, response) => {
      mustBeConfirmed(isConfirmed(askerOf(response)));
      const at = new Date();
      response.set({
        'Content-Type': 'application/sql',
        'Content-Disposition': `attachment; filename="cadenza-${at.toISOString().slice(0, 10)}.sql"`,
        'Cache-Control': 'no-store, no-transform',
      });
      // A client that goes away, or a program that fails in the middle, leaves a file without its last line: nobody takes it for whole.
      await dump(keeper, response, at).catch((error: unknown) => {
        if (!response.headersSent) throw error;
        response.destroy();
      });
    }),
  );
  router.post(
    '/backups/all/ready',
    ...jsonBytes(),
    handle('post /backups/all/ready', (_request, response) => {
      mustBeConfirmed(isConfirmed(askerOf(response)));
      response.status(204).end();
      return Promise.resolve(undefined);
    }),
  );
  router.post(
    '/backups/look',
    handle('post /backups/look', async (request, response) => {
      mustBeConfirmed(isConfirmed(askerOf(response)));
      if (!SENT_AS.test(request.headers['content-type'] ?? ''))
        throw new Problem(415, 'not-a-backup', 'A backup is sent as a file: set Content-Type to application/sql.');
      await clearUp(keeper.folder, waiting);
      const file = join(keeper.folder, `brought-${nanoid()}.sql`);
      try {
        await receive(request, keeper.folder, file);
        return await lookAt({ file, name: 'The file', brought: true }, response);
      } catch (error) {
        await rm(file, { force: true });
        throw fileTrouble('The file', error);
      }
    }),
  );
  router.post(
    '/backups/copies/:name/look',
    ...jsonBytes(),
    handle('post /backups/copies/{name}/look', async (request, response) => {
      mustBeConfirmed(isConfirmed(askerOf(response)));
      const name = String(request.params.name);
      const file = join(keeper.folder, name);
      if (!COPY_NAME.test(name) || !(await isThere(file))) throw notFound('This copy');
      return lookAt({ file, name, brought: false }, response);
    }),
  );
  router.post(
    '/backups/restore',
    ...jsonBytes(),
    handle('post /backups/restore', async (request, response) => {
      mustBeConfirmed(isConfirmed(askerOf(response)));
      await taken(request, (known) => restore(keeper, known));
      return copies();
    }),
  );
  router.post(
    '/backups/bring-in',
    ...jsonBytes(),
    handle('post /backups/bring-in', async (request) => {
      await taken(request, (known) => bringIn(keeper, known));
      return copies();
    }),
  );
  router.post(
    '/backups/back',
    ...jsonBytes(),
    handle('post /backups/back', async (_request, response) => {
      mustBeConfirmed(isConfirmed(askerOf(response)));
      if (!(await goBack(keeper)))
        throw new Problem(409, 'backup', 'Nothing was restored here yet, so there is nothing to put back.');
      return copies();
    }),
  );
  return router;
}

async function isThere(file: string): Promise<boolean> {
  return stat(file).then(
    (found) => found.isFile(),
    () => false,
  );
}

/** Writes what is sent into a file of its own. @throws Problem 413 */
async function receive(request: Request, folder: string, file: string): Promise<void> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  let bytes = 0;
  const counted = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      done(
        bytes > MOST_BYTES
          ? new Problem(413, 'too-large', `A backup of more than ${MOST_BYTES / 1e9} GB is restored in a terminal.`)
          : null,
        chunk,
      );
    },
  });
  await pipeline(request, counted, createWriteStream(file, { mode: 0o600 }));
}

/** What was brought and never decided on goes, also after a server that is gone. */
async function clearUp(folder: string, waiting: Map<string, Waiting>): Promise<void> {
  const before = Date.now() - KEPT_MS;
  for (const [token, { at }] of waiting) if (at < before) waiting.delete(token);
  for (const name of await readdir(folder).catch(() => [])) {
    if (!BROUGHT.test(name)) continue;
    const file = join(folder, name);
    const found = await stat(file).catch(() => null);
    if (found && found.mtimeMs < before) await rm(file, { force: true });
  }
}

/** What is described of these ways: path below `/api`, method, what it does, and what it answers. */
export const BACKUP_DESCRIBED = [
  ['/backups', 'get', 'How it stands with the copies of all that is stored', copiesSchema],
  ['/backups', 'put', 'Whether a copy is made every day, and how many are kept', copiesSchema],
  ['/backups/now', 'post', 'Make a copy now', copiesSchema],
  ['/backups/all', 'get', 'Everything that is stored, as SQL with a checksum', null],
  ['/backups/all/ready', 'post', 'Whether all of it may be taken out from this device just now', null],
  ['/backups/look', 'post', 'Look into a backup that is sent, before anything is done with it', insideSchema],
  ['/backups/copies/{name}/look', 'post', 'Look into a copy', insideSchema],
  ['/backups/restore', 'post', 'Put what was looked at in the place of what is stored', copiesSchema],
  ['/backups/bring-in', 'post', 'Take the shop of what was looked at in as the shop in use', copiesSchema],
  ['/backups/back', 'post', 'Put back what was stored before the last restore', copiesSchema],
] as const;
