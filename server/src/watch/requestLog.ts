import { nanoid } from 'nanoid';
import type { RequestHandler, Response } from 'express';
import { pino, type DestinationStream, type Logger } from 'pino';
import { askerOf } from '../auth/gate.ts';
import type { Metrics } from './metrics.ts';

export const LOG_LEVELS = ['silent', 'error', 'warn', 'info'] as const;
export type LogLevel = (typeof LOG_LEVELS)[number];

/** A log of one JSON object a line. @param destination where it goes; standard error when not given */
export function makeLog(level: LogLevel, destination: DestinationStream = pino.destination(2)): Logger {
  return pino({ level, base: null, timestamp: pino.stdTimeFunctions.isoTime }, destination);
}

/** What was asked for, by the name of its operation: addresses may hold secrets, names never do. */
export function nameAsked(response: Response, name: string): void {
  response.locals.asked = name;
}

/** So many letters and digits of a name given by a proxy are taken over. */
const GIVEN_ID = /^[\w-]{8,64}$/;

/** Gives every request an id, which its answer carries, and writes down how it ended: bodies, queries, cookies and secrets of addresses stay out. */
export function requestLog(log: Logger, metrics: Metrics): RequestHandler {
  return (request, response, next) => {
    const given = request.headers['x-request-id'];
    const id = typeof given === 'string' && GIVEN_ID.test(given) ? given : nanoid(12);
    response.set('X-Request-Id', id);
    const began = performance.now();
    response.on('close', () => {
      const { asked = `${request.method.toLowerCase()} page` } = response.locals as { asked?: string };
      const status = response.writableFinished ? response.statusCode : 499;
      const seconds = (performance.now() - began) / 1000;
      // A stream that ends was open for as long as its page was looked at.
      if (asked !== STREAM) metrics.answered(asked, status, seconds);
      log[status >= 500 ? 'warn' : 'info'](
        { id, asked, status, ms: Math.round(seconds * 1000), device: askerOf(response).device?.id ?? null },
        'answered',
      );
    });
    next();
  };
}

export const STREAM = 'get /live';
