import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import type { BoardStep } from '#contract/boards.ts';
import { stripsOf, withStrips, type Strip } from '#core/board/recipe.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { openBoardAt } from '../../openBoardForTests.tsx';
import type { ServerForTests } from '../../serverForTests.ts';
import { LayoutPlace } from './LayoutPlace.tsx';

const SPECIES = ['maple-hard', 'cherry-black', 'walnut-black', 'maple-hard'];
const WIDTHS = [30, 40, 50, 60];

/** A board of four strips, each another width. */
function board() {
  const plain = plainBoard({ width: 170 }, WIDTHS);
  return withStrips(
    plain,
    stripsOf(plain).map((s, i) => ({ ...s, id: `s${i + 1}`, species: SPECIES[i]! })),
  );
}

let server: ServerForTests;
beforeEach(async () => {
  ({ server } = await openBoardAt(LayoutPlace, planInput(board(), [plainPiece({ length: 4000 })])));
});

const strips = () => screen.getAllByRole('option', { name: /^Strip \d/ });
const key = (key: string, also: { shiftKey?: boolean; altKey?: boolean } = {}) =>
  fireEvent.keyDown(document.body, { key, ...also });
const pick = (number: number) => fireEvent.focus(strips()[number - 1]!);
const announced = () => document.querySelector('[aria-live="polite"]:last-of-type')?.textContent ?? '';

/** The strips as they were saved in the end. */
async function saved(): Promise<readonly Strip[]> {
  await waitFor(() => expect(server.writes.length).toBeGreaterThan(0));
  return stripsOf((server.writes.at(-1)!.body as { steps: BoardStep[] }).steps.at(-1)!.board);
}
const names = (list: readonly Strip[]) => list.map((s) => s.id);

describe('strips by keys', () => {
  it('each says what it is, how wide, and how its grain runs', () => {
    expect(strips().map((s) => s.getAttribute('aria-label'))).toEqual([
      expect.stringMatching(/^Strip 1, Hard maple, 30 mm, grain to the (left|right)/),
      expect.stringMatching(/^Strip 2, Black cherry, 40 mm/),
      expect.stringMatching(/^Strip 3, Black walnut, 50 mm/),
      expect.stringMatching(/^Strip 4, Hard maple, 60 mm/),
    ]);
  });

  it('a strip goes up and down the board', async () => {
    pick(2);
    key('ArrowDown', { altKey: true });
    expect(names(await saved())).toEqual(['s1', 's3', 's2', 's4']);
  });

  it('at the end it stays, and that is said', async () => {
    pick(4);
    key('ArrowDown', { altKey: true });
    await waitFor(() => expect(document.body.textContent).toContain('Already at the end.'));
    expect(server.writes).toEqual([]);
  });

  it('two that are held change places; three do not, and it says why', async () => {
    pick(1);
    key('ArrowDown', { shiftKey: true });
    key('ArrowDown', { shiftKey: true });
    key('x');
    await waitFor(() => expect(document.body.textContent).toContain('Hold two strips to swap them'));
    pick(4);
    pick(1);
    key('x');
    expect(names(await saved())).toEqual(['s2', 's1', 's3', 's4']);
  });

  it.each([
    ['t', 'endForEnd'],
    ['q', 'rolled'],
    ['l', 'locked'],
  ] as const)('%s turns, rolls or locks what is held and nothing else', async (pressed, what) => {
    pick(3);
    key(pressed);
    expect((await saved()).map((s) => s[what])).toEqual([false, false, true, false]);
  });

  it('turned over, the maker’s word counts from then on', async () => {
    pick(2);
    key('o');
    const [, second] = await saved();
    expect([second!.turned, second!.sideKept]).toEqual([true, true]);
  });

  it('removed, the next one is in hand; removed to the last one, the board is empty and can be undone', async () => {
    pick(1);
    for (let i = 0; i < 4; i += 1) key('Delete');
    await waitFor(() => expect(screen.queryAllByRole('option', { name: /^Strip \d/ })).toEqual([]));
    expect(await saved()).toEqual([]);
  });

  it('reversed and mirrored, widths follow their strips', async () => {
    pick(1);
    key('a');
    key('r');
    expect((await saved()).map((s) => s.width)).toEqual([60, 50, 40, 30]);
  });

  it('duplicated, the copy has a name of its own and everything else of it', async () => {
    pick(2);
    key('d');
    const all = await saved();
    expect(all).toHaveLength(5);
    expect(new Set(names(all)).size).toBe(5);
    const { id: _a, ...one } = all[1]!;
    const { id: _b, ...two } = all[2]!;
    expect(two).toEqual(one);
  });

  it('a little wider, a little narrower: half a millimetre at a time', async () => {
    pick(2);
    key('+');
    key('+');
    key('-');
    expect((await saved())[1]!.width).toBeCloseTo(40.5, 9);
  });
});

