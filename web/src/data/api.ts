import type { FieldProblem } from '#core/format/fieldProblems.ts';
import type { Board } from '#core/board/board.ts';
import type { RunDocument, RunDue, RunEvent } from '#core/gluing/glueRun.ts';
import type { BoardFile } from '#core/format/boardFile.ts';
import type { BareCut } from '#core/cutting/cutPlanSchema.ts';
import type { SawBook, StripName } from '#core/plan/sawRecords.ts';
import type { Shop } from '#core/shop/shop.ts';
import type { Piece, PieceFields } from '#core/stock/piece.ts';
import type { Species } from '#core/wood/species.ts';

/** `undo` and `redo` are numbers of the revisions whose content they lead to. */
export interface StoredBoard { id: string; revision: number; savedAt: string; undo: number | null; redo: number | null; board: Board }
export interface BoardStep { board: Board; undo: number | null; redo: number | null }
export interface Revision extends BoardStep { number: number; madeAt: string; name: string }
export interface StoredPiece { piece: Piece; version: number }
/** A glue-up of one panel as it went, or as it is going. */
export interface StoredRun { id: string; boardId: string; glueUp: string; copy: number; version: number; startedAt: string; endedAt: string | null; run: RunDocument }
export interface RunChange { mark?: RunEvent; unmark?: RunEvent; note?: string; end?: boolean }
export interface StoredShop { shop: Shop; version: number }

/** The server refused, or could not be reached (status 0). The message is a sentence for the reader. */
export class ApiProblem extends Error {
  constructor(readonly status: number, readonly code: string, message: string, readonly fields: FieldProblem[], readonly current: unknown) {
    super(message);
  }

  /** Trying again later may help: no connection, or the database is gone for now. */
  get passing(): boolean {
    return this.status === 0 || this.status === 503 || this.status === 502;
  }
}

/** What the server says of a request it refuses. */
interface ProblemJson {
  code?: string;
  detail?: string;
  fields?: FieldProblem[];
  current?: unknown;
}

/** No answer after this long counts as unreachable. */
const TIMEOUT_MS = 15_000;

async function request<T>(method: string, path: string, body?: unknown, keepalive = false): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method, keepalive, signal: AbortSignal.timeout(TIMEOUT_MS),
      ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
    });
  } catch {
    throw new ApiProblem(0, 'unreachable', 'The server cannot be reached.', [], undefined);
  }
  if (response.status === 204) return undefined as T;
  const json = (await response.json().catch(() => null)) as ProblemJson | null;
  if (response.ok && json !== null) return json as T;
  throw new ApiProblem(response.status, json?.code ?? 'unreadable', json?.detail ?? 'The server gave an answer that cannot be read.',
    json?.fields ?? [], json?.current);
}

/** Every call of the interface to the server. */
export const api = {
  boards: () => request<StoredBoard[]>('GET', '/boards'),
  board: (id: string) => request<StoredBoard>('GET', `/boards/${id}`),
  addBoard: (board: Board) => request<StoredBoard>('POST', '/boards', board),
  saveBoard: (id: string, basedOn: number, steps: BoardStep[], keepalive = false) => request<StoredBoard>('PUT', `/boards/${id}`, { basedOn, steps }, keepalive),
  revisions: (id: string, before: number | null, named: boolean) => request<Revision[]>('GET', `/boards/${id}/revisions?named=${named}${before === null ? '' : `&before=${before}`}`),
  revision: (id: string, number: number) => request<Revision>('GET', `/boards/${id}/revisions/${number}`),
  nameRevision: (id: string, number: number, name: string) => request<Revision>('PUT', `/boards/${id}/revisions/${number}/name`, { name }),
  removeBoard: (id: string, basedOn: number) => request<void>('POST', `/boards/${id}/remove`, { basedOn }),
  restoreBoard: (id: string) => request<StoredBoard>('POST', `/boards/${id}/restore`, {}),
  importBoard: (file: BoardFile, addPieces: boolean) => request<StoredBoard>('POST', '/boards/import', { file, addPieces }),
  rack: () => request<StoredPiece[]>('GET', '/rack'),
  addPiece: (piece: PieceFields) => request<StoredPiece>('POST', '/rack', piece),
  changePiece: (id: string, version: number, piece: PieceFields) => request<StoredPiece>('PUT', `/rack/${id}`, { version, piece }),
  removePiece: (id: string, version: number) => request<StoredPiece>('POST', `/rack/${id}/remove`, { version }),
  restorePiece: (id: string, version: number) => request<StoredPiece>('POST', `/rack/${id}/restore`, { version }),
  addPieces: (pieces: PieceFields[], species: Species[]) => request<{ added: number }>('POST', '/rack/batch', { pieces, species }),
  saw: () => request<SawBook>('GET', '/saw'),
  keepCut: (boards: { id: string; revision: number }[], cut: BareCut) => request<SawBook>('POST', '/saw/keep', { boards, cut }),
  releaseCut: (boards: string[]) => request<SawBook>('POST', '/saw/release', { boards }),
  cutPiece: (planId: string, pieceId: string, unit: number) => request<SawBook>('POST', '/saw/cut', { planId, pieceId, unit }),
  undoCutting: (id: string) => request<SawBook>('POST', `/saw/cuttings/${id}/undo`),
  failStrips: (id: string, version: number, failed: StripName[]) => request<SawBook>('POST', `/saw/cuttings/${id}/fail`, { version, failed }),
  runs: (boardId: string) => request<{ now: string; runs: StoredRun[] }>('GET', `/boards/${boardId}/runs`),
  startRun: (boardId: string, start: { glueUp: string; copy: number; title: string; due: RunDue }) => request<StoredRun>('POST', `/boards/${boardId}/runs`, start),
  changeRun: (id: string, version: number, change: RunChange) => request<StoredRun>('PUT', `/runs/${id}`, { version, ...change }),
  shop: () => request<StoredShop>('GET', '/shop'),
  saveShop: (version: number, shop: Shop) => request<StoredShop>('PUT', '/shop', { version, shop }),
  species: () => request<Species[]>('GET', '/species'),
};
