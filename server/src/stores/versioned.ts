import type { Knex } from 'knex';
import { Problem } from '../problem.ts';

/**
 * Stores a document that there is one of, on top of the version it was based on. Where it has no row yet, version 0, the first insert wins, and whoever comes in the
 * same moment is told so as after any other change.
 * @param id of its row
 * @param stale what is said to whoever was based on another version
 * @throws Problem 409
 */
export async function putNext(
  tx: Knex.Transaction,
  table: string,
  { id, basedOn, columns }: { id: number; basedOn: number; columns: Record<string, unknown> },
  stale: () => Promise<Problem>,
): Promise<void> {
  const row = { ...columns, version: basedOn + 1, updated_at: new Date() };
  if (basedOn > 0) {
    const changed = await tx(table).where({ id, version: basedOn }).update(row);
    if (changed === 0) throw await stale();
    return;
  }
  try {
    await tx(table).insert({ ...row, id });
  } catch (error) {
    if ((error as { code?: string }).code !== 'ER_DUP_ENTRY') throw error;
    throw await stale();
  }
}
