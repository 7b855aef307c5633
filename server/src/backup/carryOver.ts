import type mysql from 'mysql2/promise';
import { EVERYTHING } from '#contract/live.ts';
import { quoted } from './scratch.ts';

/** Tables that stay what they are here, whatever is restored: who is let in was decided here, and may have been decided otherwise since. */
const STAY = ['doors', 'devices', 'invitations', 'attempts', 'keeping', 'calendar_addresses', 'writes'] as const;
/** Rows with a version that pages and devices go by, and their key. */
const VERSIONED = ['shops', 'schedules', 'shopping', 'pieces', 'cuttings', 'glue_runs', 'log_entries'] as const;
/** Numbers that are given out in order: no number twice. */
const COUNTED = ['changes', 'readings', 'shops_aside'] as const;

/**
 * Makes one database fit to take the place of another under pages that are open and devices that come back: every number by which they know something goes on from
 * the higher one wherever the two differ, so that nothing old is taken for what is there, and nobody writes over what he has not seen. Who is let in, and how copies are
 * kept, stays as it is. Both must have the same tables.
 * @param to what is to be in use @param from what is, or was until now
 */
export async function carryOver(c: mysql.Connection, to: string, from: string): Promise<void> {
  const [t, f] = [quoted(to), quoted(from)];
  await c.query('set foreign_key_checks = 0');
  for (const table of COUNTED) await countOn(c, to, from, table);
  // Whoever asks meanwhile sees all of it or nothing: a device is known at every moment.
  await c.beginTransaction();
  for (const table of STAY) {
    await c.query(`delete from ${t}.${table}`);
    await c.query(`insert into ${t}.${table} select * from ${f}.${table}`);
  }
  // Species are everybody's, and servers know by heart which there are: one that was added since stays.
  await c.query(`insert ignore into ${t}.species select * from ${f}.species`);
  for (const table of VERSIONED) {
    const columns = (await columnsOf(c, to, table)).filter((name) => name !== 'version');
    const same = columns.map((name) => `s.${quoted(name)} <=> n.${quoted(name)}`).join(' and ');
    await c.query(
      `update ${t}.${table} s join ${f}.${table} n using (id) set s.version = n.version + 1 where s.version < n.version or (s.version = n.version and not (${same}))`,
    );
  }
  await newRevisions(c, t, f);
  // Whoever listens is told that all of it is another.
  await c.query(`delete from ${t}.changes`);
  await c.query(`insert into ${t}.changes (topics, board, tab, made_at) values (?, null, null, now(3))`, [
    EVERYTHING.join(),
  ]);
  await c.commit();
}

/** Empties what belongs to the place: nobody is let in by a backup. */
export async function forgetThePlace(c: mysql.Connection, database: string): Promise<void> {
  for (const table of STAY) await c.query(`delete from ${quoted(database)}.${table}`);
}

/** Which facts a board has, as a number that is the same for the same ones. */
const factsOf = (board: string, database: string) =>
  `(select concat(count(*), ' ', coalesce(sum(crc32(concat(id, ' ', place))), 0)) from ${database}.facts where board_id = ${board}.id)`;

/** A board that is another than here gets what it is as a new revision, above all that were ever given out. */
async function newRevisions(c: mysql.Connection, t: string, f: string): Promise<void> {
  const differing = `${t}.boards b join ${f}.boards n using (id)
    join ${t}.revisions s on s.board_id = b.id and s.number = b.revision
    left join ${f}.revisions o on o.board_id = n.id and o.number = n.revision
    where b.revision < n.revision
      or (b.revision = n.revision and not (s.document <=> o.document and ${factsOf('b', t)} = ${factsOf('n', f)} and b.removed_at <=> n.removed_at and b.aside_id <=> n.aside_id))`;
  await c.query(
    `insert into ${t}.revisions (board_id, number, format_version, document, made_at, \`undo\`, \`redo\`, name)
     select b.id, n.revision + 1, s.format_version, s.document, s.made_at, s.\`undo\`, s.\`redo\`, s.name from ${differing}`,
  );
  await c.query(
    `update ${t}.boards b join (select board_id, max(number) as newest from ${t}.revisions group by board_id) r on r.board_id = b.id
     set b.revision = r.newest where b.revision < r.newest`,
  );
}

async function columnsOf(c: mysql.Connection, database: string, table: string): Promise<string[]> {
  const [rows] = await c.query(
    'select column_name as name from information_schema.columns where table_schema = ? and table_name = ?',
    [database, table],
  );
  return (rows as { name: string }[]).map((r) => r.name);
}

async function countOn(c: mysql.Connection, to: string, from: string, table: string): Promise<void> {
  const [rows] = await c.query(
    'select max(auto_increment) as next from information_schema.tables where table_schema in (?, ?) and table_name = ?',
    [to, from, table],
  );
  const { next } = (rows as { next: number | null }[])[0] ?? { next: null };
  await c.query(`alter table ${quoted(to)}.${table} auto_increment = ${Number(next ?? 1)}`);
}
