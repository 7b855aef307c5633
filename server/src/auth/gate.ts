import { parse } from 'cookie';
import type { Request, RequestHandler, Response } from 'express';
import type { Knex } from 'knex';
import type { Right } from '#contract/devices.ts';
import { Problem } from '../problem.ts';
import { deviceOf, type LetIn } from '../stores/deviceStore.ts';

/** Who asks: a known device, or anybody where nobody is asked. */
export interface Asker {
  device: LetIn | null;
  may: Right;
}

/** Where nobody is asked, everybody who reaches the server works. */
const ANYBODY: Asker = { device: null, may: 'work' };

/** A device stays known for so long in its browser, days; the server forgets it sooner when it is not used. */
const COOKIE_DAYS = 180;
const DAY_MS = 86_400_000;

/** With TLS nobody between can have set it, and no other name's page. */
const cookieName = (request: Request): string => (request.secure ? '__Host-cadenza' : 'cadenza');

/** The secret a device is known by; null for one that has none. */
export function tokenOf(request: Request): string | null {
  return parse(request.headers.cookie ?? '')[cookieName(request)] ?? null;
}

/** Gives a device its secret, which no script can read and no other site can use. */
export function giveToken(request: Request, response: Response, token: string): void {
  response.cookie(cookieName(request), token, {
    httpOnly: true,
    secure: request.secure,
    sameSite: 'lax',
    path: '/',
    maxAge: COOKIE_DAYS * DAY_MS,
  });
}

export function takeToken(request: Request, response: Response): void {
  response.clearCookie(cookieName(request), { httpOnly: true, secure: request.secure, sameSite: 'lax', path: '/' });
}

export const askerOf = (response: Response): Asker => (response.locals as { asker?: Asker }).asker ?? ANYBODY;

/** These say who asks by themselves: a calendar has a secret in its address, a watchman need only know whether the server lives. */
const OPEN = [/^\/api\/calendar\/[^/]+$/, /^\/api\/health(\/(live|ready))?$/];

/** Lets in devices that are known. A page that is opened leads to where one signs in; anything else is refused. Where nobody but this machine can come it stands open. */
export function gate(db: Knex): RequestHandler {
  return async (request, response, next) => {
    const token = tokenOf(request);
    const device = token === null ? null : await deviceOf(db, token);
    if (device) {
      response.locals.asker = { device, may: device.may } satisfies Asker;
      next();
      return;
    }
    if (request.method === 'GET' && OPEN.some((path) => path.test(request.path))) {
      next();
      return;
    }
    if (request.method === 'GET' && !request.path.startsWith('/api/') && request.accepts(['json', 'html']) === 'html') {
      response
        .set('Cache-Control', 'no-store')
        .redirect(303, `/sign-in?to=${encodeURIComponent(request.originalUrl.slice(0, 300))}`);
      return;
    }
    throw new Problem(401, 'sign-in', 'This device is not known here, or no longer. Sign in first.');
  };
}

/** The passphrase said on a device is good for so long, ms. */
const CONFIRMED_MS = 600_000;

/** Whether the passphrase was said on the device just now; where nobody is asked, nobody need say it. */
export const isConfirmed = ({ device }: Asker): boolean =>
  device === null || (device.confirmedAt !== null && Date.now() - device.confirmedAt.getTime() < CONFIRMED_MS);

/** @throws Problem 403 on a device on which the passphrase was not said for a while: others may have it in their hands */
export function mustBeConfirmed(confirmed: boolean): void {
  if (!confirmed) throw new Problem(403, 'confirm', 'Say the passphrase once more: this decides on more than work.');
}

/** @throws Problem 403 for a device that may only look */
export function mayWork({ may }: Asker): void {
  if (may !== 'work')
    throw new Problem(
      403,
      'look-only',
      'This device may look and change nothing. Whoever may work can change that in the shop, at Devices.',
    );
}
