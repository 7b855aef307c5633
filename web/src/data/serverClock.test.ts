import { afterEach, expect, it, vi } from 'vitest';

let page = 0;
/** What a page that is loaded knows of the clock, on a device with this storage. */
async function loaded(storage: Map<string, string> | null = new Map()) {
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => {
      if (!storage) throw new Error('forbidden');
      return storage.get(key) ?? null;
    },
    setItem: (key: string, value: string) => {
      if (!storage) throw new Error('forbidden');
      storage.set(key, value);
    },
  });
  page += 1;
  return (await import(/* @vite-ignore */ `./${'serverClock'}.ts?page=${page}`)) as typeof import('./serverClock.ts');
}
const HOUR = 3_600_000;
const there = (ahead: number) => new Date(Date.now() + ahead).toUTCString();
afterEach(() => vi.unstubAllGlobals());

it.each([HOUR, -HOUR, 90_000])(
  'on a device whose clock is off by %i ms it is as late as at the server',
  async (off) => {
    const { learnServerTime, shopNow } = await loaded();
    learnServerTime(there(-off));
    expect(Math.abs(shopNow() - (Date.now() - off))).toBeLessThan(1500);
    // Set right, it is right at once.
    learnServerTime(there(0));
    expect(Math.abs(shopNow() - Date.now())).toBeLessThan(50);
  },
);

it('what a header cannot tell is no difference, and what is no time changes nothing', async () => {
  const { learnServerTime, shopNow } = await loaded();
  for (const date of [there(-900), there(3000), null, '', 'soon']) learnServerTime(date);
  expect(Math.abs(shopNow() - Date.now())).toBeLessThan(50);
});

it('a page that opens without the server knows what the last one learned; a forbidden storage is no trouble', async () => {
  const storage = new Map<string, string>();
  (await loaded(storage)).learnServerTime(there(HOUR));
  const alone = await loaded(storage);
  expect(Math.abs(alone.shopNow() - Date.now() - HOUR)).toBeLessThan(1500);
  const forbidden = await loaded(null);
  forbidden.learnServerTime(there(HOUR));
  expect(Math.abs(forbidden.shopNow() - Date.now() - HOUR)).toBeLessThan(1500);
});
