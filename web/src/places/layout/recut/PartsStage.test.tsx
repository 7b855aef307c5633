import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { BoardStep } from '#contract/boards.ts';
import { boardSchema, type Board } from '#core/board/board.ts';
import { insertsOf } from '#core/board/inset.ts';
import { lookOf } from '#core/board/looks.ts';
import { insetBoard, type InsertChoice } from '#core/board/recutForTests.ts';
import { makePlan } from '#core/plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { openBoardAt } from '../../../openBoardForTests.tsx';
import type { ServerForTests } from '../../../serverForTests.ts';
import { field, plain, press, said, tabsAre, type } from '../../../shownForTests.tsx';
import { BriefPlace } from '../../brief/BriefPlace.tsx';
import { CutsPlace } from '../../cuts/CutsPlace.tsx';
import { GluePlace } from '../../glue/GluePlace.tsx';
import { SheetPlace } from '../../sheet/SheetPlace.tsx';
import { LayoutPlace } from '../LayoutPlace.tsx';

const RACK = [
  plainPiece({ length: 2400, width: 220, thickness: 56, count: 4 }),
  plainPiece({ id: 'w', mark: 'W1', species: 'walnut-black', length: 2400, width: 220, thickness: 56 }),
];
const band = (change: Partial<InsertChoice> = {}): InsertChoice => ({
  species: 'walnut-black',
  width: 20,
  at: 130,
  angle: 0,
  jog: 0,
  ...change,
});
const banded = (...more: InsertChoice[]): Board =>
  insetBoard(plainBoard({ length: 400, width: 230, thickness: 25 }), [band(), ...more]);

async function open(board = banded(), system: 'metric' | 'inch' = 'metric') {
  const opened = await openBoardAt(LayoutPlace, planInput(board, RACK), system);
  fireEvent.click(await screen.findByRole('tab', { name: /^Put in/ }));
  await screen.findByRole('toolbar', { name: 'Strips put in' });
  return opened;
}
async function saved(server: ServerForTests): Promise<{ board: Board; steps: number }> {
  await waitFor(() => expect(server.writes.length).toBeGreaterThan(0));
  const steps = server.writes.flatMap((w) => (w.body as { steps: BoardStep[] }).steps);
  return { board: boardSchema.parse(steps.at(-1)!.board), steps: steps.length };
}
const put = (board: Board) => insertsOf(board.recipe).map((i) => i.operation);
const slider = (name: string) => screen.getByRole('slider', { name });
const pointer = (clientX: number) => ({ pointerId: 1, clientX, clientY: 100, button: 0, pointerType: 'mouse' });

describe('strips put in, on the drawing', () => {
  it('the recipe has panel, what is put in, and the board, with their figures', async () => {
    await open(banded(band({ at: 270 })));
    expect(screen.getAllByRole('tab').map((t) => plain(t.textContent))).toEqual([
      expect.stringMatching(/^Panel\d+(\.\d)? × 276 × \d+(\.\d)? mm$/),
      'Put in2 strips',
      'Board400 × 230 × 25 mm',
    ]);
  });

  it('keys move a strip by half a millimetre and turn it by half a degree, with shift ten times that; never off the board', async () => {
    const { server } = await open();
    fireEvent.keyDown(slider('Place of strip 7'), { key: 'ArrowRight' });
    fireEvent.keyDown(slider('Place of strip 7'), { key: 'ArrowRight', shiftKey: true });
    fireEvent.keyDown(slider('Angle of strip 7'), { key: 'ArrowUp', shiftKey: true });
    expect(slider('Place of strip 7').getAttribute('aria-valuetext')).toBe('135.5 mm from the left end');
    expect(put((await saved(server)).board)).toMatchObject([{ at: 135.5, angle: 5, jog: 0 }]);
    for (let i = 0; i < 60; i += 1)
      fireEvent.keyDown(slider('Place of strip 7'), { key: 'ArrowRight', shiftKey: true });
    for (let i = 0; i < 20; i += 1) fireEvent.keyDown(slider('Angle of strip 7'), { key: 'ArrowUp', shiftKey: true });
    expect(Number(slider('Place of strip 7').getAttribute('aria-valuenow'))).toBeLessThanOrEqual(400);
    expect(slider('Angle of strip 7').getAttribute('aria-valuenow')).toBe('60');
  });

  it('inch readers move by thirty-seconds', async () => {
    const { server } = await open(banded(), 'inch');
    fireEvent.keyDown(slider('Place of strip 7'), { key: 'ArrowLeft' });
    expect(put((await saved(server)).board)[0]!.at).toBeCloseTo(130 - 25.4 / 32, 9);
  });

  it('dragged it lies under the hand, in one step of undo; a drag of the lower grip snaps to a usual angle', async () => {
    const { server } = await open();
    const place = slider('Place of strip 7');
    const x = Number(place.querySelector('circle')!.getAttribute('cx')) + 60;
    fireEvent.pointerMove(place, pointer(900));
    expect(place.getAttribute('aria-valuenow')).toBe('130');
    fireEvent.pointerDown(place, pointer(x));
    for (const by of [10, 30, 50]) fireEvent.pointerMove(place, pointer(x + by));
    fireEvent.pointerUp(place, pointer(x + 50));
    const first = await saved(server);
    expect(first.steps).toBe(1);
    expect(put(first.board)[0]!.at).toBeGreaterThan(140);
    const angle = slider('Angle of strip 7');
    const from = Number(angle.querySelector('circle')!.getAttribute('cx')) + 60;
    fireEvent.pointerDown(angle, pointer(from));
    fireEvent.pointerMove(angle, pointer(from - 1));
    expect(Math.abs(Number(angle.getAttribute('aria-valuenow')))).toBeLessThan(1.6);
    fireEvent.pointerUp(angle, pointer(from - 1));
  });

  it('figures: width, place, angle and jog, each with its limits told; the way of a jog is a press', async () => {
    const { server } = await open();
    type('Wide', '12');
    type('From left end', '200');
    type('Jog behind it', '6');
    fireEvent.click(screen.getByRole('button', { name: '30°' }));
    fireEvent.click(await screen.findByRole('radio', { name: 'further' }));
    // On a slow machine what was typed first is saved before the last press.
    await waitFor(() => expect(put(server.board.board)).toMatchObject([{ at: 200, angle: 30, jog: -6 }]));
    const { board } = server.board;
    expect(insertsOf(board.recipe)[0]!.strip.width).toBe(12);
    expect(lookOf(board)).toBe('split');
  });

  it.each([
    ['Wide', '0', /^Strip width/],
    ['From left end', '401', /^Place/],
    ['Angle', '75', /^Angle/],
    ['Jog behind it', '-3', /^Jog/],
    ['From left end', 'there', /^Place/],
  ])('%s of %s is refused by its name, and nothing is lost', async (name, text, words) => {
    const { server } = await open();
    type(name, text);
    await waitFor(() => expect(said(name)).toMatch(words));
    expect(server.writes).toEqual([]);
  });

  it('one more goes into the widest gap, like the one in hand; taken out, the board is flat again', async () => {
    const { server } = await open();
    press('Put in another');
    // From the band to the right end is more than from the left end to it.
    expect(put((await saved(server)).board).map((o) => o.at)).toEqual([130, (130 + 400) / 2]);
    fireEvent.keyDown(document.body, { key: 'n' });
    await waitFor(() => expect(screen.getAllByRole('button', { name: /^Strip \d/ })).toHaveLength(3));
    for (let i = 0; i < 3; i += 1) press('Take out');
    await tabsAre([]);
    await waitFor(async () => expect((await saved(server)).board.recipe).toEqual(plainBoard().recipe));
  });
});

