import type { Knex } from 'knex';

/** What version 13 could say of a board: how long its panel came out, where it is bad, and what was none. */
const KNOWN_TO_13 = ['measured', 'badPlace', 'takenBack'];

/** What happens at the bench has more kinds, pictures lie beside it, and the newest of it is found without reading all. Runs again cleanly when a first run was killed. */
export async function up(db: Knex): Promise<void> {
  if (!(await db.schema.hasTable('pictures'))) {
    await db.schema.createTable('pictures', (t) => {
      t.charset('utf8mb4');
      t.collate('utf8mb4_nopad_bin');
      t.string('board_id', 40).notNullable().references('id').inTable('boards');
      t.string('id', 40).notNullable();
      t.string('type', 20).notNullable();
      t.specificType('bytes', 'mediumblob').notNullable();
      t.datetime('arrived_at', { precision: 3 }).notNullable();
      t.primary(['board_id', 'id']);
    });
  }
  const [indexes] = (await db.raw(`show index from facts where Key_name = 'facts_arrived_at'`)) as [unknown[]];
  if (indexes.length === 0) await db.schema.alterTable('facts', (t) => t.index('arrived_at', 'facts_arrived_at'));
  await db('revisions').update({ format_version: 14 });
}

/** An older Cadenza knows a panel's length and its bad places: everything else that happened is left out, and so are the pictures. */
export async function down(db: Knex): Promise<void> {
  const rows = await db('facts').select<{ board_id: string; id: string; document: string }[]>('board_id', 'id', 'document');
  for (const { board_id, id, document } of rows) {
    const fact = JSON.parse(String(document)) as Record<string, unknown>;
    const { step: _, stage, instrument: __, device: ___, ...rest } = fact;
    const known =
      KNOWN_TO_13.includes(String(fact.kind)) &&
      (fact.kind !== 'measured' || (fact.dimension === 'length' && (stage ?? 'glued') === 'glued'));
    if (known) await db('facts').where({ board_id, id }).update({ document: JSON.stringify(rest) });
    else await db('facts').where({ board_id, id }).delete();
  }
  await db('boards').update({ facts: db('facts').whereRaw('facts.board_id = boards.id').count() });
  await db.schema.dropTableIfExists('pictures');
  await db.schema.alterTable('facts', (t) => t.dropIndex('arrived_at', 'facts_arrived_at'));
  await db('revisions').update({ format_version: 13 });
}
