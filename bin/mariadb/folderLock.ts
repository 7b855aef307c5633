import { spawn } from 'node:child_process';
import { ensureProgram } from '../debianPackages.ts';

/** A lock on a file that the kernel keeps: it goes with the process that holds it, however that ends. */
export interface FolderLock {
  release(): Promise<void>;
}

const SOMEBODY_ELSE = 75;

/**
 * Takes a lock on a file. Node.js has none of its own, so a small process holds it with `flock` for as long as its standard input is open: a Cadenza
 * that is killed closes that too.
 * @param kind any number may share a lock; an exclusive one is alone
 * @param waitSeconds how long to wait for others; 0 does not wait
 * @returns null when somebody else holds it all that time
 */
export async function takeLock(
  file: string,
  kind: 'shared' | 'exclusive',
  waitSeconds: number,
): Promise<FolderLock | null> {
  const flock = ensureProgram('flock', 'util-linux');
  const patience = waitSeconds === 0 ? ['--nonblock'] : ['--timeout', String(waitSeconds)];
  // Detached: Ctrl-C in the terminal reaches Cadenza alone, which then lets go in order.
  const holder = spawn(
    flock,
    [
      `--${kind}`,
      ...patience,
      '--conflict-exit-code',
      String(SOMEBODY_ELSE),
      file,
      'sh',
      '-c',
      'echo held; exec cat > /dev/null',
    ],
    {
      stdio: ['pipe', 'pipe', 'ignore'],
      detached: true,
    },
  );
  const ended = new Promise<number | null>((resolve) => {
    holder.once('error', () => resolve(null));
    holder.once('exit', resolve);
  });
  holder.stdin.on('error', () => {});
  const held = new Promise<true>((resolve) => holder.stdout.once('data', () => resolve(true)));
  const first = await Promise.race([held, ended]);
  if (first === true) {
    holder.unref();
    return {
      release: async () => {
        holder.ref();
        holder.stdin.end();
        await ended;
      },
    };
  }
  if (first === SOMEBODY_ELSE) return null;
  throw new Error(`The lock ${file} could not be taken (flock ended with ${first}).`);
}
