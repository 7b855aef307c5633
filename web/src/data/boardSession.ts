import { firstOf, lastOf, nth } from '#core/lists/there.ts';
import type { Board } from '#core/board/board.ts';
import { writtenBoardSchema } from '#core/board/writtenBoard.ts';
import { fieldProblems } from '#core/format/fieldProblems.ts';
import type { BoardStep, StoredBoard } from '#contract/boards.ts';
import { DRAFT, dropDraft, keepDraft, readKeptDraft } from '../offline/drafts.ts';
import { api, ApiProblem } from './api.ts';

/** Where the board stands between the hands and the server. */
export type SaveState =
  | { kind: 'saved'; at: string }
  | { kind: 'waiting' }
  | { kind: 'saving' }
  | { kind: 'offline'; message: string }
  | { kind: 'refused'; message: string }
  | { kind: 'conflict'; theirs: StoredBoard };

export interface SessionState {
  board: Board;
  save: SaveState;
  canUndo: boolean;
  canRedo: boolean;
}

/**
 * A state of the board on the way of this tab. Undo and redo do not rewind: each makes a new state that is like an old one, so the history on the server
 * keeps everything, and every state knows where both lead. A number names a revision that has not been fetched yet.
 */
interface Entry {
  board: Board;
  undo: Entry | number | null;
  redo: Entry | number | null;
  /** Of its revision; null until it is stored. */
  number: number | null;
}
type Way = 'undo' | 'redo';

const SAVE_DELAY_MS = 350;
const RETRY_MS = 2500;
/** Steps sent in one save; more follow in the next. */
const MOST_STEPS_SENT = 100;
/** Steps the draft of this tab keeps. */
const MOST_STEPS_DRAFTED = 20;
/** A request that outlives its page may carry about this many characters. */
const MOST_LEAVING_CHARACTERS = 55_000;

/**
 * One board being worked on in this tab: edits with undo and redo that survive a reload, saved as they are made. What is not yet on the server is also kept as a draft
 * of this tab, so that neither a reload nor a server that is gone loses it. A save based on an older revision never overwrites: it becomes a
 * conflict that the person decides.
 */
export class BoardSession {
  private state: SessionState;
  private current: Entry;
  /** States that are not stored yet, oldest first. */
  private pending: Entry[] = [];
  private revision: number;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private mergeKey: string | undefined;
  /** Steps back or forward that wait for a revision to be fetched. */
  private steps: Way[] = [];
  private sending = 0;
  private readonly troubled = new Set<(error: unknown) => void>();
  private readonly listeners = new Set<() => void>();

