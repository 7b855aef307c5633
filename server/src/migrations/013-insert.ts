import type { Knex } from 'knex';
import { rewriteDocuments } from './rewriteDocuments.ts';

type Json = Record<string, unknown>;
const REVISION = ['board_id', 'number'] as const;

/** Strips may be put into a panel that is sawn through: what was stored before is valid as it is. */
export async function up(db: Knex): Promise<void> {
  await db('revisions').update({ format_version: 11 });
}

/** An older Cadenza knows no inserts: the panel is left as it was before anything was put in. */
function whole(board: Json): Json {
  const operations = (board.recipe ?? []) as Json[];
  const put = operations.filter((o) => o.kind === 'insert');
  if (put.length === 0) return board;
  const strips = new Set(put.map((o) => (o.takes as string[])[1]));
  const kept = operations.filter((o) => o.kind !== 'insert' && !strips.has(o.id as string));
  // A panel that nothing was laid into yet is no panel without what was put in.
  return { ...board, recipe: kept.some((o) => o.kind === 'strip') ? kept : [] };
}

export async function down(db: Knex): Promise<void> {
  await rewriteDocuments(db, 'revisions', REVISION, (board) => ({
    ...whole(board),
    versions: ((board.versions ?? []) as Json[]).map(whole),
  }));
  await db('revisions').update({ format_version: 10 });
}
