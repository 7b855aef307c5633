import { expect, it } from 'vitest';
import { z } from 'zod';
import './issueWords.ts';

it.each<[z.ZodType, unknown, string]>([
  [z.number(), 'a', 'must be a number'],
  [z.number(), Number.NaN, 'must be a number'],
  [z.int(), 1.5, 'must be a whole number'],
  [z.int(), 'a', 'must be a whole number'],
  [z.string(), 1, 'must be text'],
  [z.boolean(), 'yes', 'must be true or false'],
  [z.number().min(0), -1, 'must not be negative'],
  [z.number().min(2), 1, 'must be at least 2'],
  [z.number().max(50), 51, 'must be at most 50'],
  [z.string().min(1), '', 'must not be empty'],
  [z.string().max(3), 'four', 'must be at most 3 characters'],
  [z.array(z.int()).max(2), [1, 2, 3], 'must be at most 2'],
  [z.enum(['sled', 'track']), 'axe', 'must be one of sled, track'],
  // A sentence of its own goes before the map.
  [z.number().max(60, { error: 'must be at most 60 °C' }), 61, 'must be at most 60 °C'],
])('%# is told as %s', (schema, value, said) => {
  expect(schema.safeParse(value).error?.issues.map((i) => i.message)).toEqual([said]);
});

it('what has no words of ours keeps those of the library', () => {
  expect(z.object({}).safeParse(1).error?.issues[0]?.message).toMatch(/^Invalid input: expected object/);
});
