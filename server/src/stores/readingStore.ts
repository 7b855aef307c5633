import type { Knex } from 'knex';
import type { Readings } from '#contract/bench.ts';
import type { Reading } from '#core/bench/reading.ts';
import { Problem } from '../problem.ts';

interface ReadingRow extends Omit<Reading, 'flat'> {
  id: number;
  flat: number;
  arrived_at: Date;
}

/** A reading that nobody took is forgotten after so long, ms. */
const KEPT_MS = 600_000;
/** Nobody measures more often than that: more in one second is an instrument that never stops. */
const MOST_A_SECOND = 20;
const MOST_AT_ONCE = 50;

/** Keeps a reading until the field that waits for it asks. @throws Problem 429 for an instrument that never stops sending */
export async function addReading(tx: Knex.Transaction, { instrument, value, unit, flat }: Reading): Promise<void> {
  const now = Date.now();
  await tx('readings')
    .where('arrived_at', '<', new Date(now - KEPT_MS))
    .delete();
  const [{ n }] = (await tx('readings')
    .where({ instrument })
    .where('arrived_at', '>', new Date(now - 1000))
    .count({ n: '*' })) as [{ n: number }];
  if (n >= MOST_A_SECOND)
    throw new Problem(
      429,
      'too-often',
      `The ${instrument === 'moistureMeter' ? 'moisture meter' : instrument} sends more than ${MOST_A_SECOND} readings a second and never stops: look at its button. Nothing is lost.`,
    );
  await tx('readings').insert({ instrument, value, unit, flat, arrived_at: new Date(now) });
}

/** What was sent after a reading. @param after its id; left out: only which was the last is told, so that nothing old is taken */
export async function readingsAfter(db: Knex, after: number | undefined): Promise<Readings> {
  if (after === undefined) {
    const last = (await db<ReadingRow>('readings').max({ id: 'id' }).first()) as { id: number | null } | undefined;
    return { last: last?.id ?? 0, readings: [] };
  }
  const rows = await db<ReadingRow>('readings')
    .where('id', '>', after)
    .orderBy('id', 'desc')
    .limit(MOST_AT_ONCE)
    .select('id', 'instrument', 'value', 'unit', 'flat');
  const readings = rows.reverse().map((row) => ({ ...row, flat: row.flat === 1 }));
  return { last: readings.at(-1)?.id ?? after, readings };
}
