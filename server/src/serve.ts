import { createServer, type Server } from 'node:http';
import { isIP } from 'node:net';
import { createServer as createSecureServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import type { Express } from 'express';
import type { Knex } from 'knex';
import { createApp } from './app.ts';
import { beginOwn, seedDemo } from './demo/seed.ts';
import { addressesOf, allowedHosts, isLoopback } from './guard.ts';
import { WorkerPool } from './workers/workerPool.ts';
import { ChangeFeed } from './live/changeFeed.ts';
import { LiveRoutes } from './live/liveRoutes.ts';
import { DailyCopies } from './backup/copies.ts';
import type { Keeper } from './backup/keeper.ts';
import type { Around } from './operation.ts';
import { PlannedWork } from './planning/plannedWork.ts';
import { PlanningThread } from './planning/planningThread.ts';
import { isDatabaseGone } from './problem.ts';
import { forgetOldAttempts } from './stores/attemptStore.ts';
import { forgetOldChanges } from './stores/changeStore.ts';
import { openDatabase } from './stores/database.ts';
import { hasPassphrase, isPassphrase, passphraseProblem, setPassphrase } from './stores/passphraseStore.ts';
import { makeLog, type LogLevel } from './watch/requestLog.ts';
import { openStore, StoreError } from './stores/openStore.ts';
import { forgetOldWrites } from './stores/writeOnce.ts';

export interface ServerOptions {
  databaseUrl: string;
  host: string;
  /** 0 takes any free port. */
  port: number;
  /** Further names under which it may be asked, with commas between them. */
  hosts?: string;
  webFolder: string | null;
  /** What an empty database begins with: the demo shed, a shop of one's own with nothing in its rack, or nothing yet. */
  begin: 'demo' | 'own' | null;
  tell(line: string): void;
  /** Why the database cannot be reached just now, as far as anybody knows. */
  trouble?: () => string | null;
  /** Certificate and key as PEM, for TLS; null for none. */
  tls?: { cert: Buffer; key: Buffer } | null;
  /** Proxies that may say for whom they ask, with commas between them. */
  proxies?: string;
  /** The passphrase that is to hold from now on, as somebody says it; null for the one that holds already. Asked for only where others can reach the server, with whether there is one. */
  passphrase?: (there: boolean) => Promise<string | null>;
  /** How much is written down: faults of its own, unless more is wished. */
  logLevel?: LogLevel;
  metricsForAll?: boolean;
  /** What looks after the database: backups from the Shop, and copies every day; null for none of it. */
  keeper?: Keeper | null;
  /** Works out what is to be done before anybody asks. */
  prepare?: boolean;
}

export interface RunningServer {
  address: string;
  stop(): Promise<void>;
}

/** The server could not start; the message is one sentence with the way out. */
export class StartError extends Error {
  override name = 'StartError';
}

const HEADERS_MS = 15_000;
/** Long enough for a large backup that is brought over a slow network. */
const REQUEST_MS = 600_000;
/** Longer than a proxy in front keeps a connection, a minute mostly: one that closes while the next request is on its way is a request lost. */
const IDLE_MS = 65_000;
const MOST_HEADERS = 100;
const MOST_OPEN = 2000;
/** A full shop is planned once at the start, ms. */
const LONGEST_PREPARING_MS = 300_000;
const FORGET_EVERY_MS = 3_600_000;
/** A client that sends nothing for so long is let go of, ms. */
const PATIENCE_MS = 3000;

/**
 * Migrates, loads the demo into an empty database, and listens.
 * @throws StartError for a database that cannot be used and for a taken port
 */
export async function startServer({
  databaseUrl,
  host,
  port,
  hosts = '',
  webFolder,
  begin,
  tell,
  trouble,
  tls = null,
  proxies = '',
  passphrase = () => Promise.resolve(null),
  logLevel = 'error',
  metricsForAll = false,
  keeper = null,
  prepare = false,
}: ServerOptions): Promise<RunningServer> {
  const db = await usableDatabase(databaseUrl, begin, tell);
  const names = hosts.split(',').map((h) => h.trim());
  const trusted = proxies
    .split(',')
    .map((p) => p.trim())
    .filter((p) => p !== '');
  const odd = trusted.find((t) => !isNet(t));
  if (odd !== undefined) {
    await db.destroy();
    throw new StartError(`CADENZA_PROXY must be addresses or nets such as 192.0.2.7 or 192.0.2.0/24, not "${odd}".`);
  }
  // A proxy in front, or another name than this machine's own, says that others come too.
  const asked = !isLoopback(host) || trusted.length > 0 || names.some((n) => n !== '' && !isLoopback(n));
  if (asked) await closeDoor(db, host, passphrase);
  const workers = new WorkerPool(databaseUrl);
  const planning = new PlanningThread(databaseUrl);
  const work = new PlannedWork(db, planning.plan);
  const live = new LiveRoutes(db, new ChangeFeed(db));
  let ends = false;
  const around: Around = { asked, addresses: [] };
  const app = createApp(db, {
    webFolder,
    workers,
    work,
    live,
    keeper,
    around,
    proxies: trusted,
    tls: tls !== null,
    log: makeLog(logLevel),
    metricsForAll,
    ending: () => ends,
    hosts: allowedHosts(host, hosts),
    ...(trouble ? { trouble } : {}),
  });
  const server = await listening(tls, app, async () => {
    live.stop();
    await Promise.all([workers.stop(), planning.stop()]);
    await db.destroy();
  });
  guardConnections(server);
  await new Promise<void>((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      live.stop();
      void workers.stop();
      void planning.stop();
      void db.destroy();
      if (error.code === 'EADDRINUSE')
        reject(
          new StartError(
            `Port ${port} is taken on ${host}. Stop what uses it, or choose another: PORT=${port + 1} npm start`,
          ),
        );
      else if (error.code === 'EACCES')
        reject(
          new StartError(`Port ${port} may not be opened by this user. Choose one above 1023: PORT=4180 npm start`),
        );
      else reject(new StartError(`Cannot listen on ${host}:${port} (${error.code}). Check HOST and PORT.`));
    });
    server.listen(port, host, resolve);
  });
  const copies = keeper && new DailyCopies(db, keeper, tell);
  copies?.begin();
  const forgetting = setInterval(() => void forgetOld(db), FORGET_EVERY_MS).unref();
  // Whoever opens the first page finds what is to be done today.
  if (prepare) void work.settle(Date.now(), LONGEST_PREPARING_MS).catch(() => {});
  const bound = (server.address() as AddressInfo).port;
  const scheme = tls ? 'https' : 'http';
  around.addresses.push(...addressesOf(host, names).map((name) => `${scheme}://${name}:${bound}`));
  if (asked && !tls && trusted.length === 0)
    tell(
      'Passphrase and work go over the network as they are: give CADENZA_CERT and CADENZA_KEY for TLS, unless the network is your own.',
    );
  if (around.addresses.length > 0) tell(`Others find it at ${around.addresses.join(', ')}`);
  const shown = host === '0.0.0.0' || host === '::' ? 'localhost' : host.includes(':') ? `[${host}]` : host;
  return {
    address: `${scheme}://${shown}:${bound}/`,
    stop: async () => {
      ends = true;
      clearInterval(forgetting);
      await copies?.stop();
      live.stop();
      await new Promise<void>((resolve) => {
        server.close(() => resolve());
        server.closeIdleConnections();
        setTimeout(() => server.closeAllConnections(), PATIENCE_MS).unref();
      });
      await Promise.all([workers.stop(), planning.stop()]);
      await db.destroy();
    },
  };
}

