import { certain } from '#core/lists/there.ts';
import { spawn } from 'node:child_process';
import { createWriteStream, renameSync, rmSync } from 'node:fs';
import { once } from 'node:events';
import { pipeline } from 'node:stream/promises';
import { ensureProgram } from './debianPackages.ts';
import { sealed } from './mariadb/backupFile.ts';
import { clientArguments } from './mariadb/clientArguments.ts';
import { openProjectDatabase } from './mariadb/projectDatabase.ts';
import { runCommand, Sentence, tell } from './sentence.ts';

/** Tables that go along empty. */
const NOT_KEPT = ['devices', 'invitations', 'attempts', 'presences'];

/** `npm run backup -- FILE`: everything that is stored, as SQL with a checksum; Cadenza may go on running. */
await runCommand(async () => {
  const [file, ...more] = process.argv.slice(2);
  if (!file || file.startsWith('-') || more.length > 0) throw new Sentence('Usage: npm run backup -- FILE.sql');
  const dump = ensureProgram('mariadb-dump', 'mariadb-client');
  const database = await openProjectDatabase();
  const half = `${file}.part`;
  try {
    const { args, env, name } = clientArguments(database.keeperUrl);
    // Devices that are let in belong to this place and time: a restore must not let one in again that was ended.
    const bare = NOT_KEPT.map((table) => `--ignore-table-data=${name}.${table}`);
    const child = spawn(dump, [...args, '--single-transaction', '--skip-dump-date', ...bare, name], {
      env,
      stdio: ['ignore', 'pipe', 2],
    });
    const [[code]] = (await Promise.all([
      once(child, 'close'),
      pipeline(certain(child.stdout), sealed(), createWriteStream(half, { mode: 0o600 })),
    ])) as [[number], unknown];
    if (code !== 0) throw new Sentence('The backup could not be made; see the line above.');
    renameSync(half, file);
    tell(`Backed up to ${file}`);
  } catch (error) {
    rmSync(half, { force: true });
    const { code } = error as NodeJS.ErrnoException;
    throw code ? new Sentence(`${file} cannot be written (${code}).`) : error;
  } finally {
    await database.stop();
  }
});
