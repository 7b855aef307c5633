import { join } from 'node:path';
import { StartError, startServer, type RunningServer } from '../server/src/serve.ts';
import { buildWeb } from './buildWeb.ts';
import { openProjectDatabase } from './mariadb/projectDatabase.ts';
import { ROOT } from './root.ts';
import { runCommand, Sentence, tell } from './sentence.ts';

/** `npm start`: the database, the interface, the server, one address. */
await runCommand(async () => {
  const host = process.env.HOST ?? '127.0.0.1';
  const port = Number(process.env.PORT ?? 4180);
  if (!Number.isInteger(port) || port < 0 || port > 65535) throw new Sentence(`PORT must be a number from 0 to 65535, not "${process.env.PORT}".`);

  let stopRequested = false;
  let server: RunningServer | undefined;
  let stopDatabase = async () => {};
  const shutDown = async () => {
    if (stopRequested) return;
    stopRequested = true;
    tell('Stopping …');
    await server?.stop();
    await stopDatabase();
    process.exit(0);
  };
  process.on('SIGINT', () => void shutDown());
  process.on('SIGTERM', () => void shutDown());

  buildWeb();
  if (!process.env.DATABASE_URL) tell('Starting the database …');
  const { url, stop, trouble } = await openProjectDatabase();
  stopDatabase = stop;
  try {
    server = await startServer({ databaseUrl: url, host, port, hosts: process.env.CADENZA_HOSTS ?? '', webFolder: join(ROOT, 'web', 'dist'), demo: true, tell, trouble });
  } catch (error) {
    await stopDatabase();
    throw error instanceof StartError ? new Sentence(error.message) : error;
  }
  tell(`\nCadenza is ready:  ${server.address}\n(Ctrl-C stops it)`);
});
