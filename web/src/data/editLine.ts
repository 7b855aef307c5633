import { certain } from '#core/lists/there.ts';
import { DRAFT, draftsFrom, dropDraft, keepDraft, readKeptDraft } from '../offline/drafts.ts';
import { ApiProblem } from './api.ts';
import { mergeChanges, same } from './mergeChanges.ts';

/** A record with the version a change must be based on. */
export interface Versioned<T> {
  value: T;
  version: number;
}

export type LineState =
  | { kind: 'quiet' }
  | { kind: 'saving' }
  | { kind: 'saved' }
  | { kind: 'offline'; message: string }
  | { kind: 'refused'; message: string };

export interface LineOptions<T> {
  /** Names the spare copy in this tab's storage. */
  name: string;
  /** What is stored, as far as this page knows; undefined while it is not loaded. */
  stored(): Versioned<T> | undefined;
  /** Shows a state on every page that shows the record. */
  show(state: Versioned<T>): void;
  /** Checks a state and brings it into its form. @throws Error with a sentence */
  check(value: T): T;
  save(version: number, value: T): Promise<Versioned<T>>;
  /** The stored record that a refusal carries. */
  currentIn(problem: ApiProblem): Versioned<T> | undefined;
}

const RETRY_MS = 2500;
/** Steps back that are remembered. */
const MOST_STEPS = 100;

/**
 * Edits of one record, saved as they are made, one after the other. What is not stored yet stays on the page and in this tab, through an outage and a reload,
 * and goes out as soon as the server answers. What somebody else changed meanwhile stays, with the fields changed here on top of it.
 */
export class EditLine<T> {
  /** What the unsaved state began with; null when all is stored. */
  private base: Versioned<T> | null = null;
  private mine: T | null = null;
  private past: { before: T; after: T }[] = [];
  private busy = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private state: LineState = { kind: 'quiet' };
  private readonly listeners = new Set<() => void>();

  constructor(private readonly options: LineOptions<T>) {
    const draft = readDraft<T>(options.name);
    if (!draft) return;
    this.base = draft.base;
    this.mine = draft.mine;
    this.state = { kind: 'saving' };
    this.timer = setTimeout(() => void this.flush(), 0);
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly snapshot = (): LineState => this.state;

  /** Whether this page changed anything that can be taken back. */
  readonly canUndo = (): boolean => this.past.length > 0;

  /** What was just read from the server, with what is not saved yet on top. */
  over(stored: Versioned<T>): Versioned<T> {
    if (this.base === null || this.mine === null) return stored;
    if (stored.version > this.base.version) this.rebase(stored);
    return { value: this.mine, version: this.base.version };
  }

  /** @throws Error with a sentence when the edit makes no valid record; nothing is changed then */
  change(edit: (value: T) => T): void {
    const before = this.mine ?? this.options.stored()?.value;
    if (before === undefined) return;
    const after = this.options.check(edit(before));
    if (same(before, after)) return;
    this.past = [...this.past.slice(1 - MOST_STEPS), { before, after }];
    this.take(after);
  }

  /** Takes the last change of this page back, and only that: what somebody else changed since then stays. @returns false when there is none */
  undo(): boolean {
    const now = this.mine ?? this.options.stored()?.value;
    const last = now === undefined ? undefined : this.past.pop();
    if (now === undefined || last === undefined) return false;
    this.take(mergeChanges(last.after, last.before, now));
    return true;
  }

  private take(value: T): void {
    this.base ??= this.options.stored() ?? null;
    if (this.base === null) return;
    this.mine = value;
    writeDraft(this.options.name, { base: this.base, mine: value });
    this.options.show({ value, version: this.base.version });
    this.tell(this.state);
    void this.flush();
  }

  /** Saves what is not saved yet, now. */
  async flush(): Promise<void> {
    clearTimeout(this.timer);
    if (this.busy || this.base === null || this.mine === null) return;
    this.busy = true;
    const sent = this.mine;
    this.tell({ kind: 'saving' });
    try {
      this.stored(await this.options.save(this.base.version, sent), sent);
    } catch (error) {
      this.busy = false;
      this.failed(error);
    }
  }

  private stored(saved: Versioned<T>, sent: T): void {
    this.busy = false;
    const more = this.mine !== null && !same(this.mine, sent);
    if (more) {
      this.base = saved;
      writeDraft(this.options.name, { base: saved, mine: certain(this.mine) });
      this.options.show({ value: certain(this.mine), version: saved.version });
      void this.flush();
      return;
    }
    this.forget();
    this.options.show(saved);
    this.tell({ kind: 'saved' });
  }

  private failed(error: unknown): void {
    if (!(error instanceof ApiProblem)) throw error;
    const current = error.code === 'stale' ? this.options.currentIn(error) : undefined;
    if (current) {
      this.rebase(current);
      if (this.mine !== null) void this.flush();
    } else if (error.passing) {
      this.tell({ kind: 'offline', message: error.message });
      this.timer = setTimeout(() => void this.flush(), RETRY_MS);
    } else this.tell({ kind: 'refused', message: error.message });
  }

  /** Somebody else stored something: what was changed here goes on top of it. */
  private rebase(theirs: Versioned<T>): void {
    const merged = mergeChanges(certain(this.base).value, certain(this.mine), theirs.value);
    if (same(merged, theirs.value)) {
      this.forget();
      this.options.show(theirs);
      this.tell({ kind: 'saved' });
      return;
    }
    this.base = theirs;
    this.mine = merged;
    writeDraft(this.options.name, { base: theirs, mine: merged });
    this.options.show({ value: merged, version: theirs.version });
  }

  private forget(): void {
    this.base = null;
    this.mine = null;
    dropDraft(draftKey(this.options.name));
  }

  private tell(state: LineState): void {
    this.state = state;
    for (const listener of this.listeners) listener();
  }
}

interface Draft<T> {
  base: Versioned<T>;
  mine: T;
}

const draftKey = (name: string) => `${DRAFT}${name}`;

/** Names of the records that this tab holds unsaved changes of: their lines go on with them. */
export const draftNames = (): string[] => draftsFrom(DRAFT).map((key) => key.slice(DRAFT.length));

const writeDraft = <T>(name: string, draft: Draft<T>): void => keepDraft(draftKey(name), JSON.stringify(draft));

const readDraft = <T>(name: string) => readKeptDraft(draftKey(name)) as Draft<T> | null;
