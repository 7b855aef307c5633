import { constants, setPriority } from 'node:os';
import { workerData } from 'node:worker_threads';
import { openDatabase } from '../stores/database.ts';
import type { PlanningTask } from './planningThread.ts';
import { ShopPlanner } from './planShop.ts';

const CONNECTIONS = 6;

// On Linux this is of the thread that says it alone: whoever waits for an answer comes first.
setPriority(constants.priority.PRIORITY_BELOW_NORMAL);

const { databaseUrl } = workerData as { databaseUrl: string };
const planner = new ShopPlanner(openDatabase(databaseUrl, CONNECTIONS));

export async function plan({ now, stop }: PlanningTask): Promise<void> {
  await planner.bringUpToDate(now, () => Atomics.load(stop, 0) !== 0);
}
