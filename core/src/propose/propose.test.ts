import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boardSchema, newBoard } from '../board/board.ts';
import { auditCut } from '../cutting/auditCut.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { HANDBOOK_SPECIES } from '../wood/handbookSpecies.ts';
import { contrastOf, coloursOf, rhythmOf, sharesOf, symmetryOf } from './measures.ts';
import { propose, PROPOSAL_COUNT, type ProposeInput } from './propose.ts';
import { shuffle } from './shuffle.ts';
import { keepVaried, lightnessProfile, type Varied } from './variety.ts';
import { OPEN_WISHES, type Wishes } from './wishes.ts';
import { lookOf } from '../board/looks.ts';
import { stripsOf } from '../board/recipe.ts';
import { STRENGTHS } from './lead.ts';

const RACK = ['maple-hard', 'walnut-black', 'cherry-black', 'beech-european'].flatMap((species, s) =>
  [30, 42, 26].map((thickness, i) =>
    plainPiece({
      id: `p${s}${i}`,
      mark: `P${s}${i}`,
      species,
      thickness,
      width: 90 + 25 * i,
      length: 1400 + 200 * s,
      price: { amount: 1000 + 300 * s, per: 'cubicMetre' },
    }),
  ),
);
const clock = () => performance.now() / 1000;
const input = (wishes: Partial<Wishes> = {}, rack = RACK): ProposeInput => ({
  wishes: { ...OPEN_WISHES, ...wishes },
  rack,
  shop: DEFAULT_SHOP,
  species: HANDBOOK_SPECIES,
  promised: [],
  system: 'metric',
});
const proposalsOf = (wishes: Partial<Wishes> = {}, seed = 1, rack = RACK) => {
  const proposed = propose(input(wishes, rack), { seed, seconds: 60, now: clock });
  if (!proposed.ok) throw new Error(proposed.why.map((w) => phraseText(w, DEFAULT_DISPLAY)).join(' '));
  return proposed.proposals;
};
/** What is proposed to whoever wishes nothing, each seed searched for once. */
const open = new Map<number, ReturnType<typeof proposalsOf>>();
const openProposals = (seed: number) => {
  const proposals = open.get(seed) ?? proposalsOf({}, seed);
  open.set(seed, proposals);
  return proposals;
};
const colours = coloursOf(HANDBOOK_SPECIES);

