import fc from 'fast-check';
import { expect, it } from 'vitest';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { earlyBy, lateBy, runDue, runDueSchema, runEvents } from './glueRun.ts';
import { usableGlueMinutes } from './glueUps.ts';

it('everything is due in order, in any room', () => {
  fc.assert(
    fc.property(fc.integer({ min: -5, max: 40 }), fc.integer({ min: 20, max: 600 }), (temperature, waitMinutes) => {
      const shop = { ...DEFAULT_SHOP, room: { temperature, humidity: 50 } };
      const due = runDue({ layingMinutes: waitMinutes / 50, waitMinutes }, usableGlueMinutes(shop), shop);
      expect(runDueSchema.safeParse(due).success).toBe(true);
      expect(due.firstClamp).toBeLessThanOrEqual(due.lastClamp);
      // Never past the time the glue stays open, whatever is laid.
      expect(due.firstClamp).toBeLessThanOrEqual(usableGlueMinutes(shop).skins);
      expect(due.lastClamp).toBeLessThan(due.outOfClamps);
      expect(due.scrapeFrom).toBeLessThan(due.scrapeTo);
    }),
  );
});

it('nothing is late and early at once; at 20 °C joints have 3.5 of 5 minutes to be closed, the last clamp 7 of 10, scraping 30 to 45 (common practice)', () => {
  const due = runDue({ layingMinutes: 3, waitMinutes: 120 }, usableGlueMinutes(DEFAULT_SHOP), DEFAULT_SHOP);
  expect(due).toEqual({
    firstClamp: 3.5,
    lastClamp: 7,
    scrapeFrom: 30,
    scrapeTo: 45,
    outOfClamps: 127,
    fullStrength: 1440,
  });
  expect([
    lateBy('lastClamp', 9, due),
    earlyBy('scraped', 10, due),
    lateBy('scraped', 50, due),
    earlyBy('outOfClamps', 100, due),
    lateBy('outOfClamps', 9999, due),
  ]).toEqual([2, 20, 5, 27, 0]);
  for (const event of runEvents)
    for (const at of [0, 6, 30, 127, 2000]) expect(Math.min(lateBy(event, at, due), earlyBy(event, at, due))).toBe(0);
});
