import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createReadStream, readFileSync } from 'node:fs';
import { BACKUP_MARK } from './backupMark.ts';
import { clientArguments } from './clientArguments.ts';
import { ensureProgram } from './debianPackages.ts';
import { openProjectDatabase } from './projectDatabase.ts';
import { runCommand, Sentence, tell } from './sentence.ts';

/** `npm run restore -- FILE`: puts back what a backup holds, in place of what is stored now. Stop Cadenza first. */
await runCommand(async () => {
  const file = process.argv[2];
  if (!file) throw new Sentence('Usage: npm run restore -- FILE.sql');
  let head: string;
  try {
    head = readFileSync(file, 'utf8').slice(0, BACKUP_MARK.length);
  } catch (error) {
    throw new Sentence(`${file} cannot be read (${(error as NodeJS.ErrnoException).code}).`);
  }
  if (head !== BACKUP_MARK) throw new Sentence(`${file} is not a Cadenza backup; nothing was changed.`);
  const client = ensureProgram('mariadb', 'mariadb-client');
  const database = await openProjectDatabase();
  try {
    const { args, env, name } = clientArguments(database.url);
    const child = spawn(client, [...args, name], { env, stdio: ['pipe', 'ignore', 2] });
    createReadStream(file).pipe(child.stdin!);
    const [code] = (await once(child, 'close')) as [number];
    if (code !== 0) throw new Sentence('The backup could not be put back whole; see the line above.');
    tell(`Restored from ${file}`);
  } finally {
    await database.stop();
  }
});
