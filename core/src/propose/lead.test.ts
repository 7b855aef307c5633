import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { STRENGTHS, variedFirst, withStrengths, type Strength } from './lead.ts';
import type { Measures } from './measures.ts';

const EVEN: Measures = { woodUsed: 1, woodLeft: 0.2, contrast: 20, rhythm: 0.5, glueLines: 8, cost: 30 };
const proposal = (name: string, change: Partial<Measures> = {}) => ({
  name,
  measures: { ...EVEN, ...change },
  best: null as Strength | null,
});
const told = (...list: ReturnType<typeof proposal>[]) => withStrengths(list).map((p) => p.best);

describe('what leads', () => {
  const themed = (themes: string) => [...themes].map((theme, i) => ({ theme, i }));
  const order = (themes: string, most: number) => variedFirst(themed(themes), most).map((t) => t.i);

  it('the best of each theme first, in their order, then the rest in theirs', () => {
    expect(order('aaabcab', 3)).toEqual([0, 3, 4, 1, 2, 5, 6]);
    expect(order('aaabcab', 2)).toEqual([0, 3, 1, 2, 4, 5, 6]);
    expect(order('aaaa', 6)).toEqual([0, 1, 2, 3]);
    expect(order('', 6)).toEqual([]);
    expect(order('abc', 0)).toEqual([0, 1, 2]);
  });

  it('nothing is lost or doubled, the first stays the first, and the leading ones share no theme while there is another', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('a', 'b', 'c', 'd', 'e'), { minLength: 1, maxLength: 30 }),
        fc.integer({ min: 1, max: 6 }),
        (themes, most) => {
          const all = themed(themes.join(''));
          const led = variedFirst(all, most);
          expect(led.map((t) => t.i).sort((a, b) => a - b)).toEqual(all.map((t) => t.i));
          expect(led[0]).toBe(all[0]);
          const lead = Math.min(most, new Set(themes).size);
          expect(new Set(led.slice(0, lead).map((t) => t.theme)).size).toBe(lead);
        },
      ),
    );
  });
});

describe('what one does best of all', () => {
  it('least of what costs, most of what is good', () => {
    expect(
      told(
        proposal('thrifty', { woodUsed: 0.8 }),
        proposal('loud', { contrast: 45 }),
        proposal('quick', { glueLines: 3 }),
        proposal('cheap', { cost: 12 }),
        proposal('leaves', { woodLeft: 0.6 }),
        proposal('even', { rhythm: 0.9 }),
        proposal('plain'),
      ),
    ).toEqual(['wood', 'contrast', 'glueLines', 'cost', 'back', 'rhythm', null]);
  });

  it('what two do equally well is said of neither, be it by a rounding', () => {
    expect(told(proposal('a', { cost: 10 }), proposal('b', { cost: 10 + 1e-12 }), proposal('c'))).toEqual([
      null,
      null,
      null,
    ]);
  });

  it('who is best in two ways is told by the first, and the second is given to nobody else', () => {
    const [both, other] = withStrengths([proposal('both', { woodUsed: 0.5, cost: 1 }), proposal('other')]);
    expect([both!.best, other!.best]).toEqual(['wood', null]);
  });

  it('a word that was told before is taken back, and no word comes twice', () => {
    const list = [{ ...proposal('a'), best: 'cost' as Strength }, proposal('b', { cost: 1 })];
    expect(withStrengths(list).map((p) => p.best)).toEqual([null, 'cost']);
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            woodUsed: fc.double({ min: 0.1, max: 2, noNaN: true }),
            woodLeft: fc.double({ min: 0, max: 1, noNaN: true }),
            contrast: fc.integer({ min: 0, max: 60 }),
            rhythm: fc.double({ min: 0, max: 1, noNaN: true }),
            glueLines: fc.integer({ min: 0, max: 20 }),
            cost: fc.integer({ min: 0, max: 100 }),
          }),
          { minLength: 2, maxLength: 12 },
        ),
        (measures) => {
          const all = withStrengths(measures.map((m) => ({ measures: m, best: null as Strength | null })));
          const words = all.flatMap((p) => (p.best ? [p.best] : []));
          expect(new Set(words).size).toBe(words.length);
          for (const { best, measures: own } of all)
            if (best)
              for (const m of measures) expect(STRENGTHS[best].of(m)).toBeLessThanOrEqual(STRENGTHS[best].of(own));
        },
      ),
    );
  });
});
