import type { Knex } from 'knex';
import { upgradeBoardTo3, upgradeShopTo3, upgradeSpeciesTo3 } from '#core/format/upgrades.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { rewriteDocuments } from './rewriteDocuments.ts';

const SPECIES_COLUMNS = ['radial', 'tangential', 'dust', 'bleeds', 'food_note', 'sap_colour', 'movement_source', 'caution_source'];
const REVISION_COLUMNS = ['undo', 'redo', 'name'];

/**
 * Species move with moisture and have cautions; a revision knows which one undo and redo lead to, and may carry a name. Runs again cleanly when
 * a first run was killed half way.
 */
export async function up(db: Knex): Promise<void> {
  await down(db);
  await db.schema.alterTable('species', (t) => {
    t.decimal('radial', 8, 6).nullable();
    t.decimal('tangential', 8, 6).nullable();
    t.enum('dust', ['usual', 'irritant', 'sensitiser']).notNullable().defaultTo('usual');
    t.boolean('bleeds').notNullable().defaultTo(false);
    t.string('food_note', 200).notNullable().defaultTo('');
    t.string('sap_colour', 7).notNullable().defaultTo('#e6d5b4');
    t.string('movement_source', 200).notNullable().defaultTo('');
    t.string('caution_source', 200).notNullable().defaultTo('');
  });
  await db('species').insert(HANDBOOK_SPECIES.map(({ code, name, botanical, density, hardness, pores, oily, colour, lineColour, source }) => (
    { code, name, botanical, density, hardness, pores, oily, colour, line_colour: lineColour, source }))).onConflict('code').ignore();
  for (const { code, colour } of await db<{ code: string; colour: string }>('species').select('code', 'colour')) {
    const { radial, tangential, dust, bleeds, foodNote, sapColour, movementSource, cautionSource } = upgradeSpeciesTo3({ code, colour });
    const oily = HANDBOOK_SPECIES.find((s) => s.code === code)?.oily;
    await db('species').where({ code }).update({
      radial, tangential, dust, bleeds, food_note: foodNote, sap_colour: sapColour, movement_source: movementSource, caution_source: cautionSource, ...(oily === undefined ? {} : { oily }),
    });
  }
  await db.schema.alterTable('revisions', (t) => {
    t.integer('undo').nullable();
    t.integer('redo').nullable();
    t.string('name', 80).notNullable().defaultTo('');
  });
  // Until now every revision followed from the one before it.
  await db('revisions').where('number', '>', 1).update({ undo: db.raw('number - 1') });
  await rewriteDocuments(db, 'shops', ['id'], upgradeShopTo3);
  await rewriteDocuments(db, 'revisions', ['board_id', 'number'], upgradeBoardTo3);
  await db('revisions').update({ format_version: 3 });
}

export async function down(db: Knex): Promise<void> {
  for (const column of SPECIES_COLUMNS) await db.raw('alter table species drop column if exists ??', [column]);
  for (const column of REVISION_COLUMNS) await db.raw('alter table revisions drop column if exists ??', [column]);
}
