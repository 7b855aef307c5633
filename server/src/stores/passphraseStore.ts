import { hash, verify } from '@node-rs/argon2';
import type { Knex } from 'knex';
import { endAllDevices } from './deviceStore.ts';

interface DoorRow {
  id: number;
  passphrase_hash: string;
  set_at: Date;
}

const ONE = 1;
/** Argon2id with 19 MiB and two passes: the OWASP Password Storage Cheat Sheet's first choice. */
const SLOW = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;
export const LEAST_CHARACTERS = 12;
const MOST_CHARACTERS = 200;
const LEAST_DIFFERENT = 5;

/**
 * What is wrong with a passphrase that somebody wants; null when nothing is. Four words of everyday language are better than eight signs; what is on lists of known ones, or made
 * of them, is guessed first.
 */
export async function passphraseProblem(text: string): Promise<string | null> {
  if ([...text].length < LEAST_CHARACTERS)
    return `A passphrase must have at least ${LEAST_CHARACTERS} characters: four words that only you put together will do.`;
  if ([...text].length > MOST_CHARACTERS) return `A passphrase must have at most ${MOST_CHARACTERS} characters.`;
  if (new Set(text.toLowerCase()).size < LEAST_DIFFERENT)
    return `A passphrase must have at least ${LEAST_DIFFERENT} different characters.`;
  if (await isEasilyGuessed(asTyped(text)))
    return 'A passphrase must not be one that others use too: this one is made of what is tried first. Four words that only you put together will do.';
  return null;
}

/** The best of five grades: more than 10^10 guesses, by the lists of passwords that are used most. Loaded only when a passphrase is set. */
const BEST_GRADE = 4;
async function isEasilyGuessed(text: string): Promise<boolean> {
  const [{ ZxcvbnFactory }, { adjacencyGraphs, dictionary }] = await Promise.all([
    import('@zxcvbn-ts/core'),
    import('@zxcvbn-ts/language-common'),
  ]);
  const judge = new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
  return judge.check(text, ['cadenza', 'cutting', 'board', 'woodwork', 'workshop']).score < BEST_GRADE;
}

/** The same passphrase however a keyboard put it together. */
const asTyped = (text: string): string => text.normalize('NFKC');

export async function hasPassphrase(db: Knex): Promise<boolean> {
  return (await db<DoorRow>('doors').where({ id: ONE }).first()) !== undefined;
}

/** Whether it is the passphrase; takes its time, also when there is none. */
export async function isPassphrase(db: Knex, text: string): Promise<boolean> {
  const row = await db<DoorRow>('doors').where({ id: ONE }).first();
  if (!row) {
    await hash(asTyped(text), SLOW);
    return false;
  }
  return verify(row.passphrase_hash, asTyped(text));
}

/** Puts another passphrase in the place of the one before. Whoever was let in by that must come again. */
export async function setPassphrase(db: Knex, text: string): Promise<void> {
  const passphrase_hash = await hash(asTyped(text), SLOW);
  await db.transaction(async (tx) => {
    await tx<DoorRow>('doors').insert({ id: ONE, passphrase_hash, set_at: new Date() }).onConflict('id').merge();
    await endAllDevices(tx);
  });
}
