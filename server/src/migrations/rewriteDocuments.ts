import type { Knex } from 'knex';
import { inPortions } from './inPortions.ts';

type Json = Record<string, unknown>;

/** Brings the JSON documents of a table up to the next version, row by row and in portions. @param key columns that name a row */
export async function rewriteDocuments(
  db: Knex,
  table: string,
  key: readonly string[],
  change: (json: Json) => Json,
): Promise<void> {
  await inPortions(db, table, key, async (row) => {
    const document = JSON.stringify(change(JSON.parse(row.document as string) as Json));
    if (document !== row.document)
      await db(table)
        .where(Object.fromEntries(key.map((k) => [k, row[k]])))
        .update({ document });
  });
}
