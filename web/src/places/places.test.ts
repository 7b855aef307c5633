import { DEFAULT_DISPLAY } from '#core/units/formatLength.ts';
import { describe, expect, it } from 'vitest';
import type { Section } from '#core/cutting/sections.ts';
import { heldIndices, inHandIndex, pickUp, type Hand } from './layout/hand.ts';
import { offeredWidths, shelfSections } from './layout/offers.ts';
import { marksOf, nextMark } from '#core/stock/marks.ts';
import { AS_IT_LIES } from '#core/board/recipe.ts';

const section = (change: Partial<Section>): Section => ({
  pieceId: 'p',
  mark: 'P',
  species: 'pear',
  rings: 'flat',
  width: 30,
  count: 2,
  resawn: false,
  tooThinBy: 0,
  ...change,
});

describe('the shelf', () => {
  it('puts equal sections of several pieces together, those thick enough first, widest first', () => {
    const shelf = shelfSections(
      [
        section({ mark: 'P1' }),
        section({ mark: 'P2', count: 3 }),
        section({ width: 50, tooThinBy: 2 }),
        section({ width: 20 }),
        section({ species: 'beech-european', width: 10 }),
      ],
      DEFAULT_DISPLAY,
    );
    expect(shelf.map((s) => [s.species, s.width, s.count, s.pieces.map((p) => p.mark).join()])).toEqual([
      ['beech-european', 10, 2, 'P'],
      ['pear', 30, 5, 'P1,P2'],
      ['pear', 20, 2, 'P'],
      ['pear', 50, 2, 'P'],
    ]);
  });

  it('offers each width of a species once, narrowest first', () => {
    expect(
      offeredWidths(
        [section({}), section({}), section({ width: 12 }), section({ species: 'birch-european', width: 99 })],
        'pear',
        DEFAULT_DISPLAY,
      ),
    ).toEqual([
      { width: 12, resawn: false },
      { width: 30, resawn: false },
    ]);
  });
});

it('on a rule of inches the shelf gives widths on its lines, never wider than the piece', () => {
  const inch = { ...DEFAULT_DISPLAY, system: 'inch' } as const;
  const widths = offeredWidths([section({ width: 30 }), section({ width: 0.3 })], 'pear', inch).map((o) => o.width);
  // 30 mm is 1 3/16 and a hair less than 1/32 in; what is thinner than the first line stays what it is.
  expect(widths).toEqual([0.3, 29.36875]);
});

it('strips are picked up alone, one more, or all between, and laid down again', () => {
  const strips = ['a', 'b', 'c', 'd'].map((id) => ({ id }));
  const picked = (hand: Hand, index: number, how: 'only' | 'also' | 'through') => pickUp(strips, hand, index, how);
  const one = picked({ strip: null, also: [] }, 1, 'only');
  expect(heldIndices(strips, one)).toEqual([1]);
  const three = picked(one, 3, 'through');
  expect([heldIndices(strips, three), three.strip]).toEqual([[1, 2, 3], 'd']);
  const two = picked(three, 3, 'also');
  expect([heldIndices(strips, two), inHandIndex(strips, two.strip)]).toEqual([[1, 2], 1]);
  expect(heldIndices(strips, picked(two, 0, 'also'))).toEqual([0, 1, 2]);
  expect(picked(two, 9, 'only')).toBe(two);
});

it('the strip in hand is the chosen one, else the first', () => {
  const strips = ['a', 'b'].map((id) => ({ id, species: 'pear', width: 10, ...AS_IT_LIES }));
  expect([
    inHandIndex(strips, 'b'),
    inHandIndex(strips, 'gone'),
    inHandIndex(strips, null),
    inHandIndex([], 'b'),
  ]).toEqual([1, 0, 0, -1]);
});

it.each([
  ['B3', ['B3', 'b4'], 'B5'],
  ['B3', [], 'B3'],
  ['slat', ['slat1'], 'slat2'],
  ['N1', ['N1', 'N2', 'N3'], 'N4'],
  ['', ['1'], '2'],
])('the next mark like %j beside %j is %s', (like, marks, next) => {
  expect(nextMark(like, marksOf(marks.map((mark) => ({ piece: { mark } }))))).toBe(next);
});
