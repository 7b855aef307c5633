import { describe, expect, it } from 'vitest';
import type { Board } from '../board/board.ts';
import { withOperation } from '../board/looks.ts';
import { stripsOf, withStrips } from '../board/recipe.ts';
import { CHEVRON, END_GRAIN, recutBoard, type RecutChoices } from '../board/recutForTests.ts';
import { recutRecipe } from '../board/recut.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText, type Phrase } from '../units/phrase.ts';
import { checkPlan } from './checkPlan.ts';
import type { Finding } from './finding.ts';

const RACK = [plainPiece({ length: 2400, width: 220, thickness: 56, count: 12 })];
const STRIPS = [45, 45, 45, 45, 45, 45];
const SIZE = { length: 400, width: 250, thickness: 35 };
const endGrain = (change: Partial<RecutChoices> = {}, strips: readonly number[] = STRIPS, size = SIZE) =>
  recutBoard(plainBoard(size, strips), change, END_GRAIN);
const chevron = (change: Partial<RecutChoices> = {}, size = { length: 300, width: 190.5, thickness: 25 }) =>
  recutBoard(plainBoard(size, Array<number>(10).fill(44)), change, CHEVRON);

function found(board: Board, rule: string): Finding[] {
  const input = planInput(board, RACK);
  return checkPlan(makePlan(input), input).filter((f) => f.rule === rule);
}
function only(board: Board, rule: string): Finding {
  const all = found(board, rule);
  expect(all).toHaveLength(1);
  return all[0]!;
}
const text = (phrase: Phrase) => phraseText(phrase, DEFAULT_DISPLAY).replace(/[\u00a0\u202f]/g, ' ');
/** The figures of a sentence, in full. */
const figures = (phrase: Phrase): number[] =>
  phrase.flatMap((part) => (typeof part !== 'string' && 'mm' in part ? [part.mm] : []));
const way = (finding: Finding, beginning: RegExp): Phrase => {
  const one = finding.waysOut.find((w) => beginning.test(text(w)));
  if (!one) throw new Error(`No such way: ${finding.waysOut.map(text).join(' | ')}`);
  return one;
};
const inSlice = (board: Board, change: Parameters<typeof withOperation<Board, 'slice'>>[3]) =>
  withOperation(board, 'slice', recutRecipe(board.recipe)!.slice.id, change);
const inPanel = (board: Board, thickness: number) =>
  withOperation(board, 'glue', recutRecipe(board.recipe)!.panel.id, { thickness });
const widened = (board: Board, by: number) =>
  withStrips(
    board,
    stripsOf(board).map((s, i) => (i === 0 ? { ...s, width: s.width + by } : s)),
  );

describe('who takes a way out word for word is out', () => {
  it('strips too few: as much wider as it says, and not a tenth less', () => {
    const board = endGrain({}, [45, 45, 45, 45, 45]);
    const finding = only(board, 'panel-width');
    const [wider] = figures(way(finding, /^Add or widen/));
    expect(found(widened(board, wider!), 'panel-width')).toEqual([]);
    expect(only(widened(board, wider! - 0.1), 'panel-width').severity).toBe('stop');
    // Or the board as wide as those strips let it be.
    const [width] = figures(way(finding, /^Make the board .* wide/));
    expect(found({ ...board, width: width! }, 'panel-width')).toEqual([]);
    expect(found({ ...board, width: width! + 0.1 }, 'panel-width')).toHaveLength(1);
  });

  it('of a chevron the same, along its rows', () => {
    const board = chevron({}, { length: 560, width: 190.5, thickness: 25 });
    const finding = only(board, 'panel-width');
    const [long] = figures(way(finding, /^Make the board .* long/));
    expect(found({ ...board, length: long! }, 'panel-width')).toEqual([]);
    expect(found({ ...board, length: long! + 0.1 }, 'panel-width')).toHaveLength(1);
  });

  it('strips too many are a note, from just beyond what trims take', () => {
    const wanted = (extra: number) => {
      const board = endGrain();
      const { recut, panelWidth } = makePlan(planInput(board, RACK));
      return widened(board, recut!.wantedPanelWidth - panelWidth + extra);
    };
    expect(found(wanted(20), 'panel-width')).toEqual([]);
    expect(only(wanted(20.1), 'panel-width').severity).toBe('note');
  });

  it('rows too few: so many more slices, and not one less; or the board as long as its rows', () => {
    const board = endGrain({ count: 10 });
    const finding = only(board, 'rows-short');
    expect(text(finding.what)).toBe('10 rows of 30 mm are 300 mm; the board shall be 400 mm long.');
    const more = Number(/^Saw (\d+) more/.exec(text(finding.waysOut[0]!))?.[1]);
    // 100 mm are missing: three rows of 30 are not enough.
    expect(more).toBe(4);
    expect(found(inSlice(board, { count: 10 + more }), 'rows-short')).toEqual([]);
    expect(found(inSlice(board, { count: 9 + more }), 'rows-short')).toHaveLength(1);
    const [long] = figures(way(finding, /^Make the board/));
    expect(found({ ...board, length: long! }, 'rows-short')).toEqual([]);
  });

  it('slices too thin for the board, or a panel too thin for a chevron', () => {
    const thin = endGrain({ pitch: 35 });
    const [pitch] = figures(way(only(thin, 'board-thickness'), /^Saw the slices/));
    // The board, its sanding and what flattening end grain takes.
    expect(pitch).toBeCloseTo(35 + DEFAULT_SHOP.habits.sanding + DEFAULT_SHOP.habits.endGrainFlatten, 9);
    expect(found(inSlice(thin, { pitch: pitch! }), 'board-thickness')).toEqual([]);
    expect(found(inSlice(thin, { pitch: pitch! - 0.1 }), 'board-thickness')).toHaveLength(1);
    const flat = chevron({ thickness: 22 });
    const [panel] = figures(way(only(flat, 'board-thickness'), /^Make the panel/));
    expect(found(inPanel(flat, panel!), 'board-thickness')).toEqual([]);
    const [board] = figures(way(only(flat, 'board-thickness'), /^Make the board/));
    expect(found({ ...flat, thickness: board! }, 'board-thickness')).toEqual([]);
  });

  it('end grain to end grain: cut as slanted as it says, or turned up', () => {
    const board = chevron({ angle: 20, stagger: 20 });
    const finding = only(board, 'end-grain-joint');
    expect(text(finding.what)).toBe('Cut at 20° and not turned up, slices are glued end grain to end grain.');
    const angle = Number(/(\d+)°/.exec(text(way(finding, /^Cut at/)))?.[1]);
    expect(found(inSlice(board, { angle }), 'end-grain-joint')).toEqual([]);
    expect(found(inSlice(board, { angle: -angle }), 'end-grain-joint')).toEqual([]);
    expect(found(inSlice(board, { angle: angle - 0.5 }), 'end-grain-joint')).toHaveLength(1);
    expect(found(endGrain({ angle: 20 }), 'end-grain-joint')).toEqual([]);
  });

  it('thin rows: as thick as it says', () => {
    const board = endGrain({ thickness: 8 });
    const finding = only(board, 'thin-rows');
    const [thick] = figures(finding.waysOut[0]!);
    expect(found(inPanel(board, thick!), 'thin-rows')).toEqual([]);
    expect(found(inPanel(board, thick! - 0.1), 'thin-rows')).toHaveLength(1);
    expect(text(only(chevron({ pitch: 9 }), 'thin-rows').waysOut[0]!)).toBe('Saw slices of at least 10 mm.');
  });
});

