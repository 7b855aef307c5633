import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createApp } from './app.ts';
import { seedDemo } from './demo/seed.ts';
import { isDatabaseGone } from './problem.ts';
import { foreignTables, migrate, openDatabase } from './stores/database.ts';

export interface ServerOptions {
  databaseUrl: string;
  host: string;
  /** 0 takes any free port. */
  port: number;
  webFolder: string | null;
  /** Load the demo shed when the database is empty. */
  demo: boolean;
  tell(line: string): void;
}

export interface RunningServer {
  address: string;
  stop(): Promise<void>;
}

/** The server could not start; the message is one sentence with the way out. */
export class StartError extends Error {
  override name = 'StartError';
}

/**
 * Migrates, loads the demo into an empty database, and listens.
 * @throws StartError for a database that cannot be used and for a taken port
 */
export async function startServer({ databaseUrl, host, port, webFolder, demo, tell }: ServerOptions): Promise<RunningServer> {
  let db;
  try {
    db = openDatabase(databaseUrl);
    const foreign = await foreignTables(db);
    if (foreign.length > 0) throw new StartError(`The database holds tables that Cadenza did not make (${foreign.slice(0, 3).join(', ')}). Point DATABASE_URL at an empty database.`);
    await migrate(db);
    if (demo && (await seedDemo(db))) tell('Loaded the demo shed.');
  } catch (error) {
    await db?.destroy();
    if (error instanceof StartError) throw error;
    const { code, message } = error as Error & { code?: string };
    if (isDatabaseGone(error) || code?.startsWith('ER_ACCESS') || code === 'ER_BAD_DB_ERROR' || code === 'ERR_INVALID_URL') {
      throw new StartError(`The database cannot be used (${message.split('\n')[0]}). Check DATABASE_URL, or unset it to use Cadenza's own.`);
    }
    throw error;
  }

  const server = createServer(createApp(db, webFolder));
  await new Promise<void>((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      void db.destroy();
      if (error.code === 'EADDRINUSE') reject(new StartError(`Port ${port} is taken on ${host}. Stop what uses it, or choose another: PORT=${port + 1} npm start`));
      else if (error.code === 'EACCES') reject(new StartError(`Port ${port} may not be opened by this user. Choose one above 1023: PORT=4180 npm start`));
      else reject(new StartError(`Cannot listen on ${host}:${port} (${error.code}). Check HOST and PORT.`));
    });
    server.listen(port, host, resolve);
  });
  const bound = (server.address() as AddressInfo).port;
  const shown = host === '0.0.0.0' || host === '::' ? 'localhost' : host.includes(':') ? `[${host}]` : host;
  return {
    address: `http://${shown}:${bound}/`,
    stop: async () => {
      await new Promise<void>((resolve) => {
        server.close(() => resolve());
        server.closeIdleConnections();
        setTimeout(() => server.closeAllConnections(), 3000).unref();
      });
      await db.destroy();
    },
  };
}
