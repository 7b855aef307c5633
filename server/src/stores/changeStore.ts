import type { Knex } from 'knex';
import type { LiveChange, Topic } from '#contract/live.ts';

interface ChangeRow {
  id: number;
  topics: string;
  board: string | null;
  tab: string | null;
  made_at: Date;
}

/** Changes are told for so long to pages that were away, ms; later they look at everything anew. */
const KEPT_MS = 3_600_000;
const FORGOTTEN_AT_ONCE = 20_000;

/** Notes that something was stored: last of all in its transaction, so that numbers are committed nearly in their order. */
export async function noteChange(
  tx: Knex,
  topics: readonly Topic[],
  board: string | null,
  tab: string | null,
): Promise<void> {
  await tx('changes').insert({ topics: topics.join(), board, tab, made_at: new Date() });
}

/** Number of the newest change; 0 while there is none. */
export async function newestChange(db: Knex): Promise<number> {
  const row = (await db('changes').max({ id: 'id' }).first()) as { id: number | null } | undefined;
  return row?.id ?? 0;
}

/** Changes with a higher number, and those of some lower ones that are there by now, in their order. */
export async function changesAfter(
  db: Knex,
  id: number,
  most: number,
  late: readonly number[] = [],
): Promise<LiveChange[]> {
  const query = db<ChangeRow>('changes').where('id', '>', id).orderBy('id').limit(most);
  const rows = await (late.length > 0 ? query.orWhereIn('id', [...late]) : query);
  return rows.map((row) => ({
    id: row.id,
    topics: row.topics.split(',') as Topic[],
    board: row.board,
    tab: row.tab,
  }));
}

/** Whether nothing after that change was forgotten. */
export async function isRemembered(db: Knex, id: number): Promise<boolean> {
  const row = (await db('changes').min({ id: 'id' }).first()) as { id: number | null } | undefined;
  return row?.id !== null && row?.id !== undefined && row.id <= id;
}

/** Forgets what every open page has been told. The newest stays, so that numbers never begin anew. */
export async function forgetOldChanges(db: Knex): Promise<void> {
  const newest = await newestChange(db);
  await db('changes')
    .where('made_at', '<', new Date(Date.now() - KEPT_MS))
    .where('id', '<', newest)
    .limit(FORGOTTEN_AT_ONCE)
    .delete();
}
