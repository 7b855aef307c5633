import type { Knex } from 'knex';
import { notFound, Problem } from '../problem.ts';
import { readBoard } from './boardStore.ts';
import { holdSawBook, releaseWood } from './sawStore.ts';

/** Takes a board off the list; it can be brought back. @throws Problem 404, 409 stale with the stored board */
export async function removeBoard(tx: Knex.Transaction, id: string, basedOn: number): Promise<void> {
  await holdSawBook(tx);
  const locked = await tx<{ id: string; revision: number; removed_at: Date | null }>('boards')
    .where({ id })
    .whereNull('removed_at')
    .forUpdate()
    .first('revision');
  if (!locked) throw notFound('This board');
  if (locked.revision !== basedOn)
    throw new Problem(409, 'stale', 'The board was changed elsewhere meanwhile.', [], {
      current: await readBoard(tx, id),
    });
  await releaseWood(tx, [id]);
  await tx('boards').where({ id }).update({ removed_at: new Date() });
}
