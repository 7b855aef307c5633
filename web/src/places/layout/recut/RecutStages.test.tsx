import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { BoardStep } from '#contract/boards.ts';
import type { Board } from '#core/board/board.ts';
import { panelCount, withPanelInTurn } from '#core/board/panels.ts';
import { panelsOfRecipe, stripsOf } from '#core/board/recipe.ts';
import { CHEVRON, END_GRAIN, recutBoard, type RecutChoices } from '#core/board/recutForTests.ts';
import { recutOf, recutRecipe } from '#core/board/recut.ts';
import { rowLies } from '#core/board/rowPatterns.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import { openBoardAt } from '../../../openBoardForTests.tsx';
import type { ServerForTests } from '../../../serverForTests.ts';
import { plain, press, said, type } from '../../../shownForTests.tsx';
import { GluePlace } from '../../glue/GluePlace.tsx';
import { SheetPlace } from '../../sheet/SheetPlace.tsx';
import { LayoutPlace } from '../LayoutPlace.tsx';
import { angleAt, cutLines, pitchAt } from './sliceGeometry.ts';

const STRIPS = [45, 45, 45, 45, 45, 45];
const RACK = [plainPiece({ length: 2400, width: 220, thickness: 56, count: 8 })];
const endGrain = (change: Partial<RecutChoices> = {}, strips: readonly number[] = STRIPS): Board =>
  recutBoard(plainBoard({ length: 400, width: 250, thickness: 35 }, strips), change, END_GRAIN);
const chevron = (): Board =>
  recutBoard(plainBoard({ length: 400, width: 200, thickness: 25 }, Array<number>(11).fill(44)), {}, CHEVRON);

/** Opens a board at one of its stages. */
async function at(stage: string, board: Board, system: 'metric' | 'inch' = 'metric') {
  const opened = await openBoardAt(LayoutPlace, planInput(board, RACK), system);
  fireEvent.click(await screen.findByRole('tab', { name: new RegExp(`^${stage}`) }));
  return opened;
}

/** The board as it was saved in the end, and how many steps of undo led there. */
async function saved(server: ServerForTests): Promise<{ board: Board; steps: number }> {
  await waitFor(() => expect(server.writes.length).toBeGreaterThan(0));
  const steps = server.writes.flatMap((w) => (w.body as { steps: BoardStep[] }).steps);
  return { board: steps.at(-1)!.board, steps: steps.length };
}
const sliceOf = (board: Board) => recutRecipe(board.recipe)!.slice;
const slider = (name: string) => screen.findByRole('slider', { name });
const now = (element: HTMLElement) => Number(element.getAttribute('aria-valuenow'));
const pointer = (clientX: number) => ({ pointerId: 1, clientX, clientY: 100, button: 0, pointerType: 'mouse' });

