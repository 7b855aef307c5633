import { Router } from 'express';
import type { Knex } from 'knex';
import { confirmSchema } from '#contract/devices.ts';
import { addressOf } from '../guard.ts';
import { jsonBytes, readJson } from '../jsonBody.ts';
import { Problem, validated } from '../problem.ts';
import { confirmDevice } from '../stores/deviceStore.ts';
import { nameAsked } from '../watch/requestLog.ts';
import { askerOf } from './gate.ts';
import { waitSentence, WRONG, type Guesses } from './guesses.ts';

const field = (message: string) => [{ path: 'passphrase', message }];

/** A device that is let in says the passphrase once more, before it decides on others. */
export function confirmRoutes(db: Knex, guesses: Guesses): Router {
  return Router().post('/api/devices/confirm', ...jsonBytes(), async (request, response) => {
    nameAsked(response, 'post /devices/confirm');
    const { device } = askerOf(response);
    const { passphrase } = validated(confirmSchema, readJson(request.body as Buffer));
    const guessed = await guesses.tried(device ? { device: device.id } : { address: addressOf(request) }, passphrase);
    if (typeof guessed === 'number') {
      response.set('Retry-After', String(guessed));
      throw new Problem(429, 'wait', waitSentence(guessed), field(waitSentence(guessed)));
    }
    if (guessed === 'wrong') throw new Problem(400, 'wrong-passphrase', WRONG, field(WRONG));
    if (device) await confirmDevice(db, device.id);
    response.status(204).end();
  });
}
