import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { plainBoard } from '#core/plan/planArbitrary.ts';
import type { Board } from '#core/board/board.ts';
import type { BoardStep } from '#contract/boards.ts';
import { BoardSession } from './boardSession.ts';

/** A server small enough to read: one board, saved by revision, and a switch for when it is gone. */
class PretendServer {
  revision = 1;
  board: Board = plainBoard();
  history = new Map<number, BoardStep>();
  gone = false;
  saves = 0;
  /** Answers wait here while `slow`. */
  slow: (() => void)[] | null = null;

  stored() {
    return {
      id: 'b1',
      revision: this.revision,
      savedAt: '2026-01-01T08:00:00.000Z',
      undo: this.history.get(this.revision)?.undo ?? null,
      redo: this.history.get(this.revision)?.redo ?? null,
      board: this.board,
    };
  }

  readonly fetch = async (path: string, init: RequestInit): Promise<Response> => {
    if (this.slow) await new Promise<void>((resolve) => this.slow!.push(resolve));
    if (this.gone) throw new TypeError('fetch failed');
    const number = Number(/revisions\/(\d+)$/.exec(path)?.[1]);
    if (number > 0)
      return Response.json({
        number,
        madeAt: '',
        name: '',
        undo: null,
        redo: null,
        board: plainBoard(),
        ...this.history.get(number),
      });
    if (init.method === 'GET') return Response.json(this.stored());
    const { basedOn, steps } = JSON.parse(init.body as string) as { basedOn: number; steps?: BoardStep[] };
    const board = steps?.at(-1)?.board;
    if (!steps || !board) return Response.json({ ...this.stored(), id: 'copy' }, { status: 201 });
    if (JSON.stringify(board) !== JSON.stringify(this.board)) {
      if (basedOn !== this.revision)
        return Response.json(
          { code: 'stale', detail: 'Changed elsewhere.', fields: [], current: this.stored() },
          { status: 409 },
        );
      this.saves += 1;
      steps.forEach((step, i) => this.history.set(basedOn + 1 + i, step));
      this.revision += steps.length;
      this.board = board;
    }
    return Response.json(this.stored());
  };
}

let server: PretendServer;
let drafts: Map<string, string>;
const named =
  (name: string) =>
  (b: Board): Board => ({ ...b, name });
const open = () => new BoardSession('b1', server.stored());
const settle = (ms = 400) => vi.advanceTimersByTimeAsync(ms);

