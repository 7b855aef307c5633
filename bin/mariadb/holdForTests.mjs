// Holds a project database for a test: prints its address, and lets go of it when its input closes.
import { register } from 'tsx/esm/api';

register();
const { startProjectDatabase } = await import('./database.ts');
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
