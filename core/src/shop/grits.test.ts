import { expect, it } from 'vitest';
import { GRAIN_MICRONS, gritRun } from './grits.ts';

it('grits step by about half of the grain at most, and begin and end as asked (FEPA sizes)', () => {
  expect(gritRun(80, 220)).toEqual([80, 150, 220]);
  for (const first of [40, 80, 120]) {
    for (const last of [150, 220, 320, 400, 600]) {
      const run = gritRun(first, last);
      expect([run[0], run.at(-1)]).toEqual([first, last]);
      run.slice(1).forEach((g, i) => expect(GRAIN_MICRONS[run[i]!]! / GRAIN_MICRONS[g]!).toBeLessThanOrEqual(2.05));
    }
  }
});
