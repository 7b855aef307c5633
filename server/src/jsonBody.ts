import express, { type RequestHandler } from 'express';
import { Problem } from './problem.ts';

const LIMIT_BYTES = 10_000_000;

/** Reads the body of a write as bytes: what is large is made JSON of in another thread. Every write says that it is JSON, also one with nothing to say. */
export function jsonBytes(): RequestHandler[] {
  return [
    (request, _response, next) => {
      if (!/^application\/json\s*(;|$)/i.test(request.headers['content-type'] ?? '')) {
        throw new Problem(415, 'not-json', 'A change is sent as JSON: set Content-Type to application/json.');
      }
      next();
    },
    express.raw({ limit: LIMIT_BYTES, type: () => true }),
  ];
}

/** Half of a surrogate pair, written out, is the only way such a thing can come in: the bytes themselves must be UTF-8. */
const WRITTEN_SURROGATE = /\\u[dD][89a-fA-F]/;

/**
 * @returns undefined for no bytes at all
 * @throws Problem 400 for what is no JSON, or holds half a character
 */
export function readJson(bytes: Uint8Array): unknown {
  if (bytes.byteLength === 0) return undefined;
  let value: unknown;
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    value = JSON.parse(text);
  } catch {
    throw new Problem(400, 'not-json', 'The body is not complete JSON.');
  }
  if (WRITTEN_SURROGATE.test(text)) refuseHalfCharacters(value);
  return value;
}

function refuseHalfCharacters(value: unknown): void {
  const open: { at: string; value: unknown }[] = [{ at: '', value }];
  for (let next = open.pop(); next; next = open.pop()) {
    const { at, value: here } = next;
    if (typeof here === 'string' && !here.isWellFormed()) {
      const message = `${at === '' ? 'The text' : `The text in ${at}`} holds half of a character, which cannot be stored.`;
      throw new Problem(400, 'invalid', message, [{ path: at, message }]);
    }
    if (Array.isArray(here)) here.forEach((entry, i) => open.push({ at: `${at}[${i}]`, value: entry }));
    else if (typeof here === 'object' && here !== null) {
      for (const [key, entry] of Object.entries(here)) {
        if (!key.isWellFormed()) throw new Problem(400, 'invalid', 'The name of a field holds half of a character.');
        open.push({ at: at === '' ? key : `${at}.${key}`, value: entry });
      }
    }
  }
}
