import { join } from 'node:path';
import { buildWeb } from '../bin/buildWeb.ts';
import { mariadbProgram } from '../bin/debianPackages.ts';
import { ROOT } from '../bin/root.ts';
import { startTestDatabase } from '../bin/mariadb/testDatabase.ts';
import { startServer } from '../server/src/serve.ts';

/** Serves the built interface on a database and port of its own for the browser tests. */
export default async function setup(): Promise<() => Promise<void>> {
  buildWeb();
  const database = await startTestDatabase();
  const server = await startServer({
    databaseUrl: database.url,
    host: '127.0.0.1',
    port: 0,
    webFolder: join(ROOT, 'web', 'dist'),
    begin: 'demo',
    tell: () => {},
    keeper: {
      url: database.url,
      program: mariadbProgram,
      folder: join(database.folder, 'copies'),
    },
  });
  process.env.CADENZA_URL = server.address;
  // For tests that start another server on the same shop.
  process.env.CADENZA_SHARED_DATABASE = database.url;
  return async () => {
    await server.stop();
    await database.stop();
  };
}
