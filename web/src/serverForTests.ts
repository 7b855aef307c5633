import { vi } from 'vitest';
import type { BoardStep, StoredBoard } from '#contract/boards.ts';
import type { BoardFacts } from '#contract/facts.ts';
import type { Copies, CopiesChange, Inside } from '#contract/backup.ts';
import type { Device, Devices } from '#contract/devices.ts';
import type { EarlierPrices, StoredShopping } from '#contract/money.ts';
import type { StoredPiece } from '#contract/rack.ts';
import type { ScheduleDocument, ShopWork } from '#contract/schedule.ts';
import type { StoredShop } from '#contract/shop.ts';
import type { Board } from '#core/board/board.ts';
import type { Fact } from '#core/facts/fact.ts';
import { firstOf, lastOf } from '#core/lists/there.ts';
import { workOfPlan } from '#core/plan/boardWork.ts';
import { makePlan } from '#core/plan/plan.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import type { PieceFields } from '#core/stock/piece.ts';
import type { Species } from '#core/wood/species.ts';

/** What the interface sent. */
export interface Sent {
  method: string;
  path: string;
  body: unknown;
  /** The write's own name. */
  name: string | null;
}

type Refusal = {
  status: number;
  code: string;
  detail?: string;
  fields?: { path: string; message: string }[];
  current?: unknown;
};

/** The moment in which everything happens: a Friday, an hour before the usual shop opens. */
export const NOW = '2026-11-27T08:00:00.000Z';

/** Holds boards with their rack and shop in memory and answers as the server does, as far as the pages of a board and of the shop ask. */
export class ServerForTests {
  readonly sent: Sent[] = [];
  board: StoredBoard;
  rack: StoredPiece[];
  facts: Fact[];
  /** Boards beside the first, made from the same rack. */
  others: StoredBoard[] = [];
  shop: StoredShop;
  /** What is decided about the work: nobody has taken a board up. */
  schedule: { version: number; schedule: ScheduleDocument } = {
    version: 0,
    schedule: { order: [], taken: [], waiting: [] },
  };
  shopping: StoredShopping = { version: 0, shopping: { boards: null, ticked: [] } };
  earlier: EarlierPrices = { boardsYear: 0, prices: [] };
  /** Devices that are let in; on loopback nobody is asked. */
  devices: Devices = { asked: false, own: null, may: 'work', devices: [], addresses: [] };
  /** Who noted which fact. */
  by: BoardFacts['by'] = {};
  /** How it stands with the copies of all that is stored. */
  copies: Copies = {
    daily: true,
    keep: 14,
    folder: '/copies',
    copies: [],
    lastGoodAt: NOW,
    trouble: null,
    old: false,
    canGoBack: false,
  };
  /** What is in every backup that is looked into. */
  inside: Inside | null = null;
  /** How many addresses for calendars were made; null while there is none. */
  calendar: number | null = null;
  private readonly refusals: (Refusal | 'gone')[] = [];
  private held: Promise<void> = Promise.resolve();

  constructor(private readonly input: PlanInput) {
    this.board = storedAs('b1', input.board);
    this.shop = { shop: input.shop, version: 1, demo: false };
    this.rack = input.rack.map((piece) => ({ piece, version: 1 }));
    this.facts = [...(input.facts ?? [])];
    vi.stubGlobal('fetch', (path: string, init: RequestInit = {}) => this.answer(path, init));
  }

  /** The next write is refused, or nobody answers. */
  refuse(refusal: Refusal | 'gone'): void {
    this.refusals.push(refusal);
  }

  /** Writes arrive no sooner than they are let go. @returns lets them go */
  hold(): () => void {
    let letGo = () => {};
    this.held = new Promise((resolve) => {
      letGo = resolve;
    });
    return () => letGo();
  }

  /** Writes that arrived, newest last. */
  get writes(): Sent[] {
    return this.sent.filter((s) => s.method !== 'GET');
  }

  private async answer(path: string, { method = 'GET', body, headers }: RequestInit): Promise<Response> {
    const sent = {
      method,
      path: path.replace(/^\/api/, ''),
      body: typeof body === 'string' ? (JSON.parse(body) as unknown) : undefined,
      name: (headers as Record<string, string> | undefined)?.['Idempotency-Key'] ?? null,
    };
    this.sent.push(sent);
    await (method === 'GET' ? undefined : this.held);
    const refusal = method === 'GET' ? undefined : this.refusals.shift();
    if (refusal === 'gone') throw new TypeError('Failed to fetch');
    if (refusal) {
      const { status, code, detail = 'Refused.', fields = [], current } = refusal;
      return Response.json({ type: 'about:blank', title: code, status, code, detail, fields, current }, { status });
    }
    return Response.json(this.found(sent), { status: method === 'POST' ? 201 : 200 });
  }

