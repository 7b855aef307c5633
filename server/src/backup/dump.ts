import { spawn } from 'node:child_process';
import { createWriteStream } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { once } from 'node:events';
import type { Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { BackupError, programOf, type Keeper } from './keeper.ts';
import { checkBackup, sealed } from './backupFile.ts';
import { clientArguments } from './mariadbClient.ts';

/**
 * Tables that go along empty: what belongs to this place and this time, and not to the work. Who is let in, and the passphrase, must neither lie in a file that is
 * carried about nor come back with it.
 */
export const OF_THE_PLACE = [
  'doors',
  'devices',
  'invitations',
  'attempts',
  'presences',
  'keeping',
  'calendar_addresses',
  'writes',
  'board_work',
] as const;

/**
 * Writes everything that is stored, as SQL with a checksum; work may go on meanwhile, and the backup is of one moment.
 * @throws BackupError when MariaDB's program fails, or what the stream says
 */
export async function dump(keeper: Pick<Keeper, 'url' | 'program'>, to: Writable, at: Date): Promise<void> {
  const { args, env, name } = clientArguments(keeper.url);
  const bare = OF_THE_PLACE.map((table) => `--ignore-table-data=${name}.${table}`);
  const child = spawn(
    programOf(keeper, 'mariadb-dump'),
    [...args, '--single-transaction', '--skip-dump-date', ...bare, name],
    {
      env,
      stdio: ['ignore', 'pipe', 'pipe'],
    },
  );
  let complaint = '';
  child.stderr.on('data', (chunk: Buffer) => (complaint += chunk.toString()));
  const closed = once(child, 'close') as Promise<[number | null]>;
  const ended = closed.then(([code]) => {
    if (code !== 0)
      throw new BackupError(`The backup could not be made (${complaint.trim().split('\n')[0] || 'no reason given'}).`);
  });
  const seal = sealed(at);
  // The last line is written only once the program said that it came to its end.
  ended.then(
    () => seal.end(),
    (error: Error) => seal.destroy(error),
  );
  child.stdout.pipe(seal, { end: false });
  try {
    await pipeline(seal, to);
  } catch (error) {
    child.kill();
    throw error;
  }
  await ended;
}

/**
 * Makes a backup as a file. It has its name only once it is whole, written out and read again.
 * @throws BackupError naming the file when it cannot be written
 */
export async function dumpToFile(keeper: Pick<Keeper, 'url' | 'program'>, file: string, at: Date): Promise<void> {
  const half = `${file}.part`;
  try {
    await dump(keeper, createWriteStream(half, { mode: 0o600, flush: true }), at);
    await checkBackup(half, file);
    await rename(half, file);
  } catch (error) {
    await rm(half, { force: true });
    throw fileTrouble(file, error);
  }
}

/** What the system says of a file, as a sentence. */
export function fileTrouble(file: string, error: unknown): unknown {
  const { code } = error as NodeJS.ErrnoException;
  if (error instanceof BackupError || code === undefined) return error;
  return new BackupError(
    code === 'ENOSPC'
      ? `The disk is full: ${file} cannot be written. Free some space; what is stored is not touched by it.`
      : `${file} cannot be written (${code}).`,
  );
}
