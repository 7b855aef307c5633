import fc from 'fast-check';
import { expect, it } from 'vitest';
import { runDue } from '../gluing/glueRun.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { USUAL_GLUES } from '../shop/gluing.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { ofKind } from './instruction.ts';

it('sheet and clock agree, with every glue, from 5 to 35 °C: when all is pressed, when glue is scraped, when the clamps come off', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 5, max: 35 }),
      fc.constantFrom(...USUAL_GLUES.map((g) => g.id)),
      fc.integer({ min: 2, max: 14 }),
      (temperature, glue, strips) => {
        const shop = {
          ...DEFAULT_SHOP,
          glues: [...USUAL_GLUES],
          glue,
          room: { ...DEFAULT_SHOP.room, temperature },
          schools: { ...DEFAULT_SHOP.schools, squeezeOut: 'scrape' as const },
        };
        const board = plainBoard({ width: 20 * strips - 6 }, Array<number>(strips).fill(20));
        const { gluing, operations } = makePlan(planInput(board, [plainPiece({ length: 9000 })], shop));
        const usable = { open: gluing.openMinutes, closed: gluing.usableMinutes, skins: gluing.skinMinutes };
        for (const planned of gluing.glueUps) {
          const due = runDue(planned, usable, shop);
          const step = operations.find((o) => o.glueUp === planned.id)!;
          const [told] = ofKind(step.instructions, 'glue');
          const [scraped] = ofKind(step.instructions, 'scrape');
          expect([told!.usableMinutes, scraped!.from, scraped!.to]).toEqual([
            due.lastClamp,
            due.scrapeFrom,
            due.scrapeTo,
          ]);
          expect(told!.usableMinutes + step.waitMinutes!).toBeCloseTo(due.outOfClamps, 9);
          const said = step.lines.map((l) => phraseText(l, DEFAULT_DISPLAY)).join(' ');
          expect(said).toContain(
            `${Math.round(due.scrapeFrom)} to ${Math.round(due.scrapeTo)} min after it was spread`,
          );
          expect(said).toContain(`of ${Math.round(due.lastClamp * 10) / 10} min`);
        }
      },
    ),
    { numRuns: 150 },
  );
});
