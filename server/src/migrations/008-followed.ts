import type { Knex } from 'knex';
import { upgradeBoardTo7, upgradeShopTo7 } from '#core/format/upgrades.ts';
import { inPortions } from './inPortions.ts';

const SURFACES = ['rough', 'oneFace', 'twoFaces', 'fourSides'];
const enumOf = (values: readonly string[]) => `enum(${values.map((v) => `'${v}'`).join(', ')})`;

/** Stock may be ready, to be used as it is; shops have grits of their own; strips and accepted stops say what they are about. Runs again cleanly when a first run was killed. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`alter table pieces modify surface ${enumOf([...SURFACES, 'ready'])} not null`);
  for (const [table, key, upgrade] of [['shops', ['id'], upgradeShopTo7], ['revisions', ['board_id', 'number'], upgradeBoardTo7]] as const) {
    await inPortions(db, table, key, async (row) => {
      const document = JSON.stringify(upgrade(JSON.parse(row.document as string) as Record<string, unknown>));
      if (document !== row.document) await db(table).where(Object.fromEntries(key.map((k) => [k, row[k]]))).update({ document });
    });
  }
  await db('revisions').update({ format_version: 7 });
}

/** What an older Cadenza does not know is taken away again: ready stock is planed all round for it, no oil is oil by hand, and stops are gone on with wherever they stand. */
export async function down(db: Knex): Promise<void> {
  await db('pieces').where({ surface: 'ready' }).update({ surface: 'fourSides' });
  await db.raw(`alter table pieces modify surface ${enumOf(SURFACES)} not null`);
  const rewrite = (table: string, key: string[], change: (json: Json) => Json) => inPortions(db, table, key, async (row) => {
    const document = JSON.stringify(change(JSON.parse(row.document as string) as Json));
    await db(table).where(Object.fromEntries(key.map((k) => [k, row[k]]))).update({ document });
  });
  await rewrite('shops', ['id'], (shop) => ({ ...without(shop, 'grits'), schools: oiled(shop.schools) }));
  await rewrite('revisions', ['board_id', 'number'], (board) => ({
    ...board, strips: each(board.strips, 'sideKept'), accepted: each(board.accepted, 'strips'),
    versions: (board.versions as Json[]).map((v) => ({ ...v, strips: each(v.strips, 'sideKept') })), differs: { ...(board.differs as Json), schools: oiled((board.differs as Json).schools) },
  }));
  await db('revisions').update({ format_version: 6 });
}

type Json = Record<string, unknown>;
const without = (json: Json, field: string): Json => Object.fromEntries(Object.entries(json).filter(([key]) => key !== field));
const each = (list: unknown, field: string): Json[] => (list as Json[]).map((one) => without(one, field));
const oiled = (schools: unknown): unknown => ((schools as Json).oil === 'none' ? { ...(schools as Json), oil: 'flood' } : schools);
