import fc from 'fast-check';
import { unwarned } from './unwarnedForTests.ts';
import { describe, expect, it } from 'vitest';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { UNDRAWN } from '../features/feature.ts';
import { rectangle } from '../features/outline.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { figuresIn, ofKind, type Instruction } from '../steps/instruction.ts';
import type { Operation } from '../steps/operation.ts';
import type { Phrase } from '../units/phrase.ts';
import { failureCodes, type FailureCode } from './bench.ts';
import { followPlan } from './followPlan.ts';
import { WARNED_BY } from './warnedBy.ts';
import { workshopArbitrary } from './workshopArbitrary.ts';
import { flatRecipe, stripsOf } from '../board/recipe.ts';

describe('the blind maker', () => {
  it('ends with the planned board, or the plan has told what he met: 2,000 boards, racks and shops', () => {
    let whole = 0;
    fc.assert(
      fc.property(workshopArbitrary, (input) => {
        const plan = makePlan(input);
        const followed = followPlan(plan, input);
        expect(unwarned(plan, input, followed)).toEqual([]);
        if (followed.failures.length === 0) whole += 1;
      }),
      { numRuns: 2000 },
    );
    // Not by warning of everything: a good part of them is made without a word.
    expect(whole).toBeGreaterThan(300);
  }, 600_000);
});

/** Every length that a step shows. */
function shown({ settings, parts, lines, title }: Operation): number[] {
  const inPhrase = (phrase: Phrase) =>
    phrase.flatMap((part) => (typeof part !== 'string' && 'mm' in part ? [part.mm] : []));
  return [
    ...settings.map((s) => s.value.mm),
    ...parts.flatMap((p) => [p.before, p.after]),
    ...inPhrase(title),
    ...lines.flatMap(inPhrase),
  ];
}

it('no figure stands in a step that is not in one of its instructions', () => {
  fc.assert(
    fc.property(workshopArbitrary, (input) => {
      for (const step of makePlan(input).operations) {
        const told = figuresIn(step.instructions);
        const stray = shown(step).filter((mm) => !told.some((figure) => Math.abs(figure - mm) < 1e-6));
        expect([step.kind, stray]).toEqual([step.kind, []]);
      }
    }),
    { numRuns: 300 },
  );
}, 30_000);

