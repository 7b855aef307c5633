import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { LiveChange, Topic } from '#contract/live.ts';
import { Live, onBoardStored, takeChanges } from './live.ts';
import { keys, queryClient } from './queryClient.ts';
import { tab } from './tab.ts';

/** A stream whose server is played by the test. */
class FakeSource extends EventTarget {
  readyState = 1;
  closed = false;
  constructor(readonly address: string) {
    super();
  }
  say(event: string, data: unknown, lastEventId = ''): void {
    this.dispatchEvent(Object.assign(new Event(event), { data: JSON.stringify(data), lastEventId }));
  }
  fail(readyState: number): void {
    this.readyState = readyState;
    this.dispatchEvent(new Event('error'));
  }
  close(): void {
    this.closed = true;
  }
}

const opened: FakeSource[] = [];
const newest = () => opened.at(-1)!;
const query = () => new URLSearchParams(newest().address.split('?')[1]);
const make = () =>
  new Live({
    open: (address) => {
      const source = new FakeSource(address);
      opened.push(source);
      return source as unknown as EventSource;
    },
    name: () => 'Tablet',
  });
const change = (id: number, topics: Topic[], board: string | null = null, by: string | null = null): LiveChange => ({
  id,
  topics,
  board,
  tab: by,
});

beforeEach(() => {
  vi.useFakeTimers({ now: 1_000_000 });
  opened.length = 0;
});
afterEach(() => {
  vi.useRealTimers();
  queryClient.clear();
  vi.restoreAllMocks();
});

describe('a page that listens', () => {
  it('says who and where it is, goes on after what it heard last, and opens nothing anew for the same board', () => {
    const live = make();
    live.at('b1');
    expect(Object.fromEntries(query())).toEqual({ tab, name: 'Tablet', board: 'b1' });
    newest().say('change', [], '41');
    live.at('b1');
    expect(opened).toHaveLength(1);
    live.at(null);
    expect(opened[0]!.closed).toBe(true);
    expect(Object.fromEntries(query())).toEqual({ tab, name: 'Tablet', after: '41' });
    live.rest();
    expect(newest().closed).toBe(true);
  });

  it('shows who else is at the board, never itself, and what this device may', () => {
    const live = make();
    live.at('b1');
    newest().say('here', [
      { tab, name: 'Tablet', board: 'b1' },
      { tab: 'other', name: 'Desk', board: 'b1' },
    ]);
    newest().say('you', { may: 'look' });
    expect(live.snapshot()).toMatchObject({ here: [{ name: 'Desk' }], may: 'look' });
    live.at('b2');
    expect(live.snapshot().here).toEqual([]);
  });

  it('is alone while nothing is heard: after an error, and when the stream falls silent; then it is opened anew', () => {
    const live = make();
    live.at(null);
    newest().say('alive', {});
    newest().fail(0);
    expect(live.snapshot().aloneSince).toBe(1_000_000);
    // The browser comes back by itself.
    vi.advanceTimersByTime(3000);
    expect(opened).toHaveLength(1);
    newest().say('alive', {});
    expect(live.snapshot().aloneSince).toBeNull();
    // Refused for good, it does not.
    newest().fail(2);
    vi.advanceTimersByTime(3000);
    expect(opened).toHaveLength(2);
    newest().say('alive', {});
    vi.advanceTimersByTime(30_000);
    expect(opened.length).toBeGreaterThan(2);
    expect(live.snapshot().aloneSince).not.toBeNull();
  });

  it('looks at everything once when it begins to listen, and again when it was away for too long', () => {
    const looked = vi.spyOn(queryClient, 'invalidateQueries').mockResolvedValue();
    const live = make();
    live.at(null);
    newest().say('change', [], '7');
    expect(looked.mock.calls).toEqual([[{}, { cancelRefetch: false }]]);
    newest().say('change', [change(8, ['rack'])], '8');
    expect(looked.mock.calls.slice(1).map(([filter]) => filter?.queryKey)).toEqual([keys.rack, keys.schedule]);
    looked.mockClear();
    newest().say('anew', {}, '900');
    expect(looked.mock.calls).toEqual([[{}, { cancelRefetch: true }]]);
  });
});

describe('what others stored', () => {
  it('is looked at again where it is shown; what this page did itself is not', async () => {
    const looked = vi.spyOn(queryClient, 'invalidateQueries').mockResolvedValue();
    takeChanges([change(1, ['rack'], null, tab), change(2, ['facts'], 'b1'), change(3, ['facts'], 'b1')]);
    await vi.advanceTimersByTimeAsync(0);
    const asked = looked.mock.calls.map(([filter]) => JSON.stringify(filter?.queryKey));
    expect(asked).toContain('["facts","b1"]');
    expect(asked).toContain('["waits"]');
    expect(asked).not.toContain('["rack"]');
    expect(new Set(asked).size).toBe(asked.length);
  });

  it('that comes while it is being asked for is asked for once more, however often it came', async () => {
    let answer: () => void = () => {};
    const looked = vi
      .spyOn(queryClient, 'invalidateQueries')
      .mockImplementation(() => new Promise<void>((resolve) => (answer = resolve)));
    const times = () => looked.mock.calls.filter(([f]) => JSON.stringify(f?.queryKey) === '["shopping"]').length;
    for (let i = 0; i < 5; i += 1) takeChanges([change(i, ['shopping'])]);
    expect(times()).toBe(1);
    answer();
    await vi.advanceTimersByTimeAsync(0);
    expect(times()).toBe(2);
    answer();
    await vi.advanceTimersByTimeAsync(0);
    expect(times()).toBe(2);
  });

  it('of boards is told to whoever has one open: which, or that it may be any', () => {
    const told: (string | null)[] = [];
    const end = onBoardStored((board) => told.push(board));
    takeChanges([change(1, ['boards'], 'b1'), change(2, ['boards'], null), change(3, ['rack'], null)]);
    end();
    takeChanges([change(4, ['boards'], 'b2')]);
    expect(told).toEqual(['b1', null]);
  });
});
