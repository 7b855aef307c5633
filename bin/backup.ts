import { spawn } from 'node:child_process';
import { createWriteStream, renameSync, rmSync } from 'node:fs';
import { once } from 'node:events';
import { BACKUP_MARK } from './backupMark.ts';
import { clientArguments } from './clientArguments.ts';
import { ensureProgram } from './debianPackages.ts';
import { openProjectDatabase } from './projectDatabase.ts';
import { runCommand, Sentence, tell } from './sentence.ts';

/** `npm run backup -- FILE`: everything that is stored, as SQL; Cadenza may go on running. */
await runCommand(async () => {
  const file = process.argv[2];
  if (!file) throw new Sentence('Usage: npm run backup -- FILE.sql');
  const dump = ensureProgram('mariadb-dump', 'mariadb-client');
  const database = await openProjectDatabase();
  const half = `${file}.part`;
  try {
    const out = createWriteStream(half, { mode: 0o600 });
    out.write(`${BACKUP_MARK}\n`);
    const { args, env, name } = clientArguments(database.url);
    const child = spawn(dump, [...args, '--single-transaction', '--skip-dump-date', name], { env, stdio: ['ignore', 'pipe', 2] });
    child.stdout!.pipe(out);
    const [[code]] = (await Promise.all([once(child, 'close'), once(out, 'close')])) as [[number], unknown];
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
