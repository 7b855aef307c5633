import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import { scheduleDocumentSchema, type ScheduleDocument } from '#contract/schedule.ts';
import { Problem } from '../problem.ts';
import { readDocument } from './document.ts';

/** The shop in use has one schedule. */
const ID = 1;
/** So long a secret nobody guesses, characters of 6 bits. */
const SECRET_LENGTH = 40;

interface ScheduleRow {
  id: number;
  version: number;
  document: unknown;
  calendar_secret: string | null;
}

export interface StoredSchedule {
  version: number;
  schedule: ScheduleDocument;
  secret: string | null;
}

const NOTHING_DECIDED: ScheduleDocument = { order: [], taken: [], waiting: [] };

const toStored = (row: ScheduleRow | undefined): StoredSchedule =>
  row
    ? {
        version: row.version,
        schedule: readDocument(scheduleDocumentSchema, row.document),
        secret: row.calendar_secret,
      }
    : { version: 0, schedule: NOTHING_DECIDED, secret: null };

/** What is decided about the work of the shop; nothing (version 0) until somebody does. */
export async function readSchedule(db: Knex): Promise<StoredSchedule> {
  return toStored(await db<ScheduleRow>('schedules').where({ id: ID }).first());
}

async function put(tx: Knex.Transaction, { version, schedule, secret }: StoredSchedule): Promise<void> {
  await tx('schedules')
    .insert({
      id: ID,
      version,
      document: JSON.stringify(schedule),
      calendar_secret: secret,
      updated_at: new Date(),
    })
    .onConflict('id')
    .merge();
}

/** @throws Problem 409 stale with the stored one */
export async function saveSchedule(
  tx: Knex.Transaction,
  version: number,
  schedule: ScheduleDocument,
): Promise<StoredSchedule> {
  const stored = toStored(await tx<ScheduleRow>('schedules').where({ id: ID }).forUpdate().first());
  if (stored.version !== version)
    throw new Problem(409, 'stale', 'The order of work was changed elsewhere meanwhile.', [], {
      current: { version: stored.version, schedule: stored.schedule },
    });
  const saved = { ...stored, version: version + 1, schedule };
  await put(tx, saved);
  return saved;
}

/** A new address for calendars; whoever knew the one before knows nothing any more. */
export async function newCalendarSecret(tx: Knex.Transaction): Promise<string> {
  const stored = toStored(await tx<ScheduleRow>('schedules').where({ id: ID }).forUpdate().first());
  const secret = nanoid(SECRET_LENGTH);
  await put(tx, { ...stored, secret });
  return secret;
}

/** No calendar may ask any more. */
export async function closeCalendar(tx: Knex.Transaction): Promise<void> {
  await tx('schedules').where({ id: ID }).update({ calendar_secret: null });
}
