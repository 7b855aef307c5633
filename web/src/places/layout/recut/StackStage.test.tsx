import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { BoardStep } from '#contract/boards.ts';
import { boardSchema, type Board } from '#core/board/board.ts';
import { recutBoard, stackedBoard, type StackChoice } from '#core/board/recutForTests.ts';
import { stripsOf } from '#core/board/recipe.ts';
import { stackOperationsOf, sticksIn } from '#core/board/stack.ts';
import { makePlan } from '#core/plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { openBoardAt } from '../../../openBoardForTests.tsx';
import type { ServerForTests } from '../../../serverForTests.ts';
import { plain, press, said, tabsAre, type } from '../../../shownForTests.tsx';
import { CutsPlace } from '../../cuts/CutsPlace.tsx';
import { GluePlace } from '../../glue/GluePlace.tsx';
import { SheetPlace } from '../../sheet/SheetPlace.tsx';
import { LayoutPlace } from '../LayoutPlace.tsx';

const RACK = [
  plainPiece({ length: 2400, width: 220, thickness: 56, count: 4 }),
  plainPiece({ id: 'w', mark: 'W1', species: 'walnut-black', length: 2400, width: 220, thickness: 56 }),
];
const flat = () => plainBoard({ length: 400, width: 240, thickness: 25 });
const stacked = (change: Partial<StackChoice> = {}): Board =>
  stackedBoard(flat(), [
    {
      bits: [
        { species: 'walnut-black', length: 30 },
        { species: 'maple-hard', length: 20 },
      ],
      depth: 20,
      accents: [
        { at: 1, width: 3 },
        { at: 3, width: 3 },
      ],
      ...change,
    },
  ]);

async function open(board = stacked(), system?: 'metric' | 'inch') {
  const opened = await openBoardAt(LayoutPlace, planInput(board, RACK), system);
  fireEvent.click(await screen.findByRole('tab', { name: /^Accents/ }));
  await screen.findByRole('toolbar', { name: 'Accents of bits' });
  return opened;
}
async function saved(server: ServerForTests): Promise<Board> {
  await waitFor(() => expect(server.writes.length).toBeGreaterThan(0));
  const steps = server.writes.flatMap((w) => (w.body as { steps: BoardStep[] }).steps);
  return boardSchema.parse(steps.at(-1)!.board);
}
const stackOf = (board: Board) => stackOperationsOf(board.recipe)[0]!;
const depthOf = (board: Board) => sticksIn(stackOf(board), board.recipe)[0]!.width;
const accentsOf = (board: Board) => stripsOf(board).filter((s) => s.stack !== null);

