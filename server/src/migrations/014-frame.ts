import type { Knex } from 'knex';
import { rewriteDocuments } from './rewriteDocuments.ts';

type Json = Record<string, unknown>;
const REVISION = ['board_id', 'number'] as const;

/** Frames may go round a board: what was stored before is valid as it is. */
export async function up(db: Knex): Promise<void> {
  await db('revisions').update({ format_version: 12 });
}

/** An older Cadenza knows no frames: the board is left without. */
function unframed(board: Json): Json {
  const operations = (board.recipe ?? []) as Json[];
  const frames = operations.filter((o) => o.kind === 'frame');
  if (frames.length === 0) return board;
  const strips = new Set(frames.flatMap((o) => (o.takes as string[]).slice(1)));
  const kept = operations.filter((o) => o.kind !== 'frame' && !strips.has(o.id as string));
  // A panel that nothing was laid into yet is no panel without its frame.
  return { ...board, recipe: kept.some((o) => o.kind === 'strip') ? kept : [] };
}

export async function down(db: Knex): Promise<void> {
  await rewriteDocuments(db, 'revisions', REVISION, (board) => ({
    ...unframed(board),
    versions: ((board.versions ?? []) as Json[]).map(unframed),
  }));
  await db('revisions').update({ format_version: 11 });
}