describe('proposals', () => {
  it('of the first six no two share what is laid in them and their woods; each best thing is told of one alone, and truly its own', () => {
    for (const seed of [1, 7, 20]) {
      const proposals = openProposals(seed);
      const themes = proposals.slice(0, 6).map((p) => p.theme);
      expect(new Set(themes).size).toBe(6);
      const told = proposals.flatMap((p) => p.best ?? []);
      expect(new Set(told).size).toBe(told.length);
      expect(told.length).toBeGreaterThan(0);
      for (const p of proposals.filter((one) => one.best)) {
        const { of } = STRENGTHS[p.best!];
        for (const other of proposals) if (other !== p) expect(of(p.measures)).toBeGreaterThan(of(other.measures));
      }
    }
  });

  it('show boards of end grain and chevrons to whoever does not mind how strips lie, and to nobody else', () => {
    const looks = new Set([1, 7, 20].flatMap((seed) => openProposals(seed).map((p) => lookOf(p.board))));
    expect(looks).toContain('endGrain');
    expect(looks).toContain('chevron');
    expect(new Set(proposalsOf({ construction: 'edge' }).map((p) => lookOf(p.board)))).toEqual(new Set(['edge']));
  });

  it('are twelve boards that can be cut, within the wished sizes, each valid and explained, no two alike', () => {
    const proposals = openProposals(1);
    expect(proposals).toHaveLength(PROPOSAL_COUNT);
    for (const { board, cutting, measures, says } of proposals) {
      expect(boardSchema.safeParse(board).success).toBe(true);
      expect(auditCut(cutting.blanks, RACK, [], DEFAULT_SHOP)).toEqual([]);
      const plan = makePlan({ board, rack: RACK, shop: DEFAULT_SHOP, species: HANDBOOK_SPECIES });
      expect(plan.cutting.shortages).toEqual([]);
      expect(plan.ladders.width.shortBy).toBeLessThan(1e-6);
      expect(plan.ladders.thickness.shortBy).toBeLessThan(1e-6);
      for (const side of ['length', 'width', 'thickness'] as const) {
        expect(board[side]).toBeGreaterThanOrEqual(OPEN_WISHES[side].least);
        expect(board[side]).toBeLessThanOrEqual(OPEN_WISHES[side].greatest);
      }
      // Rows are glued once more.
      expect(measures.glueLines).toBe(stripsOf(board).length - 1 + (plan.recut ? plan.recut.rows - 1 : 0));
      expect(measures.woodUsed).toBeGreaterThan(measures.woodLeft);
      expect(phraseText(says, DEFAULT_DISPLAY)).toMatch(/^\d+ strips .*Cut from P/);
    }
    const looks = new Set(
      proposals.map((p) =>
        stripsOf(p.board)
          .map((s) => `${s.species}${s.width}`)
          .join(),
      ),
    );
    expect(looks.size).toBe(PROPOSAL_COUNT);
    expect(new Set(proposals.flatMap((p) => stripsOf(p.board).map((s) => s.species))).size).toBeGreaterThanOrEqual(3);
  });

  it('come out the same for the same seed, and others for another', () => {
    expect(proposalsOf({}, 7)).toEqual(openProposals(7));
    expect(openProposals(7).map((p) => p.board)).not.toEqual(openProposals(20).map((p) => p.board));
  });

  it('do as wished', () => {
    expect(
      proposalsOf({ never: ['walnut-black'] }).every((p) =>
        stripsOf(p.board).every((s) => s.species !== 'walnut-black'),
      ),
    ).toBe(true);
    expect(
      proposalsOf({ only: ['cherry-black', 'maple-hard'] }).every((p) =>
        stripsOf(p.board).every((s) => ['cherry-black', 'maple-hard'].includes(s.species)),
      ),
    ).toBe(true);
    expect(proposalsOf({ accents: 'yes' }).every((p) => stripsOf(p.board).some((s) => s.width <= 14))).toBe(true);
    expect(proposalsOf({ symmetry: 'yes' }).every((p) => symmetryOf(stripsOf(p.board)) === 1)).toBe(true);
    expect(
      proposalsOf({ construction: 'face', thickness: { least: 18, greatest: 20 } }).every(
        (p) => p.board.construction === 'face',
      ),
    ).toBe(true);
    expect(proposalsOf({ useUp: 'p10' }).every((p) => p.cutting.blanks.some((b) => b.pieceId === 'p10'))).toBe(true);
    expect(
      proposalsOf({ shares: [{ species: 'walnut-black', least: 30, most: 60 }] }).every((p) => {
        const share = sharesOf(stripsOf(p.board)).get('walnut-black')!;
        return share > 0.29 && share < 0.61;
      }),
    ).toBe(true);
    expect(
      proposalsOf({ pieces: ['p00', 'p10'] }).every((p) =>
        p.cutting.blanks.every((b) => ['p00', 'p10'].includes(b.pieceId)),
      ),
    ).toBe(true);
  });

  it.each<[string, Partial<Wishes>, typeof RACK, RegExp]>([
    ['nothing free', {}, [], /no free wood in the rack/],
    [
      'walnut only, no walnut',
      { only: ['walnut-black'], never: ['walnut-black'] },
      RACK,
      /Black walnut is both wanted and not wanted/,
    ],
    [
      'sizes the wrong way round',
      { width: { least: 300, greatest: 200 } },
      RACK,
      /Width: from 300 mm to 200 mm leaves nothing/,
    ],
    [
      'shares over the whole',
      {
        shares: [
          { species: 'walnut-black', least: 60, most: 100 },
          { species: 'maple-hard', least: 60, most: 100 },
        ],
      },
      RACK,
      /come to 120 %/,
    ],
    ['a species that is not there', { only: ['teak'] }, RACK, /None of the 12 pieces/],
    [
      'a board longer than any piece',
      { length: { least: 2900, greatest: 3000 } },
      RACK,
      /No piece gives a strip|Nothing that was tried can be cut/,
    ],
    ['more than there is', {}, [plainPiece({ length: 460, width: 60 })], /Nothing that was tried can be cut/],
  ])('%s: says why', (_, wishes, rack, words) => {
    const proposed = propose(input(wishes, rack), { seed: 1, seconds: 20, now: clock });
    expect(proposed.ok ? '' : phraseText(proposed.why[0]!, DEFAULT_DISPLAY)).toMatch(words);
  });
});

