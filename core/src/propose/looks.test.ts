import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainPiece } from '../plan/planArbitrary.ts';
import { phraseText } from '../units/phrase.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { HANDBOOK_SPECIES } from '../wood/handbookSpecies.ts';
import { alike, coloursOf, contrastOf, rhythmOf, sharesOf, symmetryOf } from './measures.ts';
import { layPattern, PATTERNS, type Palette } from './patterns.ts';
import { randomFrom } from './random.ts';
import { keepVaried, lightnessProfile, type Varied } from './variety.ts';
import { contradictions, OPEN_WISHES, openWishes, piecesFor, wishesSchema, type Wishes } from './wishes.ts';
import type { Section } from '../cutting/sections.ts';

const colours = coloursOf(HANDBOOK_SPECIES);
const bare = (pattern: string, width = 30) =>
  [...pattern].map((c) => ({ species: { m: 'maple-hard', w: 'walnut-black', c: 'cherry-black' }[c]!, width }));

describe('what a row of strips looks like', () => {
  it('symmetry is the share of strips that are like their mirror image', () => {
    expect([symmetryOf(bare('mwm')), symmetryOf(bare('mmw')), symmetryOf(bare('mw')), symmetryOf([])]).toEqual([
      1,
      1 / 3,
      0,
      0,
    ]);
  });

  it('a repeated motif is a rhythm, whatever its length; what neither mirrors nor repeats is none', () => {
    for (const pattern of ['mwmwmw', 'mmwmmw', 'mcwmcwmcw', 'mwcccwm'])
      expect([pattern, rhythmOf(bare(pattern))]).toEqual([pattern, 1]);
    expect(rhythmOf(bare('mmmwc'))).toBeLessThan(1);
  });

  it('widths within a twelfth are alike, others are not, and never two species', () => {
    const of = (width: number, species = 'maple-hard') => ({ species, width });
    expect([alike(of(50), of(46)), alike(of(50), of(45)), alike(of(50), of(50, 'cherry-black'))]).toEqual([
      true,
      false,
      false,
    ]);
  });

  it('maple beside walnut stands out more than maple beside cherry; one wood not at all', () => {
    const [walnut, cherry, one] = ['mwmw', 'mcmc', 'mmmm'].map((p) => contrastOf(bare(p), colours));
    expect(walnut!).toBeGreaterThan(cherry!);
    expect(cherry!).toBeGreaterThan(5);
    expect(one).toBe(0);
    expect(contrastOf(bare('m'), colours)).toBe(0);
  });

  it('shares are by width and come to one', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ kind: fc.constantFrom('m', 'w', 'c'), width: fc.integer({ min: 3, max: 80 }) }), {
          minLength: 1,
        }),
        (row) => {
          const strips = row.flatMap(({ kind, width }) => bare(kind, width));
          const shares = sharesOf(strips);
          expect([...shares.values()].reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
          for (const [species, share] of shares) {
            const own = strips.filter((s) => s.species === species).reduce((sum, s) => sum + s.width, 0);
            expect(share).toBeCloseTo(own / strips.reduce((sum, s) => sum + s.width, 0), 9);
          }
        },
      ),
    );
  });

  it('light and dark across the board: half maple and half walnut is light, then dark, and the same from afar however it is divided', () => {
    const profile = lightnessProfile(bare('mw', 100), colours);
    expect(profile).toHaveLength(20);
    expect(Math.min(...profile.slice(0, 10))).toBeGreaterThan(Math.max(...profile.slice(10)));
    expect(lightnessProfile(bare('mmmmwwww', 25), colours)).toEqual(profile);
  });
});

