import { join } from 'node:path';
import { StartError, startServer, type RunningServer } from '../server/src/serve.ts';
import { buildWeb } from './buildWeb.ts';
import { passphraseSource, tlsFrom, watchFrom } from './authSettings.ts';
import { mariadbProgram } from './debianPackages.ts';
import { copiesFolder, openProjectDatabase } from './mariadb/projectDatabase.ts';
import { ROOT } from './root.ts';
import { runCommand, Sentence, tell } from './sentence.ts';

const KNOWN = ['--empty', '--passphrase'];

/** `npm start [-- --empty] [-- --passphrase]`: the database, the interface, the server, one address. */
await runCommand(async () => {
  const host = process.env.HOST ?? '127.0.0.1';
  const port = Number(process.env.PORT ?? 4180);
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new Sentence(`PORT must be a number from 0 to 65535, not "${process.env.PORT}".`);

  const [odd] = process.argv.slice(2).filter((argument) => !KNOWN.includes(argument));
  if (odd !== undefined)
    throw new Sentence(
      `npm start does not know "${odd}"; it takes --empty, to begin without the demo, and --passphrase, to set another one.`,
    );
  const { CADENZA_DEMO = '1' } = process.env;
  if (CADENZA_DEMO !== '0' && CADENZA_DEMO !== '1')
    throw new Sentence(`CADENZA_DEMO must be 0 or 1, not "${CADENZA_DEMO}".`);
  const begin = CADENZA_DEMO === '0' || process.argv.includes('--empty') ? 'own' : 'demo';

  const {
    CADENZA_CERT = '',
    CADENZA_KEY = '',
    CADENZA_PROXY = '',
    CADENZA_PASSPHRASE_FILE = '',
    CADENZA_HOSTS = '',
  } = process.env;
  const tls = tlsFrom(CADENZA_CERT, CADENZA_KEY);
  const watch = watchFrom(process.env);

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
  const { url, keeperUrl, stop, trouble } = await openProjectDatabase();
  stopDatabase = stop;
  try {
    server = await startServer({
      databaseUrl: url,
      host,
      port,
      hosts: CADENZA_HOSTS,
      tls,
      ...watch,
      proxies: CADENZA_PROXY,
      passphrase: passphraseSource(CADENZA_PASSPHRASE_FILE, process.argv.includes('--passphrase')),
      webFolder: join(ROOT, 'web', 'dist'),
      begin,
      tell,
      trouble,
      prepare: true,
      keeper: { url: keeperUrl, program: mariadbProgram, folder: copiesFolder() },
    });
  } catch (error) {
    await stopDatabase();
    throw error instanceof StartError ? new Sentence(error.message) : error;
  }
  tell(`\nCadenza is ready:  ${server.address}\n(Ctrl-C stops it)`);
});
