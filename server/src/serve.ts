import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Knex } from 'knex';
import { createApp } from './app.ts';
import { beginOwn, seedDemo } from './demo/seed.ts';
import { allowedHosts, isLoopback } from './guard.ts';
import { HeavyPool } from './heavy/heavyPool.ts';
import { isDatabaseGone } from './problem.ts';
import { openDatabase } from './stores/database.ts';
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
}

export interface RunningServer {
  address: string;
  stop(): Promise<void>;
}

/** The server could not start; the message is one sentence with the way out. */
export class StartError extends Error {
  override name = 'StartError';
}

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
}: ServerOptions): Promise<RunningServer> {
  const db = await usableDatabase(databaseUrl, begin, tell);
  const heavy = new HeavyPool(databaseUrl);
  const server = createServer(
    createApp(db, { webFolder, heavy, hosts: allowedHosts(host, hosts), ...(trouble ? { trouble } : {}) }),
  );
  await new Promise<void>((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      void heavy.stop();
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
  if (!isLoopback(host))
    tell(
      `Everyone who reaches ${host} can read and change everything: there is no sign-in yet. Leave HOST on 127.0.0.1 unless that is wanted.`,
    );
  const forgetting = setInterval(() => void forgetOldWrites(db).catch(() => {}), FORGET_EVERY_MS).unref();
  const bound = (server.address() as AddressInfo).port;
  const shown = host === '0.0.0.0' || host === '::' ? 'localhost' : host.includes(':') ? `[${host}]` : host;
  return {
    address: `http://${shown}:${bound}/`,
    stop: async () => {
      clearInterval(forgetting);
      await new Promise<void>((resolve) => {
        server.close(() => resolve());
        server.closeIdleConnections();
        setTimeout(() => server.closeAllConnections(), PATIENCE_MS).unref();
      });
      await heavy.stop();
      await db.destroy();
    },
  };
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
