import { createHash } from 'node:crypto';
import { closeSync, createReadStream, fstatSync, openSync, readSync } from 'node:fs';
import { Transform } from 'node:stream';
import { BackupError } from './keeper.ts';

/** First line of a backup, by which `restore` knows it. */
const HEAD = '-- Cadenza backup 2\n';
/** First line of one that an earlier Cadenza made: it ends as the database's own program ends it, without a checksum. */
const EARLIER_HEAD = '-- Cadenza backup\n';
const EARLIER_END = '-- Dump completed';
/** Last line: all the bytes before it, and their checksum. */
const END = /-- Cadenza backup ends: (\d+) bytes, sha256 ([0-9a-f]{64})\n$/;
const LONGEST_END = 200;
/** Second line of one that says when it was made. */
const MADE = /^-- Made (\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z)\n/;
const LONGEST_MADE = 40;

/** Puts the first lines before a dump and the checksum after it. @param at when it is made */
export function sealed(at: Date): Transform {
  const hash = createHash('sha256');
  let bytes = 0;
  const count = (chunk: Buffer) => {
    hash.update(chunk);
    bytes += chunk.length;
    return chunk;
  };
  let begun = false;
  const begin = (stream: Transform) => {
    if (!begun) stream.push(count(Buffer.from(`${HEAD}-- Made ${at.toISOString()}\n`)));
    begun = true;
  };
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      begin(this);
      done(null, count(chunk));
    },
    flush(done) {
      begin(this);
      done(null, `-- Cadenza backup ends: ${bytes} bytes, sha256 ${hash.digest('hex')}\n`);
    },
  });
}

/** What a backup says of itself. */
export interface BackupFile {
  /** It carries a checksum, and it fits; one of an earlier Cadenza has none. */
  checksum: boolean;
  /** When it was made, ISO; null where an earlier Cadenza did not say. */
  madeAt: string | null;
}

/**
 * Reads a backup from end to end before anybody relies on it.
 * @param name what it is called in what is said of it
 * @throws BackupError when it is no backup, was cut off, or was changed
 */
export async function checkBackup(file: string, name = file): Promise<BackupFile> {
  const { size, head, tail } = endsOf(file, name);
  if (head.startsWith(EARLIER_HEAD)) {
    if (!tail.includes(EARLIER_END)) throw cutOff(name);
    return { checksum: false, madeAt: null };
  }
  if (!head.startsWith(HEAD)) throw new BackupError(`${name} is not a Cadenza backup; nothing was changed.`);
  const end = END.exec(tail);
  if (!end) throw cutOff(name);
  const [line, bytes, sum] = end;
  const kept = size - Buffer.byteLength(line);
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(file, { end: kept - 1 })) hash.update(chunk as Buffer);
  if (kept !== Number(bytes) || hash.digest('hex') !== sum) {
    throw new BackupError(
      `${name} was changed since it was made: its checksum does not fit. Nothing was changed here; take another copy of it.`,
    );
  }
  return { checksum: true, madeAt: MADE.exec(head.slice(HEAD.length))?.[1] ?? null };
}

function cutOff(name: string): BackupError {
  return new BackupError(
    `${name} was cut off: its last line is missing. Nothing was changed here; take another copy of it.`,
  );
}

/** The beginning and the end of a file. @throws BackupError when it cannot be read */
function endsOf(file: string, name: string): { size: number; head: string; tail: string } {
  try {
    const handle = openSync(file, 'r');
    try {
      const { size } = fstatSync(handle);
      const read = (length: number, from: number) => {
        const buffer = Buffer.alloc(Math.min(length, size));
        return buffer.subarray(0, readSync(handle, buffer, 0, buffer.length, from)).toString('utf8');
      };
      return {
        size,
        head: read(HEAD.length + LONGEST_MADE, 0),
        tail: read(LONGEST_END, Math.max(0, size - LONGEST_END)),
      };
    } finally {
      closeSync(handle);
    }
  } catch (error) {
    throw new BackupError(`${name} cannot be read (${(error as NodeJS.ErrnoException).code}).`);
  }
}
