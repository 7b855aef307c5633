import type { Knex } from 'knex';
import { scheduleDocumentSchema, type ScheduleDocument, type StoredSchedule } from '#contract/schedule.ts';
import { Problem } from '../problem.ts';
import { readDocument } from './document.ts';
import { putNext } from './versioned.ts';

/** The shop in use has one schedule. */
const ID = 1;

interface ScheduleRow {
  id: number;
  version: number;
  document: unknown;
}

const NOTHING_DECIDED: ScheduleDocument = { order: [], taken: [], waiting: [] };

/** What is decided about the work of the shop; nothing (version 0) until somebody does. */
export async function readSchedule(db: Knex): Promise<StoredSchedule> {
  const row = await db<ScheduleRow>('schedules').where({ id: ID }).first();
  return row
    ? { version: row.version, schedule: readDocument(scheduleDocumentSchema, row.document) }
    : { version: 0, schedule: NOTHING_DECIDED };
}

/** @throws Problem 409 stale with the stored one */
export async function saveSchedule(
  tx: Knex.Transaction,
  version: number,
  schedule: ScheduleDocument,
): Promise<StoredSchedule> {
  const columns = { document: JSON.stringify(schedule) };
  await putNext(tx, 'schedules', { id: ID, basedOn: version, columns }, async () => {
    const current = await readSchedule(tx);
    return new Problem(409, 'stale', 'The order of work was changed elsewhere meanwhile.', [], { current });
  });
  return { version: version + 1, schedule };
}
