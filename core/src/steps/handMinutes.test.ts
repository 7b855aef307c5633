import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { makePlan } from '../plan/plan.ts';
import { handMinutes } from './handMinutes.ts';
import { panelThing, stripThing, type Instruction } from './instruction.ts';

const panels = [panelThing(1), panelThing(2)];

describe('handMinutes', () => {
  it('adds up what the instructions tell, by hand: two panels scraped hard 12, two coats on two boards 48', () => {
    expect(handMinutes([{ do: 'scrape', parts: panels, when: 'hard', from: 0, to: 0 }], 1)).toBe(12);
    expect(
      handMinutes(
        [{ do: 'coat', parts: panels, finish: 'hardWaxOil', coats: 2, minutes: 5760, grams: 40, ignites: true }],
        1,
      ),
    ).toBe(48);
  });

  it('what a machine or time does is not counted twice, and only hands go with the pace', () => {
    expect(handMinutes([{ do: 'wait', parts: [], minutes: 720, for: 'rest' }], 1)).toBe(0);
    const wipe: Instruction = { do: 'wipe', parts: [stripThing({ strip: 1, copy: 1, spare: 0 }, 1)], minutes: 5 };
    expect(handMinutes([wipe], 2) - handMinutes([wipe], 1)).toBe(2);
    expect(handMinutes([wipe], 0)).toBe(5);
  });

  it('every step of any plan takes the minutes of its instructions and of the way that is taken, and nothing else', () => {
    fc.assert(
      fc.property(workshopArbitrary, (input) => {
        const { operations, shop } = makePlan(input);
        for (const { kind, minutes, repeats, instructions, ways, machine } of operations) {
          const byHand = handMinutes(instructions, shop.pace.work);
          // Raising the grain once more with the last grit shows no ways; its sanding is the rest.
          const bySteps = ways.filter((w) => w.name === machine).map((w) => w.minutes + byHand);
          if (ways.length > 0)
            expect([kind, bySteps.some((m) => Math.abs(m / repeats - minutes) < 1e-9)]).toEqual([kind, true]);
          else if (kind !== 'raiseGrain') expect([kind, minutes]).toEqual([kind, byHand / repeats]);
          else expect(minutes).toBeGreaterThanOrEqual(byHand);
        }
      }),
      { numRuns: 200 },
    );
  });
});
