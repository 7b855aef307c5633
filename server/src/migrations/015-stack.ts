import type { Knex } from 'knex';
import { upgradeBoardTo13 } from '#core/format/upgrades.ts';
import { rewriteDocuments } from './rewriteDocuments.ts';

type Json = Record<string, unknown>;
const REVISION = ['board_id', 'number'] as const;

/** Strips say whether they are resawn from a stack of bits. */
export async function up(db: Knex): Promise<void> {
  await rewriteDocuments(db, 'revisions', REVISION, upgradeBoardTo13);
  await db('revisions').update({ format_version: 13 });
}

/** An older Cadenza knows no stacks: what was an accent is a plain strip of its first wood. */
function plain(board: Json): Json {
  const operations = (board.recipe ?? []) as Json[];
  const stacks = operations.filter((o) => o.kind === 'stack');
  const sticks = new Set(stacks.flatMap((o) => o.takes as string[]));
  return {
    ...board,
    recipe: operations
      .filter((o) => o.kind !== 'stack' && !sticks.has(o.id as string))
      .map(({ stack: _, ...o }) => o),
  };
}

export async function down(db: Knex): Promise<void> {
  await rewriteDocuments(db, 'revisions', REVISION, (board) => ({
    ...plain(board),
    versions: ((board.versions ?? []) as Json[]).map(plain),
  }));
  await db('revisions').update({ format_version: 12 });
}