describe('patterns', () => {
  const section = (species: string, width: number) => ({ species, width, pieces: [] }) as unknown as Section;
  const palettes: fc.Arbitrary<Palette> = fc.record({
    fields: fc
      .uniqueArray(fc.constantFrom('maple-hard', 'walnut-black', 'cherry-black'), { minLength: 1, maxLength: 3 })
      .chain((codes) => fc.tuple(...codes.map((c) => fc.integer({ min: 15, max: 60 }).map((w) => section(c, w))))),
    accent: fc.option(
      fc.integer({ min: 3, max: 40 }).map((w) => section('padauk', w)),
      { nil: null },
    ),
  });

  it('every one fills the width, out of what the palette has, no wider than the rack gives', () => {
    fc.assert(
      fc.property(
        palettes,
        fc.constantFrom(...PATTERNS),
        fc.integer({ min: 100, max: 400 }),
        fc.boolean(),
        fc.integer(),
        (palette, pattern, wanted, mirrored, seed) => {
          const laid = layPattern(pattern, palette, wanted, mirrored, 60, colours, randomFrom(seed));
          if (!laid) return;
          const widths = laid.map((l) => l.width);
          expect(widths.reduce((a, b) => a + b, 0)).toBeGreaterThanOrEqual(wanted - 1e-6);
          const species = new Set(
            [...palette.fields, ...(palette.accent ? [palette.accent] : [])].map((s) => s.species),
          );
          for (const l of laid) {
            expect(species.has(l.species)).toBe(true);
            expect(l.width).toBeGreaterThan(0);
            expect(l.width).toBeLessThanOrEqual(l.most + 1e-9);
            if (l.accent) expect(l.width).toBeLessThanOrEqual(14);
          }
          if (mirrored || pattern === 'centre')
            expect(laid.map((l) => l.species)).toEqual(laid.map((l) => l.species).reverse());
        },
      ),
      { numRuns: 300 },
    );
  });

  it('one wood alone is plain and nothing else; two are never plain', () => {
    const one: Palette = { fields: [section('maple-hard', 40)], accent: null };
    const two: Palette = { fields: [section('maple-hard', 40), section('walnut-black', 40)], accent: null };
    const lays = (palette: Palette) =>
      PATTERNS.filter((p) => layPattern(p, palette, 200, false, 60, colours, randomFrom(1)) !== null);
    expect(lays(one)).toEqual(['plain']);
    expect(lays(two)).toEqual(['alternating', 'bands', 'shaded', 'centre', 'scattered']);
    expect(lays({ ...two, accent: section('padauk', 6) })).toContain('accents');
  });

  it('shaded runs from light to dark', () => {
    const palette: Palette = {
      fields: [section('walnut-black', 20), section('maple-hard', 20), section('cherry-black', 20)],
      accent: null,
    };
    const laid = layPattern('shaded', palette, 240, false, 60, colours, randomFrom(3))!;
    const order = [...new Set(laid.map((l) => l.species))];
    expect(order).toEqual(['maple-hard', 'cherry-black', 'walnut-black']);
  });

  it('the same seed lays the same, and chance is even', () => {
    const [a, b] = [randomFrom(7), randomFrom(7)];
    const drawn = Array.from({ length: 200 }, () => a.next());
    expect(drawn).toEqual(Array.from({ length: 200 }, () => b.next()));
    for (const v of drawn) expect(v >= 0 && v < 1).toBe(true);
    const counts = Array.from({ length: 5 }, () => 0);
    const dice = randomFrom(11);
    for (let i = 0; i < 5000; i += 1) counts[dice.below(5)]! += 1;
    for (const count of counts) expect(Math.abs(count - 1000)).toBeLessThan(120);
  });
});