/** An address, or a net as its address and how many of its bits count. */
function isNet(text: string): boolean {
  const [address = '', bits, ...more] = text.split('/');
  const most = isIP(address) === 4 ? 32 : 128;
  return (
    isIP(address) !== 0 && more.length === 0 && (bits === undefined || (/^\d{1,3}$/.test(bits) && Number(bits) <= most))
  );
}

/** @throws StartError where others could come in and no passphrase stops them, or one that is too weak */
async function closeDoor(db: Knex, host: string, passphrase: NonNullable<ServerOptions['passphrase']>): Promise<void> {
  try {
    const there = await hasPassphrase(db);
    const wanted = await passphrase(there);
    if (wanted === null && !there)
      throw new StartError(
        `Others can reach ${host}, so Cadenza does not start without a passphrase. Start it once in a terminal to set one, or name a file that holds it: CADENZA_PASSPHRASE_FILE.`,
      );
    if (wanted === null || (there && (await isPassphrase(db, wanted)))) return;
    const problem = await passphraseProblem(wanted);
    if (problem !== null) throw new StartError(problem);
    await setPassphrase(db, wanted);
  } catch (error) {
    await db.destroy();
    throw error;
  }
}

/** @param end undoes what was begun for it @throws StartError for a certificate that is none, or does not fit its key */
async function listening(tls: ServerOptions['tls'], app: Express, end: () => Promise<void>): Promise<Server> {
  if (!tls) return createServer(app);
  try {
    return createSecureServer(tls, app);
  } catch (error) {
    await end();
    throw new StartError(
      `CADENZA_CERT and CADENZA_KEY must be a certificate and its key as PEM (${(error as NodeJS.ErrnoException).code ?? 'unreadable'}).`,
    );
  }
}

/** Nobody keeps a connection for nothing: headers come soon, a request comes whole, and there are only so many. */
function guardConnections(server: Server): void {
  server.headersTimeout = HEADERS_MS;
  server.requestTimeout = REQUEST_MS;
  server.keepAliveTimeout = IDLE_MS;
  server.maxHeadersCount = MOST_HEADERS;
  server.maxConnections = MOST_OPEN;
}

/** What nobody asks for any more. */
async function forgetOld(db: Knex): Promise<void> {
  for (const forget of [forgetOldWrites, forgetOldChanges, forgetOldAttempts]) await forget(db).catch(() => {});
}

async function usableDatabase(url: string, begin: ServerOptions['begin'], tell: (line: string) => void): Promise<Knex> {
  let db;
  try {
    db = openDatabase(url);
    await openStore(db);
    if (begin === 'demo' && (await seedDemo(db))) tell('Loaded the demo shed.');
    if (begin === 'own' && (await beginOwn(db)))
      tell('An empty shop: describe it in Shop, and enter your pile in Rack.');
    return db;
  } catch (error) {
    await db?.destroy();
    if (error instanceof StoreError) throw new StartError(error.message);
    const { code, message } = error as Error & { code?: string };
    if (
      isDatabaseGone(error) ||
      code?.startsWith('ER_ACCESS') ||
      code?.startsWith('ER_DBACCESS') ||
      code === 'ER_BAD_DB_ERROR' ||
      code === 'ERR_INVALID_URL'
    ) {
      throw new StartError(
        `The database cannot be used (${message.split('\n')[0]}). Check DATABASE_URL, or unset it to use Cadenza's own.`,
      );
    }
    throw error;
  }
}
