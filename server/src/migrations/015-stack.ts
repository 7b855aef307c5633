import type { Knex } from 'knex';
import { upgradeBoardTo13, upgradeShopTo13 } from '#core/format/upgrades.ts';
import { rewriteDocuments } from './rewriteDocuments.ts';

type Json = Record<string, unknown>;
const REVISION = ['board_id', 'number'] as const;
/** The shop in use, and those that were set aside. */
const SHOPS = ['shops', 'shops_aside'];

/** Strips say whether they are resawn from a stack of bits, slices where the first cut lies, and a shop how glue goes on sawn ends. */
export async function up(db: Knex): Promise<void> {
  for (const table of SHOPS) await rewriteDocuments(db, table, ['id'], upgradeShopTo13);
  await rewriteDocuments(db, 'revisions', REVISION, upgradeBoardTo13);
  await db('revisions').update({ format_version: 13 });
}

/** An older Cadenza knows no stacks: what was an accent is a plain strip of its first wood. */
function plain(board: Json): Json {
  const operations = (board.recipe ?? []) as Json[];
  const stacks = operations.filter((o) => o.kind === 'stack');
  const sticks = new Set(stacks.flatMap((o) => o.takes as string[]));
  return {
    ...board,
    recipe: operations
      .filter((o) => o.kind !== 'stack' && !sticks.has(o.id as string))
      .map((o) => (o.kind === 'strip' ? without(o, 'stack') : o.kind === 'slice' ? without(o, 'first') : o)),
  };
}

const without = (json: Json, field: string): Json =>
  Object.fromEntries(Object.entries(json).filter(([key]) => key !== field));

export async function down(db: Knex): Promise<void> {
  const schools = (json: Json): Json => ({ ...json, schools: without((json.schools ?? {}) as Json, 'endCoat') });
  for (const table of SHOPS) await rewriteDocuments(db, table, ['id'], schools);
  await rewriteDocuments(db, 'revisions', REVISION, (board) => ({
    ...plain(board),
    versions: ((board.versions ?? []) as Json[]).map(plain),
    differs: schools((board.differs ?? {}) as Json),
  }));
  await db('revisions').update({ format_version: 12 });
}