describe('a joint', () => {
  const joint = (number: number) => screen.getAllByRole('slider')[number - 1]!;

  it('by keys: half a millimetre, with shift ten times that, never below the least width', async () => {
    pick(1);
    fireEvent.keyDown(joint(1), { key: 'ArrowDown' });
    fireEvent.keyDown(joint(1), { key: 'ArrowDown', shiftKey: true });
    await waitFor(() => expect(joint(1).getAttribute('aria-valuenow')).toBe('35.5'));
    for (let i = 0; i < 12; i += 1) fireEvent.keyDown(joint(1), { key: 'ArrowUp', shiftKey: true });
    const [first] = await saved();
    expect(first!.width).toBeGreaterThanOrEqual(1);
    expect(Number(joint(1).getAttribute('aria-valuenow'))).toBeGreaterThanOrEqual(1);
  });

  it('by hand: the rows follow in the page at once, the board when the hand rests, and letting go saves the last place', async () => {
    const target = joint(1);
    const [x, y] = [600, 100];
    const at = (clientY: number) => ({
      pointerId: 1,
      clientX: x,
      clientY,
      button: 0,
      pointerType: 'mouse',
      altKey: true,
    });
    fireEvent.pointerDown(target, at(y));
    for (const to of [y + 4, y + 12, y + 20]) {
      fireEvent.pointerMove(target, at(to));
      await new Promise((resolve) => requestAnimationFrame(resolve));
    }
    const during = Number(joint(1).getAttribute('aria-valuenow'));
    expect(during).toBeGreaterThan(30);
    // The hand rests: the plan beside the drawing may follow.
    await new Promise((resolve) => setTimeout(resolve, 300));
    fireEvent.pointerMove(target, at(y + 30));
    fireEvent.pointerUp(target, at(y + 30));
    const [first, ...others] = await saved();
    expect(first!.width).toBeGreaterThan(during);
    expect(others.map((s) => s.width)).toEqual(WIDTHS.slice(1));
    await waitFor(() => expect(Number(joint(1).getAttribute('aria-valuenow'))).toBeCloseTo(first!.width, 2));
  });

  it('a strip let go with Alt changes places with the one it is over, also when its last move is not drawn yet', async () => {
    /** So far down the drawing a strip is drawn, pixels. */
    const down = (element: Element | null): number =>
      element && element.tagName !== 'svg'
        ? Number(/^translate\([^ ,]+[ ,]+([^)]+)\)/.exec(element.getAttribute('transform') ?? '')?.[1] ?? 0) +
          down(element.parentElement)
        : 0;
    const at = (strip: Element) => ({ pointerId: 1, clientX: 5, clientY: down(strip) + 4, button: 0, altKey: true });
    const [first, , third] = strips();
    fireEvent.pointerDown(first!, at(first!));
    act(() => {
      fireEvent.pointerMove(first!, at(third!));
      fireEvent.pointerUp(first!, at(third!));
    });
    expect(names(await saved())).toEqual(['s3', 's2', 's1', 's4']);
  });

  it('pressed and not moved it changes nothing, and the strip there is in hand', async () => {
    const target = joint(2);
    fireEvent.pointerDown(target, { pointerId: 1, clientX: 5, clientY: 5, button: 0, pointerType: 'mouse' });
    fireEvent.pointerUp(target, { pointerId: 1, clientX: 5, clientY: 5, button: 0, pointerType: 'mouse' });
    await waitFor(() => expect(strips().filter((s) => s.getAttribute('aria-selected') === 'true')).toHaveLength(1));
    expect(server.writes).toEqual([]);
  });
});

it('a key that is typed into a field does nothing to the strips', () => {
  pick(1);
  const field = screen.getByRole('textbox', { name: /Width/i });
  fireEvent.keyDown(field, { key: 'Delete' });
  fireEvent.keyDown(field, { key: 'r' });
  expect(strips()).toHaveLength(4);
  expect(announced()).not.toContain('removed');
});
