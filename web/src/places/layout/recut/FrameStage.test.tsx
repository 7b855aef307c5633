import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { BoardStep } from '#contract/boards.ts';
import { boardSchema, type Board } from '#core/board/board.ts';
import { FRAME_SIDES, framesOf } from '#core/board/frame.ts';
import { insertsOf } from '#core/board/inset.ts';
import { lookOf } from '#core/board/looks.ts';
import { framedBoard, recutBoard, type RingChoice } from '#core/board/recutForTests.ts';
import { makePlan } from '#core/plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { openBoardAt } from '../../../openBoardForTests.tsx';
import type { ServerForTests } from '../../../serverForTests.ts';
import { plain, press, said, tabsAre, type } from '../../../shownForTests.tsx';
import { BriefPlace } from '../../brief/BriefPlace.tsx';
import { CutsPlace } from '../../cuts/CutsPlace.tsx';
import { GluePlace } from '../../glue/GluePlace.tsx';
import { SheetPlace } from '../../sheet/SheetPlace.tsx';
import { TrimPlace } from '../../trim/TrimPlace.tsx';
import { LayoutPlace } from '../LayoutPlace.tsx';

const RACK = [
  plainPiece({ length: 2400, width: 220, thickness: 56, count: 4 }),
  plainPiece({ id: 'w', mark: 'W1', species: 'walnut-black', length: 2400, width: 220, thickness: 56 }),
];
const RING: RingChoice = { species: 'walnut-black', widths: [20, 22, 24, 26], first: 'sides' };
const flat = () => plainBoard({ length: 400, width: 300, thickness: 25 });
const framed = (...rings: RingChoice[]): Board => framedBoard(flat(), rings.length > 0 ? rings : [RING]);

async function open(board = framed(), system: 'metric' | 'inch' = 'metric') {
  const opened = await openBoardAt(LayoutPlace, planInput(board, RACK), system);
  fireEvent.click(await screen.findByRole('tab', { name: /^Frame/ }));
  await screen.findByRole('toolbar', { name: 'Rings of the frame' });
  return opened;
}
async function saved(server: ServerForTests): Promise<{ board: Board; steps: number }> {
  await waitFor(() => expect(server.writes.length).toBeGreaterThan(0));
  const steps = server.writes.flatMap((w) => (w.body as { steps: BoardStep[] }).steps);
  return { board: boardSchema.parse(steps.at(-1)!.board), steps: steps.length };
}
const widths = (board: Board) =>
  framesOf(board.recipe).map(({ strips }) => FRAME_SIDES.map((side) => strips[side].width));
const slider = (name: string) => screen.getByRole('slider', { name: new RegExp(`^${name}`) });
const pointer = (clientX: number, clientY: number) => ({ pointerId: 1, clientX, clientY, button: 0 });

