import { firstOf } from '#core/lists/there.ts';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { boardSchema } from '#core/board/board.ts';
import { cutPlanSchema } from '#core/cutting/cutPlanSchema.ts';
import { factSchema } from '#core/facts/fact.ts';
import { logEntrySchema } from '#core/log/entry.ts';
import { runDocumentSchema } from '#core/gluing/glueRun.ts';
import { cuttingRecordSchema } from '#core/saw/sawRecords.ts';
import { shopSchema } from '#core/shop/shop.ts';
import { inPortions } from '../migrations/inPortions.ts';
import type { StoreContents } from '#contract/backup.ts';
import { shoppingDocumentSchema } from '#contract/money.ts';
import { scheduleDocumentSchema } from '#contract/schedule.ts';
import { openDatabase } from '../stores/database.ts';
import { openStore, StoreError, storeVersion } from '../stores/openStore.ts';
import { piecesInRack } from '../stores/rackStore.ts';

/** What a database holds, and what of it cannot be read. */
export interface InspectedStore {
  /** Name of the newest migration it had before it was looked at. */
  version: string;
  holds: StoreContents;
  /** One line for each document that does not read. */
  unreadable: string[];
}

const DOCUMENTS: readonly [table: string, key: readonly string[], schema: z.ZodType][] = [
  ['revisions', ['board_id', 'number'], boardSchema],
  ['facts', ['board_id', 'id'], factSchema],
  ['log_entries', ['id'], logEntrySchema],
  ['shops', ['id'], shopSchema],
  ['shops_aside', ['id'], shopSchema],
  ['cut_plans', ['id'], cutPlanSchema],
  ['cuttings', ['id'], cuttingRecordSchema],
  ['glue_runs', ['id'], runDocumentSchema],
  ['schedules', ['id'], scheduleDocumentSchema],
  ['shopping', ['id'], shoppingDocumentSchema],
];
const MOST_UNREADABLE = 20;

/**
 * Brings a database that nobody works on up to date and reads all that is in it.
 * @param signal stops it between two documents
 * @throws StoreError when it is not one of Cadenza's, of a newer one, or not whole
 */
export async function inspectStore(url: string, signal?: AbortSignal): Promise<InspectedStore> {
  const db = openDatabase(url, 2);
  try {
    const version = (await db.schema.hasTable('knex_migrations')) ? await storeVersion(db) : null;
    // An empty database would be filled with empty tables, and look like a shop with nothing in it.
    if (version === null) throw new StoreError('It holds no record of tables that Cadenza made.');
    await openStore(db);
    const unreadable: string[] = [];
    const note = (place: string) => {
      if (unreadable.length < MOST_UNREADABLE) unreadable.push(place);
    };
    for (const [table, key, schema] of DOCUMENTS) {
      await inPortions(db, table, key, (row) => {
        signal?.throwIfAborted();
        if (!reads(schema, row.document as string)) note(`${table} ${key.map((k) => String(row[k])).join('/')}`);
        return Promise.resolve();
      });
    }
    await piecesInRack(db).catch((error: Error) => note(`pieces (${error.message.split('\n')[0]})`));
    return { version, holds: await contentsOf(db), unreadable };
  } finally {
    await db.destroy();
  }
}

function reads(schema: z.ZodType, text: string): boolean {
  try {
    return schema.safeParse(JSON.parse(text)).success;
  } catch {
    return false;
  }
}

/** The name in a document, also where the rest of it cannot be read. */
function nameIn(document: string): string | null {
  try {
    const { name } = JSON.parse(document) as { name?: unknown };
    return typeof name === 'string' ? name : null;
  } catch {
    return null;
  }
}

/** How much of what is stored. */
export async function contentsOf(db: Knex): Promise<StoreContents> {
  const count = async (table: string, removed?: boolean) => {
    const rows = db(table).count<{ n: number }[]>({ n: '*' });
    if (removed !== undefined)
      void (removed ? rows.whereNotNull('removed_at').whereNull('aside_id') : rows.whereNull('removed_at'));
    return Number(firstOf(await rows).n);
  };
  const [shop] = await db<{ document: string }>('shops').select('document');
  const newest = await db('revisions').max<{ at: Date | null }[]>({ at: 'made_at' });
  return {
    shop: shop ? nameIn(shop.document) : null,
    boards: await count('boards', false),
    removedBoards: await count('boards', true),
    revisions: await count('revisions'),
    pieces: await count('pieces', false),
    plans: await count('cut_plans'),
    cuttings: await count('cuttings'),
    runs: await count('glue_runs'),
    facts: await count('facts'),
    finished: await count('log_entries', false),
    shopsAside: await count('shops_aside'),
    newest: newest[0]?.at?.toISOString() ?? null,
  };
}
