import { useSyncExternalStore } from 'react';

const LOOK_MS = 10_000;

/** Time is looked at now and then, when a page is come back to, and before it is printed. */
function whenLookedAt(look: () => void): () => void {
  const tick = setInterval(look, LOOK_MS);
  document.addEventListener('visibilitychange', look);
  window.addEventListener('beforeprint', look);
  return () => {
    clearInterval(tick);
    document.removeEventListener('visibilitychange', look);
    window.removeEventListener('beforeprint', look);
  };
}

const minuteNow = () => Math.floor(Date.now() / 60_000) * 60_000;
const dayNow = () => new Date().setHours(12, 0, 0, 0);

/** The minute it is, ms since 1970; what shows it goes on with it. */
export const useMinute = (): number => useSyncExternalStore(whenLookedAt, minuteNow);

/** Noon of the day it is here; a page that is left open over night is of the new day. */
export const useDay = (): Date => new Date(useSyncExternalStore(whenLookedAt, dayNow));