  constructor(
    readonly id: string,
    loaded: StoredBoard,
  ) {
    this.revision = loaded.revision;
    this.current = { board: loaded.board, undo: loaded.undo, redo: loaded.redo, number: loaded.revision };
    this.state = {
      board: loaded.board,
      save: { kind: 'saved', at: loaded.savedAt },
      canUndo: loaded.undo !== null,
      canRedo: loaded.redo !== null,
    };
    const draft = readDraft(id);
    const newest = draft?.steps.at(-1)?.board;
    if (!draft || !newest || JSON.stringify(newest) === JSON.stringify(loaded.board)) return;
    this.pending = entriesOf(draft, this.current);
    this.current = lastOf(this.pending);
    this.state = {
      board: newest,
      save: { kind: 'waiting' },
      canUndo: this.current.undo !== null,
      canRedo: this.current.redo !== null,
    };
    this.revision = draft.basedOn;
    this.schedule(0);
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Calls when a step back or forward could not be fetched. @returns ends that */
  onTrouble(tell: (error: unknown) => void): () => void {
    this.troubled.add(tell);
    return () => void this.troubled.delete(tell);
  }

  readonly snapshot = (): SessionState => this.state;

  /**
   * Changes the board.
   * @param mergeKey edits in a row with the same key become one step of undo: a drag, or a word being typed
   */
  edit(change: (board: Board) => Board, mergeKey?: string): void {
    const before = this.state.board;
    const after = change(before);
    if (after === before) return;
    this.steps = [];
    const merges = mergeKey !== undefined && mergeKey === this.mergeKey;
    this.mergeKey = mergeKey;
    if (merges && this.pending.indexOf(this.current) >= this.sending) this.current.board = after;
    // A drag that goes on while its beginning is being saved: undo leads to where it began all the same.
    else this.advance({ board: after, undo: merges ? this.current.undo : this.current, redo: null, number: null });
    this.show();
  }

  /** Ends a merged edit: the next one is a step of its own. */
  endMerge(): void {
    this.mergeKey = undefined;
  }

  /** @returns false when there is nothing further to take back */
  undo(): boolean {
    return this.step('undo');
  }

  /** @returns false when there is nothing to do again */
  redo(): boolean {
    return this.step('redo');
  }

  private step(way: Way): boolean {
    const target = this.current[way];
    if (this.steps.length > 0 || typeof target === 'number') {
      this.steps.push(way);
      if (this.steps.length === 1) void this.walk();
      return true;
    }
    if (target === null) return false;
    this.mergeKey = undefined;
    this.advance(
      way === 'undo'
        ? { board: target.board, undo: target.undo, redo: this.current, number: null }
        : { board: target.board, undo: this.current, redo: target.redo, number: null },
    );
    this.show();
    return true;
  }

  /** Takes the waiting steps one by one, fetching what they lead to. An edit meanwhile gives them up. */
  private async walk(): Promise<void> {
    while (this.steps.length > 0) {
      const way = firstOf(this.steps);
      const from = this.current;
      const target = from[way];
      if (typeof target === 'number') {
        try {
          const { board, undo, redo, number } = await api.revision(this.id, target);
          from[way] = { board, undo, redo, number };
        } catch (error) {
          // Nothing was changed, so nothing is unsaved: the hands are told, and can try again.
          this.steps = [];
          for (const tell of this.troubled) tell(error);
          return;
        }
      }
      if (this.steps.length === 0 || from !== this.current) return;
      const [, ...rest] = this.steps;
      this.steps = [];
      this.step(way);
      this.steps = rest;
    }
  }

  private advance(entry: Entry): void {
    this.current = entry;
    this.pending.push(entry);
  }

  /** In a conflict: this tab's version becomes the newest revision; the other stays in the history. */
  async keepMine(): Promise<void> {
    if (this.state.save.kind !== 'conflict') return;
    this.revision = this.state.save.theirs.revision;
    this.update({ save: { kind: 'waiting' } });
    await this.flush();
  }

  /** In a conflict: take the other version; this tab's can be brought back with undo. */
  takeTheirs(): void {
    if (this.state.save.kind === 'conflict') this.adopt(this.state.save.theirs);
  }

  /** In a conflict: this tab's version becomes a board of its own, and the other is shown here. @returns the new board's id */
  async keepBoth(): Promise<string | undefined> {
    if (this.state.save.kind !== 'conflict') return undefined;
    const { theirs } = this.state.save;
    const copy = await api.addBoard({ ...this.state.board, name: `${this.state.board.name} (copy)`.slice(0, 120) });
    this.adopt(theirs);
    return copy.id;
  }

  /** Looks whether the board was changed elsewhere; with nothing unsaved here the newer one is shown. */
  async refresh(): Promise<void> {
    if (this.state.save.kind !== 'saved') return;
    const newest = await api.board(this.id).catch(() => undefined);
    if (newest && this.state.save.kind === 'saved' && newest.revision > this.revision) this.adopt(newest);
  }

  /** Saves now, and says which revision is stored then. @throws Error with a sentence when it cannot be saved */
  async savedRevision(): Promise<number> {
    await this.flush();
    if (this.state.save.kind !== 'saved')
      throw new Error('The board is not saved yet; nothing was promised. Try again when it is.');
    return this.revision;
  }

  get unsaved(): boolean {
    return this.state.save.kind !== 'saved';
  }

  /** Saves now. `leaving` lets the request outlive the page. */
  async flush(leaving = false): Promise<void> {
    clearTimeout(this.timer);
    const { save } = this.state;
    if (save.kind === 'conflict' || save.kind === 'saved' || (save.kind === 'saving' && !leaving)) return;
    const parsed = writtenBoardSchema.safeParse(this.state.board);
    if (!parsed.success) {
      this.update({
        save: { kind: 'refused', message: fieldProblems(parsed.error)[0]?.message ?? 'The board is not valid.' },
      });
      return;
    }
    let batch = this.pending.slice(0, MOST_STEPS_SENT);
    // A state on the way that was not valid is no place to come back to.
    let sent = batch.filter((entry) => entry === this.current || writtenBoardSchema.safeParse(entry.board).success);
    let steps = stepsOf(sent, this.revision);
    // What is too much for a page that is going is told by its last state alone; the rest is in the draft.
    if (leaving && JSON.stringify(steps).length > MOST_LEAVING_CHARACTERS) {
      sent = batch = this.pending.slice(-1);
      steps = stepsOf(sent, this.revision);
    }
    if (!leaving) this.update({ save: { kind: 'saving' } });
    this.sending = batch.length;
    try {
      const stored = await api.saveBoard(this.id, this.revision, steps, leaving);
      const all = stored.revision === this.revision + sent.length;
      sent.forEach((entry, i) => {
        // Somebody else had come to the same board meanwhile: only the newest state has its place in the history.
        if (all || i === sent.length - 1) entry.number = stored.revision - (sent.length - 1 - i);
      });
      this.pending = this.pending.filter(
        (entry) => entry.number === null && (sent.includes(entry) || !batch.includes(entry)),
      );
      this.revision = stored.revision;
      this.sending = 0;
      if (this.pending.includes(this.current)) {
        // What came in meanwhile is based on the revision just made.
        writeDraft(this.id, this.revision, this.pending);
        this.update({ save: { kind: 'waiting' } });
        this.schedule(SAVE_DELAY_MS);
      } else {
        clearDraft(this.id);
        this.update({ save: { kind: 'saved', at: stored.savedAt } });
      }
    } catch (error) {
      this.failed(error);
    }
  }

  dispose(): void {
    void this.flush(true);
    clearTimeout(this.timer);
    this.listeners.clear();
  }

  private failed(error: unknown): void {
    this.sending = 0;
    if (!(error instanceof ApiProblem)) throw error;
    if (error.code === 'stale' && error.current)
      this.update({ save: { kind: 'conflict', theirs: error.current as StoredBoard } });
    else if (error.passing) {
      this.update({ save: { kind: 'offline', message: error.message } });
      this.schedule(RETRY_MS);
    } else this.update({ save: { kind: 'refused', message: error.message } });
  }

  private adopt(theirs: StoredBoard): void {
    // This tab's own states stay waiting: undo leads to them, and then they are stored.
    this.current = { board: theirs.board, undo: this.current, redo: null, number: theirs.revision };
    this.revision = theirs.revision;
    this.mergeKey = undefined;
    clearDraft(this.id);
    this.update({ save: { kind: 'saved', at: theirs.savedAt } });
  }

  private show(): void {
    writeDraft(this.id, this.revision, this.pending);
    // In a conflict edits go on, but nothing is sent until the person has chosen.
    const save: SaveState =
      this.state.save.kind === 'conflict' || this.state.save.kind === 'saving' ? this.state.save : { kind: 'waiting' };
    this.update({ save });
    this.schedule(SAVE_DELAY_MS);
  }

  private schedule(delay: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), delay);
  }

  private update(change: Partial<SessionState>): void {
    this.state = {
      ...this.state,
      ...change,
      board: this.current.board,
      canUndo: this.current.undo !== null,
      canRedo: this.current.redo !== null,
    };
    for (const listener of this.listeners) listener();
  }
}

