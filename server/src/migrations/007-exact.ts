import type { Knex } from 'knex';
import { completeBoard, completeShop } from '#core/format/earlierForms.ts';
import { inPortions } from './inPortions.ts';

/** Codes, ids and marks compare letter for letter, blanks at the end included. */
const COLLATION = 'utf8mb4_nopad_bin';
const TABLES = ['species', 'pieces', 'boards', 'revisions', 'cut_plans', 'cut_plan_boards', 'promises', 'cuttings', 'cutting_boards', 'glue_runs'];
/** What refers to what; true where a row goes with the one it refers to. */
const REFERENCES: readonly [table: string, column: string, other: string, key: string, goes: boolean][] = [
  ['pieces', 'species', 'species', 'code', false], ['revisions', 'board_id', 'boards', 'id', false], ['cut_plan_boards', 'board_id', 'boards', 'id', false],
  ['cut_plan_boards', 'plan_id', 'cut_plans', 'id', true], ['promises', 'plan_id', 'cut_plans', 'id', true], ['promises', 'piece_id', 'pieces', 'id', false],
  ['cuttings', 'piece_id', 'pieces', 'id', false], ['cutting_boards', 'cutting_id', 'cuttings', 'id', true], ['cutting_boards', 'board_id', 'boards', 'id', false],
  ['glue_runs', 'board_id', 'boards', 'id', false],
];
const foreignKey = (table: string, column: string) => `${table}_${column}_foreign`;
/** A species in a document that is no code as it stands. */
const ODD_SPECIES = '"species":"([^"]*[^-a-z0-9"][^"]*|[^a-z"][^"]*|.)"';

/**
 * Everything compares exactly; lists have what they sort by; a promise knows its boards; a write that its client named is done once. A database that was
 * made between two forms of migration 002 gets its saw book. Runs again cleanly when a first run was killed half way.
 */
export async function up(db: Knex): Promise<void> {
  await giveSawBook(db);
  await fillGaps(db);
  await nameSpeciesByCode(db);
  // Columns that refer to each other only change while they do not.
  for (const [table, column] of REFERENCES) await db.raw('alter table ?? drop foreign key if exists ??', [table, foreignKey(table, column)]);
  for (const table of TABLES) await db.raw(`alter table ?? convert to character set utf8mb4 collate ${COLLATION}`, [table]);
  for (const [table, column, other, key, goes] of REFERENCES) {
    await db.raw(`alter table ?? add constraint ?? foreign key (??) references ?? (??) ${goes ? 'on delete cascade' : ''}`, [table, foreignKey(table, column), column, other, key]);
  }

  await db.raw('alter table boards add column if not exists saved_at datetime(3) null');
  await db.raw('update boards set saved_at = (select made_at from revisions where revisions.board_id = boards.id and revisions.number = boards.revision)');
  await db.raw('alter table boards modify saved_at datetime(3) not null default current_timestamp(3)');
  await db.raw('create index if not exists boards_newest on boards (removed_at, saved_at, id)');
  await db.raw('create index if not exists pieces_on_shelves on pieces (removed_at, species, mark, id)');

  await db.raw("alter table promises add column if not exists boards longtext not null default '[]' check (json_valid(boards))");
  await nameBoardsOfPromises(db);

  await db.raw(`create table if not exists writes (
    id varchar(80) not null primary key, operation varchar(80) not null, status smallint null, headers text null, answer longtext null, made_at datetime(3) not null, index writes_made_at (made_at)
  ) character set utf8mb4 collate ${COLLATION}`);
}

async function giveSawBook(db: Knex): Promise<void> {
  await db.raw('create table if not exists saw_book (id int not null primary key)');
  await db('saw_book').insert({ id: 1 }).onConflict('id').ignore();
}

/** Shops and boards that were stored in an early form of their version get what it lacks. */
async function fillGaps(db: Knex): Promise<void> {
  for (const [table, key, complete] of [['shops', ['id'], completeShop], ['revisions', ['board_id', 'number'], completeBoard]] as const) {
    await inPortions(db, table, key, async (row) => {
      const document = JSON.stringify(complete(JSON.parse(row.document as string) as Record<string, unknown>));
      if (document !== row.document) await db(table).where(Object.fromEntries(key.map((k) => [k, row[k]]))).update({ document });
    });
  }
}

/** What passed for a known species by its sound ("MAPLE-HARD") gets its code, in the rack and in every document. */
async function nameSpeciesByCode(db: Knex): Promise<void> {
  await db.raw('update pieces join species on pieces.species = species.code set pieces.species = species.code where binary pieces.species <> binary species.code');
  const known = new Map((await db<{ code: string }>('species').select('code')).map(({ code }) => [plain(code), code]));
  const codeOf = (text: string) => known.get(plain(text)) ?? (plain(text) || 'unknown');
  for (const [table, key] of [['revisions', ['board_id', 'number']], ['cut_plans', ['id']], ['cuttings', ['id']]] as const) {
    await inPortions(db, table, key, async (row) => {
      const text = row.document as string;
      if (!new RegExp(ODD_SPECIES).test(text)) return;
      const document = JSON.stringify(JSON.parse(text), (field, value: unknown) => (field === 'species' && typeof value === 'string' ? codeOf(value) : value));
      await db(table).where(Object.fromEntries(key.map((k) => [k, row[k]]))).update({ document });
    });
  }
}

/** A text without case, accents and blanks, as letters, digits and hyphens. */
function plain(text: string): string {
  const slug = text.normalize('NFD').replace(/\p{M}/gu, '').trim().toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^[^a-z]+|-+$/g, '').slice(0, 40);
  return slug.length === 1 ? `${slug}-wood` : slug;
}

async function nameBoardsOfPromises(db: Knex): Promise<void> {
  await inPortions(db, 'cut_plans', ['id'], async (row) => {
    const { blanks } = JSON.parse(row.document as string) as { blanks: { pieceId: string; unit: number; from: number; strips: { demand: { board: string } }[] }[] };
    for (const { pieceId, unit, from, strips } of blanks) {
      const boards = JSON.stringify([...new Set(strips.map((s) => s.demand.board))]);
      await db('promises').where({ plan_id: row.id, piece_id: pieceId, unit }).whereRaw('abs(from_mm - ?) < 1e-5', [from]).update({ boards });
    }
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTableIfExists('writes');
  await db.raw('alter table promises drop column if exists boards');
  await db.raw('drop index if exists boards_newest on boards');
  await db.raw('drop index if exists pieces_on_shelves on pieces');
  await db.raw('alter table boards drop column if exists saved_at');
}
