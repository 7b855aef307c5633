import { randomBytes } from 'node:crypto';
import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import type { Device, Right } from '#contract/devices.ts';
import { notFound, Problem } from '../problem.ts';
import { sha256 } from './sha256.ts';

interface DeviceRow {
  id: string;
  token_hash: string;
  name: string;
  person: string | null;
  may: Right;
  made_at: Date;
  seen_at: Date;
  /** When the passphrase was last said on it. */
  confirmed_at: Date | null;
}

/** A device that is let in, and when the passphrase was last said on it. */
export interface LetIn extends Device {
  confirmedAt: Date | null;
}

interface InvitationRow {
  code_hash: string;
  person: string | null;
  may: Right;
  expires_at: Date;
}

/** A device that was not used for so long must sign in again, days. */
const KNOWN_DAYS = 90;
/** Seen is written down no more often than that, ms. */
const SEEN_EVERY_MS = 300_000;
/** A code is good for so long, ms. */
const INVITED_MS = 600_000;
const MOST_DEVICES = 200;
const DAY_MS = 86_400_000;

/** A secret nobody can guess, of 256 bits. */
const secret = (): string => randomBytes(32).toString('base64url');

const asDevice = ({ id, name, person, may, made_at, seen_at }: DeviceRow): Device => ({
  id,
  name,
  person,
  may,
  madeAt: made_at.toISOString(),
  seenAt: seen_at.toISOString(),
});

/** Devices that are let in, the one seen last first. */
export async function knownDevices(db: Knex): Promise<Device[]> {
  const rows = await db<DeviceRow>('devices').where('seen_at', '>', oldest()).orderBy('seen_at', 'desc').orderBy('id');
  return rows.map(asDevice);
}

const oldest = (): Date => new Date(Date.now() - KNOWN_DAYS * DAY_MS);

/** The device that a secret belongs to; null for one that is not known, not known any more, or was ended. */
export async function deviceOf(db: Knex, token: string): Promise<LetIn | null> {
  const row = await db<DeviceRow>('devices')
    .where({ token_hash: sha256(token) })
    .first();
  if (!row || row.seen_at < oldest()) return null;
  if (Date.now() - row.seen_at.getTime() > SEEN_EVERY_MS)
    await db<DeviceRow>('devices').where({ id: row.id }).update({ seen_at: new Date() });
  return { ...asDevice(row), confirmedAt: row.confirmed_at };
}

/** The passphrase was said on a device. */
export async function confirmDevice(db: Knex, id: string): Promise<void> {
  await db<DeviceRow>('devices').where({ id }).update({ confirmed_at: new Date() });
}

/** Lets a device in. @param said the passphrase was said on it just now @returns the secret by which it is known from now on @throws Problem 409 when there are too many */
export async function addDevice(
  tx: Knex,
  device: Pick<Device, 'name' | 'person' | 'may'>,
  said = false,
): Promise<string> {
  await tx<DeviceRow>('devices').where('seen_at', '<', oldest()).delete();
  const [{ n }] = (await tx('devices').count({ n: '*' })) as [{ n: number }];
  if (n >= MOST_DEVICES)
    throw new Problem(409, 'too-many', `${MOST_DEVICES} devices are known here. End some in the shop, at Devices.`);
  const token = secret();
  const now = new Date();
  await tx<DeviceRow>('devices').insert({
    id: nanoid(12),
    token_hash: sha256(token),
    ...device,
    made_at: now,
    seen_at: now,
    confirmed_at: said ? now : null,
  });
  return token;
}

/** @throws Problem 404 */
export async function changeDevice(
  tx: Knex,
  id: string,
  change: Pick<Device, 'name' | 'person' | 'may'>,
): Promise<void> {
  if ((await tx<DeviceRow>('devices').where({ id }).first()) === undefined) throw notFound('This device');
  await tx<DeviceRow>('devices').where({ id }).update(change);
}

/** A device is let in no more. @throws Problem 404 */
export async function endDevice(tx: Knex, id: string): Promise<void> {
  if ((await tx<DeviceRow>('devices').where({ id }).delete()) === 0) throw notFound('This device');
}

/** Nobody is let in any more by what was before. */
export async function endAllDevices(tx: Knex): Promise<void> {
  await tx('devices').delete();
  await tx('invitations').delete();
}

/** Somebody who is let in lets another device in. */
export async function invite(
  tx: Knex,
  { person, may }: Pick<Device, 'person' | 'may'>,
): Promise<{ code: string; expiresAt: string }> {
  await tx<InvitationRow>('invitations').where('expires_at', '<', new Date()).delete();
  const code = secret();
  const expires = new Date(Date.now() + INVITED_MS);
  await tx<InvitationRow>('invitations').insert({ code_hash: sha256(code), person, may, expires_at: expires });
  return { code, expiresAt: expires.toISOString() };
}

/** Whether a code would still let a device in. */
export async function isInvited(db: Knex, code: string): Promise<boolean> {
  const row = await db<InvitationRow>('invitations')
    .where({ code_hash: sha256(code) })
    .first();
  return row !== undefined && row.expires_at > new Date();
}

/** Takes an invitation: each lets one device in. @returns the secret; null for a code that is none, was used, or is too old */
export async function acceptInvitation(tx: Knex, code: string, name: string): Promise<string | null> {
  const row = await tx<InvitationRow>('invitations')
    .where({ code_hash: sha256(code) })
    .forUpdate()
    .first();
  if (!row) return null;
  await tx<InvitationRow>('invitations').where({ code_hash: row.code_hash }).delete();
  return row.expires_at > new Date() ? addDevice(tx, { name, person: row.person, may: row.may }) : null;
}
