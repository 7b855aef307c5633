import { setTimeout as sleep } from 'node:timers/promises';
import type { Knex } from 'knex';

/**
 * Codes with which MariaDB, alone or as a cluster, says that a transaction lost against another and left nothing behind: the same again may well succeed.
 * 1213 is also what a cluster answers when a commit fails its certification.
 */
const LOST_AGAINST_ANOTHER = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_XA_RBDEADLOCK', 'ER_CHECKREAD']);
/** On a slow machine many that write to one board get in each other's way again and again; each try lets at least one of them through. */
const MOST_TRIES = 20;

/** Whether a transaction lost against another and may be run again. */
export function lostAgainstAnother(error: unknown): boolean {
  const code = (error as { code?: unknown } | null)?.code;
  return typeof code === 'string' && LOST_AGAINST_ANOTHER.has(code);
}

/**
 * Runs a write as one transaction, and again when another one got in its way. Locks are taken in one order everywhere: the write's own id, the saw book,
 * boards by id, pieces by id, cuttings and clocks.
 * @param work runs once for every try, so nothing but the database may change in it
 */
export async function inTransaction<T>(db: Knex, work: (tx: Knex.Transaction) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt += 1) {
    try {
      return await db.transaction(work);
    } catch (error) {
      if (!lostAgainstAnother(error) || attempt === MOST_TRIES) throw error;
      // Those that met once must not meet again at the same moment.
      await sleep(Math.random() * 15 * Math.min(attempt, 8));
    }
  }
}
