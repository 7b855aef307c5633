import knexModule, { type Knex } from 'knex';

const { knex } = knexModule;

/** Connections that one process keeps at most. */
const MOST_CONNECTIONS = 12;
/** Longer than this nobody waits for a connection: "busy, try again" now says more than an answer later. */
const LONGEST_WAIT_MS = 2500;

/** A pool of connections to MariaDB. Fails fast when the database is gone, so that a request gets its sentence. */
export function openDatabase(url: string, connections = MOST_CONNECTIONS): Knex {
  return knex({
    client: 'mysql2',
    connection: {
      uri: url,
      connectTimeout: 3000,
      decimalNumbers: true,
      timezone: 'Z',
      charset: 'utf8mb4',
      supportBigNumbers: true,
      // Documents stay the text they are until somebody reads them: most are only compared or passed on.
      jsonStrings: true,
    } as Knex.MySql2ConnectionConfig,
    pool: { min: 0, max: connections, afterCreate: readCommitted },
    acquireConnectionTimeout: LONGEST_WAIT_MS,
    // Every failed request says so itself; the pool's own lines would only repeat it.
    log: { warn: () => {}, error: () => {}, debug: () => {}, deprecate: () => {} },
  });
}

/**
 * Every look of a transaction sees what is committed by then, as the rows it has locked are: a document read beside a locked row is never older than it. It
 * also leaves the gaps between rows unlocked, which is what most deadlocks were about.
 */
function readCommitted(
  connection: { query(sql: string, done: (error: Error | null) => void): void },
  done: (error: Error | null, connection: unknown) => void,
): void {
  connection.query('set session transaction isolation level read committed', (error) => done(error, connection));
}
