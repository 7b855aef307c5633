import { expect, it } from 'vitest';
import { batchOptions } from './batchOptions.ts';
import { furthest } from './furthest.ts';
import { makePlan } from './plan.ts';
import { plainBoard, plainPiece, planInput } from './planArbitrary.ts';
import { orderChoices } from './orderChoices.ts';

it('a batch loses creep, snipe and trims once a panel (by hand: 29 mm each), and a panel nobody can hold alone is not recommended', () => {
  const input = planInput(plainBoard({ count: 6 }), [plainPiece({ length: 6000, count: 10 })]);
  const options = batchOptions(input);
  expect(options.map((o) => [o.perPanel, o.panels])).toEqual([
    [1, 6],
    [2, 3],
    [3, 2],
    [6, 1],
  ]);
  expect(options.map((o) => o.lostLength)).toEqual([6 * 29, 3 * (29 + 3), 2 * (29 + 6), 29 + 15]);
  expect(options.map((o) => o.alone)).toEqual([true, true, true, false]);
  // Three to a panel make joints of 1235 mm: fewer strips close in time, and more glue-ups undo what fewer panels save.
  expect(options.find((o) => o.recommended)!.perPanel).toBe(2);
  expect(options[2]!.glueUps).toBeGreaterThanOrEqual(options[1]!.glueUps);
  // Stock of 900 mm gives two boards to a panel at most.
  const short = batchOptions({ ...input, rack: [plainPiece({ length: 900, count: 60 })] });
  expect(short.find((o) => o.recommended)!.perPanel).toBe(2);
  expect(short.find((o) => o.perPanel === 3)!.missing).toBeGreaterThan(0);
});

it('the thickest board is where the rip still fits the stock: 150 less 2 of jointing is 148, less 2 is 146', () => {
  const input = planInput(plainBoard({}, [46]), [plainPiece({ length: 500 })]);
  expect(furthest(input, 'thickness')).toBe(146);
  // 500 long less 2 x 10 of ends is 480, less 29 is 451: in steps of 5.
  expect(furthest(input, 'length')).toBe(450);
  expect(furthest({ ...input, rack: [] }, 'length')).toBe(0);
});

it('the order of milling is shown against the others: a bow of 14 mm over 2440 costs 0.4 mm in a part of 429 (by hand)', () => {
  const bowed = plainPiece({ length: 2440, form: { bow: 14, cup: 0, crook: 0, twist: 0 } });
  const input = planInput(plainBoard(), [bowed]);
  const [choice] = orderChoices(makePlan(input), input);
  const loss = (order: string) => choice!.outcomes.find((o) => o.order === order)!.loss.form;
  expect(loss('crosscutFirst')).toBeCloseTo(14 * (429 / 2440) ** 2, 9);
  expect(loss('fullLength')).toBeCloseTo(14, 9);
  expect(choice!.taken).toBe('crosscutFirst');
});
