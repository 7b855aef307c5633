import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { BoardStep } from '#contract/boards.ts';
import { boardSchema, type Board } from '#core/board/board.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { openBoardAt } from '../../openBoardForTests.tsx';
import type { ServerForTests } from '../../serverForTests.ts';
import { field, press, said, type } from '../../shownForTests.tsx';
import { BriefPlace } from './BriefPlace.tsx';

async function open(board: Board) {
  const opened = await openBoardAt(BriefPlace, planInput(board, [plainPiece({ length: 4000 })]));
  // The drawing, and the fields on it, come once it is known how large it may be.
  await screen.findByLabelText('Thickness');
  return opened;
}

/** The board as it was saved in the end. */
async function saved(server: ServerForTests, writes = 1): Promise<Board> {
  await waitFor(() => expect(server.writes.length).toBeGreaterThanOrEqual(writes));
  return boardSchema.parse((server.writes.at(-1)!.body as { steps: BoardStep[] }).steps.at(-1)!.board);
}

describe('the brief', () => {
  it.each([
    ['Length', 'length', '16 1/2 in', 419.1],
    ['Width', 'width', '25.5 cm', 255],
    ['Thickness', 'thickness', '1 1/4"', 31.75],
  ] as const)(
    '%s is typed on the drawing in any notation, and saved to the last digit',
    async (label, key, text, mm) => {
      const { server } = await open(plainBoard());
      type(label, text);
      expect((await saved(server))[key]).toBeCloseTo(mm, 6);
    },
  );

  it('sizes nobody can make are refused with their limits; the board stays as it was', async () => {
    const { server } = await open(plainBoard());
    for (const [label, texts] of [
      ['Length', ['0', '-400', 'long', '99 m', '']],
      ['Width', ['0', '1e5', 'wide']],
      ['Thickness', ['0.1', '9999', 'thick']],
    ] as const)
      for (const text of texts) {
        type(label, text);
        expect([label, text, said(label)?.startsWith(label)]).toEqual([label, text, true]);
      }
    expect(server.writes).toEqual([]);
  });

  it('a name is trimmed; an empty one is told and not taken', async () => {
    const { server } = await open(plainBoard());
    type('Name', '   ');
    expect(said('Name')).toBe('Name must not be empty.');
    type('Name', '  Dough board  ');
    expect((await saved(server)).name).toBe('Dough board');
  });

  it('a use is one press, and typed in words of one’s own', async () => {
    const { server } = await open(plainBoard());
    press('Bread');
    expect((await saved(server)).use).toBe('Bread');
    type('What it is for', 'A gift for the neighbours');
    await waitFor(async () => expect((await saved(server, 1)).use).toBe('A gift for the neighbours'));
  });

  it('several boards: as many from each panel as work best, and where its figures stand', async () => {
    const { server, text } = await open(plainBoard({ length: 200 }));
    type('How many', '3');
    const board = await saved(server);
    expect(board.count).toBe(3);
    expect(board.perPanel).toBeGreaterThanOrEqual(1);
    expect(board.perPanel).toBeLessThanOrEqual(3);
    expect(text()).toContain('figures and other ways');
    for (const odd of ['0', '2.5', '', '100000']) {
      type('How many', odd);
      expect([odd, said('How many')?.startsWith('Number of boards')]).toEqual([odd, true]);
    }
  });

  it('an empty board is made another way at once', async () => {
    const empty = await open(plainBoard({}, []));
    fireEvent.click(screen.getByRole('radio', { name: /Face grain/ }));
    expect((await saved(empty.server)).construction).toBe('face');
  });

  it('what comes of its strips is shown before anything is changed', async () => {
    const full = await open(plainBoard());
    fireEvent.click(screen.getByRole('radio', { name: /Face grain/ }));
    expect(await screen.findByText('Switch to face grain?')).toBeDefined();
    expect(full.server.writes).toEqual([]);
  });

  it('what cannot be saved now is kept on the page and goes out when the server answers', async () => {
    const { server } = await open(plainBoard());
    server.refuse('gone');
    type('Width', '300');
    await waitFor(() => expect(server.writes.length).toBeGreaterThanOrEqual(2));
    expect(field('Width').value).toBe('300');
    expect((await saved(server)).width).toBe(300);
  }, 15_000);
});
