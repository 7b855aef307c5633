import type { Knex } from 'knex';
import { upgradeBoardTo8 } from '#core/format/upgrades.ts';
import { rewriteDocuments } from './rewriteDocuments.ts';

type Json = Record<string, unknown>;
const REVISION = ['board_id', 'number'] as const;

/** A board is made by its recipe: strips, and the glue-up that takes them; stops that were gone on with say what else they were about. Runs again cleanly when a first run was killed. */
export async function up(db: Knex): Promise<void> {
  await rewriteDocuments(db, 'revisions', REVISION, upgradeBoardTo8);
  await db('revisions').update({ format_version: 8 });
}

/** The strips in the order they are glued in. */
function stripsAgain({ recipe, ...rest }: Json): Json {
  const operations = (recipe ?? []) as Json[];
  const order = (operations.find((o) => o.kind === 'glue')?.takes ?? []) as string[];
  const strips = order.map((id) => operations.find((o) => o.id === id)).map((o) => Object.fromEntries(Object.entries(o ?? {}).filter(([key]) => key !== 'kind')));
  return { ...rest, strips };
}

export async function down(db: Knex): Promise<void> {
  await rewriteDocuments(db, 'revisions', REVISION, (board) => ({
    ...stripsAgain(board), versions: ((board.versions ?? []) as Json[]).map(stripsAgain),
    accepted: ((board.accepted ?? []) as Json[]).map((one) => Object.fromEntries(Object.entries(one).filter(([key]) => key !== 'part'))),
  }));
  await db('revisions').update({ format_version: 7 });
}
