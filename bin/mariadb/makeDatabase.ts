import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, renameSync, rmSync, rmdirSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { ensureProgram } from '../debianPackages.ts';
import { Sentence, tell } from '../sentence.ts';
import { DatabaseFolder, isFilled } from './databaseFolder.ts';

/** What a new database takes, with room to work. */
const LEAST_FREE_BYTES = 400e6;

/**
 * Sees to it that there are whole data, or that it is said why not. New ones are made beside their place and moved there once they are whole, so a
 * start that is killed never leaves half a database. The caller holds the start lock: nobody else is at it.
 * @throws Sentence when data lie here that must not be touched, or new ones cannot be made
 */
export function ensureData(files: DatabaseFolder): void {
  if (files.isForeign)
    throw new Sentence(`${files.data} holds a database that Cadenza did not make. Move it away, or set DATABASE_URL.`);
  const holds = (name: string) => existsSync(join(files.data, name));
  if (holds('mysql') && (holds(DatabaseFolder.WHOLE) || holds('cadenza'))) return;
  if (holds('cadenza')) {
    throw new Sentence(
      `${files.data} holds Cadenza's tables, but MariaDB's own (mysql) are missing. Nothing was touched: put them back from a copy of the folder, or move ${files.data} away and restore a backup.`,
    );
  }
  if (isFilled(files.data)) setAside(files);
  refuseFullDisk(files);
  makeData(files);
}

/** Data that never held a board: an older Cadenza was ended while it made them. They are moved, not deleted. */
function setAside(files: DatabaseFolder): void {
  let place = `${files.data}-unfinished`;
  for (let n = 2; existsSync(place); n += 1) place = `${files.data}-unfinished-${n}`;
  renameSync(files.data, place);
  tell(
    `The database in ${files.data} was never finished and holds no boards. It is now ${basename(place)}; a new one is made.`,
  );
}

function refuseFullDisk(files: DatabaseFolder): void {
  const free = files.freeBytes();
  if (free >= LEAST_FREE_BYTES) return;
  throw new Sentence(
    `The disk of ${files.folder} has ${Math.round(free / 1e6)} MB free; a new database wants ${LEAST_FREE_BYTES / 1e6} MB. Free some space and start again.`,
  );
}

function makeData(files: DatabaseFolder): void {
  tell('Making the database …');
  const installer = ensureProgram('mariadb-install-db', 'mariadb-server');
  clearUnfinished(files);
  mkdirSync(files.making, { mode: 0o700 });
  // The installer is a shell script that breaks paths at spaces: it is given a name without any, in the folder where it runs. It may only be told a
  // user by root, and need not look up this machine's name, as no account stays that is known by it.
  const asUser = process.getuid?.() === 0 ? ['--user=root'] : [];
  const done = spawnSync(
    installer,
    [
      '--no-defaults',
      `--datadir=./${basename(files.making)}`,
      '--auth-root-authentication-method=normal',
      '--skip-test-db',
      '--force',
      ...asUser,
    ],
    {
      cwd: files.folder,
      encoding: 'utf8',
      env: { ...process.env, TMPDIR: files.temporary, UMASK: '0600', UMASK_DIR: '0700' },
    },
  );
  if (done.status !== 0 || !existsSync(join(files.making, 'mysql'))) {
    rmSync(files.making, { recursive: true, force: true });
    throw new Sentence(
      `The database could not be made in ${files.folder}: ${complaintIn(`${done.stdout ?? ''}${done.stderr ?? ''}`)}`,
    );
  }
  writeFileSync(join(files.making, DatabaseFolder.WHOLE), '', { mode: 0o600 });
  if (existsSync(files.data)) rmdirSync(files.data);
  renameSync(files.making, files.data);
}

/**
 * Data that a start did not come to the end of: nobody has ever used them. The installer of a start that was killed may still be writing there, so they
 * are another's place than ours, and what cannot be removed now is removed the next time.
 */
function clearUnfinished(files: DatabaseFolder): void {
  for (const folder of files.unfinished()) {
    try {
      rmSync(folder, { recursive: true, force: true });
    } catch {
      tell(`${basename(folder)} is still being written by a start that was ended; it is left alone.`);
    }
  }
}

/** The first thing that MariaDB calls an error: what comes after it only follows from it. */
export function complaintIn(output: string): string {
  const lines = output.trim().split('\n');
  const first = lines.find((line) => /\berror\b/i.test(line)) ?? lines.at(-1);
  return first?.replace(/^.*\[ERROR\]\s*(\S*mariadbd\S*:\s*)?/, '').trim() || 'no reason given';
}
