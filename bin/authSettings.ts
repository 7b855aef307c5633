import { readFileSync } from 'node:fs';
import { createInterface } from 'node:readline/promises';
import { Writable } from 'node:stream';
import { passphraseProblem } from '../server/src/stores/passphraseStore.ts';
import { LOG_LEVELS, type LogLevel } from '../server/src/watch/requestLog.ts';
import { Sentence } from './sentence.ts';

/** Nothing of what is typed stays on the screen. */
async function hidden(question: string): Promise<string> {
  process.stderr.write(question);
  const nowhere = new Writable({ write: (_chunk, _encoding, done) => done() });
  const lines = createInterface({ input: process.stdin, output: nowhere, terminal: true });
  const ended = new Promise<never>((_, reject) => {
    lines.once('SIGINT', () => reject(new Sentence('No passphrase was set; nothing was started.')));
  });
  try {
    return await Promise.race([lines.question(''), ended]);
  } finally {
    lines.close();
    process.stderr.write('\n');
  }
}

async function asked(): Promise<string> {
  process.stderr.write('Others will reach this shop. Choose the passphrase that every new device is asked for.\n');
  for (;;) {
    const first = await hidden('Passphrase: ');
    const problem = await passphraseProblem(first);
    if (problem !== null) process.stderr.write(`${problem}\n`);
    else if ((await hidden('The same again: ')) === first) return first;
    else process.stderr.write('The two are not the same.\n');
  }
}

/**
 * Where a passphrase comes from: the first line of a file, or whoever sits at the terminal when there is none yet or another one is wanted.
 * @param file its path; empty for none @param another one is asked for though one holds already
 */
export function passphraseSource(file: string, another: boolean): (there: boolean) => Promise<string | null> {
  return async (there) => {
    if (file !== '') {
      try {
        return (readFileSync(file, 'utf8').split(/\r?\n/)[0] ?? '').trim();
      } catch (error) {
        throw new Sentence(
          `CADENZA_PASSPHRASE_FILE cannot be read (${(error as NodeJS.ErrnoException).code ?? 'no file'}).`,
        );
      }
    }
    if ((there && !another) || !process.stdin.isTTY) {
      if (another)
        throw new Sentence('A passphrase is asked for in a terminal only; name a file in CADENZA_PASSPHRASE_FILE.');
      return null;
    }
    return asked();
  };
}

/** How much is written down, and who may see figures, from the environment. @throws Sentence naming the variable */
export function watchFrom({ CADENZA_LOG = 'error', CADENZA_METRICS = 'own' }: NodeJS.ProcessEnv): {
  logLevel: LogLevel;
  metricsForAll: boolean;
} {
  const level = LOG_LEVELS.find((l) => l === CADENZA_LOG);
  if (!level) throw new Sentence(`CADENZA_LOG must be one of ${LOG_LEVELS.join(', ')}, not "${CADENZA_LOG}".`);
  if (CADENZA_METRICS !== 'own' && CADENZA_METRICS !== 'all')
    throw new Sentence(`CADENZA_METRICS must be own (only this machine) or all, not "${CADENZA_METRICS}".`);
  return { logLevel: level, metricsForAll: CADENZA_METRICS === 'all' };
}

/** Certificate and key from their files; null when neither is named. @throws Sentence */
export function tlsFrom(cert: string, key: string): { cert: Buffer; key: Buffer } | null {
  if (cert === '' && key === '') return null;
  const read = (name: string, path: string) => {
    if (path === '') throw new Sentence(`${name} is missing: TLS needs both CADENZA_CERT and CADENZA_KEY.`);
    try {
      return readFileSync(path);
    } catch (error) {
      throw new Sentence(`${name} cannot be read (${(error as NodeJS.ErrnoException).code ?? 'no file'}).`);
    }
  };
  return { cert: read('CADENZA_CERT', cert), key: read('CADENZA_KEY', key) };
}
