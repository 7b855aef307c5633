import { certain } from '#core/lists/there.ts';
import type { StripBody } from '#core/bodies/stripBody.ts';

/** More bodies than any board has strips, several times over. */
const MOST_KEPT = 1500;
const KEPT = new Map<string, StripBody>();

/**
 * The same body as the last time when nothing about it has changed. A plan is made anew with every move of the hands; what is drawn of a strip that did not
 * change must not be drawn again.
 */
export function steadyBody(body: StripBody, stripId: string): StripBody {
  const key = [
    stripId,
    body.piece?.id,
    body.unit,
    body.shows,
    body.origin,
    body.along,
    body.across,
    body.up,
    body.size,
  ].join('|');
  const kept = KEPT.get(key);
  if (kept && kept.piece === body.piece) return kept;
  if (KEPT.size >= MOST_KEPT) KEPT.delete(certain(KEPT.keys().next().value));
  KEPT.set(key, body);
  return body;
}
