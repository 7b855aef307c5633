import { ipKeyGenerator, rateLimit, type Options } from 'express-rate-limit';
import type { RequestHandler } from 'express';
import { addressOf } from '../guard.ts';
import { Problem } from '../problem.ts';
import { askerOf } from './gate.ts';

const WINDOW_MS = 10_000;
/** A page that is worked at asks some ten times a second for a moment; nobody works so fast for long. */
const MOST_OF_A_DEVICE = 600;
/** Refusals of one address, with what is under way from it. */
const MOST_OF_STRANGERS = 1000;

const limited = (options: Partial<Options>): RequestHandler =>
  rateLimit({
    windowMs: WINDOW_MS,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    // For whom a proxy may ask is said with the server's own list of them.
    validate: { trustProxy: false, xForwardedForHeader: false },
    handler: (_request, _response, next) => {
      next(
        new Problem(429, 'too-often', 'More is asked for than anybody can look at. Wait ten seconds; nothing is lost.'),
      );
    },
    ...options,
  });

/** Requests of one known device in ten seconds. */
export const deviceLimit = (most = MOST_OF_A_DEVICE): RequestHandler =>
  limited({
    limit: most,
    keyGenerator: (_request, response) => askerOf(response).device?.id ?? '',
  });

/** Requests in ten seconds of one address from which nobody is known: they cost a look into the database each. */
export const strangerLimit = (most = MOST_OF_STRANGERS): RequestHandler =>
  limited({
    limit: most,
    keyGenerator: (request) => ipKeyGenerator(addressOf(request)),
    skipSuccessfulRequests: true,
    requestWasSuccessful: (_request, response) => ![303, 401, 404, 429].includes(response.statusCode),
  });
