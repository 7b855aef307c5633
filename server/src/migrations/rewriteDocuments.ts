import type { Knex } from 'knex';
import { inPortions } from './inPortions.ts';

type Json = Record<string, unknown>;
/** So many changed rows go to the database in one statement: a few megabytes of documents at most. */
const ROWS_AT_ONCE = 50;

/** Brings the JSON documents of a table up to the next version, in portions. @param key columns that name a row */
export async function rewriteDocuments(
  db: Knex,
  table: string,
  key: readonly string[],
  change: (json: Json) => Json,
): Promise<void> {
  let changed: { key: unknown[]; document: string }[] = [];
  const write = async () => {
    if (changed.length === 0) return;
    // The rows as a table of their own: each is found by its key and gets its document.
    const one = `select ${key.map((k) => `? as ${k}`).join(', ')}, ? as document`;
    const rest = `select ${key.map(() => '?').join(', ')}, ?`;
    await db.raw(
      `update ?? as old join (${changed.map((_, i) => (i === 0 ? one : rest)).join(' union all ')}) as fresh
        on ${key.map((k) => `old.${k} = fresh.${k}`).join(' and ')} set old.document = fresh.document`,
      [table, ...changed.flatMap((row) => [...row.key, row.document])] as Knex.RawBinding[],
    );
    changed = [];
  };
  await inPortions(
    db,
    table,
    key,
    async (row) => {
      const document = JSON.stringify(change(JSON.parse(row.document as string) as Json));
      if (document === row.document) return;
      changed.push({ key: key.map((k) => row[k]), document });
      if (changed.length >= ROWS_AT_ONCE) await write();
    },
    write,
  );
}
