import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { BoardStep } from '#contract/boards.ts';
import { backOperationOf, backOf, missingOf } from '#core/board/back.ts';
import { boardSchema, type Board } from '#core/board/board.ts';
import { backedBoard, type BackChoice } from '#core/board/recutForTests.ts';
import { makePlan } from '#core/plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import { openBoardAt } from '../../../openBoardForTests.tsx';
import type { ServerForTests } from '../../../serverForTests.ts';
import { plain, press, said, tabsAre, type } from '../../../shownForTests.tsx';
import { GluePlace } from '../../glue/GluePlace.tsx';
import { SheetPlace } from '../../sheet/SheetPlace.tsx';
import { TrimPlace } from '../../trim/TrimPlace.tsx';
import { LayoutPlace } from '../LayoutPlace.tsx';

const RACK = [
  plainPiece({ length: 2400, width: 220, thickness: 56, count: 4 }),
  plainPiece({ id: 'w', mark: 'W1', species: 'walnut-black', length: 2400, width: 220, thickness: 56 }),
];
const flat = () => plainBoard({ length: 400, width: 260, thickness: 25 });
const backed = (change: Partial<BackChoice> = {}): Board =>
  backedBoard(flat(), {
    strips: Array.from({ length: 5 }, () => ({ species: 'walnut-black', width: 60 })),
    runs: 'along',
    thickness: 6,
    ...change,
  });

async function open(board = backed()) {
  const opened = await openBoardAt(LayoutPlace, planInput(board, RACK));
  fireEvent.click(await screen.findByRole('tab', { name: /^Back/ }));
  await screen.findByRole('toolbar', { name: 'Strips of the back' });
  return opened;
}
async function saved(server: ServerForTests): Promise<Board> {
  await waitFor(() => expect(server.writes.length).toBeGreaterThan(0));
  const steps = server.writes.flatMap((w) => (w.body as { steps: BoardStep[] }).steps);
  return boardSchema.parse(steps.at(-1)!.board);
}
const stripsOfBack = (board: Board) => backOperationOf(board.recipe)!.strips.map((s) => [s.species, s.width]);

describe('a back, on the drawing', () => {
  it('begun from the recipe it covers the board; the recipe has it as a stage', async () => {
    const { server } = await openBoardAt(LayoutPlace, planInput(flat(), RACK));
    press('Cut and glue again');
    fireEvent.click(await screen.findByRole('menuitem', { name: 'Glue a back under it' }));
    await screen.findByRole('toolbar', { name: 'Strips of the back' });
    const board = await saved(server);
    expect(missingOf(backOf(board, DEFAULT_SHOP)!)).toBe(0);
    await tabsAre(['Panel', 'Back', 'Board']);
    press('Cut and glue again');
    expect(
      (await screen.findByRole('menuitem', { name: /back under it: done already/ })).hasAttribute('disabled'),
    ).toBe(true);
  });

  it('strips are widened, added, taken out, all made of one wood; e covers the board', async () => {
    const { server } = await open();
    press('Strip 8');
    type('Wide', '50');
    press('One more');
    await waitFor(async () =>
      expect(stripsOfBack(await saved(server)).map(([, w]) => w)).toEqual([60, 50, 50, 60, 60, 60]),
    );
    fireEvent.keyDown(document.body, { key: 'Delete' });
    await waitFor(async () =>
      expect(stripsOfBack(await saved(server)).map(([, w]) => w)).toEqual([60, 50, 60, 60, 60]),
    );
    press('Take this one out');
    await waitFor(() =>
      expect(plain(screen.getByRole('status').textContent)).toMatch(/more are needed to cover the board/),
    );
    fireEvent.keyDown(document.body, { key: 'e' });
    await waitFor(() => expect(plain(screen.getByRole('status').textContent)).toMatch(/^Together/));
    expect(missingOf(backOf(await saved(server), DEFAULT_SHOP)!)).toBe(0);
  });

  it('laid the other way it covers the board again; its thickness is typed, and refused by its name', async () => {
    const { server } = await open();
    fireEvent.click(screen.getByRole('radio', { name: 'Across it' }));
    await waitFor(async () => expect(backOperationOf((await saved(server)).recipe)!.operation.runs).toBe('across'));
    expect(missingOf(backOf(await saved(server), DEFAULT_SHOP)!)).toBe(0);
    type('Back, thick', '8');
    await waitFor(async () => expect(backOperationOf((await saved(server)).recipe)!.operation.thickness).toBe(8));
    type('Back, thick', '1');
    await waitFor(() => expect(said('Back, thick')).toMatch(/^Back/));
    press('Take the back off');
    await waitFor(async () => expect((await saved(server)).recipe).toEqual(flat().recipe));
    await tabsAre([]);
  });
});

describe('a backed board at the other stations', () => {
  it('Glue has its panel, the strips of the back, and both together', async () => {
    await openBoardAt(GluePlace, planInput(backed(), RACK));
    fireEvent.click(await screen.findByRole('radio', { name: 'Strips of the back' }));
    const heading = await screen.findByRole('heading', { name: /strips \d+ to \d+, from above$/ });
    expect(Number(/\d+/.exec(heading.textContent)![0])).toBeGreaterThan(6);
    fireEvent.click(screen.getByRole('radio', { name: 'The back under it' }));
    await screen.findByRole('heading', { name: 'Glue pieces 1 to 2, from above' });
  });

  it('Trim is about the backed board', async () => {
    await openBoardAt(TrimPlace, planInput(backed(), RACK));
    await screen.findByRole('heading', { name: 'The backed board' });
  });

  it('the sheet draws it from below, and says where its first strip lies', async () => {
    const board = backed({
      runs: 'across',
      strips: Array.from({ length: 7 }, () => ({ species: 'walnut-black', width: 60 })),
    });
    const { text } = await openBoardAt(SheetPlace, planInput(board, RACK));
    await screen.findByRole('img', { name: 'The back of 7 strips from below, to scale' });
    expect(text()).toMatch(/Strip 7 at the right end/);
    const { back } = makePlan(planInput(board, RACK));
    expect(text()).toContain(`made flat to ${back!.thickness} mm`);
  });
});
