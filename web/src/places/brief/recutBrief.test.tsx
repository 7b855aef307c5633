import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { notifications } from '@mantine/notifications';
import { describe, expect, it, vi } from 'vitest';
import type { BoardStep } from '#contract/boards.ts';
import { boardSchema, type Board } from '#core/board/board.ts';
import { lookOf } from '#core/board/looks.ts';
import { stripsOf } from '#core/board/recipe.ts';
import { CHEVRON, END_GRAIN, recutBoard, type RecutChoices } from '#core/board/recutForTests.ts';
import { recutOf, slicesFrom } from '#core/board/recut.ts';
import { makePlan } from '#core/plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { glueUpsOf } from '#core/plan/trimAgain.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import { durationWords } from '../../quantities/duration.ts';
import { openBoardAt } from '../../openBoardForTests.tsx';
import type { ServerForTests } from '../../serverForTests.ts';
import { field, plain, said, type } from '../../shownForTests.tsx';
import { SheetPlace } from '../sheet/SheetPlace.tsx';
import { BriefPlace } from './BriefPlace.tsx';

const RACK = [plainPiece({ length: 2400, width: 220, thickness: 56, count: 8 })];
const STRIPS = [45, 45, 45, 45, 45, 45];
const endGrain = (change: Partial<RecutChoices> = {}, size: Partial<Board> = {}): Board =>
  recutBoard(plainBoard({ length: 400, width: 250, thickness: 35, ...size }, STRIPS), change, END_GRAIN);
const chevron = (): Board =>
  recutBoard(plainBoard({ length: 400, width: 200, thickness: 25 }, Array<number>(11).fill(44)), {}, CHEVRON);

async function open(board: Board, rack = RACK) {
  const opened = await openBoardAt(BriefPlace, planInput(board, rack));
  await screen.findByLabelText('Thickness');
  return opened;
}
async function saved(server: ServerForTests): Promise<Board> {
  await waitFor(() => expect(server.writes.length).toBeGreaterThan(0));
  return boardSchema.parse((server.writes.at(-1)!.body as { steps: BoardStep[] }).steps.at(-1)!.board);
}
const asks = async () => plain((await screen.findByRole('region', { name: 'What the size asks' })).textContent);
const PANEL = 'As long as panels of this length make it';

describe('what the size asks', () => {
  it('of end grain: rows, slices and the panel; all of it follows when the size is changed', async () => {
    await open(endGrain());
    const before = await asks();
    // 400 in rows of 30 are 14; a slice is 35, its sanding and the flattening of end grain.
    const { sanding, endGrainFlatten } = DEFAULT_SHOP.habits;
    expect(before).toContain('14 rows of 30 mm make the length of 400 mm.');
    expect(before).toContain(`Slices are sawn ${35 + sanding + endGrainFlatten} mm, 14 in all.`);
    expect(before).toContain('its strips on edge');
    type('Length', '300');
    await waitFor(async () => expect(await asks()).toContain('10 rows of 30 mm make the length of 300 mm.'));
  });

  it('of a chevron: its width is in rows, its slices are slanted', async () => {
    await open(chevron());
    const words = await asks();
    expect(words).toMatch(/\d+ rows of 38.1 mm make the width of 200 mm\. Slices are sawn 38.1 mm wide at 35°/);
  });

  it('a batch says from how many panels', async () => {
    await open(endGrain({ panels: 2 }, { count: 3 }));
    expect(await asks()).toContain('42 in all, from 2 panels.');
  });

  it('a flat board asks nothing of the kind', async () => {
    await open(plainBoard());
    expect(screen.queryByRole('region', { name: 'What the size asks' })).toBeNull();
  });
});

