import { expect, it } from 'vitest';
import { flatRecipe } from '../board/recipe.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { standingOf } from './standing.ts';

const told = (input: Parameters<typeof standingOf>[0]) => {
  const { state, next, station, size } = standingOf(input);
  return [state, phraseText(next, DEFAULT_DISPLAY), station, size && Math.round(size.width * 10) / 10];
};

it('tells how far a board has come, from nothing to cut, and what comes next', () => {
  const shop = { ...DEFAULT_SHOP, planer: { ...DEFAULT_SHOP.planer!, width: 400 } };
  const board = plainBoard({ width: 270 });
  const rack = [plainPiece({ length: 4000 })];
  const input = planInput(board, rack, shop);
  const { cutting } = makePlan(input);
  const saw = { key: '', promised: [], chosen: { ...cutting, method: 'kept' as const }, done: [] };
  const done = cutting.blanks.map((blank) => ({ piece: rack[0]!, blank: { ...blank, done: true } }));
  expect(told(planInput({ ...board, recipe: flatRecipe([]) }, rack, shop))).toEqual([
    'empty',
    'Lay out strips',
    'layout',
    null,
  ]);
  expect(told(planInput(board, [], shop))).toMatchObject([
    'stopped',
    expect.stringContaining('6 strips missing'),
    'cuts',
    270,
  ]);
  expect(told(planInput({ ...board, width: 300 }, rack, shop))).toMatchObject([
    'stopped',
    expect.stringContaining('mm'),
    'layout',
    270,
  ]);
  expect(told(input)).toEqual(['planned', 'Keep the cut plan, so that its wood is promised', 'cuts', 270]);
  expect(told({ ...input, saw })).toEqual(['promised', 'Crosscut the blanks', 'mill', 270]);
  expect(told({ ...input, rack: [], saw: { ...saw, chosen: null, done } })).toMatchObject([
    'cut',
    expect.stringMatching(/^(Plane|Joint|Bring|Lay out)/),
    expect.any(String),
    270,
  ]);
});
