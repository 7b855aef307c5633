import { createReadStream } from 'node:fs';
import type mysql from 'mysql2/promise';
import { nth } from '#core/lists/there.ts';
import { GrammarError, readRows, readTable, type Column, type Value } from './dumpGrammar.ts';
import { BackupError } from './keeper.ts';
import { sqlStatements } from './sqlStatements.ts';

/** Rows are bound so many at a time, and so many bytes of them, far below what the database takes at once. */
const MOST_ROWS = 500;
const MOST_BYTES = 2_000_000;
/** No part of a backup takes the database longer, seconds. */
const LONGEST_STATEMENT_SECONDS = 30;

/** What a backup says beside its tables and rows; none of it is done. */
const LEFT =
  /^(DROP TABLE IF EXISTS `[A-Za-z_0-9]{1,64}`|LOCK TABLES `[A-Za-z_0-9]{1,64}` WRITE|UNLOCK TABLES|COMMIT|SET AUTOCOMMIT ?= ?[01]|SET FOREIGN_KEY_CHECKS ?= ?0)$/i;

const QUIET = [
  "set session sql_mode = 'NO_AUTO_VALUE_ON_ZERO'",
  "set session time_zone = '+00:00'",
  'set session foreign_key_checks = 0',
  'set session unique_checks = 0',
  `set session max_statement_time = ${LONGEST_STATEMENT_SECONDS}`,
];

/**
 * Fills an empty database from a backup. A backup is data: its tables are described in words of ours alone, its values are bound, and whatever else it says is not done.
 * @param signal stops it between two statements
 * @throws BackupError for what no backup of Cadenza holds
 */
export async function fillScratch(connection: mysql.Connection, file: string, signal: AbortSignal): Promise<void> {
  for (const statement of QUIET) await connection.query(statement);
  const made = new Map<string, Column[]>();
  try {
    for await (const statement of sqlStatements(createReadStream(file, { highWaterMark: 1_000_000 }))) {
      signal.throwIfAborted();
      const begin = statement.subarray(0, 200).toString('latin1').trim();
      if (begin === '' || (statement.length <= 200 && LEFT.test(begin))) continue;
      if (/^INSERT\b/.test(begin)) await insert(connection, statement, made);
      else {
        const { table, sql, columns } = readTable(statement.toString('utf8'));
        await connection.query(sql);
        made.set(table, columns);
      }
    }
  } catch (error) {
    if (error instanceof GrammarError)
      throw new BackupError(`The backup holds what none of Cadenza's holds: ${readable(error.message)} …`);
    throw error;
  }
}

async function insert(
  connection: mysql.Connection,
  statement: Buffer,
  made: ReadonlyMap<string, Column[]>,
): Promise<void> {
  const { table, columns, rows } = readRows(statement);
  const known = made.get(table);
  if (!known) throw new GrammarError(`rows of ${table}, which it does not describe`);
  const named = columns ?? known.map((c) => c.name);
  const kept = named.flatMap((name, i) => {
    const column = known.find((c) => c.name === name);
    if (!column) throw new GrammarError(`${table}.${name}`);
    return column.generated ? [] : [i];
  });
  if (rows.some((row) => row.length !== named.length)) throw new GrammarError(`rows of ${table}`);
  const into = `insert into \`${table}\` (${kept.map((i) => `\`${nth(named, i)}\``).join(', ')}) values ?`;
  let portion: Value[][] = [];
  let bytes = 0;
  const send = async () => {
    if (portion.length > 0) await connection.query(into, [portion]);
    [portion, bytes] = [[], 0];
  };
  for (const row of rows) {
    portion.push(kept.map((i) => row[i] ?? null));
    bytes += row.reduce<number>((sum, v) => sum + (typeof v === 'string' || Buffer.isBuffer(v) ? v.length : 8), 0);
    if (portion.length >= MOST_ROWS || bytes >= MOST_BYTES) await send();
  }
  await send();
}

/** What was met, as one line that can be shown. */
const readable = (text: string): string => text.replace(/[^\x20-\x7e]+/g, ' ').trim();
