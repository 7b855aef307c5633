import express, { Router, type Request, type Response } from 'express';
import type { Knex } from 'knex';
import { joinSchema, signInSchema } from '#contract/devices.ts';
import { fieldProblems } from '#core/format/fieldProblems.ts';
import { noteChange } from '../stores/changeStore.ts';
import { acceptInvitation, addDevice, deviceOf, endDevice, isInvited } from '../stores/deviceStore.ts';
import { inTransaction } from '../stores/transaction.ts';
import { addressOf } from '../guard.ts';
import { giveToken, takeToken, tokenOf } from './gate.ts';
import { waitSentence, WRONG, type Guesses } from './guesses.ts';
import { doorPage } from './signInPage.ts';

const FORM_BYTES = 4000;

/** Where one goes who signed in: a page of this server, and none of another. */
function targetOf(to: unknown): string {
  return typeof to === 'string' &&
    to.length <= 300 &&
    /^\/(?![/\\])[\x21-\x7e]*$/.test(to) &&
    !to.startsWith('/sign-in')
    ? to
    : '/';
}

/** What a browser says it is, as a name to begin with. */
function usualName(request: Request): string {
  const agent = request.headers['user-agent'] ?? '';
  if (/iPad|Tablet/.test(agent)) return 'Tablet';
  return /Mobile|Android|iPhone/.test(agent) ? 'Phone' : 'Computer';
}

/** Signing in with the passphrase, coming with a code, and signing out. Guesses are looked at one after the other, and ever more slowly. */
export function signInRoutes(db: Knex, guesses: Guesses): Router {
  const router = Router();
  const form = express.urlencoded({ extended: false, limit: FORM_BYTES, parameterLimit: 10 });
  const page = (request: Request, response: Response, status: number, problem: string | null, device: string) => {
    const to = targetOf(request.query.to);
    response
      .status(status)
      .set('Cache-Control', 'no-store')
      .type('html')
      .send(
        doorPage({
          title: 'Sign in',
          text: 'This shop asks for its passphrase once on every device.',
          problem,
          action: `/sign-in?to=${encodeURIComponent(to)}`,
          fields: [
            { name: 'passphrase', label: 'Passphrase', type: 'password', value: '', complete: 'current-password' },
            { name: 'device', label: 'This device is called', type: 'text', value: device, complete: 'off' },
          ],
          button: 'Sign in',
        }),
      );
  };
  router.get('/sign-in', (request, response) => page(request, response, 200, null, usualName(request)));

  router.post('/sign-in', form, async (request, response) => {
    const body = (request.body ?? {}) as { device?: unknown };
    const read = signInSchema.safeParse(body);
    const device = typeof body.device === 'string' ? body.device.slice(0, 40) : usualName(request);
    if (!read.success) {
      page(request, response, 400, fieldProblems(read.error)[0]?.message ?? 'That cannot be read.', device);
      return;
    }
    const token = tokenOf(request);
    const known = token === null ? null : await deviceOf(db, token);
    const guesser = known ? { device: known.id } : { address: addressOf(request) };
    const guessed = await guesses.tried(guesser, read.data.passphrase);
    if (typeof guessed === 'number') {
      response.set('Retry-After', String(guessed));
      page(request, response, 429, waitSentence(guessed), device);
    } else if (guessed === 'wrong') page(request, response, 401, WRONG, device);
    else {
      const fresh = await addDevice(db, { name: read.data.device, person: null, may: 'work' }, true);
      await letIn(request, response, fresh, targetOf(request.query.to));
    }
  });

  const joinPage = async (request: Request, response: Response, problem: string | null, device: string) => {
    const code = String(request.params.code);
    // Nobody guesses a code of 256 bits: coming with a wrong one is no try at the passphrase, and another site's pictures could do it.
    const invited = await isInvited(db, code);
    response
      .status(problem ? 400 : invited ? 200 : 404)
      .set('Cache-Control', 'no-store')
      .type('html')
      .send(
        doorPage({
          title: invited ? 'Use Cadenza on this device' : 'This code is not good any more',
          text: invited
            ? 'It is known here from then on, until somebody ends it in the shop.'
            : 'A code lets one device in, within ten minutes. Ask for another one, or sign in with the passphrase at /sign-in.',
          problem,
          action: invited ? `/join/${encodeURIComponent(code)}` : null,
          fields: [{ name: 'device', label: 'This device is called', type: 'text', value: device, complete: 'off' }],
          button: 'Use it here',
        }),
      );
  };
  router.get('/join/:code', (request, response) => joinPage(request, response, null, usualName(request)));
  router.post('/join/:code', form, async (request, response) => {
    const read = joinSchema.safeParse(request.body ?? {});
    if (!read.success) {
      await joinPage(request, response, fieldProblems(read.error)[0]?.message ?? 'That cannot be read.', '');
      return;
    }
    const token = await inTransaction(db, (tx) => acceptInvitation(tx, String(request.params.code), read.data.device));
    if (token === null) await joinPage(request, response, null, read.data.device);
    else await letIn(request, response, token, '/');
  });

  router.post('/sign-out', async (request, response) => {
    const token = tokenOf(request);
    const device = token === null ? null : await deviceOf(db, token);
    if (device) {
      await endDevice(db, device.id);
      await noteChange(db, ['devices'], null, null);
    }
    takeToken(request, response);
    response.redirect(303, '/sign-in');
  });

  async function letIn(request: Request, response: Response, token: string, to: string): Promise<void> {
    // Whoever was known before under another secret is not known twice.
    const before = tokenOf(request);
    const known = before === null ? null : await deviceOf(db, before);
    if (known) await endDevice(db, known.id);
    await noteChange(db, ['devices'], null, null);
    giveToken(request, response, token);
    response.redirect(303, to);
  }
  return router;
}
