import type { Knex } from 'knex';
import { LRUCache } from 'lru-cache';

/** What a server remembers of documents that never change (a board at a revision, a piece at a version), bytes. */
const MOST_BYTES = 40_000_000;
/** A record taken apart is about so many times as large as the characters of its JSON. */
const BYTES_A_CHARACTER = 8;

/** What stands for the pool behind a connection or transaction. */
export function poolOf(db: Knex): object {
  return (db.client as { config: object }).config;
}

const caches = new WeakMap<object, LRUCache<string, { value: object; weight: number }>>();

/**
 * Remembers what was read of something that never changes under its key, so that lists are not read and checked again for every request. Nothing is lost with it:
 * several servers on one database each have their own.
 */
export function remembered<T extends object>(
  db: Knex,
  kind: string,
): { get(key: string): T | undefined; set(key: string, value: T, characters: number): void } {
  // A transaction has a client of its own, with the configuration of its pool.
  const pool = poolOf(db);
  let cache = caches.get(pool);
  if (!cache) {
    cache = new LRUCache({ maxSize: MOST_BYTES, sizeCalculation: ({ weight }) => weight });
    caches.set(pool, cache);
  }
  const held = cache;
  return {
    get: (key) => held.get(`${kind}/${key}`)?.value as T | undefined,
    set: (key, value, characters) =>
      held.set(`${kind}/${key}`, { value, weight: 1 + characters * ('json' in value ? 2 : BYTES_A_CHARACTER) }),
  };
}
