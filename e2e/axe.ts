import { expect, type Page } from '@playwright/test';
import axe, { type AxeResults, type RunOptions } from 'axe-core';

/** Where axe is in a page that it was loaded into. */
interface WithAxe {
  axe?: { run(context: Document, options: RunOptions): Promise<AxeResults> };
}

/**
 * Lets axe look at the page. It is loaded once into each, and only what is wrong comes back: going through the usual builder takes half as long again.
 * @param what it is, in what a failure says
 * @param rules only these, where the others were gone through before
 */
export async function nothingFound(page: Page, what: string, rules?: string[]): Promise<void> {
  if (!(await page.evaluate(() => 'axe' in globalThis))) await page.evaluate(axe.source);
  const options: RunOptions = { resultTypes: ['violations'], preload: false, ...(rules && { runOnly: rules }) };
  const look = () =>
    page.evaluate(async (wanted) => {
      // What fades over to other colours has them at once; what goes round for ever stays as it is.
      for (const animation of document.getAnimations())
        if (Number.isFinite(animation.effect?.getComputedTiming().endTime)) animation.finish();
      const { violations } = await (globalThis as WithAxe).axe!.run(document, wanted);
      return violations.map(({ id, nodes }) => [id, ...nodes.slice(0, 3).map((n) => n.target.join(' '))].join(' | '));
    }, options);
  // Pages hear of what tests beside them do, also while axe looks: what is wrong is wrong a moment later too.
  await expect.poll(look, { message: what, intervals: [500, 2000], timeout: 20_000 }).toEqual([]);
}
