import type { Knex } from 'knex';

const ROWS_AT_ONCE = 200;

export interface KeyedRow {
  [column: string]: unknown;
}

/**
 * Goes through a table of documents in the order of its key, some hundred rows at a time, so that a large one never stands in memory whole.
 * @param key columns that name a row
 * @param look gets the key and the document's text of each row; it may change that row, but not its key @param after what is done after each portion, before it is written to disk
 */
export async function inPortions(
  db: Knex,
  table: string,
  key: readonly string[],
  look: (row: KeyedRow) => Promise<void>,
  after: () => Promise<void> = () => Promise.resolve(),
): Promise<void> {
  let last: unknown[] | null = null;
  for (;;) {
    const query = db(table)
      .select<KeyedRow[]>(...key, 'document')
      .orderBy([...key])
      .limit(ROWS_AT_ONCE);
    if (last)
      void query.whereRaw(`(${key.map(() => '??').join(', ')}) > (${key.map(() => '?').join(', ')})`, [
        ...key,
        ...last,
      ] as Knex.Value[]);
    const rows = await query;
    // Each portion is written to disk once. A change of a table before it has ended Knex's own transaction, and every row would be written alone.
    if (db.isTransaction) await db.raw('start transaction');
    for (const row of rows)
      await look({ ...row, document: typeof row.document === 'string' ? row.document : JSON.stringify(row.document) });
    await after();
    if (db.isTransaction) await db.raw('commit');
    if (rows.length < ROWS_AT_ONCE) return;
    last = key.map((k) => rows.at(-1)![k]);
  }
}
