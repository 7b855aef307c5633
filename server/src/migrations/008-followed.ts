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

/** An older Cadenza knows no ready stock: it is planed all round for it. */
export async function down(db: Knex): Promise<void> {
  await db('pieces').where({ surface: 'ready' }).update({ surface: 'fourSides' });
  await db.raw(`alter table pieces modify surface ${enumOf(SURFACES)} not null`);
}
