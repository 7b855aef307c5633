import {
  deviceChangeSchema,
  devicesSchema,
  invitationRequestSchema,
  invitationSchema,
  type Devices,
} from '#contract/devices.ts';
import { certain } from '#core/lists/there.ts';
import { mustBeConfirmed } from '../auth/gate.ts';
import type { Call, Operation } from '../operation.ts';
import type { Knex } from 'knex';
import { Problem, validated } from '../problem.ts';
import { reply } from '../reply.ts';
import { changeDevice, endDevice, invite, knownDevices } from '../stores/deviceStore.ts';

async function devices(db: Knex, { asker, around }: Call): Promise<Devices> {
  return { ...around, own: asker.device, may: asker.may, devices: around.asked ? await knownDevices(db) : [] };
}

/** @throws Problem 409 where nobody is asked */
function onlyWhereAsked({ around }: Call): void {
  if (!around.asked)
    throw new Problem(
      409,
      'not-shared',
      'Only this machine can reach Cadenza, so no device need be let in. Start it with HOST=0.0.0.0 to share it.',
    );
}

/** Devices that are known, and how others come to be. */
export const deviceOperations: readonly Operation[] = [
  {
    method: 'get',
    path: '/devices',
    summary: 'Devices that are known here, what this one may, and where others find this server',
    ok: [200, 'Devices', devicesSchema],
    errors: [],
    run: async (db, call) => reply(await devices(db, call)),
  },
  {
    method: 'post',
    path: '/devices/invite',
    touches: [],
    secret: true,
    summary: 'Let one other device in, within ten minutes',
    ok: [201, 'Where it is opened on that device', invitationSchema],
    errors: [400, 403, 409],
    input: invitationRequestSchema,
    run: async (tx, call) => {
      onlyWhereAsked(call);
      const wanted = validated(invitationRequestSchema, call.body);
      if (wanted.may === 'work') mustBeConfirmed(call.asker.confirmed);
      const { code, expiresAt } = await invite(tx, wanted);
      return reply({ path: `/join/${code}`, expiresAt }, 201);
    },
  },
  {
    method: 'put',
    path: '/devices/{id}',
    touches: ['devices'],
    summary: 'Name a device, say whose it is and what it may',
    ok: [200, 'Devices', devicesSchema],
    errors: [400, 403, 404, 409],
    input: deviceChangeSchema,
    run: async (tx, call) => {
      const id = certain(call.params.id, 'the id of the address');
      const change = validated(deviceChangeSchema, call.body);
      if (id === call.asker.device && change.may !== 'work')
        throw new Problem(
          409,
          'own-device',
          'May cannot be taken from the device that is asking: do it on another one.',
          [{ path: 'may', message: 'May cannot be taken from the device that is asking: do it on another one.' }],
        );
      const [before] = (await knownDevices(tx)).filter((d) => d.id === id);
      if (before && before.may !== change.may) mustBeConfirmed(call.asker.confirmed);
      await changeDevice(tx, id, change);
      return reply(await devices(tx, call));
    },
  },
  {
    method: 'post',
    path: '/devices/{id}/end',
    touches: ['devices'],
    summary: 'Let a device in no more',
    ok: [200, 'Devices', devicesSchema],
    errors: [404],
    input: null,
    run: async (tx, call) => {
      await endDevice(tx, certain(call.params.id, 'the id of the address'));
      return reply(await devices(tx, call));
    },
  },
];
