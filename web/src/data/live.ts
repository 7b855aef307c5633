import type { QueryKey } from '@tanstack/react-query';
import type { Right } from '#contract/devices.ts';
import type { LiveChange, Presence, Topic } from '#contract/live.ts';
import { keys, queryClient } from './queryClient.ts';
import { tab } from './tab.ts';

/** How it stands between this page and what others do. */
export interface LiveState {
  /** Since when nothing is heard, ms since 1970; null while it is. */
  aloneSince: number | null;
  /** Other pages that are open at the same board. */
  here: readonly Presence[];
  /** Others are heard: nobody need ask again and again. */
  hears: boolean;
  /** What this device may do. */
  may: Right;
}

/** The queries that show something of a topic. Those of one board may be named by it. */
const SHOWN: Readonly<Record<Topic, (board: string | null) => QueryKey[]>> = {
  boards: (board) => [
    keys.boards,
    keys.schedule,
    board === null ? ['board with facts'] : ['board with facts', board],
    ['revisions'],
  ],
  facts: (board) => [
    board === null ? ['facts'] : ['facts', board],
    board === null ? ['board with facts'] : ['board with facts', board],
    ['waits'],
    keys.boards,
    keys.schedule,
  ],
  runs: () => [['runs'], ['waits'], keys.schedule],
  pictures: () => [['picture']],
  rack: () => [keys.rack, keys.schedule],
  saw: () => [keys.saw, keys.rack, keys.schedule],
  species: () => [keys.species, keys.schedule],
  shop: () => [keys.shop, keys.schedule],
  schedule: () => [keys.schedule],
  shopping: () => [['shopping']],
  log: () => [['log'], ['log entry'], ['earlier prices']],
  readings: () => [],
  devices: () => [['devices']],
  keeping: () => [['copies']],
  here: () => [],
};

/** Told when a board was stored by another page; null for any board. */
type BoardListener = (board: string | null) => void;
const boardListeners = new Set<BoardListener>();
/** @returns ends it */
export function onBoardStored(listener: BoardListener): () => void {
  boardListeners.add(listener);
  return () => void boardListeners.delete(listener);
}

const running = new Set<string>();
const again = new Map<string, QueryKey>();

/** Looks again at what is shown; what comes while that is asked for is asked for once more, and never in the middle of an answer. */
async function lookAgain(queryKey: QueryKey): Promise<void> {
  const name = JSON.stringify(queryKey);
  if (running.has(name)) {
    again.set(name, queryKey);
    return;
  }
  running.add(name);
  try {
    await queryClient.invalidateQueries({ queryKey });
  } finally {
    running.delete(name);
    const more = again.get(name);
    again.delete(name);
    if (more) void lookAgain(more);
  }
}

/** Takes what others stored. */
export function takeChanges(changes: readonly LiveChange[]): void {
  const others = changes.filter((c) => c.tab !== tab);
  const shown = new Map<string, QueryKey>();
  for (const { topics, board } of others)
    for (const topic of topics) for (const key of SHOWN[topic](board)) shown.set(JSON.stringify(key), key);
  for (const key of shown.values()) void lookAgain(key);
  const boards = new Set(others.flatMap((c) => (c.topics.includes('boards') ? [c.board] : [])));
  for (const board of boards) for (const listener of boardListeners) listener(board);
}

/** Takes that nobody knows what was stored meanwhile. */
export function lookAtEverything(cancelRefetch = true): void {
  void queryClient.invalidateQueries({}, { cancelRefetch });
  for (const listener of boardListeners) listener(null);
}

/** A stream that has ended by a refusal is opened anew after so long, ms. */
const OPEN_AGAIN_MS = 2000;
/** The server says that it is alive every ten seconds; a stream that is silent for longer is dead. */
const SILENT_MS = 25_000;

export interface LiveOptions {
  open(address: string): EventSource;
  /** What this device is called. */
  name(): string;
}

/**
 * Hears of everything that is stored, by whichever device. A page that is out of sight hears nothing, and catches up when it is looked at: browsers keep few
 * connections to one server.
 */
export class Live {
  private state: LiveState = { aloneSince: null, hears: false, here: [], may: 'work' };
  private source: EventSource | null = null;
  private board: string | null = null;
  private last: number | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private silence: ReturnType<typeof setTimeout> | undefined;
  private wanted = false;
  private readonly listeners = new Set<() => void>();

  constructor(private readonly options: LiveOptions) {}

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly snapshot = (): LiveState => this.state;

  /** Listens, and says that this page is at a board, or at none. */
  at(board: string | null): void {
    if (this.source && this.board === board) return;
    this.board = board;
    this.wanted = true;
    this.update({ here: [] });
    this.open();
  }

  /** Listens no more. */
  rest(): void {
    this.wanted = false;
    this.close();
    this.update({ hears: false });
  }

  private open(): void {
    this.close();
    if (!this.wanted) return;
    const query = new URLSearchParams({ tab, name: this.options.name() });
    if (this.board !== null) query.set('board', this.board);
    if (this.last !== null) query.set('after', String(this.last));
    const source = this.options.open(`/api/live?${query.toString()}`);
    this.source = source;
    source.addEventListener('change', (event) => {
      const first = this.last === null;
      this.heard(event);
      const changes = JSON.parse(event.data as string) as LiveChange[];
      // What was fetched before anybody listened may be older than what is heard from now on; what is being fetched just now is not.
      if (first) lookAtEverything(false);
      else takeChanges(changes);
    });
    source.addEventListener('anew', (event) => {
      this.heard(event);
      lookAtEverything();
    });
    source.addEventListener('here', (event) => {
      this.heard();
      const here = JSON.parse(event.data as string) as Presence[];
      this.update({ here: here.filter((p) => p.tab !== tab) });
    });
    source.addEventListener('you', (event) => {
      this.heard();
      this.update({ may: (JSON.parse(event.data as string) as { may: Right }).may });
    });
    source.addEventListener('alive', () => this.heard());
    source.addEventListener('error', () => {
      this.alone();
      // The browser comes back by itself, unless it was refused.
      if (source.readyState === 2 && this.source === source) this.openSoon();
    });
  }

  private heard(event?: MessageEvent): void {
    if (event && event.lastEventId !== '') this.last = Number(event.lastEventId);
    clearTimeout(this.silence);
    this.silence = setTimeout(() => {
      this.alone();
      this.open();
    }, SILENT_MS);
    if (this.state.aloneSince !== null || !this.state.hears) this.update({ aloneSince: null, hears: true });
  }

  private alone(): void {
    if (this.state.aloneSince === null) this.update({ aloneSince: Date.now(), hears: false });
  }

  private openSoon(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.open(), OPEN_AGAIN_MS);
  }

  private close(): void {
    clearTimeout(this.timer);
    clearTimeout(this.silence);
    this.source?.close();
    this.source = null;
  }

  private update(change: Partial<LiveState>): void {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }
}
