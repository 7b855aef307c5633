import { boardSchema, type Board } from '#core/board/board.ts';
import { fieldProblems } from '#core/format/fieldProblems.ts';
import { api, ApiProblem, type StoredBoard } from './api.ts';

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

const SAVE_DELAY_MS = 350;
const RETRY_MS = 2500;

/**
 * One board being worked on in this tab: edits with undo, saved as they are made. What is not yet on the server is also kept as a draft
 * of this tab, so that neither a reload nor a server that is gone loses it. A save based on an older revision never overwrites: it becomes a
 * conflict that the person decides.
 */
export class BoardSession {
  private state: SessionState;
  private past: Board[] = [];
  private future: Board[] = [];
  private revision: number;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private mergeKey: string | undefined;
  private readonly listeners = new Set<() => void>();

  constructor(readonly id: string, loaded: StoredBoard) {
    this.revision = loaded.revision;
    this.state = { board: loaded.board, save: { kind: 'saved', at: loaded.savedAt }, canUndo: false, canRedo: false };
    const draft = readDraft(id);
    if (!draft || JSON.stringify(draft.board) === JSON.stringify(loaded.board)) return;
    this.past = [loaded.board];
    this.state = { ...this.state, board: draft.board, canUndo: true, save: { kind: 'waiting' } };
    this.revision = draft.basedOn;
    this.schedule(0);
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly snapshot = (): SessionState => this.state;

  /**
   * Changes the board.
   * @param mergeKey edits in a row with the same key become one step of undo: a drag, or a word being typed
   */
  edit(change: (board: Board) => Board, mergeKey?: string): void {
    const before = this.state.board;
    const after = change(before);
    if (after === before) return;
    if (mergeKey === undefined || mergeKey !== this.mergeKey) this.past.push(before);
    this.mergeKey = mergeKey;
    this.future = [];
    this.show(after);
  }

  /** Ends a merged edit: the next one is a step of its own. */
  endMerge(): void {
    this.mergeKey = undefined;
  }

  undo(): void {
    const board = this.past.pop();
    if (!board) return;
    this.future.push(this.state.board);
    this.mergeKey = undefined;
    this.show(board);
  }

  redo(): void {
    const board = this.future.pop();
    if (!board) return;
    this.past.push(this.state.board);
    this.mergeKey = undefined;
    this.show(board);
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
    if (this.state.save.kind !== 'saved') throw new Error('The board is not saved yet; nothing was promised. Try again when it is.');
    return this.revision;
  }

  get unsaved(): boolean {
    return this.state.save.kind !== 'saved';
  }

  /** Saves now. `leaving` lets the request outlive the page. */
  async flush(leaving = false): Promise<void> {
    clearTimeout(this.timer);
    const { board, save } = this.state;
    if (save.kind === 'conflict' || save.kind === 'saved' || (save.kind === 'saving' && !leaving)) return;
    const parsed = boardSchema.safeParse(board);
    if (!parsed.success) {
      this.update({ save: { kind: 'refused', message: fieldProblems(parsed.error)[0]?.message ?? 'The board is not valid.' } });
      return;
    }
    if (!leaving) this.update({ save: { kind: 'saving' } });
    try {
      const stored = await api.saveBoard(this.id, this.revision, board, leaving);
      this.revision = stored.revision;
      if (this.state.board !== board) {
        // What came in meanwhile is based on the revision just made.
        writeDraft(this.id, { basedOn: this.revision, board: this.state.board });
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
    if (!(error instanceof ApiProblem)) throw error;
    if (error.code === 'stale' && error.current) this.update({ save: { kind: 'conflict', theirs: error.current as StoredBoard } });
    else if (error.passing) {
      this.update({ save: { kind: 'offline', message: error.message } });
      this.schedule(RETRY_MS);
    } else this.update({ save: { kind: 'refused', message: error.message } });
  }

  private adopt(theirs: StoredBoard): void {
    this.past.push(this.state.board);
    this.future = [];
    this.revision = theirs.revision;
    this.mergeKey = undefined;
    clearDraft(this.id);
    this.update({ board: theirs.board, save: { kind: 'saved', at: theirs.savedAt } });
  }

  private show(board: Board): void {
    writeDraft(this.id, { basedOn: this.revision, board });
    // In a conflict edits go on, but nothing is sent until the person has chosen.
    const save: SaveState = this.state.save.kind === 'conflict' || this.state.save.kind === 'saving' ? this.state.save : { kind: 'waiting' };
    this.update({ board, save });
    this.schedule(SAVE_DELAY_MS);
  }

  private schedule(delay: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), delay);
  }

  private update(change: Partial<SessionState>): void {
    this.state = { ...this.state, ...change, canUndo: this.past.length > 0, canRedo: this.future.length > 0 };
    for (const listener of this.listeners) listener();
  }
}

interface Draft {
  basedOn: number;
  board: Board;
}

const draftKey = (id: string) => `cadenza.draft.${id}`;

function writeDraft(id: string, draft: Draft): void {
  try {
    sessionStorage.setItem(draftKey(id), JSON.stringify(draft));
  } catch {
    // A full or forbidden storage costs only the spare copy; the save itself goes on.
  }
}

function clearDraft(id: string): void {
  sessionStorage.removeItem(draftKey(id));
}

function readDraft(id: string): Draft | undefined {
  try {
    const draft = JSON.parse(sessionStorage.getItem(draftKey(id)) ?? 'null') as Draft | null;
    return draft && boardSchema.safeParse(draft.board).success ? draft : undefined;
  } catch {
    return undefined;
  }
}