describe('a frame, on the drawing', () => {
  it('the recipe has panel, frame and board, with their figures; of rows the slices and rows before it', async () => {
    await open();
    const tabs = () => screen.getAllByRole('tab').map((t) => plain(t.textContent));
    expect(tabs()).toEqual([
      expect.stringMatching(/^Panel\d+(\.\d)? × 276 × 25\.5 mm$/),
      'Frame4 strips',
      'Board400 × 300 × 25 mm',
    ]);
  });

  it('of end grain it goes round the rows', async () => {
    await open(framedBoard(recutBoard(flat()), [RING, RING]));
    await tabsAre(['Panel', 'Slices', 'Rows', 'Frame', 'Board']);
    expect(plain(screen.getByRole('tab', { name: /^Frame/ }).textContent)).toBe('Frame2 rings');
  });

  it('keys widen and narrow a strip by half a millimetre, with shift by five; inch readers by thirty-seconds', async () => {
    const { server } = await open();
    fireEvent.keyDown(slider('Far side'), { key: 'ArrowUp' });
    fireEvent.keyDown(slider('Left end'), { key: 'ArrowLeft', shiftKey: true });
    expect(slider('Far side').getAttribute('aria-valuetext')).toBe('20.5 mm');
    expect(widths((await saved(server)).board)).toEqual([[20.5, 22, 19, 26]]);
  });

  it('never narrower than a strip can be', async () => {
    const { server } = await open(framed({ ...RING, widths: [2, 22, 24, 26] }));
    for (let i = 0; i < 5; i += 1) fireEvent.keyDown(slider('Far side'), { key: 'ArrowDown' });
    expect(widths((await saved(server)).board)[0]![0]).toBe(1);
  });

  it('dragged its inner edge lies under the hand, on every side, in one step of undo', async () => {
    const { server } = await open();
    for (const [side, at, by] of [
      ['Far side', 0, [0, 20]],
      ['Near side', 1, [0, -20]],
      ['Left end', 2, [20, 0]],
      ['Right end', 3, [-20, 0]],
    ] as const) {
      const grip = slider(side);
      const circle = grip.querySelector('circle')!;
      // In a document without a browser the drawing lies at its corner.
      const [x, y] = [Number(circle.getAttribute('cx')) + 60, Number(circle.getAttribute('cy')) + 44];
      const steps = server.writes.length === 0 ? 0 : (await saved(server)).steps;
      fireEvent.pointerDown(grip, pointer(x, y));
      fireEvent.pointerMove(grip, pointer(x + by[0] / 2, y + by[1] / 2));
      fireEvent.pointerMove(grip, pointer(x + by[0], y + by[1]));
      fireEvent.pointerUp(grip, pointer(x + by[0], y + by[1]));
      await waitFor(async () => expect((await saved(server)).steps).toBe(steps + 1));
      expect(widths((await saved(server)).board)[0]![at]).toBeGreaterThan([20, 22, 24, 26][at]! + 5);
    }
  });

  it('dragged by a reader of inches it is a whole number of thirty-seconds', async () => {
    const { server } = await open(framed(), 'inch');
    const grip = slider('Far side');
    const [x, y] = ['cx', 'cy'].map((of) => Number(grip.querySelector('circle')!.getAttribute(of)));
    fireEvent.pointerDown(grip, pointer(x! + 60, y! + 44));
    fireEvent.pointerMove(grip, pointer(x! + 60, y! + 57));
    fireEvent.pointerUp(grip, pointer(x! + 60, y! + 57));
    const far = widths((await saved(server)).board)[0]![0]!;
    expect(far).toBeGreaterThan(22);
    expect((far * 32) / 25.4).toBeCloseTo(Math.round((far * 32) / 25.4), 9);
  });

  it('figures of the strip in hand; all four like it; what is glued first', async () => {
    const { server } = await open();
    press('Right end, 10');
    type('Wide, as glued', '31');
    press('All four like it');
    fireEvent.click(screen.getByRole('radio', { name: 'Ends first' }));
    const { board } = await saved(server);
    expect(widths(board)).toEqual([[31, 31, 31, 31]]);
    expect(framesOf(board.recipe)[0]!.operation.first).toBe('ends');
  });

  it.each(['0', '-4', '2000', 'wide'])('a width of %s is refused by its name, and nothing is lost', async (text) => {
    const { server } = await open();
    type('Wide, as glued', text);
    await waitFor(() => expect(said('Wide, as glued')).toMatch(/^Strip width/));
    expect(server.writes).toEqual([]);
  });

  it('one more ring goes outside, changes places, and is taken off; without a frame the board is flat again', async () => {
    const { server } = await open();
    press('One more ring');
    expect(widths((await saved(server)).board)).toEqual([
      [20, 22, 24, 26],
      [20, 20, 20, 20],
    ]);
    press('Further in');
    await waitFor(async () => expect(widths((await saved(server)).board)[0]).toEqual([20, 20, 20, 20]));
    fireEvent.keyDown(document.body, { key: 'n' });
    await waitFor(() => expect(screen.getAllByRole('button', { name: /^Ring \d/ })).toHaveLength(3));
    for (let i = 0; i < 3; i += 1) press('Take off');
    await tabsAre([]);
    await waitFor(async () => expect((await saved(server)).board.recipe).toEqual(flat().recipe));
  });
});

