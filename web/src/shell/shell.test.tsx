import { Notifications, notifications } from '@mantine/notifications';
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { queryClient } from '../data/queryClient.ts';
import { useOpenBoard } from '../data/openBoard.tsx';
import { openBoardAt } from '../openBoardForTests.tsx';
import { useShortcuts } from '../shortcuts/Shortcuts.tsx';
import { plain, press, show } from '../shownForTests.tsx';
import { ConflictDialog } from './ConflictDialog.tsx';
import { LineNote } from './LineNote.tsx';
import { showProblem, showUndo } from './notices.tsx';
import { Scrolled } from './Scrolled.tsx';
import { SaveNote } from './SaveNote.tsx';
import { StationRule } from './StationRule.tsx';
import { WaitLine } from './WaitLine.tsx';

/** A page of a board with what stands around it, and a button that widens the board. */
function Page() {
  const { session, board } = useOpenBoard();
  return (
    <>
      <SaveNote />
      <StationRule />
      <ConflictDialog />
      <p>Width {board.width}</p>
      <button onClick={() => session.edit((b) => ({ ...b, width: b.width + 10 }))}>Wider</button>
    </>
  );
}
const open = (board = plainBoard()) => openBoardAt(Page, planInput(board, [plainPiece({ length: 4000 })]));
const note = () => plain(screen.getByRole('status').textContent);

describe('what the page says of saving', () => {
  it('saving, then saved with its time', async () => {
    await open();
    press('Wider');
    expect(note()).toMatch(/Saving/);
    await waitFor(() => expect(note()).toMatch(/Saved \d{1,2}[:.]\d{2}/));
  });

  it('offline: that nothing is lost, and when it works again it is saved by itself', async () => {
    const { server } = await open();
    server.refuse('gone');
    press('Wider');
    await waitFor(() => expect(note()).toContain('Your changes are kept here'));
    await waitFor(() => expect(note()).toMatch(/Saved/));
    expect(server.board.board.width).toBe(270);
  }, 20_000);

  it('refused: why, and the board stays as it is on the page', async () => {
    const { server } = await open();
    server.refuse({ status: 400, code: 'invalid', detail: 'The board is not valid.' });
    press('Wider');
    await waitFor(() => expect(note()).toContain('Not saved: The board is not valid.'));
    expect(screen.getByText('Width 270')).toBeDefined();
  });
});

describe('a board that was changed elsewhere', () => {
  const conflict = async () => {
    const opened = await open();
    const theirs = { ...opened.server.board, revision: 7, board: { ...opened.server.board.board, width: 333 } };
    opened.server.refuse({ status: 409, code: 'stale', detail: 'This board was changed elsewhere.', current: theirs });
    press('Wider');
    await screen.findByText('This board was changed elsewhere');
    return opened;
  };

  it('shows both, and goes on with mine over theirs when asked', async () => {
    const { server } = await conflict();
    press('Go on with yours');
    await waitFor(() => expect(server.board.board.width).toBe(270));
    expect(server.writes.at(-1)!.body).toMatchObject({ basedOn: 7 });
  });

  it('takes theirs when asked, and sends nothing', async () => {
    const { server } = await conflict();
    const before = server.writes.length;
    press('Take the other');
    await waitFor(() => expect(screen.getByText('Width 333')).toBeDefined());
    expect(server.writes).toHaveLength(before);
  });
});

describe('the stations of a board', () => {
  it('an empty board: everything behind the brief is not begun', async () => {
    await open(plainBoard({}, []));
    const states = [...document.querySelectorAll('nav a')].map((a) => [a.textContent, a.getAttribute('data-state')]);
    expect(states.slice(1).every(([, state]) => state === 'untouched')).toBe(true);
    expect(states.map(([label]) => label?.trim().split('\n')[0])).toHaveLength(10);
  });

  it('a board nothing speaks against is planned; what stops stands at its station in words', async () => {
    await open();
    const of = (label: string) => document.querySelector(`nav a[title^="${label}:"]`)!;
    expect(of('Layout').getAttribute('data-state')).toBe('planned');
    expect(of('Cuts').getAttribute('title')).toBe('Cuts: planned');
  });

  it('without wood Cuts asks for attention', async () => {
    await openBoardAt(Page, planInput(plainBoard(), []));
    expect(document.querySelector('nav a[title^="Cuts:"]')!.getAttribute('title')).toBe('Cuts: needs attention');
  });
});

it.each([
  [{ kind: 'quiet' }, ''],
  [{ kind: 'saving' }, 'Saving …'],
  [{ kind: 'saved' }, 'Saved.'],
  [
    { kind: 'offline', message: 'The server cannot be reached.' },
    'Not saved yet: The server cannot be reached. Your changes are kept here and sent as soon as it answers.',
  ],
  [{ kind: 'refused', message: 'Too wide.' }, 'Not saved: Too wide.'],
] as const)('a line that is %j says so', (state, words) => {
  show(<LineNote state={state} />);
  expect(screen.getByRole('status').textContent).toBe(words);
});

