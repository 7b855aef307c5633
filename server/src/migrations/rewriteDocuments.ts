import type { Knex } from 'knex';

type Json = Record<string, unknown>;

/** Brings the JSON documents of a table up to the next version, row by row. @param key columns that name a row */
export async function rewriteDocuments(db: Knex, table: string, key: readonly string[], change: (json: Json) => Json): Promise<void> {
  for (const row of await db<Json>(table).select(...key, 'document')) {
    const json = (typeof row.document === 'string' ? JSON.parse(row.document) : row.document) as Json;
    await db(table).where(Object.fromEntries(key.map((k) => [k, row[k]]))).update({ document: JSON.stringify(change(json)) });
  }
}
