import type { Knex } from 'knex';

interface AttemptRow {
  id: number;
  address: string;
  made_at: Date;
}

/** Failures count for so long, ms. */
const COUNTED_MS = 900_000;
/** So many slips are nobody's business. */
const FREE = 5;
/** From all addresses together, before everybody waits. */
const FREE_OF_ALL = 100;
const WAIT_OF_ALL_S = 10;
const LONGEST_WAIT_S = 900;

/**
 * How long somebody must wait before trying again, seconds; 0 for not at all. Each failure beyond a handful doubles it, at every server on the database.
 * @param address from where, or which device that is known
 * @param amongAll whether he waits also when everybody together fails too often
 */
export async function waitBeforeNext(db: Knex, address: string, amongAll: boolean): Promise<number> {
  const since = new Date(Date.now() - COUNTED_MS);
  const [own] = (await db<AttemptRow>('attempts')
    .where({ address })
    .where('made_at', '>', since)
    .count({ n: '*' })
    .max({ last: 'made_at' })) as unknown as [{ n: number; last: Date | null }];
  const [all] = (await db<AttemptRow>('attempts')
    .where('made_at', '>', since)
    .whereNot('address', 'like', 'device %')
    .count({ n: '*' })
    .max({ last: 'made_at' })) as unknown as [{ n: number; last: Date | null }];
  const left = (wait: number, last: Date | null) =>
    last === null ? 0 : Math.ceil(wait - (Date.now() - last.getTime()) / 1000);
  return Math.max(
    0,
    own.n >= FREE ? left(Math.min(LONGEST_WAIT_S, 2 ** (own.n - FREE + 1)), own.last) : 0,
    amongAll && all.n >= FREE_OF_ALL ? left(WAIT_OF_ALL_S, all.last) : 0,
  );
}

/** Somebody did not know the passphrase. */
export async function noteFailure(db: Knex, address: string): Promise<void> {
  await db('attempts').insert({ address, made_at: new Date() });
}

/** Somebody did know it: what failed before is forgotten. */
export async function forgetFailures(db: Knex, address: string): Promise<void> {
  await db('attempts').where({ address }).delete();
}

/** Forgets what counts no more. */
export async function forgetOldAttempts(db: Knex): Promise<void> {
  await db<AttemptRow>('attempts')
    .where('made_at', '<', new Date(Date.now() - COUNTED_MS))
    .delete();
}
