import type { Knex } from 'knex';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';

/** Species, rack, shop, boards with their immutable revisions. Lengths are DECIMAL(12,6) millimetres: 1/64 in is exact. */
export async function up(db: Knex): Promise<void> {
  // A first start that was killed half way left tables that nobody has used yet.
  await down(db);
  await db.schema.createTable('species', (t) => {
    t.string('code', 40).primary();
    t.string('name', 60).notNullable();
    t.string('botanical', 80).notNullable();
    t.decimal('density', 8, 3).notNullable();
    t.integer('hardness').nullable();
    t.enum('pores', ['diffuse', 'semiRing', 'ring']).notNullable();
    t.boolean('oily').notNullable();
    t.string('colour', 7).notNullable();
    t.string('line_colour', 7).notNullable();
    t.string('source', 200).notNullable();
    t.check('density > 0', [], 'species_density_positive');
  });
  await db('species').insert(HANDBOOK_SPECIES.map(({ code, name, botanical, density, hardness, pores, oily, colour, lineColour, source }) => (
    { code, name, botanical, density, hardness, pores, oily, colour, line_colour: lineColour, source })));

  await db.schema.createTable('pieces', (t) => {
    t.string('id', 40).primary();
    t.string('mark', 12).notNullable();
    t.string('species', 40).notNullable().references('code').inTable('species');
    t.decimal('length', 12, 6).notNullable();
    t.decimal('width', 12, 6).notNullable();
    t.decimal('thickness', 12, 6).notNullable();
    t.enum('surface', ['rough', 'surfaced']).notNullable();
    t.enum('rings', ['flat', 'rift', 'quarter']).notNullable();
    t.decimal('price_amount', 12, 4).nullable();
    t.enum('price_per', ['boardFoot', 'cubicMetre', 'piece']).nullable();
    t.string('note', 500).notNullable();
    t.integer('version').notNullable();
    t.datetime('updated_at', { precision: 3 }).notNullable();
    t.datetime('removed_at', { precision: 3 }).nullable();
    t.check('length > 0 and width > 0 and thickness > 0', [], 'pieces_sizes_positive');
    t.check('(price_amount is null) = (price_per is null)', [], 'pieces_price_whole');
  });
  // Two pieces in the rack never carry the same mark; removed ones may.
  await db.raw('alter table pieces add column present_mark varchar(12) as (if(removed_at is null, mark, null)) stored, add unique pieces_present_mark (present_mark)');

  await db.schema.createTable('shops', (t) => {
    t.integer('id').primary();
    t.integer('version').notNullable();
    t.json('document').notNullable();
    t.datetime('updated_at', { precision: 3 }).notNullable();
  });

  await db.schema.createTable('boards', (t) => {
    t.string('id', 40).primary();
    t.integer('revision').notNullable();
    t.datetime('created_at', { precision: 3 }).notNullable();
    t.datetime('removed_at', { precision: 3 }).nullable();
  });
  await db.schema.createTable('revisions', (t) => {
    t.string('board_id', 40).notNullable().references('id').inTable('boards');
    t.integer('number').notNullable();
    t.integer('format_version').notNullable();
    t.json('document').notNullable();
    t.datetime('made_at', { precision: 3 }).notNullable();
    t.primary(['board_id', 'number']);
  });
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['revisions', 'boards', 'shops', 'pieces', 'species']) await db.schema.dropTableIfExists(table);
}