describe('notices', () => {
  afterEach(() => act(() => notifications.clean()));

  it('a trouble is told in its own words, anything else in plain ones', async () => {
    show(<Notifications />);
    act(() => showProblem(new Error('The rack is full.')));
    act(() => showProblem('oh'));
    expect(await screen.findByText('The rack is full.')).toBeDefined();
    expect(await screen.findByText('Something went wrong.')).toBeDefined();
  });

  it('the way back is taken once; where it fails, that is told', async () => {
    show(<Notifications />);
    const undo = vi.fn(() => Promise.reject(new Error('It is gone for good.')));
    act(() => showUndo('W7 is out of the rack.', undo));
    fireEvent.click(await screen.findByRole('button', { name: 'Undo' }));
    expect(await screen.findByText('It is gone for good.')).toBeDefined();
    expect(undo).toHaveBeenCalledTimes(1);
  });
});

describe('the line of waits', () => {
  afterEach(() => {
    vi.unstubAllGlobals();
    queryClient.clear();
  });

  it('counts down by the clock of the server, and the browser says once that a wait is over', async () => {
    const told: string[] = [];
    vi.stubGlobal(
      'Notification',
      class {
        static permission = 'granted';
        constructor(title: string) {
          told.push(title);
        }
      },
    );
    // The clock of this device is an hour behind.
    const now = Date.now() + 3_600_000;
    const wait = (fact: string, ms: number) => ({
      board: 'b',
      name: 'Bread board',
      fact,
      step: 'glue',
      copy: 1,
      for: 'the glue',
      from: new Date(now - 60_000).toISOString(),
      until: new Date(now + ms).toISOString(),
    });
    const answer = { now: new Date(now).toISOString(), waits: [wait('soon', 1500), wait('later', 5_400_000)] };
    vi.stubGlobal('fetch', () => Promise.resolve(Response.json(answer)));
    show(<WaitLine />);
    expect(await screen.findByText(/1:(30:00|29:5\d) to go/)).toBeDefined();
    await waitFor(() => expect(told).toEqual(['Bread board: the glue']), { timeout: 10_000 });
    expect(screen.getByText(/ready/)).toBeDefined();
    await new Promise((resolve) => setTimeout(resolve, 1500));
    expect(told).toHaveLength(1);
  }, 20_000);
});

describe('keys', () => {
  function Keys({ group, keys, run }: { group: string; keys: string; run: () => void }) {
    useShortcuts(group, [{ keys, does: `${group} does`, run }]);
    return <input aria-label={`Field of ${group}`} />;
  }

  it('the nearest place wins, and typing into a field runs none', () => {
    const [outer, inner] = [vi.fn(), vi.fn()];
    show(
      <>
        <Keys group="Outer" keys="x" run={outer} />
        <Keys group="Inner" keys="x" run={inner} />
      </>,
    );
    fireEvent.keyDown(document.body, { key: 'x' });
    fireEvent.keyDown(screen.getByLabelText('Field of Inner'), { key: 'x' });
    expect([inner.mock.calls.length, outer.mock.calls.length]).toEqual([1, 0]);
  });

  it('with Ctrl or Cmd only where that is asked for, and never both ways', () => {
    const run = vi.fn();
    show(<Keys group="Board" keys="mod+z" run={run} />);
    fireEvent.keyDown(document.body, { key: 'z' });
    expect(run).not.toHaveBeenCalled();
    fireEvent.keyDown(document.body, { key: 'z', ctrlKey: true });
    fireEvent.keyDown(document.body, { key: 'z', metaKey: true });
    expect(run).toHaveBeenCalledTimes(2);
    fireEvent.keyDown(document.body, { key: 'z', ctrlKey: true, shiftKey: true });
    expect(run).toHaveBeenCalledTimes(2);
  });

  it('a question mark shows all that are in force, by place', async () => {
    show(<Keys group="Bench" keys="alt+ArrowUp" run={() => {}} />);
    fireEvent.keyDown(document.body, { key: '?' });
    expect(await screen.findByText('Bench does')).toBeDefined();
    expect(screen.getByText('Show this sheet')).toBeDefined();
  });
});

it('what is wider than its place is come to by keys, and only then', () => {
  const wide = vi.spyOn(Element.prototype, 'scrollWidth', 'get').mockReturnValue(1200);
  const { rerender } = show(<Scrolled name="Ways">a table</Scrolled>);
  expect(screen.queryByRole('group')).toBeNull();
  wide.mockReturnValue(1201);
  rerender(<Scrolled name="Ways">a wider table</Scrolled>);
  expect(screen.getByRole('group', { name: 'Ways, scrolls sideways' }).tabIndex).toBe(0);
  wide.mockRestore();
});
