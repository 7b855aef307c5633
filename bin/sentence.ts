import { BackupError } from '../server/src/backup/keeper.ts';

/** An error meant for the person at the terminal: one sentence with the way out, no stack. */
export class Sentence extends Error {}

/** Prints what is being done; progress never goes to standard output, which belongs to results. */
export function tell(line: string): void {
  process.stderr.write(`${line}\n`);
}

/** The sentence for a disk that is full or may not be written; undefined for other errors. */
export function fileTrouble(error: unknown): string | undefined {
  const { code, path } = error as NodeJS.ErrnoException;
  if (code === 'ENOSPC')
    return `The disk is full${path ? ` (${path})` : ''}. Free some space and run the command again.`;
  if (code === 'EACCES' || code === 'EPERM' || code === 'EROFS')
    return `${path ?? 'A file'} may not be written by this user. Change its owner, or run from a folder of your own.`;
  if (path !== undefined && code !== undefined && OF_A_FOLDER.has(code))
    return `${path} cannot be used (${code}). Choose another folder, or make it one that this user may write.`;
  return undefined;
}

/** What the system says of a place where nothing can be made. */
const OF_A_FOLDER: ReadonlySet<string> = new Set([
  'ENOENT',
  'ENOTDIR',
  'EEXIST',
  'EISDIR',
  'EIO',
  'ELOOP',
  'ENAMETOOLONG',
]);

/** What is told may go to a file on a full disk, or to a reader that is gone: that ends nobody's work. */
function outliveReaders(): void {
  for (const stream of [process.stdout, process.stderr]) stream.on('error', () => {});
}

/** Runs a command's main function; a `Sentence`, or what keeps a backup from being made, ends it with its text and exit code 1, anything else is a bug and shows its stack. */
export async function runCommand(main: () => Promise<void>): Promise<void> {
  outliveReaders();
  try {
    await main();
  } catch (error) {
    const sentence = error instanceof Sentence || error instanceof BackupError ? error.message : fileTrouble(error);
    if (sentence) tell(sentence);
    else console.error(error);
    process.exit(1);
  }
}
