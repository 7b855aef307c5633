import type { Knex } from 'knex';
import { upgradeBoardTo10, upgradeShopTo10 } from '#core/format/upgrades.ts';
import { rewriteDocuments } from './rewriteDocuments.ts';

type Json = Record<string, unknown>;
const REVISION = ['board_id', 'number'] as const;
/** The shop in use, and those that were set aside. */
const SHOPS = ['shops', 'shops_aside'];
const GLUED = ['stagger', 'shifts', 'runs', 'thickness'];

/** Panels may be cut and glued again: glue-ups say how their parts lie, and a shop what flattening end grain takes. Runs again cleanly when a first run was killed. */
export async function up(db: Knex): Promise<void> {
  for (const table of SHOPS) await rewriteDocuments(db, table, ['id'], upgradeShopTo10);
  await rewriteDocuments(db, 'revisions', REVISION, upgradeBoardTo10);
  await db('revisions').update({ format_version: 10 });
}

const without = (json: Json, fields: readonly string[]): Json =>
  Object.fromEntries(Object.entries(json).filter(([key]) => !fields.includes(key)));

/** What an older Cadenza does not know is taken away again: of a board that is cut again its first panel is left, as a flat board. */
function flatAgain(board: Json): Json {
  const operations = (board.recipe ?? []) as Json[];
  const panel = operations.find((o) => o.kind === 'glue');
  const takes = (panel?.takes ?? []) as string[];
  const kept = operations.filter((o) => o.kind === 'strip' || (o === panel && takes.length > 0));
  return { ...board, recipe: kept.map((o) => (o.kind === 'glue' ? without(o, GLUED) : o)) };
}

export async function down(db: Knex): Promise<void> {
  for (const table of SHOPS)
    await rewriteDocuments(db, table, ['id'], (shop) => ({
      ...shop,
      habits: without((shop.habits ?? {}) as Json, ['endGrainFlatten']),
    }));
  await rewriteDocuments(db, 'revisions', REVISION, (board) => {
    const differs = (board.differs ?? {}) as Json;
    return {
      ...flatAgain(board),
      versions: ((board.versions ?? []) as Json[]).map(flatAgain),
      differs: { ...differs, habits: without((differs.habits ?? {}) as Json, ['endGrainFlatten']) },
    };
  });
  await db('revisions').update({ format_version: 9 });
}
