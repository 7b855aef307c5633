import { vi } from 'vitest';
import type { BoardStep, StoredBoard } from '#contract/boards.ts';
import type { StoredPiece } from '#contract/rack.ts';
import type { Board } from '#core/board/board.ts';
import type { Fact } from '#core/facts/fact.ts';
import { firstOf, lastOf } from '#core/lists/there.ts';
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

/** Holds one board with its rack and shop in memory and answers as the server does, as far as the pages of a board ask. */
export class ServerForTests {
  readonly sent: Sent[] = [];
  board: StoredBoard;
  rack: StoredPiece[];
  facts: Fact[];
  private readonly refusals: (Refusal | 'gone')[] = [];

  constructor(private readonly input: PlanInput) {
    this.board = {
      id: 'b1',
      revision: 1,
      savedAt: '2026-11-27T08:00:00.000Z',
      undo: null,
      redo: null,
      board: input.board,
    };
    this.rack = input.rack.map((piece) => ({ piece, version: 1 }));
    this.facts = [...(input.facts ?? [])];
    vi.stubGlobal('fetch', (path: string, init: RequestInit = {}) => this.answer(path, init));
  }

  /** The next write is refused, or nobody answers. */
  refuse(refusal: Refusal | 'gone'): void {
    this.refusals.push(refusal);
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
    await Promise.resolve();
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
    const { shop, species } = this.input;
    if (method === 'GET')
      switch (place) {
        case '/boards/b1':
          return this.board;
        case '/boards/b1/facts':
          return { facts: this.facts };
        case '/boards/b1/runs':
          return { now: '2026-11-27T08:00:00.000Z', runs: [] };
        case '/boards':
          return [{ ...this.board, facts: this.facts }];
        case '/rack':
          return this.rack;
        case '/shop':
          return { shop, version: 1, demo: false };
        case '/species':
          return species;
        case '/schedule':
          // Nobody has taken the board up.
          return {
            now: '2026-11-27T08:00:00.000Z',
            version: 0,
            schedule: { order: [], taken: [], waiting: [] },
            zone: 'UTC',
            shop,
            boards: [],
            idle: [],
            calendar: false,
          };
        case '/saw':
          return { promises: [], plans: [], cuttings: [] };
        default:
          return [];
      }
    if (place === '/boards/b1') return this.saved(lastOf((body as { steps: BoardStep[] }).steps).board);
    if (place === '/boards/b1/facts') {
      this.facts = [...this.facts, ...(body as { facts: Fact[] }).facts];
      return { facts: this.facts };
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
      const change = body as { version: number; shop: unknown };
      return { shop: change.shop, version: change.version + 1, demo: false };
    }
    return {};
  }

  private saved(board: Board): StoredBoard {
    this.board = { ...this.board, revision: this.board.revision + 1, board };
    return this.board;
  }

  private kept(stored: StoredPiece): StoredPiece {
    this.rack = [...this.rack.filter((p) => p.piece.id !== stored.piece.id), stored];
    return firstOf(this.rack.slice(-1));
  }
}