describe('the recipe above the drawing', () => {
  it('tells each stage in order with its own figures, and which is open', async () => {
    await at('Rows', endGrain({ panels: 2 }));
    const tabs = screen.getAllByRole('tab');
    expect(tabs.map((t) => plain(t.textContent))).toEqual([
      // 7 slices of 37.5 and a kerf each, a kerf for the end, what creeps and what is trimmed.
      expect.stringMatching(/^Panel2 of \d+(\.\d)? × 270 × 30 mm$/),
      expect.stringMatching(/^Slices14 of \d+(\.\d)? mm$/),
      'Rows14 of 30 mm',
      'Board400 × 250 × 35 mm',
    ]);
    expect(tabs.map((t) => t.getAttribute('aria-selected'))).toEqual(['false', 'false', 'true', 'false']);
  });

  it('in inches to a reader of inches, with the angle where there is one', async () => {
    await at('Panel', chevron(), 'inch');
    const [, slices, rows] = screen.getAllByRole('tab').map((t) => plain(t.textContent));
    expect(slices).toMatch(/^Slices\d+ of 1 1\/2", 35°$/);
    expect(rows).toMatch(/^Rows\d+ of 1 1\/2"$/);
  });

  it('a flat board has no stages, and one without strips begins with strips', async () => {
    const { unmount } = await openBoardAt(LayoutPlace, planInput(plainBoard(), RACK));
    expect(screen.queryByRole('tab')).toBeNull();
    unmount();
    await openBoardAt(LayoutPlace, planInput(endGrain({}, []), RACK));
    expect(screen.queryByRole('tab')).toBeNull();
  });
});

describe('slices, on the drawing', () => {
  it('the grips say what they hold; keys move them by half a millimetre and half a degree, with shift ten times that', async () => {
    const { server } = await at('Slices', chevron());
    const pitch = await slider('Width of a slice');
    const angle = await slider('Angle of the cuts');
    expect([now(pitch), now(angle)]).toEqual([38.1, 35]);
    fireEvent.keyDown(pitch, { key: 'ArrowRight' });
    fireEvent.keyDown(pitch, { key: 'ArrowRight', shiftKey: true });
    expect(now(pitch)).toBeCloseTo(43.6, 9);
    fireEvent.keyDown(angle, { key: 'ArrowLeft' });
    expect(angle.getAttribute('aria-valuetext')).toBe('34.5 degrees');
    const { board } = await saved(server);
    expect(sliceOf(board)).toMatchObject({ angle: 34.5 });
    expect(sliceOf(board).pitch).toBeCloseTo(43.6, 9);
    // Staggered strips go along with the cut.
    expect(recutRecipe(board.recipe)!.panel.stagger).toBe(34.5);
  });

  it('the first cut is moved further in by keys, by hand and typed, and never nearer than the usual trim', async () => {
    const { server } = await at('Slices', endGrain());
    const cut = await slider('First cut, further in than the usual trim');
    expect(now(cut)).toBe(0);
    fireEvent.keyDown(cut, { key: 'ArrowRight', shiftKey: true });
    expect(now(cut)).toBe(5);
    fireEvent.keyDown(cut, { key: 'ArrowLeft', shiftKey: true });
    fireEvent.keyDown(cut, { key: 'ArrowLeft', shiftKey: true });
    expect(now(cut)).toBe(0);
    const x = Number(cut.querySelector('circle')!.getAttribute('cx'));
    fireEvent.pointerDown(cut, pointer(x));
    fireEvent.pointerMove(cut, pointer(x + 40));
    fireEvent.pointerUp(cut, pointer(x + 40));
    expect(now(cut)).toBeGreaterThan(10);
    type('First cut, further in', '12');
    await waitFor(async () => expect(sliceOf((await saved(server)).board).first).toBe(12));
    type('First cut, further in', '-3');
    await waitFor(() => expect(said('First cut, further in')).toMatch(/^First cut/));
  });

  it('a pitch goes no thinner than a slice can be, an angle no further than a saw is asked to go', async () => {
    await at('Slices', chevron());
    const pitch = await slider('Width of a slice');
    for (let i = 0; i < 30; i += 1) fireEvent.keyDown(pitch, { key: 'ArrowLeft', shiftKey: true });
    expect(now(pitch)).toBeGreaterThanOrEqual(Number(pitch.getAttribute('aria-valuemin')));
    const angle = await slider('Angle of the cuts');
    for (let i = 0; i < 30; i += 1) fireEvent.keyDown(angle, { key: 'ArrowRight', shiftKey: true });
    expect(now(angle)).toBe(Number(angle.getAttribute('aria-valuemax')));
  });

  it('dragged, the slice follows the hand and it is one step to undo; a hand that only passes over moves nothing', async () => {
    const { server } = await at('Slices', endGrain());
    const pitch = await slider('Width of a slice');
    const before = now(pitch);
    fireEvent.pointerMove(pitch, pointer(900));
    expect(now(pitch)).toBe(before);
    const x = Number(pitch.querySelector('circle')!.getAttribute('cx'));
    fireEvent.pointerDown(pitch, pointer(x));
    for (const by of [3, 8, 14]) fireEvent.pointerMove(pitch, pointer(x + by));
    const wide = now(pitch);
    expect(wide).toBeGreaterThan(before);
    fireEvent.pointerUp(pitch, pointer(x + 14));
    const { board, steps } = await saved(server);
    expect(steps).toBe(1);
    expect(sliceOf(board).pitch).toBeCloseTo(wide, 1);
  });

  it('each number stands in its slice, as many as the first panel gives', async () => {
    await at('Slices', endGrain({ panels: 2 }));
    const drawing = await screen.findByRole('group', { name: /^The panel and its slices/ });
    const numbers = [...drawing.querySelectorAll('text')].map((t) => t.textContent).filter((t) => /^\d+$/.test(t));
    expect(numbers).toEqual(['1', '2', '3', '4', '5', '6', '7']);
    expect(plain(drawing.textContent)).toContain('The first of 2 panels.');
  });
});

describe('slices, by figures', () => {
  it('what follows from the board says so; typed it is fixed, and is given back', async () => {
    const { server, text } = await at('Slices', endGrain());
    await screen.findByLabelText('A slice as sawn');
    expect(text().match(/as the board asks/g)).toHaveLength(2);
    type('A slice as sawn', '40');
    type('Slices for a board', '12');
    await waitFor(() => expect(screen.getAllByRole('button', { name: 'as the board asks' })).toHaveLength(2));
    expect(sliceOf((await saved(server)).board)).toMatchObject({ pitch: 40, count: 12 });
    for (const button of screen.getAllByRole('button', { name: 'as the board asks' })) fireEvent.click(button);
    await waitFor(async () => expect(sliceOf((await saved(server)).board)).toMatchObject({ pitch: null, count: null }));
  });

  it.each([
    ['A slice as sawn', '0.5', /Slice/],
    ['Slices for a board', '0', /Slices/],
    ['From panels', '2.5', /Panels/],
    ['Angle', '75', /Angle/],
    ['A row, panel thick', 'thick', /Row/],
  ])('%s of %s is refused by its name, and nothing is lost', async (name, text, named) => {
    const { server } = await at('Slices', endGrain());
    await screen.findByLabelText(name);
    type(name, text);
    await waitFor(() => expect(said(name)).toMatch(named));
    expect(server.writes).toEqual([]);
  });

  it('usual angles are a press away; strips are staggered only where somebody wants them so', async () => {
    const { server } = await at('Slices', endGrain());
    fireEvent.click(await screen.findByRole('button', { name: '22.5°' }));
    expect(screen.getByRole('button', { name: '22.5°' }).getAttribute('aria-pressed')).toBe('true');
    const staggered = () => screen.getByRole('switch', { name: /staggered/ });
    expect((staggered() as HTMLInputElement).checked).toBe(false);
    fireEvent.click(staggered());
    press('45°');
    const { panel, slice } = recutRecipe((await saved(server)).board.recipe)!;
    expect([panel.stagger, slice.angle]).toEqual([45, 45]);
    press('0°');
    await waitFor(() => expect(screen.queryByRole('switch', { name: /staggered/ })).toBeNull());
  });
});

describe('rows, by the handful', () => {
  const rows = () => within(screen.getByRole('listbox', { name: 'Rows' })).getAllByRole<HTMLElement>('option');
  const opened = async (board = endGrain()) => {
    const { server } = await at('Rows', board);
    await screen.findByRole('listbox', { name: 'Rows' });
    return server;
  };
  const liesOf = (board: Board) => rowLies(recutOf(board, DEFAULT_SHOP)!);

  it('every row says how it lies', async () => {
    await opened(endGrain({ shifts: [0, 12] }));
    expect(
      rows()
        .slice(0, 3)
        .map((r) => plain(r.getAttribute('aria-label'))),
    ).toEqual(['Row 1', 'Row 2, end for end, shifted 12 mm', 'Row 3']);
  });

  it('with nothing in hand nothing happens, and it says so', async () => {
    const server = await opened();
    fireEvent.keyDown(rows()[0]!, { key: 't' });
    await screen.findByText('Pick up a row first.');
    expect(screen.getByRole('button', { name: 'End for end' })).toHaveProperty('disabled', true);
    expect(server.writes).toEqual([]);
  });

  it('picked up one by one, turned together; the others lie as they did', async () => {
    const server = await opened(endGrain({ turns: [{ turn: 'up', pattern: [true] }] }));
    fireEvent.click(rows()[1]!);
    fireEvent.click(rows()[4]!, { shiftKey: true });
    expect(document.body.textContent).toContain('2 rows in hand');
    press('Turn over');
    press('End for end');
    const lies = liesOf((await saved(server)).board);
    expect(lies.flatMap((l, i) => (l.over && l.endForEnd ? [i + 1] : []))).toEqual([2, 5]);
    expect(lies.filter((l) => l.over || l.endForEnd)).toHaveLength(2);
    // Turned twice it lies as before.
    press('Turn over');
    press('End for end');
    await waitFor(async () => expect(liesOf((await saved(server)).board).some((l) => l.over)).toBe(false));
  });

  it('by keys: arrows go from row to row, shift takes more, space lets go, a takes all', async () => {
    const server = await opened();
    fireEvent.click(rows()[0]!);
    fireEvent.keyDown(rows()[0]!, { key: 'ArrowRight' });
    expect(document.activeElement).toBe(rows()[1]);
    fireEvent.keyDown(rows()[1]!, { key: 'ArrowRight', shiftKey: true });
    fireEvent.keyDown(rows()[2]!, { key: ' ' });
    expect(rows().flatMap((r, i) => (r.getAttribute('aria-selected') === 'true' ? [i + 1] : []))).toEqual([2]);
    fireEvent.keyDown(rows()[1]!, { key: 'a' });
    expect(document.body.textContent).toContain('14 rows in hand');
    fireEvent.keyDown(rows()[1]!, { key: '0' });
    const { board } = await saved(server);
    expect(liesOf(board).every((l) => !l.endForEnd && !l.over && l.shift === 0)).toBe(true);
  });

  it('keys work wherever the hands are, and stand in the list of keys', async () => {
    const server = await opened(endGrain({ turns: [{ turn: 'up', pattern: [true] }] }));
    fireEvent.click(rows()[3]!);
    fireEvent.keyDown(document.body, { key: 't' });
    expect(liesOf((await saved(server)).board).flatMap((l, i) => (l.endForEnd ? [i + 1] : []))).toEqual([4]);
    fireEvent.keyDown(document.body, { key: 'a' });
    expect(document.body.textContent).toContain('14 rows in hand');
  });

  it.each([
    ['metric', 3, 3],
    ['inch', 2, (2 * 25.4) / 32],
  ] as const)('shifted in steps of %s readers, many are one step to undo', async (system, presses, mm) => {
    const { server } = await at('Rows', endGrain(), system);
    await screen.findByRole('listbox', { name: 'Rows' });
    fireEvent.click(rows()[2]!);
    for (let i = 0; i < presses; i += 1) press('Shift along');
    const { board, steps } = await saved(server);
    expect(steps).toBe(1);
    expect(liesOf(board).map((l) => l.shift)[2]).toBeCloseTo(mm, 9);
  });

  it('two rows change places by a key; more are shuffled, and as many lie each way as before', async () => {
    const server = await opened();
    fireEvent.click(rows()[0]!);
    fireEvent.keyDown(rows()[0]!, { key: 'x' });
    await screen.findByText('Pick up two rows to swap them.');
    expect(server.writes).toEqual([]);
    fireEvent.click(rows()[1]!, { shiftKey: true });
    fireEvent.keyDown(rows()[1]!, { key: 'x' });
    const turned = (board: Board) => liesOf(board).flatMap((l, i) => (l.endForEnd ? [i + 1] : []));
    expect(turned((await saved(server)).board)).toEqual([1, 4, 6, 8, 10, 12, 14]);
    fireEvent.keyDown(rows()[1]!, { key: 'a' });
    press('Shuffle');
    await screen.findByText('14 rows shuffled');
    expect(rows().filter((r) => r.getAttribute('aria-label')!.includes('end for end'))).toHaveLength(7);
  });

  it('how exact strips must be is drawn and told; where nothing has to meet it says so', async () => {
    await opened();
    press('How exact?');
    const told = () => plain(screen.getByRole('status').textContent);
    expect(told()).toMatch(
      /^Every strip off by up to 0.2 mm, drawn 10 times as far: corners miss by up to \d\.?\d* mm/,
    );
    const before = told();
    press('Again');
    expect(told()).not.toBe(before);
    fireEvent.click(screen.getByRole('radio', { name: '±0.5 mm' }));
    expect(told()).toContain('off by up to 0.5 mm');
    press('How exact?');
    expect(screen.queryByRole('status')).toBeNull();
    press('Patterns');
    fireEvent.click(await screen.findByRole('menuitem', { name: 'All alike' }));
    press('How exact?');
    await waitFor(() => expect(told()).toContain('no corner has to meet another'));
  });

  it('a pattern is laid in one step', async () => {
    const server = await opened();
    press('Patterns');
    fireEvent.click(await screen.findByRole('menuitem', { name: 'Every second by half a strip' }));
    const lies = liesOf((await saved(server)).board);
    expect(lies.map((l) => l.shift)).toEqual(lies.map((_, i) => (i % 2 === 1 ? 22.5 : 0)));
  });
});

describe('the board', () => {
  it('from above and from below', async () => {
    await at('Board', endGrain());
    await screen.findByRole('img', { name: /finished board from above/ });
    fireEvent.keyDown(document.body, { key: 'b' });
    const under = await screen.findByRole('img', { name: /finished board from below/ });
    expect(plain(under.textContent)).toContain('Underside, turned over about its length.');
  });

  it.each([
    ['end grain', endGrain()],
    ['a chevron', chevron()],
  ])('of %s is turned in the round, every side of its own wood', async (_, board) => {
    await at('Board', board);
    fireEvent.click(await screen.findByText('In the round'));
    const round = await screen.findByRole('group', { name: /^The finished board in the round/ });
    const faces = [...round.querySelectorAll('svg')];
    expect(faces).toHaveLength(6);
    // Ends and edges show what is cut through there: cells, each in the colour of its wood.
    for (const face of faces) expect(face.querySelectorAll('path[fill]').length).toBeGreaterThan(0);
    fireEvent.keyDown(round, { key: 'ArrowLeft' });
    expect(round.querySelector('[data-spin]')!.getAttribute('data-spin')).toBe('-38');
    // Slices and rows have no other side: there it is seen from above.
    fireEvent.click(screen.getByRole('tab', { name: /^Rows/ }));
    await screen.findByRole('listbox', { name: 'Rows' });
    expect(screen.queryByText('In the round')).toBeNull();
  });

  it('where nothing is left of the strips it says so', async () => {
    await at('Board', endGrain({}, [5]));
    await screen.findByText(/^Nothing of the strips is left/);
  });
});

describe('where cuts lie', () => {
  it.each([
    ['square', endGrain()],
    ['slanted', chevron()],
  ])('%s: lines are parallel, a pitch and a kerf apart by turns, and a grip on one tells its pitch', (_, board) => {
    const recut = recutOf(board, DEFAULT_SHOP)!;
    const lines = cutLines(recut);
    expect(lines).toHaveLength(recut.slices[0]! + 1);
    const lean = Math.tan((recut.angle * Math.PI) / 180) * recut.trueWidth;
    for (const { from, to } of lines) {
      expect(from[0] - to[0]).toBeCloseTo(lean, 9);
      expect(to[1] - from[1]).toBeCloseTo(recut.trueWidth, 9);
    }
    const square = (a: number, b: number) =>
      (lines[b]!.from[0] - lines[a]!.from[0]) * Math.cos((recut.angle * Math.PI) / 180);
    expect(square(0, 1)).toBeCloseTo(recut.pitch, 9);
    expect(square(1, 2)).toBeCloseTo(recut.pitch + recut.kerf, 9);
    expect(pitchAt(recut, lines[1]!.from[0])).toBeCloseTo(recut.pitch, 9);
    expect(angleAt(lines[0]!.from[0], lines[0]!.to[0], recut.trueWidth)).toBeCloseTo(recut.angle, 9);
    expect(lines.at(-1)!.from[0]).toBeLessThan(recut.panelLength + Math.max(0, ...recut.offsets));
    expect(stripsOf(board).length).toBe(recut.offsets.length);
  });

  it('an angle near a usual one is that one, any other is told to half a degree, none leans past what a saw does', () => {
    const width = 100;
    const leaning = (degrees: number) => angleAt(width * Math.tan((degrees * Math.PI) / 180), 0, width);
    expect([44.2, -29.1, 1.4, 23.4].map(leaning)).toEqual([45, -30, 0, 22.5]);
    expect([38.1, -52.8, 12.3].map(leaning)).toEqual([38, -53, 12.5]);
    expect([80, -80].map(leaning)).toEqual([60, -60]);
  });
});

describe('rows from several panels in turn', () => {
  const two = async () => {
    const { server } = await at('Slices', endGrain());
    await screen.findByLabelText(/Slices for a board/);
    press('Rows from a second panel in turn');
    await waitFor(async () => expect(panelCount((await saved(server)).board)).toBe(2));
    return server;
  };

  it('a second panel is made like the first; its strips are laid out on their own, by their numbers on the board', async () => {
    const server = await two();
    fireEvent.click(screen.getByRole('tab', { name: /^Panel/ }));
    const which = await screen.findByRole('radiogroup', { name: 'Which panel is laid out' });
    fireEvent.click(within(which).getByRole('radio', { name: 'Second panel' }));
    const list = await screen.findByRole('listbox', { name: 'Strips of the board' });
    const labels = () =>
      within(list)
        .getAllByRole('option')
        .map((o) => plain(o.getAttribute('aria-label')));
    const first = stripsOf(endGrain()).length;
    await waitFor(() =>
      expect(
        within(screen.getByRole('listbox', { name: 'Strips of the board' }))
          .getAllByRole('option')[0]!
          .getAttribute('aria-label'),
      ).toMatch(new RegExp(`^Strip ${first + 1},`)),
    );
    expect(labels().length).toBe(first);
    const before = (await saved(server)).board;
    fireEvent.keyDown(document.body, { key: 'Delete' });
    await waitFor(async () => expect((await saved(server)).board).not.toEqual(before));
    const { board } = await saved(server);
    const [one, other] = panelsOfRecipe(board.recipe);
    expect([one!.takes.length, other!.takes.length]).toEqual([first, first - 1]);
    // The order in which rows come in turn stays.
    expect(one).toEqual(panelsOfRecipe(before.recipe)[0]);
    press('Take this panel out');
    await waitFor(async () => expect(panelCount((await saved(server)).board)).toBe(1));
    expect(stripsOf((await saved(server)).board)).toEqual(stripsOf(before));
  });

  it('what makes rows alike is changed of both', async () => {
    const server = await two();
    type('A row, panel thick', '24');
    await waitFor(async () =>
      expect(panelsOfRecipe((await saved(server)).board.recipe).map((p) => p.thickness)).toEqual([24, 24]),
    );
    press('From a third panel');
    await waitFor(async () => expect(panelCount((await saved(server)).board)).toBe(3));
    expect(screen.queryByRole('button', { name: /panel in turn|third panel/ })).toBeNull();
  });

  it('the slices of each are drawn with the rows they give, and dragged for both', async () => {
    const server = await two();
    const drawing = () => screen.getByRole('group', { name: /^The panel and its slices/ });
    const rows = () =>
      [...drawing().querySelectorAll('text')].map((t) => t.textContent).filter((words) => /^\d+$/.test(words));
    await waitFor(() => expect(rows().slice(0, 3)).toEqual(['1', '3', '5']));
    const which = screen.getByRole('radiogroup', { name: 'Which panel is sliced' });
    fireEvent.click(within(which).getByRole('radio', { name: 'Second panel' }));
    await waitFor(() => expect(rows().slice(0, 3)).toEqual(['2', '4', '6']));
    // What is left out of the board is chosen where its strips are seen.
    expect(screen.queryByRole('button', { name: 'Take this panel out' })).toBeNull();
    fireEvent.keyDown(await slider('Width of a slice'), { key: 'ArrowRight' });
    await waitFor(async () => expect(sliceOf((await saved(server)).board).pitch).not.toBeNull());
    expect(rows().slice(0, 3)).toEqual(['2', '4', '6']);
  });

  it('Glue and the sheet have each panel with its own strips', async () => {
    const board = withPanelInTurn(endGrain());
    const input = planInput(board, RACK);
    await openBoardAt(GluePlace, input);
    fireEvent.click(await screen.findByRole('radio', { name: 'Panel 2' }));
    const first = stripsOf(board).length;
    const heading = await screen.findByRole('heading', { name: /strips \d+ to \d+, from above$/ });
    const [from, to] = [...heading.textContent.matchAll(/\d+/g)].map(Number);
    expect(from!).toBeGreaterThan(first);
    expect(to!).toBeLessThanOrEqual(2 * first);
  });

  it('the sheet draws each panel, and says of which each row is', async () => {
    const board = withPanelInTurn(endGrain());
    const { text } = await openBoardAt(SheetPlace, planInput(board, RACK));
    expect(await screen.findAllByRole('img', { name: 'The panel with numbered strips, to scale' })).toHaveLength(2);
    expect(text()).toMatch(/Rows 1, 3, 5.* from panel 1/);
    expect(text()).toMatch(/Rows 2, 4, 6.* from panel 2/);
  });
});
