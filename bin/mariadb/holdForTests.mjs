// Holds a project database for a test: prints its address, and lets go of it when its input closes.
import { pathToFileURL } from 'node:url';
import { bundled } from '../bundled.mjs';

const { startProjectDatabase } = await import(pathToFileURL(await bundled('mariadb/database')).href);
try {
  const database = await startProjectDatabase(process.argv[2]);
  process.stdout.write(`${database.url}\n`);
  process.stdin.resume();
  process.stdin.once('end', async () => {
    await database.stop();
    process.exit(0);
  });
} catch (error) {
  process.stdout.write(`refused ${error.message}\n`);
  process.exit(1);
}