describe('corners', () => {
  it('are off by what the strips are off from one edge to the other', () => {
    // The first and the last differ by 0.8: every joint of a turned row lies 0.8 beside its neighbour's.
    const finding = only(endGrain({}, [45.4, 45, 45, 45, 45, 44.6]), 'corners');
    expect(figures(finding.what)[0]).toBeCloseTo(0.8, 9);
    // Five joints: each strip may be off by a fifth of what an eye sees.
    expect(figures(finding.why)).toEqual([0.3, expect.closeTo(0.06, 9)]);
  });

  it('within what an eye sees nothing is said; far apart they are meant so; rows that are not turned meet', () => {
    expect(found(endGrain({}, [45.14, 45, 45, 45, 45, 44.86]), 'corners')).toEqual([]);
    expect(found(endGrain({}, [60, 45, 45, 45, 45, 30]), 'corners')).toEqual([]);
    const alike = endGrain({ turns: [{ turn: 'up', pattern: [true] }] }, [45.4, 45, 45, 45, 45, 44.6]);
    expect(found(alike, 'corners')).toEqual([]);
  });

  it('the stack to measure before gluing is the panel as it is glued', () => {
    const board = endGrain({}, [45.4, 45, 45, 45, 45, 44.6]);
    const [stack] = figures(way(only(board, 'corners'), /^Measure a stack/));
    expect(stack).toBeCloseTo(
      stripsOf(board).reduce((sum, s) => sum + s.width, 0),
      9,
    );
  });
});

describe('what is upright', () => {
  const of = (species: string[], change: Partial<RecutChoices> = {}) => {
    const board = endGrain(change);
    return withStrips(
      board,
      stripsOf(board).map((s, i) => ({ ...s, species: species[i % species.length]! })),
    );
  };

  it('ring-porous wood is named by its strips, closed pores are not', () => {
    const finding = only(of(['maple-hard', 'ash-white']), 'open-end-grain');
    expect(finding.strips).toEqual([2, 4, 6]);
    expect(text(finding.what)).toBe('Open pores stand upright in an end-grain board: strips 2, 4, 6.');
    expect(found(of(['maple-hard', 'cherry-black']), 'open-end-grain')).toEqual([]);
  });

  it('lying flat the same wood is fine', () => {
    const board = chevron();
    const ash = withStrips(
      board,
      stripsOf(board).map((s) => ({ ...s, species: 'ash-white' })),
    );
    expect(found(ash, 'open-end-grain')).toEqual([]);
  });
});

describe('the last slices', () => {
  it('of a short panel most are hard to hold, and it says how many; from one long panel they are not', () => {
    const board = (panels: number) => withOperation(endGrain(), 'slice', 'slices', { panels });
    const slicings = (of: Board) =>
      makePlan(planInput(of, RACK))
        .operations.flatMap((o) => o.instructions)
        .filter((i) => i.do === 'slice');
    const [told] = [only(board(7), 'last-slices')];
    // By another way: how long the panel still is behind each cut.
    const [first] = slicings(board(7));
    const left = first!.slices.map((_, i) => first!.length - first!.end - (i + 1) * first!.takes);
    const hard = left.filter((mm) => mm < 150).length;
    expect(phraseText(told.what, DEFAULT_DISPLAY)).toContain(`Of ${left.length} slices of panel 1 ${hard} are sawn`);
    expect(2 * hard).toBeGreaterThan(left.length);
    expect(found(board(1), 'last-slices')).toEqual([]);
  });
});