describe('cut and glued again, from Layout', () => {
  const add = async (what: RegExp) => {
    press('Cut and glue again');
    fireEvent.click(await screen.findByRole('menuitem', { name: what }));
  };

  it('a frame, a strip put in, slices: each begins where it is worked on, and what cannot be is not offered', async () => {
    const { server } = await openBoardAt(LayoutPlace, planInput(flat(), RACK));
    await screen.findByRole('toolbar', { name: 'How the board is looked at' });
    await add(/Glue a frame/);
    await screen.findByRole('toolbar', { name: 'Rings of the frame' });
    expect(lookOf((await saved(server)).board)).toBe('framed');
    await add(/put a strip in/);
    await screen.findByRole('toolbar', { name: 'Strips put in' });
    await waitFor(async () => {
      const { board } = await saved(server);
      expect([insertsOf(board.recipe).length, framesOf(board.recipe).length]).toEqual([1, 1]);
    });
    // One more never lies on the one that is there.
    await add(/put a strip in/);
    await waitFor(async () => {
      const places = insertsOf((await saved(server)).board.recipe).map((i) => i.operation.at);
      expect([places.length, new Set(places).size]).toEqual([2, 2]);
    });
    press('Take out');
    press('Cut and glue again');
    const slices = await screen.findByRole('menuitem', { name: /not what strips were put into/ });
    expect(slices.hasAttribute('disabled')).toBe(true);
    fireEvent.keyDown(document.body, { key: 'Escape' });
    press('Take out');
    await waitFor(() => expect(screen.queryByRole('toolbar', { name: 'Strips put in' })).toBeNull());
    await add(/turn them up$/);
    await screen.findByLabelText(/Slices for a board/);
    await waitFor(async () => expect(lookOf((await saved(server)).board)).toBe('endGrain'));
    press('Take the slices out');
    await waitFor(async () => expect(lookOf((await saved(server)).board)).toBe('framed'));
  });

  it('without strips there is nothing to cut', async () => {
    await openBoardAt(LayoutPlace, planInput(plainBoard({}, []), RACK));
    expect((await screen.findByRole('button', { name: 'Cut and glue again' })).hasAttribute('disabled')).toBe(true);
  });
});

describe('a framed board at the other stations', () => {
  it('Brief says what is left inside, and how that moves', async () => {
    await openBoardAt(BriefPlace, planInput(framed(), RACK));
    const region = await screen.findByRole('region', { name: 'What the frame leaves' });
    const { frame } = makePlan(planInput(framed(), RACK));
    expect(plain(region.textContent)).toContain(`board is ${frame!.field.length} × ${frame!.field.width} mm`);
    expect(screen.getByRole('radio', { name: /^Framed/ })).toHaveProperty('checked', true);
  });

  it('Glue has the panel, and the frame two strips at a time', async () => {
    await openBoardAt(GluePlace, planInput(framed(), RACK));
    fireEvent.click(await screen.findByRole('radio', { name: 'Frame: ends' }));
    await screen.findByRole('heading', { name: 'Glue pieces 1 to 3, from above' });
    // The frame is made level by hand, in a step of its own.
    expect(screen.queryByRole('heading', { name: /Making the .* flat/ })).toBeNull();
    const minded = screen.getByRole('heading', { name: 'What to mind' }).closest('section')!;
    expect(within(minded).getAllByText(/at its ends|end grain/).length).toBeGreaterThan(0);
    fireEvent.click(screen.getByRole('radio', { name: 'The panel of strips' }));
    await screen.findByRole('heading', { name: 'Making the panel flat' });
  });

  it('Cuts shows the strips of the frame beside those of the panel; Trim the framed board', async () => {
    await openBoardAt(CutsPlace, planInput(framed(), RACK));
    const bar = await screen.findByRole('group', { name: 'Strips of the board in order' });
    expect([...bar.querySelectorAll('title')]).toHaveLength(10);
  });

  it('Trim is about the framed board', async () => {
    await openBoardAt(TrimPlace, planInput(framed(), RACK));
    await screen.findByRole('heading', { name: 'The framed board' });
  });

  it('the sheet says which strip goes where, in the order they are glued on', async () => {
    const { text } = await openBoardAt(SheetPlace, planInput(framed(RING, { ...RING, first: 'ends' }), RACK));
    await screen.findByRole('img', { name: 'The board with its frame of 8 strips, to scale' });
    expect(text()).toMatch(/First strip 7 along the far side and strip 8 along the near side/);
    expect(text()).toMatch(/Then, over their ends, strip 9 along the left end and strip 10 along the right end/);
    expect(text()).toMatch(/First strip 13 along the left end and strip 14 along the right end/);
  });
});
