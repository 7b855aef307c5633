import type { Knex } from 'knex';
import type { z } from 'zod';
import type { Right } from '#contract/devices.ts';
import type { Topic } from '#contract/live.ts';
import type { PlannedWork } from './planning/plannedWork.ts';
import { notFound, Problem, validated } from './problem.ts';
import type { Reply } from './reply.ts';
import { noteChange } from './stores/changeStore.ts';
import { inTransaction } from './stores/transaction.ts';
import { once } from './stores/writeOnce.ts';

/** What a request says, wherever it is carried out. */
export interface Call {
  params: Record<string, string>;
  query: Record<string, unknown>;
  /** The JSON that was sent; undefined when nothing was. */
  body: unknown;
  /** The name a client gave to a write, so that it may repeat it; null when it gave none. */
  writeId: string | null;
  /** The page that asks, as far as it says so. */
  tab: string | null;
  /** Who asks: the id of a device that is known, and whose it is, null where nobody is asked; and whether the passphrase was said on it just now. */
  asker: { device: string | null; person: string | null; may: Right; confirmed: boolean };
  around: Around;
}

/** How a server stands in its network. */
export interface Around {
  /** Others can reach it, so a device must be known to be let in. */
  asked: boolean;
  /** Where others find it. */
  addresses: string[];
}

interface Described {
  /** In OpenAPI's form: `/boards/{id}`. */
  path: string;
  summary: string;
  ok: readonly [status: number, description: string, schema?: z.ZodType];
  /** Statuses of refusals, beside those that every operation has. */
  errors: readonly number[];
  query?: z.ZodObject;
  /** It may take long however little is sent: always in a thread of its own. What is sent as a large body is anyway. */
  inWorker?: boolean;
}

/** What a server has beside its database, where a request is carried out. */
export interface Server {
  work: PlannedWork;
  /** Whoever asked has gone. */
  gone?: AbortSignal;
}

/** A look at what is stored. */
export interface ReadOperation extends Described {
  method: 'get';
  run(db: Knex, call: Call, server: Server): Promise<Reply>;
}

/** A change: one transaction, repeated when another one got in its way, and done once however often it comes by the same name. */
export interface WriteOperation extends Described {
  method: 'post' | 'put';
  /** What it wants to be sent; null when an empty object or nothing will do. */
  input: z.ZodType | null;
  /** What open pages may have to look at again; of the board in the path, where there is one. */
  touches: readonly Topic[];
  /** Its answer is a secret that is told once: it is kept nowhere, and whoever asks again by the same name is told so. */
  secret?: boolean;
  run(tx: Knex.Transaction, call: Call): Promise<Reply>;
}

export type Operation = ReadOperation | WriteOperation;

/** Method and path, by which an operation is known. */
export function nameOf({ method, path }: Operation): string {
  return `${method} ${path}`;
}

/** Carries a request out. @throws Problem, or what the database says */
export async function perform(operation: Operation, db: Knex, call: Call, server: Server): Promise<Reply> {
  if (operation.method === 'get') return operation.run(db, call, server);
  const { writeId } = call;
  const work = async (tx: Knex.Transaction) => {
    const reply = await operation.run(tx, call);
    const board = operation.path.startsWith('/boards/{id}') ? (call.params.id ?? null) : null;
    if (operation.touches.length > 0) await noteChange(tx, operation.touches, board, call.tab);
    return reply;
  };
  if (writeId === null) return inTransaction(db, work);
  const asked = { id: writeId, operation: nameOf(operation), isSecret: operation.secret ?? false };
  const reply = await inTransaction(db, (tx) => once(tx, asked, () => work(tx)));
  if (reply.operation !== undefined && reply.operation !== nameOf(operation)) {
    throw new Problem(
      422,
      'write-id-taken',
      'This Idempotency-Key was used for another kind of write; every write needs one of its own.',
    );
  }
  return reply;
}

/** Reads a call's query. @throws Problem 400 */
export function queryOf<T>(schema: z.ZodType<T>, call: Call): T {
  return validated(schema, call.query);
}

/** A whole number in a path. @throws Problem 404 for what is none */
export function numberIn(text: string, what: string): number {
  if (!/^\d{1,9}$/.test(text)) throw notFound(what);
  return Number(text);
}
