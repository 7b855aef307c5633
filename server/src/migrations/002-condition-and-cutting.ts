import type { Knex } from 'knex';
import { PLAIN_CONDITION } from '#core/stock/piece.ts';
import { upgradeBoardTo2, upgradePieceTo2, upgradeShopTo2 } from '#core/format/upgrades.ts';
import { rewriteDocuments } from './rewriteDocuments.ts';

const COLUMNS = ['far_width', 'far_thickness', 'straight', 'grain', 'moisture', 'bow', 'cup', 'crook', 'twist', 'ends', 'defects', 'origin_kind', 'origin_of', 'shelf', 'count'];

/**
 * Pieces get their condition, origin, shelf and count; boards and the shop what the cut plan needs; wood can be promised to boards and its cutting
 * recorded. Runs again cleanly when a first run was killed half way.
 */
export async function up(db: Knex): Promise<void> {
  await dropNew(db);
  await db.schema.alterTable('pieces', (t) => {
    t.decimal('far_width', 12, 6).nullable();
    t.decimal('far_thickness', 12, 6).nullable();
    t.enum('straight', ['none', 'near', 'far', 'both']).notNullable().defaultTo('none');
    t.enum('grain', ['unknown', 'straight', 'toFar', 'toMark']).notNullable().defaultTo('unknown');
    t.decimal('moisture', 5, 2).nullable();
    for (const form of ['bow', 'cup', 'crook', 'twist']) t.decimal(form, 12, 6).nullable();
    t.json('ends').notNullable().defaultTo(JSON.stringify(PLAIN_CONDITION.ends));
    t.json('defects').notNullable().defaultTo('[]');
    t.enum('origin_kind', ['bought', 'offcut', 'salvage']).notNullable().defaultTo('bought');
    t.string('origin_of', 120).notNullable().defaultTo('');
    t.string('shelf', 40).notNullable().defaultTo('');
    t.integer('count').notNullable().defaultTo(1);
  });
  await db.raw("alter table pieces modify surface enum('rough', 'surfaced', 'oneFace', 'twoFaces', 'fourSides') not null, modify price_per enum('boardFoot', 'cubicMetre', 'kilogram', 'piece') null");
  for (const row of await db<{ id: string; surface: string; note: string }>('pieces').select('id', 'surface', 'note')) {
    const piece = upgradePieceTo2({ surface: row.surface, note: row.note }) as { surface: string; ends: unknown; defects: unknown; origin: { kind: string; of: string } };
    await db('pieces').where({ id: row.id }).update({
      surface: piece.surface, ends: JSON.stringify(piece.ends), defects: JSON.stringify(piece.defects), origin_kind: piece.origin.kind, origin_of: piece.origin.of,
    });
  }
  await db.raw("alter table pieces modify surface enum('rough', 'oneFace', 'twoFaces', 'fourSides') not null, add constraint pieces_count_positive check (count > 0)");

  await rewriteDocuments(db, 'shops', ['id'], upgradeShopTo2);
  await rewriteDocuments(db, 'revisions', ['board_id', 'number'], upgradeBoardTo2);
  await db('revisions').update({ format_version: 2 });

  // One row that whoever writes promises or cuts holds meanwhile: they go one after the other.
  await db.schema.createTable('saw_book', (t) => {
    t.integer('id').primary();
  });
  await db('saw_book').insert({ id: 1 });
  // A cut plan that was kept, for one board or several. Its promises go with it.
  await db.schema.createTable('cut_plans', (t) => {
    t.string('id', 40).primary();
    t.json('document').notNullable();
    t.datetime('kept_at', { precision: 3 }).notNullable();
  });
  await db.schema.createTable('cut_plan_boards', (t) => {
    t.string('board_id', 40).primary().references('id').inTable('boards');
    t.string('plan_id', 40).notNullable().references('id').inTable('cut_plans').onDelete('CASCADE');
  });
  await db.schema.createTable('promises', (t) => {
    t.increments('id');
    t.string('plan_id', 40).notNullable().references('id').inTable('cut_plans').onDelete('CASCADE');
    t.string('piece_id', 40).notNullable().references('id').inTable('pieces');
    t.integer('unit').notNullable();
    t.decimal('from_mm', 12, 6).notNullable();
    t.decimal('to_mm', 12, 6).notNullable();
    t.index(['piece_id', 'unit']);
    t.check('to_mm > from_mm', [], 'promises_have_length');
    t.check('unit >= 0', [], 'promises_unit');
  });
  // What the saw has done: one row for each piece that was cut, with the piece as it was and what came of it.
  await db.schema.createTable('cuttings', (t) => {
    t.string('id', 40).primary();
    t.string('piece_id', 40).notNullable().references('id').inTable('pieces');
    t.json('document').notNullable();
    t.datetime('cut_at', { precision: 3 }).notNullable();
    t.integer('version').notNullable();
  });
  await db.schema.createTable('cutting_boards', (t) => {
    t.string('cutting_id', 40).notNullable().references('id').inTable('cuttings').onDelete('CASCADE');
    t.string('board_id', 40).notNullable().references('id').inTable('boards');
    t.primary(['cutting_id', 'board_id']);
  });
}

async function dropNew(db: Knex): Promise<void> {
  for (const table of ['cutting_boards', 'cuttings', 'promises', 'cut_plan_boards', 'cut_plans', 'saw_book']) await db.schema.dropTableIfExists(table);
  await db.raw('alter table pieces drop constraint if exists pieces_count_positive');
  for (const column of COLUMNS) await db.raw('alter table pieces drop column if exists ??', [column]);
}

export async function down(db: Knex): Promise<void> {
  await dropNew(db);
}
