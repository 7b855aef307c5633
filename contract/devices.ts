import { z } from 'zod';
import { idSchema, lineOfText } from '#core/units/textSchema.ts';

/** What a device may do: everything, or look and change nothing. */
export const RIGHTS = ['work', 'look'] as const;
const maySchema = z.enum(RIGHTS, { error: 'must be work or look' });
export type Right = z.infer<typeof maySchema>;

const deviceNameSchema = lineOfText(1, 40);

/** A device that is known here. */
export const deviceSchema = z.strictObject({
  id: idSchema,
  name: z.string(),
  /** Whose it is, by an id from the shop's list of people; null for everybody's. */
  person: idSchema.nullable(),
  may: maySchema,
  madeAt: z.iso.datetime({ precision: 3 }),
  seenAt: z.iso.datetime({ precision: 3 }),
});
export type Device = z.infer<typeof deviceSchema>;

/** Devices, and what this one may. */
export const devicesSchema = z.strictObject({
  /** Others can reach this server, so a device must be known to be let in. */
  asked: z.boolean(),
  /** The device that asks; null where nobody asks. */
  own: idSchema.nullable(),
  may: maySchema,
  devices: z.array(deviceSchema),
  /** Where others on the network find this server. */
  addresses: z.array(z.string()),
});
export type Devices = z.infer<typeof devicesSchema>;

export const deviceChangeSchema = z.strictObject({
  name: deviceNameSchema,
  person: idSchema.nullable(),
  may: maySchema,
});

/** Somebody lets another device in. */
export const invitationRequestSchema = z.strictObject({ person: idSchema.nullable(), may: maySchema });
export const invitationSchema = z.strictObject({
  /** Opened on the other device, once. */
  path: z.string(),
  expiresAt: z.iso.datetime({ precision: 3 }),
});
export type Invitation = z.infer<typeof invitationSchema>;

const passphraseSchema = z
  .string({ error: 'must be given' })
  .min(1, { error: 'must be given' })
  .max(200, { error: 'must be at most 200 characters' });

/** What a device that is let in says again before it decides on others. */
export const confirmSchema = z.strictObject({ passphrase: passphraseSchema });

/** What somebody enters to be let in. */
export const signInSchema = z.object({
  passphrase: passphraseSchema,
  device: deviceNameSchema,
});
export const joinSchema = z.object({ device: deviceNameSchema });
