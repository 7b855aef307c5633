import { waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { plainBoard, planInput } from '#core/plan/planArbitrary.ts';
import { keepDraft, draftsFrom } from '../offline/drafts.ts';
import { ServerForTests } from '../serverForTests.ts';
import { leftBoards, sendLeftBoards } from './leftBoards.ts';

const told = vi.fn();

const left = (basedOn: number, name: string) => ({
  basedOn,
  steps: [{ board: plainBoard({ name }), undo: basedOn, redo: null }],
});

it('what was changed without a server goes out from any page, once; a board that is open does it itself, other records too', async () => {
  const server = new ServerForTests(planInput(plainBoard(), []));
  keepDraft('cadenza.draft.b1', JSON.stringify(left(1, 'Far away')));
  keepDraft('cadenza.draft.shop', '{}');
  keepDraft('cadenza.draft.piece.p1', '{}');
  expect(leftBoards()).toEqual(['b1']);
  await sendLeftBoards('b1', told);
  expect(server.writes).toEqual([]);
  await sendLeftBoards(null, told);
  await waitFor(() => expect(server.board.board.name).toBe('Far away'));
  expect(server.writes).toHaveLength(1);
  expect(draftsFrom('cadenza.draft.b')).toEqual([]);
  expect(told).toHaveBeenLastCalledWith('“Far away”: what was changed without the server is stored.');
});

it('what somebody else changed meanwhile is left to whoever opens the board', async () => {
  const server = new ServerForTests(planInput(plainBoard(), []));
  keepDraft('cadenza.draft.b1', JSON.stringify(left(1, 'Mine')));
  server.refuse({ status: 409, code: 'stale', current: { ...server.board, revision: 4 } });
  await sendLeftBoards(null, told);
  await waitFor(() =>
    expect(told).toHaveBeenLastCalledWith(expect.stringContaining('Open it to choose; both are kept.')),
  );
  expect(draftsFrom('cadenza.draft.b')).toEqual(['cadenza.draft.b1']);
});
