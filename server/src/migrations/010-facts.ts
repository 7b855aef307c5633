import type { Knex } from 'knex';
import { factsOfBoardTo9, upgradeBoardTo9 } from '#core/format/upgrades.ts';
import { inPortions } from './inPortions.ts';

type Json = Record<string, unknown>;
const REVISION = ['board_id', 'number'] as const;

/**
 * What happened to a board becomes a list of its own beside what is wished of it: of each board what its newest revision says. Runs again cleanly when a first
 * run was killed: facts that are there stay, and a revision that was rewritten has none left to give.
 */
export async function up(db: Knex): Promise<void> {
  if (!(await db.schema.hasTable('facts'))) {
    await db.schema.createTable('facts', (t) => {
      t.charset('utf8mb4');
      t.collate('utf8mb4_nopad_bin');
      t.string('board_id', 40).notNullable().references('id').inTable('boards');
      t.string('id', 40).notNullable();
      t.integer('place').notNullable();
      t.integer('format_version').notNullable();
      t.json('document').notNullable();
      t.datetime('arrived_at', { precision: 3 }).notNullable();
      t.primary(['board_id', 'id']);
      t.unique(['board_id', 'place']);
      t.check('place > 0', [], 'facts_place_positive');
    });
  }
  if (!(await db.schema.hasColumn('boards', 'facts'))) {
    await db.schema.alterTable('boards', (t) => t.integer('facts').notNullable().defaultTo(0));
  }
  const newest = new Map(
    (await db('boards').select<{ id: string; revision: number }[]>('id', 'revision')).map((b) => [b.id, b.revision]),
  );
  await inPortions(db, 'revisions', REVISION, async (row) => {
    const key = { board_id: row.board_id, number: row.number };
    const board = JSON.parse(row.document as string) as Json;
    if (newest.get(row.board_id as string) === row.number) {
      const { made_at } = (await db('revisions').where(key).first<{ made_at: Date } | undefined>('made_at'))!;
      const facts = factsOfBoardTo9(board, made_at.toISOString()).map((fact, i) => ({
        board_id: row.board_id,
        id: fact.id,
        place: i + 1,
        format_version: 9,
        document: JSON.stringify(fact),
        arrived_at: made_at,
      }));
      if (facts.length > 0) await db('facts').insert(facts).onConflict().ignore();
      await db('boards').where({ id: row.board_id }).update({ facts: db('facts').where({ board_id: row.board_id }).count() });
    }
    const document = JSON.stringify(upgradeBoardTo9(board));
    if (document !== row.document) await db('revisions').where(key).update({ document });
  });
  await db('revisions').update({ format_version: 9 });
}

/** The newest revision of each board says again what happened, as far as a board of then can: the last length measured, and the bad places as they were seen last. */
export async function down(db: Knex): Promise<void> {
  const newest = new Map(
    (await db('boards').select<{ id: string; revision: number }[]>('id', 'revision')).map((b) => [b.id, b.revision]),
  );
  await inPortions(db, 'revisions', REVISION, async (row) => {
    const board = JSON.parse(row.document as string) as Json & { worked: Json };
    const facts =
      newest.get(row.board_id as string) === row.number
        ? (await db('facts').where({ board_id: row.board_id }).select<{ document: string }[]>('document')).map(
            (f) => JSON.parse(String(f.document)) as Json,
          )
        : [];
    const taken = facts.map((f) => f.fact);
    const held = facts.filter((f) => !taken.includes(f.id)).sort((a, b) => (String(a.at) < String(b.at) ? -1 : 1));
    const spots = new Map(held.flatMap((f) => (f.kind === 'badPlace' ? [[(f.spot as Json).id, f.spot]] : [])));
    const gluedLength = held.findLast((f) => f.kind === 'measured')?.value ?? null;
    const document = JSON.stringify({ ...board, worked: { ...board.worked, gluedLength, spots: [...spots.values()] } });
    await db('revisions').where({ board_id: row.board_id, number: row.number }).update({ document });
  });
  await db('revisions').update({ format_version: 8 });
  await db.schema.dropTableIfExists('facts');
  await db.schema.alterTable('boards', (t) => t.dropColumn('facts'));
}
