import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import mysql from 'mysql2/promise';
import { startProjectDatabase } from './database.ts';

/** Options that make a throw-away MariaDB quick: it need not survive a power cut. */
const QUICK = ['--innodb-flush-log-at-trx-commit=0', '--skip-log-bin', '--innodb-doublewrite=0'];

/**
 * A MariaDB of its own for one test run, in a temporary folder; several runs side by side never meet.
 * @param durable true where a test kills it and what was committed must still be there
 */
export async function startTestDatabase(
  durable = false,
): Promise<{ url: string; folder: string; stop(): Promise<void> }> {
  const folder = mkdtempSync(join(tmpdir(), 'cadenza-test-'));
  const database = await startProjectDatabase(folder, { extra: durable ? [] : QUICK, forTests: true });
  return {
    url: database.url,
    folder,
    stop: async () => {
      await database.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Makes an empty database on a test MariaDB. @returns its url */
export async function newDatabase(url: string, name: string): Promise<string> {
  const connection = await mysql.createConnection(url);
  await connection.query(`drop database if exists cadenza_${name}`);
  await connection.query(`create database cadenza_${name} character set utf8mb4`);
  await connection.end();
  const fresh = new URL(url);
  fresh.pathname = `/cadenza_${name}`;
  return fresh.href;
}

/** Vitest's global setup: one MariaDB for all API tests. */
export default async function setup(): Promise<() => Promise<void>> {
  const database = await startTestDatabase();
  process.env.TEST_DATABASE_URL = database.url;
  return database.stop;
}