describe('a varied set', () => {
  const one = (item: string, look: number[], score: number, kind?: string): Varied<string> => ({
    item,
    look,
    score,
    ...(kind === undefined ? {} : { kind }),
  });
  const items = (set: readonly Varied<string>[]) => set.map((v) => v.item);

  it('of twins only the better stays, whichever comes first', () => {
    expect(items(keepVaried([one('old', [0, 0], 5)], one('new', [0.1, 0], 6), 12))).toEqual(['new']);
    expect(items(keepVaried([one('old', [0, 0], 5)], one('new', [0.1, 0], 4), 12))).toEqual(['old']);
    expect(items(keepVaried([one('old', [0, 0], 5, 'k')], one('new', [9, 9], 6, 'k'), 12))).toEqual(['new']);
  });

  it('where there are too many, one of the two most alike goes; never more are kept than asked for', () => {
    const set = [one('a', [0], 5), one('b', [10], 5), one('c', [20], 5)];
    expect(items(keepVaried(set, one('d', [21], 6), 3))).toEqual(['a', 'b', 'd']);
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            at: fc.double({ min: 0, max: 30, noNaN: true }),
            score: fc.double({ min: 0, max: 9, noNaN: true }),
          }),
          { maxLength: 40 },
        ),
        fc.integer({ min: 1, max: 12 }),
        (found, most) => {
          let kept: Varied<string>[] = [];
          for (const [i, { at, score }] of found.entries()) kept = keepVaried(kept, one(String(i), [at], score), most);
          expect(kept.length).toBeLessThanOrEqual(most);
          for (const [i, a] of kept.entries())
            for (const b of kept.slice(i + 1)) expect(Math.abs(a.look[0]! - b.look[0]!)).toBeGreaterThanOrEqual(0.5);
        },
      ),
    );
  });
});

describe('wishes', () => {
  const rack = [plainPiece(), plainPiece({ id: 'w', mark: 'W1', species: 'walnut-black' })];
  const told = (change: Partial<Wishes>, pieces = rack) =>
    contradictions({ ...OPEN_WISHES, ...change }, pieces, HANDBOOK_SPECIES).map((p) => phraseText(p, DEFAULT_DISPLAY));

  it('open ones contradict nothing, in either unit, and can be stored', () => {
    expect(told({})).toEqual([]);
    for (const system of ['metric', 'inch'] as const)
      expect(wishesSchema.safeParse(openWishes(system)).success).toBe(true);
    // 14 to 18 in are 355.6 to 457.2 mm.
    expect(openWishes('inch').length.least).toBeCloseTo(355.6, 6);
    expect(openWishes('inch').length.greatest).toBeCloseTo(457.2, 6);
  });

  it.each([
    ['from more to less', { length: { least: 500, greatest: 400 } }, /^Length: from 500 mm to 400 mm leaves nothing/],
    [
      'wanted and not wanted',
      { only: ['walnut-black'], never: ['walnut-black'] },
      /Black walnut is both wanted and not wanted/,
    ],
    [
      'at least more than at most',
      { shares: [{ species: 'maple-hard', least: 60, most: 40 }] },
      /Hard maple: at least 60 % and at most 40 % cannot both be/,
    ],
    [
      'more than the whole',
      {
        shares: [
          { species: 'maple-hard', least: 60, most: 100 },
          { species: 'walnut-black', least: 50, most: 100 },
        ],
      },
      /come to 110 %/,
    ],
    [
      'a share of what is left out',
      { never: ['maple-hard'], shares: [{ species: 'maple-hard', least: 10, most: 100 }] },
      /Hard maple should be at least 10 % of the board, but is not among/,
    ],
    [
      'a share of what the rack has not',
      { shares: [{ species: 'cherry-black', least: 10, most: 100 }] },
      /There is no Black cherry in the rack/,
    ],
    ['nothing that is allowed', { only: ['teak'] }, /None of the 2 pieces/],
    ['a piece that is gone', { useUp: 'gone' }, /not in the rack any more/],
  ] as [string, Partial<Wishes>, RegExp][])('%s is told in a sentence', (_, change, sentence) => {
    expect(told(change).some((text) => sentence.test(text))).toBe(true);
  });

  it('an empty rack says what to do first', () => {
    expect(told({}, [])).toEqual([expect.stringMatching(/no free wood in the rack\. Add pieces/)]);
  });

  it('only what is allowed is taken', () => {
    expect(piecesFor({ ...OPEN_WISHES, never: ['walnut-black'] }, rack).map((p) => p.id)).toEqual(['p1']);
    expect(piecesFor({ ...OPEN_WISHES, only: ['walnut-black'] }, rack).map((p) => p.id)).toEqual(['w']);
    expect(piecesFor({ ...OPEN_WISHES, pieces: ['w'] }, rack).map((p) => p.id)).toEqual(['w']);
  });
});
