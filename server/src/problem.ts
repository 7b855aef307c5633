import type { ErrorRequestHandler } from 'express';
import type { FieldProblem } from '#core/format/fieldProblems.ts';
import { fieldProblems } from '#core/format/fieldProblems.ts';
import type { ProblemJson } from '#contract/problem.ts';
import type { Logger } from 'pino';
import { z } from 'zod';
import { lostAgainstAnother } from './stores/transaction.ts';

/** The media type of RFC 9457. */
export const PROBLEM_TYPE = 'application/problem+json';

/** A problem as plain data: what a thread hands to another. */
export interface ProblemParts {
  status: number;
  code: string;
  sentence: string;
  fields: FieldProblem[];
  extra: Record<string, unknown>;
}

/** An answer that says what is wrong: a status, a short code, a sentence, the bad fields, and whatever helps to go on. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly sentence: string,
    readonly fields: FieldProblem[] = [],
    readonly extra: Record<string, unknown> = {},
  ) {
    super(sentence);
  }

  get parts(): ProblemParts {
    const { status, code, sentence, fields, extra } = this;
    return { status, code, sentence, fields, extra };
  }

  static from({ status, code, sentence, fields, extra }: ProblemParts): Problem {
    return new Problem(status, code, sentence, fields, extra);
  }
}

/** 400 with a sentence for each bad field. */
export function invalid(fields: FieldProblem[]): Problem {
  return new Problem(400, 'invalid', fields[0]?.message ?? 'The request is not valid.', fields);
}

export function notFound(what: string): Problem {
  return new Problem(404, 'not-found', `${what} does not exist, or no longer.`);
}

/** Checks a value against a schema. @throws Problem 400 naming each bad field */
export function validated<T>(schema: z.ZodType<T>, value: unknown): T {
  const parsed = schema.safeParse(value);
  if (!parsed.success) throw invalid(fieldProblems(parsed.error));
  return parsed.data;
}

/** Codes with which the database driver says that no connection could be made: nothing can have been stored. */
const NOT_REACHED = new Set([
  'ECONNREFUSED',
  'ENOTFOUND',
  'ENOENT',
  'EHOSTUNREACH',
  'ER_CON_COUNT_ERROR',
  'ER_HOST_IS_BLOCKED',
]);
/** Codes with which it says that a connection went away. Whether what was under way is stored, nobody here knows. */
const WENT_AWAY = new Set([
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_SEQUENCE_TIMEOUT',
  'ER_SERVER_SHUTDOWN',
  'ER_CONNECTION_KILLED',
  'ER_QUERY_INTERRUPTED',
  'ECONNABORTED',
  'ER_UNKNOWN_COM_ERROR',
]);
const DISK_FULL = new Set([
  'ER_DISK_FULL',
  'ER_DISK_FULL_NOWAIT',
  'ER_RECORD_FILE_FULL',
  'ER_ERROR_ON_WRITE',
  'ER_TEMP_FILE_WRITE_FAILURE',
  'ENOSPC',
]);

function codeOf(error: unknown): string {
  const { code } = (error ?? {}) as { code?: unknown };
  return typeof code === 'string' ? code : '';
}

/** Whether an error means that the database is gone, rather than that the request is wrong. */
export function isDatabaseGone(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  return (
    NOT_REACHED.has(codeOf(error)) || WENT_AWAY.has(codeOf(error)) || /closed state|Connection lost/.test(error.message)
  );
}

/**
 * Turns every error into a problem answer. Nothing of the inside (stack, SQL) leaves the server.
 * @param trouble why the database cannot be reached just now, as far as the server's surroundings know @param log where faults of the server's own are written down; null for standard error
 */
export function answerProblem(trouble: () => string | null, log: Logger | null): ErrorRequestHandler {
  return (error, request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const named = request.headers['idempotency-key'] !== undefined;
    const problem = problemOf(error, named || request.method === 'GET' || request.method === 'HEAD');
    if (problem.status >= 500 && problem.code === 'internal') {
      // What was asked for is named by its operation: an address may hold a secret.
      const { asked = `${request.method} page` } = response.locals as { asked?: string };
      if (log) log.error({ id: response.get('X-Request-Id'), asked, err: error as unknown }, 'failed');
      else console.error(`${asked}:`, error);
    }
    const sentence =
      problem.code === 'database-gone'
        ? [trouble(), problem.sentence].filter((s) => s !== null).join(' ')
        : problem.sentence;
    if (problem.status === 503) response.set('Retry-After', '1');
    response
      .status(problem.status)
      .type(PROBLEM_TYPE)
      .json({
        type: 'about:blank' as const,
        title: sentence,
        status: problem.status,
        code: problem.code,
        detail: sentence,
        fields: problem.fields,
        ...problem.extra,
      } satisfies ProblemJson);
  };
}

/** Sentences for refusals that Express and its parts make by a status alone. */
const REFUSALS: Readonly<Record<number, [code: string, sentence: string]>> = {
  403: ['forbidden', 'This address may not be asked for.'],
  404: ['not-found', 'This address does not exist, or no longer.'],
  405: ['not-allowed', 'This cannot be done to this address.'],
  412: ['not-as-expected', 'What is there is not what the request expected.'],
  413: ['too-large', 'The body is larger than 10 MB.'],
  415: ['not-json', 'The body is in a form that cannot be read; send JSON.'],
  416: ['no-such-range', 'There is no such part of it.'],
  431: ['too-large', 'The headers of the request are too large.'],
};

/** @param repeatable the request may be sent again without doing anything twice */
export function problemOf(error: unknown, repeatable: boolean): Problem {
  if (error instanceof Problem) return error;
  const { type, status } = (error ?? {}) as { type?: string; status?: number };
  if (type === 'entity.parse.failed') return new Problem(400, 'not-json', 'The body is not complete JSON.');
  if (typeof status === 'number' && status >= 400 && status < 500) {
    const [code, sentence] = REFUSALS[status] ?? ['bad-request', 'The request cannot be read.'];
    return new Problem(status, code, sentence);
  }
  if (DISK_FULL.has(codeOf(error)))
    return new Problem(
      507,
      'disk-full',
      'The disk of the database is full. Nothing was changed; it can be tried again once there is room.',
    );
  if (lostAgainstAnother(error))
    return new Problem(
      503,
      'busy',
      'Others are changing the same things just now. Nothing was changed; try again in a moment.',
    );
  if (error instanceof Error && error.name === 'KnexTimeoutError')
    return new Problem(503, 'busy', 'The server is busy. Nothing was changed; try again in a moment.');
  if (isDatabaseGone(error)) {
    const known = NOT_REACHED.has(codeOf(error))
      ? 'Nothing was changed; try again shortly.'
      : repeatable
        ? 'Try again shortly.'
        : 'What you sent may have been stored or not: look before you send it again.';
    return new Problem(503, 'database-gone', `The database cannot be reached right now. ${known}`);
  }
  return new Problem(500, 'internal', 'Something went wrong in the server. Nothing was changed.');
}