describe('shuffling', () => {
  const mixed = stripsOf(plainBoard({}, [20, 30, 20, 40, 30, 20, 40])).map((s, i) => ({
    ...s,
    species: ['maple-hard', 'walnut-black', 'cherry-black'][i % 3]!,
    locked: i === 2,
  }));
  const run = (strips: typeof mixed, seed = 1) => shuffle(strips, HANDBOOK_SPECIES, { seed, seconds: 60, now: clock });

  it('keeps every strip, leaves locked ones in place, gives other orders than the one at hand, and the same for a seed', () => {
    const orders = run(mixed);
    expect(orders.length).toBeGreaterThanOrEqual(4);
    for (const { strips } of orders) {
      expect([...strips].sort((a, b) => (a.id < b.id ? -1 : 1))).toEqual(
        [...mixed].sort((a, b) => (a.id < b.id ? -1 : 1)),
      );
      expect(strips[2]).toBe(mixed[2]);
    }
    expect(run(mixed)).toEqual(orders);
    const best = Math.max(...orders.map((o) => o.contrast));
    expect(best).toBeGreaterThanOrEqual(contrastOf(mixed, colours) - 1e-9);
  });

  it('has nothing to offer when nothing may move or all are alike', () => {
    expect(run(mixed.map((s) => ({ ...s, locked: true })))).toEqual([]);
    expect(run([...stripsOf(plainBoard())])).toEqual([]);
  });
});

describe('measures', () => {
  it('rhythm and symmetry are whole for a motif and its mirror, and do not care for the end one begins at', () => {
    const strips = (text: string) => [...text].map((c) => ({ species: c, width: 20 }));
    expect([symmetryOf(strips('abcba')), rhythmOf(strips('ababab')), rhythmOf(strips('abcabcabc'))]).toEqual([1, 1, 1]);
    fc.assert(
      fc.property(fc.array(fc.constantFrom('a', 'b', 'c'), { minLength: 1, maxLength: 20 }), (letters) => {
        const forward = strips(letters.join(''));
        expect(symmetryOf(forward)).toBeCloseTo(symmetryOf([...forward].reverse()), 9);
        expect(rhythmOf(forward)).toBeCloseTo(rhythmOf([...forward].reverse()), 9);
      }),
    );
  });

  it('a varied set never holds twins and never more than it may', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.float({ min: 0, max: 4, noNaN: true }),
            fc.float({ min: 0, max: 4, noNaN: true }),
            fc.integer({ min: 0, max: 9 }),
          ),
          { maxLength: 40 },
        ),
        (points) => {
          let kept: Varied<number>[] = [];
          points.forEach(([x, y, score], i) => {
            kept = keepVaried(kept, { item: i, look: [x, y], score }, 5);
          });
          expect(kept.length).toBeLessThanOrEqual(5);
          kept.forEach((a, i) =>
            kept
              .slice(i + 1)
              .forEach((b) =>
                expect(Math.hypot(a.look[0]! - b.look[0]!, a.look[1]! - b.look[1]!)).toBeGreaterThanOrEqual(0.5),
              ),
          );
          // A twin only gives way to a better one.
          if (points.length > 0 && kept.length < 5)
            expect(Math.max(...kept.map((k) => k.score))).toBe(Math.max(...points.map((p) => p[2])));
        },
      ),
    );
    expect(lightnessProfile(stripsOf(newBoard('metric')), colours)).toHaveLength(20);
  });
});