beforeEach(() => {
  vi.useFakeTimers();
  server = new PretendServer();
  drafts = new Map();
  vi.stubGlobal('fetch', server.fetch);
  vi.stubGlobal('sessionStorage', {
    getItem: (key: string) => drafts.get(key) ?? null,
    setItem: (key: string, value: string) => drafts.set(key, value),
    removeItem: (key: string) => drafts.delete(key),
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('BoardSession', () => {
  it('saves a moment after the last edit, once, and says when', async () => {
    const session = open();
    for (const letter of 'abc') session.edit(named(letter));
    expect(session.snapshot().save.kind).toBe('waiting');
    expect(drafts.size).toBe(1);
    await settle();
    expect([server.board.name, server.saves, drafts.size]).toEqual(['c', 1, 0]);
    expect(session.snapshot().save).toEqual({ kind: 'saved', at: '2026-01-01T08:00:00.000Z' });
  });

  it('takes edits with one key back as one, and knows how far it can go', () => {
    const session = open();
    session.edit(named('one'));
    for (let width = 20; width < 30; width += 1) session.edit((b) => ({ ...b, width: 100 + width }), 'drag-1');
    session.endMerge();
    session.edit((b) => ({ ...b, width: 200 }), 'drag-1');
    const widths = [session.snapshot().board.width];
    while (session.snapshot().canUndo) {
      session.undo();
      widths.push(session.snapshot().board.width);
    }
    expect(widths).toEqual([200, 129, 260, 260]);
    session.undo();
    expect(session.snapshot().board.name).toBe('Test board');
    for (let i = 0; i < 5; i += 1) session.redo();
    expect(session.snapshot()).toMatchObject({ board: { name: 'one', width: 200 }, canRedo: false });
    session.undo();
    session.edit(named('another way'));
    expect(session.snapshot().canRedo).toBe(false);
  });

  it('goes back and forward over a reload, step by step, as far as the board goes back', async () => {
    const first = open();
    for (const letter of 'abcd') first.edit(named(letter));
    first.undo();
    await settle();
    expect([server.board.name, server.revision]).toEqual(['c', 6]);
    const later = open();
    const seen: string[] = [];
    for (const way of ['redo', 'undo', 'undo', 'undo', 'undo'] as const) {
      later[way]();
      await settle(0);
      seen.push(later.snapshot().board.name);
    }
    expect(seen).toEqual(['d', 'c', 'b', 'a', 'Test board']);
    expect([later.undo(), later.snapshot().canUndo]).toEqual([false, false]);
    await settle();
    const last = open();
    for (let i = 0; i < 6; i += 1) last.redo();
    await settle(0);
    expect(last.snapshot()).toMatchObject({ board: { name: 'd' }, canRedo: false });
  });

  it('an edit while an old revision is being fetched gives the step back up', async () => {
    const first = open();
    first.edit(named('a'));
    await settle();
    const later = open();
    server.slow = [];
    later.undo();
    later.edit(named('b'));
    server.slow.splice(0).forEach((answer) => answer());
    server.slow = null;
    await settle();
    expect(server.board.name).toBe('b');
    later.undo();
    expect(later.snapshot().board.name).toBe('a');
  });

  it('a step that cannot be fetched is told, leaves everything as it was, and works later', async () => {
    const first = open();
    first.edit(named('a'));
    await settle();
    const later = open();
    const told: unknown[] = [];
    later.onTrouble((error) => told.push(error));
    server.gone = true;
    later.undo();
    await settle(5000);
    expect([told.length, later.snapshot().save.kind, later.snapshot().board.name, server.saves]).toEqual([
      1,
      'saved',
      'a',
      1,
    ]);
    server.gone = false;
    later.undo();
    await settle();
    expect(server.board.name).toBe('Test board');
  });

  it('keeps trying while the server is gone, and loses nothing over a reload', async () => {
    server.gone = true;
    const session = open();
    session.edit(named('offline'));
    await settle();
    expect(session.snapshot().save.kind).toBe('offline');
    // The tab is loaded again while the server is still gone: the draft is there, based on what it was based on.
    const reloaded = new BoardSession('b1', { ...server.stored() });
    expect(reloaded.snapshot()).toMatchObject({ board: { name: 'offline' }, canUndo: true });
    server.gone = false;
    await settle(3000);
    expect(server.board.name).toBe('offline');
    expect(reloaded.snapshot().save.kind).toBe('saved');
  });

  it('saves what was edited while a save was on its way, on top of it', async () => {
    const session = open();
    server.slow = [];
    session.edit(named('first'));
    await settle();
    session.edit(named('second'));
    await settle();
    const waiting = server.slow;
    server.slow = null;
    waiting.forEach((answer) => answer());
    await settle(1000);
    expect([server.board.name, server.saves, server.revision]).toEqual(['second', 2, 3]);
  });

  it('a draft written during a save survives a reload without a false conflict', async () => {
    const session = open();
    server.slow = [];
    session.edit(named('first'));
    await settle();
    session.edit(named('second'));
    server.slow.splice(0).forEach((answer) => answer());
    await settle(10);
    server.slow = null;
    const reloaded = open();
    await settle(1000);
    expect(reloaded.snapshot()).toMatchObject({ board: { name: 'second' }, save: { kind: 'saved' } });
  });

  const conflict = async () => {
    const session = open();
    server.revision = 2;
    server.board = plainBoard({ name: 'theirs' });
    session.edit(named('mine'));
    await settle();
    expect(session.snapshot()).toMatchObject({
      board: { name: 'mine' },
      save: { kind: 'conflict', theirs: { board: { name: 'theirs' } } },
    });
    return session;
  };

  it('in a conflict sends nothing by itself; mine can go on', async () => {
    const session = await conflict();
    session.edit(named('mine, further'));
    await settle(10_000);
    expect(server.board.name).toBe('theirs');
    await session.keepMine();
    expect(server).toMatchObject({ revision: 4, board: { name: 'mine, further' } });
  });

  it('theirs can be taken, and mine comes back with undo', async () => {
    const session = await conflict();
    session.takeTheirs();
    expect(session.snapshot()).toMatchObject({ board: { name: 'theirs' }, save: { kind: 'saved' } });
    session.undo();
    await settle();
    expect(server).toMatchObject({ revision: 4, board: { name: 'mine' } });
  });

  it('both can be kept', async () => {
    const session = await conflict();
    expect(await session.keepBoth()).toBe('copy');
    expect(session.snapshot().board.name).toBe('theirs');
  });

  it('shows what another tab saved when nothing is unsaved here', async () => {
    const session = open();
    server.revision = 5;
    server.board = plainBoard({ name: 'from elsewhere' });
    await session.refresh();
    expect(session.snapshot()).toMatchObject({ board: { name: 'from elsewhere' }, canUndo: true });
  });

  it('does not send a board that is not valid, and says which field', async () => {
    const session = open();
    session.edit((b) => ({ ...b, count: 0 }));
    await settle();
    expect(session.snapshot().save).toEqual({ kind: 'refused', message: 'Count must be at least 1.' });
    expect(server.saves).toBe(0);
    session.edit((b) => ({ ...b, count: 2 }));
    await settle();
    expect(server.board.count).toBe(2);
  });
});
