/** Differences below this are the way there and back, and the second that a header is exact to, ms. */
const NO_DIFFERENCE_MS = 5000;
const KEY = 'cadenza-clock';

/** By how much the server's clock is ahead of this device's, ms; null while nobody looked for it in the storage. */
let ahead: number | null = null;

/** By how much the server's clock is ahead of this device's, ms: as it was when the two last met. */
function clockAhead(): number {
  if (ahead !== null) return ahead;
  try {
    ahead = Number(localStorage.getItem(KEY)) || 0;
  } catch {
    ahead = 0;
  }
  return ahead;
}

/** Learns from an answer of the server what time it is there. @param date its `Date` header; null for none */
export function learnServerTime(date: string | null): void {
  const there = date === null ? NaN : Date.parse(date);
  if (Number.isNaN(there)) return;
  const difference = there - Date.now();
  const now = Math.abs(difference) < NO_DIFFERENCE_MS ? 0 : difference;
  // A header tells whole seconds: what hardly changed has not.
  if (Math.abs(now - clockAhead()) < NO_DIFFERENCE_MS && (now === 0) === (clockAhead() === 0)) return;
  ahead = now;
  try {
    localStorage.setItem(KEY, String(now));
  } catch {
    // A storage that is forbidden: it is learned anew with every page.
  }
}

/** The time by the shop's clock, ms since 1970: that of the server, so that a device whose clock is wrong does not end a wait too early. */
export const shopNow = (): number => Date.now() + clockAhead();
