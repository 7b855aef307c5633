import { timingSafeEqual } from 'node:crypto';
import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import { sha256 } from './sha256.ts';

/** The shop in use has one address. */
const ID = 1;
/** So long a secret nobody guesses, characters of 6 bits. */
const SECRET_LENGTH = 40;

interface AddressRow {
  id: number;
  secret_hash: string;
}

/** Whether there is an address that calendars can ask. */
export async function hasCalendar(db: Knex): Promise<boolean> {
  return (await db<AddressRow>('calendar_addresses').where({ id: ID }).first()) !== undefined;
}

/** Whether a secret is the one of the address. It takes as long whatever is wrong with it: nobody guesses it letter by letter. */
export async function opensCalendar(db: Knex, secret: string): Promise<boolean> {
  const row = await db<AddressRow>('calendar_addresses').where({ id: ID }).first();
  return row !== undefined && timingSafeEqual(Buffer.from(row.secret_hash), Buffer.from(sha256(secret)));
}

/** A new address for calendars; whoever knew the one before knows nothing any more. @returns its secret, which nothing remembers */
export async function newCalendarSecret(tx: Knex.Transaction): Promise<string> {
  const secret = nanoid(SECRET_LENGTH);
  await tx<AddressRow>('calendar_addresses')
    .insert({ id: ID, secret_hash: sha256(secret) })
    .onConflict('id')
    .merge();
  return secret;
}

/** No calendar may ask any more. */
export async function closeCalendar(tx: Knex.Transaction): Promise<void> {
  await tx<AddressRow>('calendar_addresses').where({ id: ID }).delete();
}
