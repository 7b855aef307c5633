import { nanoid } from 'nanoid';
import { factSchema, type Fact } from '#core/facts/fact.ts';
import { fieldProblems } from '#core/format/fieldProblems.ts';
import { ApiProblem } from './api.ts';
import type { LineState } from './editLine.ts';

type Without<F, K extends string> = F extends unknown ? Omit<F, K> : never;
/** What is noted; the line gives it its id and its time. */
export type Noted = Without<Fact, 'id' | 'at'>;

interface Waiting {
  fact: Fact;
  /** Notes in a row with the same key are one fact, as long as it has not left: a place that is dragged. */
  mergeKey: string | undefined;
}

export interface FactLineOptions {
  /** Names the copy in this device's storage. */
  name: string;
  /** Shows what happened on every page that shows it. */
  show(facts: Fact[]): void;
  /** @returns all that happened, as the server knows it then */
  send(facts: Fact[]): Promise<Fact[]>;
}

const SEND_DELAY_MS = 350;
const RETRY_MS = 2500;
const MOST_SENT = 500;

/**
 * What this device noted of a board, sent in order and kept until the server has it: through an outage, a reload and a browser that is closed. Ids are made here, so
 * that what was sent twice arrives once. Nothing that has left is ever edited; what has not left yet may still be put right.
 */
export class FactLine {
  private waiting: Waiting[];
  /** All that the server has, as far as this page knows; null while it is not loaded. */
  private stored: readonly Fact[] | null = null;
  /** Under these the device keeps what waits: this page's own, and what pages that are gone left behind. */
  private readonly ownKey: string;
  private leftKeys: string[];
  /** How many of the waiting are on their way. */
  private sending = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private state: LineState = { kind: 'quiet' };
  private readonly listeners = new Set<() => void>();

  constructor(private readonly options: FactLineOptions) {
    this.ownKey = `${KEY}${options.name}/${nanoid(8)}`;
    this.leftKeys = waitingKeys().filter((key) => key.startsWith(`${KEY}${options.name}/`));
    this.waiting = this.leftKeys.flatMap(readWaiting).map((fact) => ({ fact, mergeKey: undefined }));
    if (this.waiting.length > 0) this.schedule(0);
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly snapshot = (): LineState => this.state;

  /** What was just read from the server, with what is not there yet. */
  over(read: readonly Fact[]): Fact[] {
    const there = new Set(read.map((f) => f.id));
    // Nothing ever leaves the list: an answer that lacks what is known to be there was only slow.
    const stored = [...read, ...(this.stored ?? []).filter((f) => !there.has(f.id))];
    this.stored = stored;
    for (const { id } of stored) there.add(id);
    return [...stored, ...this.waiting.map((w) => w.fact).filter((f) => !there.has(f.id))];
  }

  /** Notes that something happened, now. @throws Error with a sentence when it cannot have */
  note(noted: Noted, mergeKey?: string): void {
    const last = this.waiting.at(-1);
    const merges = mergeKey !== undefined && last?.mergeKey === mergeKey && this.sending < this.waiting.length;
    const read = factSchema.safeParse({ ...noted, id: merges ? last.fact.id : nanoid(), at: new Date().toISOString() });
    if (!read.success) throw new Error(`Not noted: ${fieldProblems(read.error)[0]?.message ?? 'that cannot be.'}`);
    const fact = read.data;
    if (merges) this.waiting = [...this.waiting.slice(0, -1), { fact, mergeKey }];
    else this.waiting = [...this.waiting, { fact, mergeKey }];
    this.changed();
  }

  /** Takes facts back. What has not left yet was never noted. */
  takeBack(ids: readonly string[]): void {
    const leaving = this.waiting.slice(0, this.sending);
    const unsent = new Set(this.waiting.slice(this.sending).map((w) => w.fact.id));
    this.waiting = [
      ...leaving,
      ...this.waiting.slice(this.sending).filter((w) => !ids.includes(w.fact.id)),
      ...ids
        .filter((id) => !unsent.has(id))
        .map((fact) => ({
          fact: { kind: 'takenBack' as const, id: nanoid(), at: new Date().toISOString(), fact },
          mergeKey: undefined,
        })),
    ];
    this.changed();
  }

  /** Ends a merged note: the next one is a fact of its own. */
  endMerge(): void {
    this.waiting = this.waiting.map(({ fact }) => ({ fact, mergeKey: undefined }));
  }

  /** Sends what is not there yet, now. */
  async flush(): Promise<void> {
    clearTimeout(this.timer);
    if (this.sending > 0 || this.waiting.length === 0) return;
    const batch = this.waiting.slice(0, MOST_SENT);
    this.sending = batch.length;
    this.tell({ kind: 'saving' });
    try {
      const stored = await this.options.send(batch.map((w) => w.fact));
      this.waiting = this.waiting.slice(batch.length);
      this.sending = 0;
      this.keep();
      for (const key of this.leftKeys) keepUnder(key, []);
      this.leftKeys = [];
      this.options.show(this.over(stored));
      if (this.waiting.length > 0) this.schedule(0);
      else this.tell({ kind: 'saved' });
    } catch (error) {
      this.sending = 0;
      this.failed(error);
    }
  }

  private failed(error: unknown): void {
    if (!(error instanceof ApiProblem)) throw error;
    if (error.code === 'another-fact') {
      // Another page of this device sent it in an earlier form; what it says now is a fact of its own.
      this.waiting = this.waiting.map(({ fact, mergeKey }) => ({ fact: { ...fact, id: nanoid() }, mergeKey }));
      this.changed();
    } else if (error.passing) {
      this.tell({ kind: 'offline', message: error.message });
      this.schedule(RETRY_MS);
    } else this.tell({ kind: 'refused', message: error.message });
  }

  private changed(): void {
    this.keep();
    if (this.stored) this.options.show(this.over(this.stored));
    this.tell(this.state.kind === 'quiet' || this.state.kind === 'saved' ? { kind: 'saving' } : this.state);
    this.schedule(SEND_DELAY_MS);
  }

  private keep(): void {
    keepUnder(
      this.ownKey,
      this.waiting.map((w) => w.fact),
    );
  }

  private schedule(delay: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), delay);
  }

  private tell(state: LineState): void {
    this.state = state;
    for (const listener of this.listeners) listener();
  }
}

const KEY = 'cadenza.facts.';

function waitingKeys(): string[] {
  try {
    return Object.keys(localStorage).filter((key) => key.startsWith(KEY));
  } catch {
    return [];
  }
}

/** Names of the lines of which this device holds facts that the server has not got yet. */
export function waitingNames(): string[] {
  return [...new Set(waitingKeys().map((key) => key.slice(KEY.length).split('/')[0]!))];
}

function keepUnder(key: string, facts: readonly Fact[]): void {
  try {
    if (facts.length === 0) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(facts));
  } catch {
    // A full or forbidden storage costs only the spare copy; the sending itself goes on.
  }
}

function readWaiting(key: string): Fact[] {
  try {
    const read = factSchema.array().safeParse(JSON.parse(localStorage.getItem(key) ?? '[]'));
    return read.success ? read.data : [];
  } catch {
    return [];
  }
}
