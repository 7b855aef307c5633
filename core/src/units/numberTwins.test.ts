import fc from 'fast-check';
import { expect, it } from 'vitest';
import { numberTwins } from './numberTwins.ts';

it('numbers only what stands more than once, and no two names are left alike', () => {
  expect(numberTwins(['Groove', 'Feet', 'Groove'])).toEqual(['Groove 1', 'Feet', 'Groove 2']);
  // A maker may have called a mark as a twin would be.
  expect(numberTwins(['Mark', 'Mark 1', 'Mark'])).toEqual(['Mark 2', 'Mark 1', 'Mark 3']);
  const name = fc.constantFrom('a', 'a 1', 'a 1 1', 'a 2', 'b');
  fc.assert(
    fc.property(fc.array(name, { maxLength: 8 }), (names) => {
      const told = numberTwins(names);
      expect(new Set(told).size).toBe(names.length);
      names.forEach((n, i) => expect(told[i] === n || told[i]!.startsWith(`${n} `)).toBe(true));
      names.filter((n) => names.indexOf(n) === names.lastIndexOf(n)).forEach((n) => expect(told).toContain(n));
    }),
  );
});