describe('the other way round', () => {
  it('as long as a panel of that length makes it: no row more comes out of it', async () => {
    const { server } = await open(endGrain());
    type(PANEL, '900');
    const large = await saved(server);
    const recut = recutOf(large, DEFAULT_SHOP)!;
    expect(recut.panelLength).toBeLessThanOrEqual(900);
    expect(large.length).toBe(slicesFrom(recutOf(endGrain(), DEFAULT_SHOP)!, 900) * 30);
    await waitFor(() => expect(field('Length').value).toContain(String(large.length)));
  });

  it.each([
    ['60', 'not one slice comes out of it'],
    ['8 m', 'A panel of that length gives no board: its length'],
  ])('a panel of %s gives no board, and nothing is changed', async (text, words) => {
    const shown = vi.spyOn(notifications, 'show');
    const { server } = await open(endGrain());
    type(PANEL, text);
    await waitFor(() => expect(shown.mock.calls.map(([n]) => n.message)).toEqual([expect.stringContaining(words)]));
    shown.mockRestore();
    expect(server.writes).toEqual([]);
    expect(field('Length').value).toContain('400');
  });

  it.each(['', 'long', '3', '99 m'])('%j is no length of a panel, and its field says so', async (text) => {
    const { server } = await open(endGrain());
    type(PANEL, text);
    await waitFor(() => expect(said(PANEL)).toMatch(/^Panel length/));
    expect(server.writes).toEqual([]);
  });

  it('strips are stood on edge or laid flat, and stay the same strips', async () => {
    const { server } = await open(endGrain());
    fireEvent.click(screen.getByRole('radio', { name: 'Strips lying flat' }));
    const board = await saved(server);
    expect([board.construction, lookOf(board)]).toEqual(['face', 'endGrain']);
    expect(stripsOf(board)).toEqual(stripsOf(endGrain()));
  });
});

describe('each way', () => {
  const rows = async () => {
    const table = await screen.findByRole('table', { name: 'These strips each way' });
    return within(table)
      .getAllByRole('row')
      .slice(1)
      .map((r) => [...r.querySelectorAll('th, td')].map((c) => plain(c.textContent)));
  };

  it('wood, glue-ups and hands of the board as it is are those of its plan', async () => {
    const board = endGrain();
    await open(board);
    const told = await rows();
    expect(told.map((r) => r[0])).toEqual(['edge grain', 'end grain', 'chevron', 'banded', 'split', 'framed']);
    const plan = makePlan(planInput(board, RACK));
    expect(told[1]).toEqual([
      'end grain',
      `${(plan.materials.taken.cubicMetres * 1000).toFixed(1)} l`,
      String(glueUpsOf(plan).length),
      durationWords(plan.handsMinutes),
    ]);
    // Panel and rows are glued: never fewer glue-ups than the flat board has.
    expect(Number(told[1]![2])).toBeGreaterThan(Number(told[0]![2]));
  });

  it('where the rack lacks wood it says of which way', async () => {
    await open(endGrain(), [plainPiece({ length: 600, width: 60, thickness: 56 })]);
    const told = await rows();
    expect(told.every((r) => r[1]!.endsWith('the rack lacks some'))).toBe(true);
  });

  it('a board of planks lying flat is set against face grain', async () => {
    await open(plainBoard({ construction: 'face', width: 150, thickness: 24 }, [80, 76]));
    expect((await rows()).map((r) => r[0])).toEqual([
      'face grain',
      'end grain',
      'chevron',
      'banded',
      'split',
      'framed',
    ]);
  });
});

describe('the map of rows on the sheet', () => {
  const map = async (board: Board) => {
    await openBoardAt(SheetPlace, planInput(board, RACK));
    const drawing = await screen.findByRole('img', { name: /rows in order, to scale/ });
    return [...drawing.querySelectorAll('g > text')].map((t) => t.textContent).filter((t) => /^\d/.test(t));
  };

  it('numbers every row and how it is turned', async () => {
    expect((await map(endGrain())).slice(0, 4)).toEqual(['1', '2⇄', '3', '4⇄']);
    expect(plain(document.body.textContent)).toContain('Rows 2, 4, 6, 8, 10, 12, 14 end for end, the same side up');
  });

  it('of many thin rows every fifth, so that no number lies on another', async () => {
    const many = await map(endGrain({ thickness: 8 }));
    expect(many.slice(0, 3).map((t) => parseInt(t, 10))).toEqual([1, 6, 11]);
  });

  it('a chevron’s rows are turned over', async () => {
    expect((await map(chevron())).slice(0, 3)).toEqual(['1', '2⟲', '3']);
  });
});
