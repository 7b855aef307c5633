import { firstOf, nth } from '#core/lists/there.ts';
import { readFileSync, statSync } from 'node:fs';
import { GREATEST_FILE_BYTES, readBoardFile, type BoardFile } from '#core/format/boardFile.ts';

/** Exit code for a file that cannot be read or is not valid, and for wrong arguments. */
const BAD_FILE = 2;
/** Longest time that can be asked for. */
export const MOST_SECONDS = 3600;

/** A refusal in one line. */
export class Refusal extends Error {}

/** @throws Refusal that names the file and what is wrong in it */
export function readBoard(path: string): BoardFile {
  let text: string;
  try {
    if (statSync(path).size > GREATEST_FILE_BYTES)
      throw new Refusal(`${path}: file is larger than ${GREATEST_FILE_BYTES / 1e6} MB; that is not a board file.`);
    text = readFileSync(path, 'utf8');
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw new Refusal(`${path}: file cannot be read (${(error as NodeJS.ErrnoException).code}).`);
  }
  const read = readBoardFile(text);
  if (read.ok) return read.file;
  const { path: field, message } = firstOf(read.problems);
  throw new Refusal(`${path}: ${field === '' ? '' : `${field}: `}${message}`);
}

interface NumberArgument {
  usual: number;
  least: number;
  greatest: number;
  whole?: boolean;
}

/** Splits arguments into file names and `--name value` pairs. @param take checks a value and keeps it @throws Refusal naming the argument */
export function readPairs<K extends string>(
  args: readonly string[],
  known: object,
  usage: string,
  take: (name: K, value: string | undefined) => void,
): string[] {
  const paths: string[] = [];
  for (let i = 0; i < args.length; i += 1) {
    const name = /^--(.*)/.exec(nth(args, i))?.[1];
    if (name === undefined) {
      paths.push(nth(args, i));
      continue;
    }
    if (!Object.hasOwn(known, name)) throw new Refusal(`--${name} is not known. ${usage}`);
    i += 1;
    take(name as K, args[i]);
  }
  if (paths.length === 0) throw new Refusal(usage);
  return paths;
}

/** File names and `--name N` arguments. @throws Refusal naming the argument */
export function readArguments<K extends string>(
  args: readonly string[],
  known: Record<K, NumberArgument>,
  usage: string,
): { paths: string[]; numbers: Record<K, number> } {
  const numbers = Object.fromEntries(
    Object.entries<NumberArgument>(known).map(([name, { usual }]) => [name, usual]),
  ) as Record<K, number>;
  const paths = readPairs<K>(args, known, usage, (name, text) => {
    const { least, greatest, whole = false } = known[name];
    const value = Number(text);
    if (
      text === undefined ||
      text.trim() === '' ||
      !Number.isFinite(value) ||
      value < least ||
      value > greatest ||
      (whole && !Number.isInteger(value))
    ) {
      throw new Refusal(`--${name} must be a ${whole ? 'whole ' : ''}number from ${least} to ${greatest}.`);
    }
    numbers[name] = value;
  });
  return { paths, numbers };
}

/** File names and `--name WORD` arguments; a list names the words that are allowed, null allows any. @throws Refusal naming the argument */
export function readWords<K extends string>(
  args: readonly string[],
  known: Record<K, readonly string[] | null>,
  usage: string,
): { paths: string[]; words: Partial<Record<K, string>> } {
  const words: Partial<Record<K, string>> = {};
  const paths = readPairs<K>(args, known, usage, (name, word) => {
    const allowed = known[name];
    if (word === undefined || (allowed && !allowed.includes(word)))
      throw new Refusal(`--${name} must be ${allowed ? `one of ${allowed.join(', ')}` : 'followed by a name'}.`);
    words[name] = word;
  });
  return { paths, words };
}

/** Runs a command; a refusal becomes one line on standard error and the exit code for it. */
export async function refusing(run: () => Promise<void>): Promise<void> {
  try {
    await run();
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    process.stderr.write(`${error.message}\n`);
    process.exitCode = BAD_FILE;
  }
}