describe('he finds what is wrong', () => {
  const rack = [
    plainPiece({
      defects: [
        { id: 'n', kind: 'nail', face: 'through', from: 600, across: 60, length: 20, width: 10, treatment: 'cut' },
      ],
    }),
    plainPiece({ id: 'p2', mark: 'P2', species: 'padauk', width: 90 }),
  ];
  const species = ['maple-hard', 'padauk', 'maple-hard', 'maple-hard', 'padauk', 'maple-hard'];
  const plain = plainBoard({ width: 270 });
  const board = plainBoard({
    width: 270,
    recipe: flatRecipe(stripsOf(plain).map((s, i) => ({ ...s, species: species[i]! }))),
    worked: {
      ...plain.worked,
      features: [
        {
          ...UNDRAWN,
          kind: 'mark',
          id: 'm',
          face: 'top',
          name: 'Name',
          method: 'laser',
          x: 200,
          y: 135,
          length: 40,
          width: 12,
          depth: 0.5,
        },
      ],
    },
  });
  const shop = {
    ...DEFAULT_SHOP,
    planer: { ...DEFAULT_SHOP.planer!, width: 400 },
    schools: { ...DEFAULT_SHOP.schools, topCoat: 'none' as const },
  };
  const input = planInput(board, rack, shop);

  /** The plan with one instruction told otherwise. */
  function slipped<K extends Instruction['do']>(
    kind: K,
    change: (i: Extract<Instruction, { do: K }>) => Instruction | null,
    given = input,
  ): FailureCode[] {
    const plan = makePlan(given);
    let done = false;
    const operations = plan.operations.map((o) => ({
      ...o,
      instructions: o.instructions.flatMap((i): Instruction[] => {
        if (done || i.do !== kind) return [i];
        const other = change(i as Extract<Instruction, { do: K }>);
        // One that is left as it is was not the one.
        done = other !== i;
        return other ? [other] : [];
      }),
    }));
    expect(done).toBe(true);
    return [...new Set(followPlan({ ...plan, operations }, given).failures.map((f) => f.code))];
  }

  it('the plan as it is: nothing', () => {
    expect(followPlan(makePlan(input), input).failures).toEqual([]);
  });

  it.each<[string, FailureCode, () => FailureCode[]]>([
    [
      'a blank crosscut 20 mm short',
      'notEnoughLength',
      () => slipped('crosscut', (i) => ({ ...i, cuts: i.cuts.map((c) => ({ ...c, length: c.length - 20 })) })),
    ],
    [
      'a cut that overlaps the one before',
      'notEnoughLength',
      () =>
        slipped('crosscut', (i) => ({
          ...i,
          cuts: [...i.cuts, { ...i.cuts[0]!, part: { id: 'again', label: 'again' }, at: i.cuts[0]!.at + 50 }],
        })),
    ],
    [
      'a cut through the nail',
      'metalUnderBlade',
      () =>
        slipped('crosscut', (i) => ({
          ...i,
          cuts: i.cuts.map((c, k) => (k === 0 ? { ...c, length: 605 - c.at } : c)),
        })),
    ],
    ['planed thinner than the strips', 'sizes', () => slipped('flatten', (i) => ({ ...i, to: i.to - 1 }))],
    ['planed to more than there is', 'notEnoughThickness', () => slipped('flatten', (i) => ({ ...i, to: i.to + 4 }))],
    ['a pass too few', 'notEnoughThickness', () => slipped('flatten', (i) => ({ ...i, passes: i.passes! - 1 }))],
    ['no straight edge', 'noStraightEdge', () => slipped('straighten', () => null)],
    [
      'a thin strip at the fence',
      'trapped',
      () => slipped('rip', (i) => ({ ...i, cuts: i.cuts.map((c) => ({ ...c, width: 12 })) })),
    ],
    [
      'a tool that is not there',
      'noTool',
      () => slipped('rip', (i) => ({ ...i, saw: { ...i.saw, tool: 'trackSaw' } })),
    ],
    [
      'two strips changed for one another',
      'wrongWood',
      () => slipped('glue', (i) => ({ ...i, parts: [i.parts[1]!, i.parts[0]!, ...i.parts.slice(2)] })),
    ],
    ['oil left on', 'oilyFace', () => slipped('wipe', () => null)],
    [
      'clamps that the shop has not',
      'fewerClamps',
      () => slipped('glue', (i) => ({ ...i, clamps: [{ kind: 'pipe', count: 40 }] })),
    ],
    ['glue that skins', 'glueTime', () => slipped('glue', (i) => ({ ...i, assemblyMinutes: 60 }))],
    ['knives in the glue', 'stillWet', () => slipped('scrape', () => null)],
    ['a side trimmed too far', 'sizes', () => slipped('trimEdge', (i) => ({ ...i, off: i.off + 2 }))],
    [
      'a board cut out 2 mm further along than it is drawn',
      'wrongWood',
      () => slipped('crosscutPanel', (i) => ({ ...i, cuts: i.cuts.map((c) => ({ ...c, at: c.at - 2 })) })),
    ],
    [
      'a blank from another place of the piece',
      'wrongWood',
      () => slipped('crosscut', (i) => ({ ...i, cuts: i.cuts.map((c, k) => (k === 0 ? { ...c, at: c.at + 1 } : c)) })),
    ],
    [
      'ends cut 1 mm short',
      'sizes',
      () => slipped('crosscutPanel', (i) => ({ ...i, cuts: i.cuts.map((c) => ({ ...c, length: c.length - 1 })) })),
    ],
    [
      'hard-wax oil over mineral oil',
      'finishOverFinish',
      () =>
        slipped('coat', (i) => (i.finish === 'waxOil' ? { ...i, finish: 'hardWaxOil' } : i), {
          ...input,
          board: { ...board, finish: ['mineral-oil', 'wax-oil'] },
        }),
    ],
    [
      'an edge that reaches the mark',
      'markLost',
      () =>
        slipped('work', (i) =>
          i.what === 'edge' ? { ...i, cuts: [{ outlines: [rectangle(0, 0, 400, 130)], from: 0, to: 3 }] } : i,
        ),
    ],
    ['no sanding before the oil', 'finishOverFinish', () => slipped('sand', () => null)],
    ['grain that was never raised', 'stillWet', () => slipped('wet', () => null)],
    ['a strip that nobody ripped', 'missingPart', () => slipped('rip', (i) => ({ ...i, cuts: i.cuts.slice(1) }))],
  ])('%s: %s', (_what, code, codes) => {
    expect(codes()).toContain(code);
  });

  it('a cut beside a mark, or below it, leaves it whole', () => {
    expect(
      slipped('work', (i) => ({ ...i, cuts: [{ outlines: [rectangle(0, 0, 400, 128)], from: 0, to: 3 }] })),
    ).toEqual([]);
    expect(
      slipped('work', (i) => ({ ...i, cuts: [{ outlines: [rectangle(0, 0, 400, 130)], from: 1, to: 3 }] })),
    ).toEqual([]);
  });

  it('metal is cut clear of blade and knife, told and followed', () => {
    const plan = makePlan(input);
    const split = plan.operations.flatMap((o) => ofKind(o.instructions, 'split'));
    const cuts = plan.operations.flatMap((o) => ofKind(o.instructions, 'crosscut'));
    // Either no blank holds the nail, or it is sawn round before the planer.
    const holding = cuts
      .filter((i) => i.part.label === 'P1')
      .flatMap((i) => i.cuts)
      .filter((c) => c.at < 620 && c.at + c.length > 600);
    expect(holding.length === 0 || split.some((i) => i.why === 'metal')).toBe(true);
  });

  it('every kind of harm names the rules that warn of it', () => {
    expect(Object.keys(WARNED_BY).sort()).toEqual([...failureCodes].sort());
  });
});
