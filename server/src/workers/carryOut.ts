import { entryOf } from '#core/lists/there.ts';
import { workerData } from 'node:worker_threads';
import { readJson } from '../jsonBody.ts';
import { nameOf, perform } from '../operation.ts';
import { operations } from '../operations/index.ts';
import { PlannedWork } from '../planning/plannedWork.ts';
import { ShopPlanner } from '../planning/planShop.ts';
import { problemOf } from '../problem.ts';
import { openDatabase } from '../stores/database.ts';
import type { WorkerAnswer, WorkerRequest } from './workerPool.ts';

const CONNECTIONS = 3;

const known = new Map(operations.map((operation) => [nameOf(operation), operation]));
const { databaseUrl } = workerData as { databaseUrl: string };
const db = openDatabase(databaseUrl, CONNECTIONS);

const planner = new ShopPlanner(db);
const work = new PlannedWork(db, (now, stopped) => planner.bringUpToDate(now, () => stopped.value));

/** Carries a large request out in this thread. Never throws: what is wrong goes back as a problem. */
export async function carryOut({ operation, call, bytes }: WorkerRequest): Promise<WorkerAnswer> {
  try {
    const { json, ...reply } = await perform(
      entryOf(known, operation),
      db,
      { ...call, body: readJson(bytes) },
      { work },
    );
    return { ok: true, reply, json: json === null ? null : new TextEncoder().encode(json) };
  } catch (error) {
    const problem = problemOf(error, call.writeId !== null);
    if (problem.code === 'internal') console.error(`${operation}:`, error);
    return { ok: false, problem: problem.parts };
  }
}
