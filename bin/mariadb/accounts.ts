import type { Connection } from './databaseFolder.ts';

export const DATABASE = 'cadenza';
/** Where a backup is tried out before it takes the place of what is stored. */
export const SCRATCH_DATABASE = 'cadenza_restore';
/** What was stored before the last restore. */
export const BEFORE_DATABASE = 'cadenza_before';
/** Serves: Cadenza's database only. */
export const USER = 'cadenza';
/** Looks after it: backup and restore. */
export const KEEPER = 'cadenza_keeper';

/** The databases of a test run, beside `cadenza`: each is named `cadenza_…`. */
const TEST_DATABASES = 'cadenza\\_%';

/**
 * What every start runs before anybody is let in, in old folders too: no account but root on this machine (which nothing can reach, as there is no
 * socket and root has no address), and Cadenza's two, each with its own databases.
 * @param forTests the serving account may make databases named `cadenza_…`
 */
export function accountsSql({ password, keeperPassword }: Connection, forTests: boolean): string {
  const served = forTests ? [DATABASE, TEST_DATABASES] : [DATABASE];
  return [
    `CREATE DATABASE IF NOT EXISTS ${DATABASE} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;`,
    "DELETE FROM mysql.global_priv WHERE NOT (User = 'mariadb.sys' OR (User = 'root' AND Host = 'localhost'));",
    'DELETE FROM mysql.db;',
    'FLUSH PRIVILEGES;',
    `CREATE OR REPLACE USER '${USER}'@'127.0.0.1' IDENTIFIED BY '${password}';`,
    ...served.map((name) => `GRANT ALL ON \`${name}\`.* TO '${USER}'@'127.0.0.1';`),
    `CREATE OR REPLACE USER '${KEEPER}'@'127.0.0.1' IDENTIFIED BY '${keeperPassword}';`,
    ...[DATABASE, SCRATCH_DATABASE, BEFORE_DATABASE].map(
      (name) => `GRANT ALL ON \`${name.replaceAll('_', '\\_')}\`.* TO '${KEEPER}'@'127.0.0.1';`,
    ),
    `ALTER USER IF EXISTS 'root'@'localhost' IDENTIFIED BY '${keeperPassword}';`,
    '',
  ].join('\n');
}
