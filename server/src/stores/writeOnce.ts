import { certain } from '#core/lists/there.ts';
import type { Knex } from 'knex';
import { Problem } from '../problem.ts';
import type { Reply } from '../reply.ts';

interface WriteRow {
  id: string;
  operation: string;
  status: number | null;
  headers: string | null;
  answer: string | null;
  made_at: Date;
}

/** A write as its client named it. */
interface NamedWrite {
  id: string;
  operation: string;
  /** Its answer is told once, and not kept. */
  isSecret: boolean;
}

/** A repeated write finds its answer for so long, hours: longer than any page waits for a server. */
const REMEMBERED_HOURS = 48;
const FORGOTTEN_AT_ONCE = 5000;

/**
 * Does a write that its client named once, however often it comes. The name is claimed first and the answer kept with it, in the write's own transaction:
 * either all of it is stored or nothing. A repetition meanwhile waits for the first.
 */
export async function once(
  tx: Knex.Transaction,
  { id, operation, isSecret }: NamedWrite,
  work: () => Promise<Reply>,
): Promise<Reply> {
  const claimed = await tx<WriteRow>('writes')
    .insert({ id, operation, made_at: new Date() })
    .then(
      () => true,
      (error: { code?: string }) => {
        if (error.code === 'ER_DUP_ENTRY') return false;
        throw error;
      },
    );
  if (!claimed) {
    const known = certain(await tx<WriteRow>('writes').where({ id }).forUpdate().first());
    if (isSecret && known.operation === operation)
      throw new Problem(409, 'told-once', 'This was done, and its answer is told only once. Ask for another one.');
    return {
      status: known.status ?? 200,
      headers: JSON.parse(known.headers ?? '{}') as Record<string, string>,
      json: known.answer,
      operation: known.operation,
    };
  }
  const reply = await work();
  await tx<WriteRow>('writes')
    .where({ id })
    .update({
      status: reply.status,
      headers: JSON.stringify(reply.headers ?? {}),
      answer: isSecret ? null : reply.json,
    });
  return reply;
}

/** Forgets writes that nobody will repeat any more. */
export async function forgetOldWrites(db: Knex): Promise<void> {
  await db('writes')
    .where('made_at', '<', new Date(Date.now() - REMEMBERED_HOURS * 3_600_000))
    .limit(FORGOTTEN_AT_ONCE)
    .delete();
}
