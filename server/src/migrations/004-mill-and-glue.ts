import type { Knex } from 'knex';
import { upgradeBoardTo4, upgradeShopTo4 } from '#core/format/upgrades.ts';
import { rewriteDocuments } from './rewriteDocuments.ts';

/**
 * The shop's machines, clamps and glues become things of their own; boards say how they are glued; runs of glue-ups are kept, so that their clocks outlive a reload and
 * are the same on every device. Runs again cleanly when a first run was killed half way.
 */
export async function up(db: Knex): Promise<void> {
  await down(db);
  await db.schema.createTable('glue_runs', (t) => {
    t.string('id', 40).primary();
    t.string('board_id', 40).notNullable().references('id').inTable('boards');
    t.string('glue_up', 20).notNullable();
    t.integer('copy').notNullable();
    t.integer('version').notNullable();
    t.datetime('started_at', { precision: 3 }).notNullable();
    t.datetime('ended_at', { precision: 3 }).nullable();
    t.json('document').notNullable();
    t.check('copy > 0', [], 'glue_runs_copy_positive');
  });
  // One clock at a time for a glue-up of a panel: a second start, from another device, is told so.
  await db.raw("alter table glue_runs add column running varchar(80) as (if(ended_at is null, concat(board_id, '/', glue_up, '/', copy), null)) stored, add unique glue_runs_running (running)");
  await rewriteDocuments(db, 'shops', ['id'], upgradeShopTo4);
  await rewriteDocuments(db, 'revisions', ['board_id', 'number'], upgradeBoardTo4);
  await db('revisions').update({ format_version: 4 });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTableIfExists('glue_runs');
}
