import { firstOf } from '#core/lists/there.ts';
import { nanoid } from 'nanoid';
import { MOST_FACTS_SENT } from '#contract/facts.ts';
import { factSchema, type Fact } from '#core/facts/fact.ts';
import { fieldProblems } from '#core/format/fieldProblems.ts';
import { FACT_KEY } from './factKey.ts';
import { ApiProblem } from './api.ts';
import type { LineState } from './editLine.ts';
import { shopNow } from './serverClock.ts';

type Without<F, K extends string> = F extends unknown ? Omit<F, K> : never;
/** What is noted; the line gives it its id and its time. */
export type Noted = Without<Fact, 'id' | 'at'>;

interface Waiting {
  fact: Fact;
  /** Notes in a row with the same key are one fact, as long as it has not left: a place that is dragged. */
  mergeKey: string | undefined;
  /** It was sent at least once: the server may have it, though its answer got lost. It is not edited any more, and only another fact takes it back. */
  sent: boolean;
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
  private sending = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private state: LineState = { kind: 'quiet' };
  private readonly listeners = new Set<() => void>();

  constructor(private readonly options: FactLineOptions) {
    this.ownKey = `${FACT_KEY}${options.name}/${nanoid(8)}`;
    this.leftKeys = waitingKeys().filter((key) => key.startsWith(`${FACT_KEY}${options.name}/`));
    // What another page left behind it may have sent.
    this.waiting = this.leftKeys.flatMap(readWaiting).map((fact) => ({ fact, mergeKey: undefined, sent: true }));
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
    const merges = mergeKey !== undefined && last?.mergeKey === mergeKey && !last.sent;
    const read = factSchema.safeParse({
      ...noted,
      id: merges ? last.fact.id : nanoid(),
      at: this.moment(),
      device: deviceId(),
    });
    if (!read.success) throw new Error(`Not noted: ${fieldProblems(read.error)[0]?.message ?? 'that cannot be.'}`);
    const rest = merges ? this.waiting.slice(0, -1) : this.waiting;
    this.waiting = [...rest, { fact: read.data, mergeKey, sent: false }];
    this.changed();
  }

  /** Takes facts back. What was never sent was never noted. */
  takeBack(ids: readonly string[]): void {
    const unsent = new Set(this.waiting.filter((w) => !w.sent).map((w) => w.fact.id));
    const at = this.moment();
    this.waiting = [
      ...this.waiting.filter((w) => w.sent || !ids.includes(w.fact.id)),
      ...ids
        .filter((id) => !unsent.has(id))
        .map((fact): Waiting => ({
          fact: { kind: 'takenBack', id: nanoid(), at, fact, device: deviceId() },
          mergeKey: undefined,
          sent: false,
        })),
    ];
    this.changed();
  }

  /** Ends a merged note: the next one is a fact of its own. */
  endMerge(): void {
    this.waiting = this.waiting.map((w) => ({ ...w, mergeKey: undefined }));
  }

  /** Sends what is not there yet, now. */
  async flush(): Promise<void> {
    clearTimeout(this.timer);
    if (this.sending || this.waiting.length === 0) return;
    const batch = this.waiting.slice(0, MOST_FACTS_SENT);
    this.sending = true;
    this.waiting = this.waiting.map((w, i) => (i < batch.length ? { ...w, sent: true } : w));
    this.tell({ kind: 'saving' });
    try {
      const stored = await this.options.send(batch.map((w) => w.fact));
      this.waiting = this.waiting.slice(batch.length);
      this.sending = false;
      this.keep();
      for (const key of this.leftKeys) keepUnder(key, []);
      this.leftKeys = [];
      this.options.show(this.over(stored));
      if (this.waiting.length > 0) this.schedule(0);
      else this.tell({ kind: 'saved' });
    } catch (error) {
      this.sending = false;
      this.failed(error);
    }
  }

  /** Sends nothing more from this page. */
  letGo(): void {
    clearTimeout(this.timer);
    this.waiting = [];
  }

  /** Now by the shop's clock, and after all that is known here: a device whose clock is slow says nothing that happened before what it has seen. */
  private moment(): string {
    const known = [...(this.stored ?? []), ...this.waiting.map((w) => w.fact)];
    const last = known.reduce((latest, { at }) => (at > latest ? at : latest), '');
    const after = last === '' ? 0 : Date.parse(last) + 1;
    return new Date(Math.max(shopNow(), after)).toISOString();
  }

  private failed(error: unknown): void {
    if (!(error instanceof ApiProblem)) throw error;
    const other = error.code === 'another-fact' ? (error.current as Fact | undefined) : undefined;
    if (other && this.waiting.some((w) => w.fact.id === other.id)) this.giveNewId(other.id);
    else if (error.passing) {
      this.tell({ kind: 'offline', message: error.message });
      this.schedule(RETRY_MS);
    } else this.tell({ kind: 'refused', message: error.message });
  }

  /** Another page of this device sent a fact in an earlier form: what it says now is a fact of its own, and what takes it back takes that back. */
  private giveNewId(id: string): void {
    const own = nanoid();
    this.waiting = this.waiting.map((w) => {
      if (w.fact.id === id) return { ...w, fact: { ...w.fact, id: own } };
      return w.fact.kind === 'takenBack' && w.fact.fact === id ? { ...w, fact: { ...w.fact, fact: own } } : w;
    });
    this.changed();
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

const DEVICE_KEY = 'cadenza-device';
let device: string | null = null;

/** By what this device is told from others; a storage that is forbidden gives it another one with each page. */
function deviceId(): string {
  if (device !== null) return device;
  const fresh = nanoid(12);
  try {
    device = localStorage.getItem(DEVICE_KEY) ?? fresh;
    localStorage.setItem(DEVICE_KEY, device);
  } catch {
    device = fresh;
  }
  return device;
}

function waitingKeys(): string[] {
  try {
    return Object.keys(localStorage).filter((key) => key.startsWith(FACT_KEY));
  } catch {
    return [];
  }
}

/** How many facts this device holds that the server has not got yet. */
export const waitingFacts = (): number => waitingKeys().reduce((sum, key) => sum + readWaiting(key).length, 0);

/** Names of the lines of which this device holds facts that the server has not got yet. */
export function waitingNames(): string[] {
  return [...new Set(waitingKeys().map((key) => firstOf(key.slice(FACT_KEY.length).split('/'))))];
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
