/** Answers of the server, as they were when it was heard last. */
export const KEPT_ANSWERS = 'cadenza-answers';
/** The header of a kept answer: when it was told, ms since 1970. */
export const KEPT_AT = 'cadenza-kept-at';
/** What a page says to a newer service worker that waits. */
export const TAKE_OVER = 'take over';

/** Nothing of the shop stays on this device. */
export async function forgetAnswers(): Promise<void> {
  if ('caches' in window) await caches.delete(KEPT_ANSWERS);
}
