import type { Knex } from 'knex';
import { upgradeBoardTo12 } from '#core/format/upgrades.ts';
import { rewriteDocuments } from './rewriteDocuments.ts';

type Json = Record<string, unknown>;
const REVISION = ['board_id', 'number'] as const;

/** Frames may go round a board and a back under it, and slices name all panels that they are sawn from in turn. */
export async function up(db: Knex): Promise<void> {
  await rewriteDocuments(db, 'revisions', REVISION, upgradeBoardTo12);
  await db('revisions').update({ format_version: 12 });
}

/** An older Cadenza knows no frames and no backs, and rows of one panel alone: the board is left without those, and with the first of its panels. */
function older(board: Json): Json {
  const operations = (board.recipe ?? []) as Json[];
  const slice = operations.find((o) => o.kind === 'slice');
  const [main, ...others] = (slice?.takes ?? []) as string[];
  const idle = operations.filter((o) => o.kind === 'glue' && others.includes(o.id as string));
  const gone = new Set([
    ...operations.filter((o) => o.kind === 'frame' || o.kind === 'back').flatMap((o) => (o.takes as string[]).slice(1)),
    ...idle.flatMap((o) => o.takes as string[]),
  ]);
  const kept = operations
    .filter((o) => o.kind !== 'frame' && o.kind !== 'back' && !idle.includes(o) && !gone.has(o.id as string))
    .map((o) => (o === slice ? { ...o, takes: main } : o));
  // A panel that nothing was laid into yet is no panel without its frame or its back.
  return { ...board, recipe: kept.some((o) => o.kind === 'strip') || slice ? kept : [] };
}

export async function down(db: Knex): Promise<void> {
  await rewriteDocuments(db, 'revisions', REVISION, (board) => ({
    ...older(board),
    versions: ((board.versions ?? []) as Json[]).map(older),
  }));
  await db('revisions').update({ format_version: 11 });
}