describe('at the other stations', () => {
  it('Brief begins it once there are strips', async () => {
    await openBoardAt(BriefPlace, planInput(plainBoard({}, []), RACK));
    expect((await screen.findByRole('radio', { name: /Banded/ })).hasAttribute('disabled')).toBe(true);
  });

  it('Brief says what it asks of the panel', async () => {
    const { server } = await openBoardAt(BriefPlace, planInput(plainBoard({ length: 500 }), RACK));
    fireEvent.click(await screen.findByRole('radio', { name: /Banded/ }));
    const { board } = await saved(server);
    expect(lookOf(board)).toBe('banded');
    const region = await screen.findByRole('region', { name: 'What the size asks' });
    const { again } = makePlan(planInput(board, RACK));
    expect(plain(region.textContent)).toContain('sawn into 3 parts');
    expect(plain(region.textContent)).toContain(`${Math.round(again!.panelLength * 10) / 10} ×`);
    expect(field('Length').value).toContain('500');
  });

  it('Glue has the panel and its parts, piece by piece', async () => {
    await openBoardAt(GluePlace, planInput(banded(), RACK));
    fireEvent.click(await screen.findByRole('radio', { name: 'The parts' }));
    await screen.findByRole('heading', { name: 'Making the block flat' });
    const { again } = makePlan(planInput(banded(), RACK));
    const { glueUps } = again!.gluing;
    expect(glueUps.at(-1)).toMatchObject({ firstStrip: 1, lastStrip: 3 });
    expect(glueUps.every((g) => g.name.startsWith('P'))).toBe(true);
    expect(screen.getByRole('heading', { name: /from above$/ }).textContent).toContain(
      `pieces ${glueUps[0]!.firstStrip} to ${glueUps[0]!.lastStrip}`,
    );
  });

  it('Cuts shows what is put in beside the strips of the panel', async () => {
    await openBoardAt(CutsPlace, planInput(banded(), RACK));
    const bar = await screen.findByRole('group', { name: 'Strips of the board in order' });
    const titles = [...bar.querySelectorAll('title')].map((t) => t.textContent);
    expect(titles).toHaveLength(7);
    expect(titles.at(-1)).toMatch(/^Strip 7/);
  });

  it('the sheet says where every line is drawn, from the left end along both edges', async () => {
    const board = banded(band({ at: 260, angle: 20 }));
    const { text } = await openBoardAt(SheetPlace, planInput(board, RACK));
    await screen.findByRole('img', { name: /The panel with its 2 cuts/ });
    expect(text()).toMatch(/Line 1, then strip 7: from \d+(\.\d)? mm along the far edge, square/);
    expect(text()).toMatch(
      /Line 2, then strip 8: from \d+(\.\d)? mm along the far edge to \d+(\.\d)? mm along the near/,
    );
  });
});