  private found({ method, path, body }: Sent): unknown {
    const [place] = path.split('?');
    const { species } = this.input;
    if (method === 'GET')
      switch (place) {
        case '/boards/b1/facts':
          return { facts: this.facts, by: this.by };
        case '/backups':
          return this.copies;
        case '/boards/b1/runs':
          return { now: NOW, runs: [] };
        case '/boards':
          return this.boards.map((b) => ({ ...b, facts: this.factsOf(b.id) }));
        case '/rack':
          return this.rack;
        case '/shop':
          return this.shop;
        case '/species':
          return species;
        case '/schedule':
          return this.work();
        case '/shopping':
          return this.shopping;
        case '/devices':
          return this.devices;
        case '/money/earlier':
          return this.earlier;
        case '/saw':
          return { promises: [], plans: [], cuttings: [] };
        default: {
          const [, id, facts] = /^\/boards\/(\w+)(\/facts)?$/.exec(place ?? '') ?? [];
          const board = this.boards.find((b) => b.id === id);
          return facts ? { facts: this.factsOf(id ?? ''), by: {} } : (board ?? []);
        }
      }
    const [, device, end] = /^\/devices\/(\w+)(\/end)?$/.exec(place ?? '') ?? [];
    if (device !== undefined && device !== 'invite') {
      const devices = this.devices.devices.flatMap((d) =>
        d.id !== device ? [d] : end ? [] : [{ ...d, ...(body as Partial<Device>) }],
      );
      this.devices = { ...this.devices, devices };
      return this.devices;
    }
    if (place?.startsWith('/backups/') && place.endsWith('/look')) return this.inside;
    const board = this.boards.find((b) => place === `/boards/${b.id}`);
    if (board) return this.saved(board, lastOf((body as { steps: BoardStep[] }).steps).board);
    switch (place) {
      case '/schedule':
        this.schedule = { ...(body as ServerForTests['schedule']), version: this.schedule.version + 1 };
        return this.schedule;
      case '/schedule/calendar':
        this.calendar = (this.calendar ?? 0) + 1;
        return { path: `/calendar/secret-${this.calendar}.ics` };
      case '/schedule/calendar/close':
        this.calendar = null;
        return {};
      case '/backups':
        this.copies = { ...this.copies, ...(body as CopiesChange) };
        return this.copies;
      case '/backups/now':
      case '/backups/restore':
      case '/backups/bring-in':
        return this.copies;
      case '/devices/invite':
        return { path: '/join/a-code', expiresAt: NOW };
      case '/shopping':
        this.shopping = { ...(body as StoredShopping), version: this.shopping.version + 1 };
        return this.shopping;
    }
    if (place === '/boards/b1/facts') {
      this.facts = [...this.facts, ...(body as { facts: Fact[] }).facts];
      return { facts: this.facts, by: this.by };
    }
    if (place === '/rack') return this.kept({ piece: { id: 'new', ...(body as PieceFields) }, version: 1 });
    if (place === '/rack/batch') {
      const { pieces } = body as { pieces: PieceFields[] };
      pieces.forEach((piece, i) => this.kept({ piece: { id: `new-${i}`, ...piece }, version: 1 }));
      return { added: pieces.length };
    }
    if (place === '/species') return [...species, body as Species];
    if (place?.startsWith('/rack/')) {
      const { version, piece } = body as { version: number; piece: PieceFields };
      return this.kept({ piece: { id: place.slice(6), ...piece }, version: version + 1 });
    }
    if (place === '/shop') {
      const change = body as Pick<StoredShop, 'version' | 'shop'>;
      this.shop = { shop: change.shop, version: change.version + 1, demo: false };
      return this.shop;
    }
    return {};
  }

  private get boards(): StoredBoard[] {
    return [this.board, ...this.others];
  }

  /** Things only happened to the first board. */
  private factsOf(id: string): Fact[] {
    return id === this.board.id ? this.facts : [];
  }

  /** The work on every board that has a day or a pin, was taken up or begun. */
  private work(): ShopWork {
    const { shop } = this.shop;
    const { taken, waiting } = this.schedule.schedule;
    const all = this.boards.map((stored) => {
      const { id, board } = stored;
      const rack = this.rack.map((p) => p.piece);
      const input = { board, rack, shop, species: this.input.species, facts: this.factsOf(id) };
      const work = workOfPlan(id, input, makePlan(input));
      const begun = board.due !== null || board.pins.length > 0 || taken.includes(id) || work.past.length > 0;
      return { ...stored, work, inWork: begun && !waiting.includes(id) };
    });
    const minutes = (tasks: (typeof all)[number]['work']['tasks']) => tasks.reduce((sum, t) => sum + t.minutes, 0);
    return {
      now: NOW,
      ...this.schedule,
      zone: 'UTC',
      shop,
      boards: all
        .filter((b) => b.inWork)
        .map(({ id, revision, board, work }) => ({ id, revision, due: board.due, pins: board.pins, work })),
      idle: all
        .filter((b) => !b.inWork)
        .map(({ id, board, work: { tasks } }) => ({
          id,
          name: board.name,
          minutes: minutes(tasks),
          untilWait: minutes(tasks.slice(0, tasks.findIndex((t) => t.wait > 0) + 1 || tasks.length)),
          waiting: waiting.includes(id),
        })),
      calendar: this.calendar !== null,
      upToDate: true,
      unknown: 0,
    };
  }

  private saved(before: StoredBoard, board: Board): StoredBoard {
    const stored = { ...before, revision: before.revision + 1, board };
    if (before === this.board) this.board = stored;
    else this.others = this.others.map((b) => (b === before ? stored : b));
    return stored;
  }

  private kept(stored: StoredPiece): StoredPiece {
    this.rack = [...this.rack.filter((p) => p.piece.id !== stored.piece.id), stored];
    return firstOf(this.rack.slice(-1));
  }
}

/** A board that was just made. */
export const storedAs = (id: string, board: Board): StoredBoard => ({
  id,
  revision: 1,
  savedAt: NOW,
  undo: null,
  redo: null,
  board,
});