/** Unsaved steps of this tab; undo and redo are revision numbers, those above `basedOn` count the steps themselves. */
interface Draft {
  basedOn: number;
  steps: BoardStep[];
}

/** Waiting states as steps to be sent: those that lead to one another do so by the numbers they will get. */
function stepsOf(entries: readonly Entry[], basedOn: number): BoardStep[] {
  const places = new Map(entries.map((entry, i) => [entry, basedOn + 1 + i]));
  const to = (ref: Entry | number | null): number | null => {
    if (ref === null || typeof ref === 'number') return ref;
    return ref.number ?? places.get(ref) ?? to(ref.undo);
  };
  return entries.map(({ board, undo, redo }) => ({ board, undo: to(undo), redo: to(redo) }));
}

/** The other way round; what leads to the board as it was loaded leads to `loaded`. */
function entriesOf({ basedOn, steps }: Draft, loaded: Entry): Entry[] {
  const entries: Entry[] = steps.map(({ board }) => ({ board, undo: null, redo: null, number: null }));
  const to = (number: number | null) =>
    number === null ? null : number === loaded.number ? loaded : (entries[number - basedOn - 1] ?? number);
  steps.forEach(({ undo, redo }, i) => Object.assign(nth(entries, i), { undo: to(undo), redo: to(redo) }));
  return entries;
}

const draftKey = (id: string) => `${DRAFT}${id}`;

function writeDraft(id: string, basedOn: number, pending: readonly Entry[]): void {
  const kept = pending.slice(-MOST_STEPS_DRAFTED);
  const steps = stepsOf(kept, basedOn);
  if (kept.length < pending.length) firstOf(steps).undo ??= basedOn;
  keepDraft(draftKey(id), JSON.stringify({ basedOn, steps } satisfies Draft));
}

const clearDraft = (id: string): void => dropDraft(draftKey(id));

function readDraft(id: string): Draft | undefined {
  const draft = readKeptDraft(draftKey(id)) as Draft | null;
  return draft && draft.steps.length > 0 && draft.steps.every((s) => writtenBoardSchema.safeParse(s.board).success)
    ? draft
    : undefined;
}