describe('accents of bits, on the drawing', () => {
  it('begun from the recipe they lie between long strips, their stack deep enough; the recipe begins with them', async () => {
    const { server } = await openBoardAt(LayoutPlace, planInput(flat(), RACK));
    press('Cut and glue again');
    fireEvent.click(await screen.findByRole('menuitem', { name: 'Lay accents of stacked bits in' }));
    await screen.findByRole('toolbar', { name: 'Accents of bits' });
    const board = await saved(server);
    expect(stripsOf(board).map((s) => s.stack !== null)).toEqual([
      false,
      true,
      ...stripsOf(flat())
        .slice(2)
        .map(() => false),
      true,
      false,
    ]);
    expect(makePlan(planInput(board, RACK)).stacks[0]!.stack.spares).toBeGreaterThan(0);
    await tabsAre(['Accents', 'Panel', 'Board']);
    press('Cut and glue again');
    const slices = await screen.findByRole('menuitem', { name: /slices.*not with accents of bits/ });
    expect(slices.hasAttribute('disabled')).toBe(true);
  });

  it('slices take none, and it is said', async () => {
    await openBoardAt(LayoutPlace, planInput(recutBoard(flat()), RACK));
    press('Cut and glue again');
    const item = await screen.findByRole('menuitem', { name: 'Lay accents of stacked bits in: not into slices' });
    expect(item.hasAttribute('disabled')).toBe(true);
  });

  it('a joint of the first round is moved by keys and by hand, the depth too; a hand that goes too far stops', async () => {
    const { server } = await open();
    const [first] = screen.getAllByRole('slider', { name: /Length of the bits of strip/ });
    fireEvent.keyDown(first!, { key: 'ArrowRight' });
    await waitFor(async () => expect(stackOf(await saved(server)).bits).toEqual([30.5, 20]));
    fireEvent.keyDown(first!, { key: 'ArrowLeft', shiftKey: true });
    await waitFor(async () => expect(stackOf(await saved(server)).bits).toEqual([25.5, 20]));
    for (let n = 0; n < 8; n += 1) fireEvent.keyDown(first!, { key: 'ArrowLeft', shiftKey: true });
    await waitFor(async () => expect(stackOf(await saved(server)).bits[0]).toBe(5.5));
    fireEvent.keyDown(screen.getByRole('slider', { name: 'Depth of the stack' }), { key: 'ArrowUp' });
    await waitFor(async () => expect(depthOf(await saved(server))).toBe(20.5));
  });

  it('in inches a drag falls on thirty-seconds', async () => {
    const { server } = await open(stacked(), 'inch');
    const [first] = screen.getAllByRole('slider', { name: /Length of the bits of strip/ });
    first!.setPointerCapture = () => undefined;
    first!.hasPointerCapture = () => true;
    fireEvent.pointerDown(first!, { pointerId: 1, clientX: 100 });
    fireEvent.pointerMove(first!, { pointerId: 1, clientX: 131 });
    fireEvent.pointerUp(first!, { pointerId: 1 });
    const [length] = stackOf(await saved(server)).bits;
    expect((length! / 25.4) * 32).toBeCloseTo(Math.round((length! / 25.4) * 32), 6);
  });

  it('woods are added and taken out by keys, changed and typed; nonsense is refused by its name', async () => {
    const { server } = await open();
    fireEvent.keyDown(document.body, { key: 'n' });
    await waitFor(async () => expect(stackOf(await saved(server)).bits).toEqual([30, 30, 20]));
    fireEvent.keyDown(document.body, { key: 'Delete' });
    await waitFor(async () => expect(stackOf(await saved(server)).bits).toEqual([30, 20]));
    type('Bits, long', '45');
    await waitFor(async () => expect(stackOf(await saved(server)).bits).toEqual([45, 20]));
    type('Bits, long', '1');
    await waitFor(() => expect(said('Bits, long')).toMatch(/^Bit length/));
    fireEvent.click(screen.getAllByRole('button', { name: /^Bits of \d+$/ })[1]!);
    press('Take this one out');
    await waitFor(async () => expect(stackOf(await saved(server)).bits).toEqual([45]));
  });

  it('more accents, or wider ones, make the stack deeper; a stack too shallow says by how much, and e mends it', async () => {
    const { server } = await open(stacked({ depth: 6 }));
    expect(plain(screen.getByRole('status').textContent)).toMatch(/deeper, or an accent less/);
    fireEvent.keyDown(document.body, { key: 'e' });
    await waitFor(() => expect(plain(screen.getByRole('status').textContent)).toMatch(/^2 accents and \d spare/));
    const fitted = depthOf(await saved(server));
    press('One more accent');
    await waitFor(async () => expect(accentsOf(await saved(server))).toHaveLength(3));
    expect(depthOf(await saved(server))).toBeGreaterThan(fitted);
    type('Accents, wide', '4');
    await waitFor(async () => expect(accentsOf(await saved(server)).map((s) => s.width)).toEqual([4, 4, 4]));
    press('One accent less');
    await waitFor(async () => expect(accentsOf(await saved(server))).toHaveLength(2));
    press('Take the stack out');
    await waitFor(async () => expect((await saved(server)).recipe).toEqual(flat().recipe));
    await tabsAre([]);
  });

  it('in the panel an accent tells its woods and has no species to choose', async () => {
    await openBoardAt(LayoutPlace, planInput(stacked(), RACK));
    fireEvent.keyDown(document.body, { key: 'ArrowDown' });
    const rail = await screen.findByRole('toolbar', { name: 'Strip 2' });
    expect(plain(rail.textContent)).toMatch(
      /Bits of Black walnut, Hard maple.*from P1, W1|Bits of Black walnut, Hard maple.*from W1, P1/,
    );
    expect(within(rail).queryByLabelText('Species')).toBeNull();
  });
});

describe('accents of bits at the other stations', () => {
  it('Glue has the bits first, end to end, with the glue’s own figures', async () => {
    const input = planInput(stacked(), RACK);
    const { text } = await openBoardAt(GluePlace, input);
    fireEvent.click(await screen.findByRole('radio', { name: 'The bits' }));
    await screen.findByRole('heading', { name: /bits \d+ to \d+, end to end$/ });
    const { gluing, stack } = makePlan(input).stacks[0]!;
    expect(text()).toContain(`Bits ${gluing.glueUps[0]!.firstStrip} to ${gluing.glueUps[0]!.lastStrip} in order`);
    const row = screen.getByRole('rowheader', { name: /, taken$/ }).closest('tr')!;
    expect(
      within(row)
        .getAllByRole('cell')
        .map((c) => plain(c.textContent))[1],
    ).toBe(String(gluing.mostParts));
    expect(stack.bits.length).toBe(gluing.glueUps.at(-1)!.lastStrip);
  });

  it('the sheet draws them, and its cut list says of which strips accents are resawn; none is missing', async () => {
    const { text } = await openBoardAt(SheetPlace, planInput(stacked(), RACK));
    await screen.findByRole('img', { name: /bits end to end, with the accents/ });
    expect(text()).toMatch(/2, 4Accent of bits2resawn.*bits of 9, 10/);
    expect(text()).not.toContain('missing');
    expect(text()).toMatch(/8 strips, 2 of bits/);
  });

  it('Cuts counts accents as made, their strips as cut', async () => {
    await openBoardAt(CutsPlace, planInput(stacked(), RACK));
    const bar = await screen.findByRole('group', { name: 'Strips of the board in order' });
    expect(plain(bar.textContent)).toContain('Strip 2, of bits');
    expect(bar.querySelectorAll('[data-missing]')).toHaveLength(0);
  });
});
