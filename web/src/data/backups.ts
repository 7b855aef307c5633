import type { Copies, CopiesChange, Inside } from '#contract/backup.ts';
import { answerOf, ApiProblem } from './api.ts';

/** A large backup on a slow network takes its time, ms. */
const LONGEST_MS = 600_000;

/** Where a browser gets everything that is stored, as one file. */
export const ALL_OF_IT = '/api/backups/all';

/** Asked once: what restores is never sent again by itself. */
async function ask<T>(method: string, path: string, body: unknown = {}, stop?: AbortSignal): Promise<T> {
  const file = body instanceof Blob;
  let response: Response;
  try {
    response = await fetch(`/api/backups${path}`, {
      method,
      signal: stop ? AbortSignal.any([stop, AbortSignal.timeout(LONGEST_MS)]) : AbortSignal.timeout(LONGEST_MS),
      ...(method === 'GET'
        ? {}
        : {
            body: file ? body : JSON.stringify(body),
            headers: { 'Content-Type': file ? 'application/sql' : 'application/json' },
          }),
    });
  } catch {
    if (stop?.aborted)
      throw new ApiProblem(0, 'cancelled', 'Nothing was read, and nothing was changed.', [], undefined);
    throw new ApiProblem(0, 'unreachable', 'The server cannot be reached.', [], undefined);
  }
  return answerOf<T>(response);
}

/** Copies of all that is stored, and what becomes of one. */
export const backups = {
  copies: () => ask<Copies>('GET', ''),
  change: (change: CopiesChange) => ask<Copies>('PUT', '', change),
  copyNow: () => ask<Copies>('POST', '/now'),
  /** Whether all of it may be taken out from here just now. @throws ApiProblem `confirm` where the passphrase must be said first */
  mayTakeOut: () => ask<undefined>('POST', '/all/ready'),
  look: (file: File, stop: AbortSignal) => ask<Inside>('POST', '/look', file, stop),
  lookAtCopy: (name: string, stop: AbortSignal) => ask<Inside>('POST', `/copies/${name}/look`, {}, stop),
  restore: (token: string) => ask<Copies>('POST', '/restore', { token }),
  bringIn: (token: string) => ask<Copies>('POST', '/bring-in', { token }),
  back: () => ask<Copies>('POST', '/back'),
};

export const copiesQuery = {
  queryKey: ['copies'],
  queryFn: backups.copies,
  // Told live; only time itself makes a copy old.
  staleTime: 600_000,
} as const;
