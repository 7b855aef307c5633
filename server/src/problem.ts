import type { ErrorRequestHandler } from 'express';
import type { FieldProblem } from '#core/format/fieldProblems.ts';
import { fieldProblems } from '#core/format/fieldProblems.ts';
import { z } from 'zod';

/** The media type of RFC 9457. */
export const PROBLEM_TYPE = 'application/problem+json';

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

/** Codes with which the database driver says that it cannot be reached or went away. */
const UNREACHABLE = new Set([
  'ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'ENOTFOUND', 'ENOENT', 'PROTOCOL_CONNECTION_LOST', 'ER_SERVER_SHUTDOWN',
  'ER_CONNECTION_KILLED', 'ER_QUERY_INTERRUPTED', 'ECONNABORTED',
]);

/** Whether an error means that the database is gone, rather than that the request is wrong. */
export function isDatabaseGone(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const { code, name } = error as Error & { code?: string };
  return (code !== undefined && UNREACHABLE.has(code)) || name === 'KnexTimeoutError' || /closed state|Connection lost/.test(error.message);
}

/** Turns every error into a problem answer. Nothing of the inside (stack, SQL) leaves the server. */
export const answerProblem: ErrorRequestHandler = (error, request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const problem = problemOf(error);
  if (problem.status >= 500 && problem.code === 'internal') console.error(`${request.method} ${request.path}:`, error);
  response.status(problem.status).type(PROBLEM_TYPE).json({
    type: 'about:blank', title: problem.sentence, status: problem.status, code: problem.code, detail: problem.sentence,
    fields: problem.fields, ...problem.extra,
  });
};

function problemOf(error: unknown): Problem {
  if (error instanceof Problem) return error;
  const { type, status } = (error ?? {}) as { type?: string; status?: number };
  if (type === 'entity.too.large') return new Problem(413, 'too-large', 'The body is larger than 10 MB.');
  if (type === 'entity.parse.failed') return new Problem(400, 'not-json', 'The body is not complete JSON.');
  if (status === 404) return notFound('This address');
  if (status === 400 || status === 415) return new Problem(status, 'bad-request', 'The request cannot be read.');
  if (isDatabaseGone(error)) return new Problem(503, 'database-gone', 'The database cannot be reached right now. Nothing was changed; try again shortly.');
  return new Problem(500, 'internal', 'Something went wrong in the server. Nothing was changed.');
}
