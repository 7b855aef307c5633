import { nanoid } from 'nanoid';
import type { Device, Devices, Invitation } from '#contract/devices.ts';
import { TAB_HEADER } from '#contract/live.ts';
import { KEPT_AT } from '../offline/keptAnswers.ts';
import { learnServerTime } from './serverClock.ts';
import { tab } from './tab.ts';
import type { BoardStep, ListedBoard, Revision, StoredBoard } from '#contract/boards.ts';
import type { Picture, Readings, Waits } from '#contract/bench.ts';
import type { Reading } from '#core/bench/reading.ts';
import type { EntryChange, LogPage, LogQuery, StoredEntry } from '#contract/log.ts';
import type { LogEntry, Pair } from '#core/log/entry.ts';
import type { BoardFacts } from '#contract/facts.ts';
import type { RunChange, Runs, RunStart, StoredRun } from '#contract/glueRuns.ts';
import type { ProblemJson } from '#contract/problem.ts';
import type { EarlierPrices, ShoppingDocument, StoredShopping } from '#contract/money.ts';
import type { StoredPiece } from '#contract/rack.ts';
import type { PlannedBoard, PlannedUnit } from '#contract/saw.ts';
import { NOW_HEADER, type ScheduleDocument, type ShopWork, type StoredSchedule } from '#contract/schedule.ts';
import type { ShopAside, StoredShop } from '#contract/shop.ts';
import type { FieldProblem } from '#core/format/fieldProblems.ts';
import type { Board } from '#core/board/board.ts';
import type { BoardFile } from '#core/format/boardFile.ts';
import type { BareCut } from '#core/cutting/cutPlanSchema.ts';
import type { Fact } from '#core/facts/fact.ts';
import type { SawBook, StripName } from '#core/saw/sawRecords.ts';
import type { Shop } from '#core/shop/shop.ts';
import type { PieceFields } from '#core/stock/piece.ts';
import type { Species } from '#core/wood/species.ts';

/** The server refused, or could not be reached (status 0). The message is a sentence for the reader. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly fields: FieldProblem[],
    readonly current: unknown,
  ) {
    super(message);
  }

  /** Trying again later may help: no connection, or the database is busy, full or gone for now. */
  get passing(): boolean {
    return this.status === 0 || this.status === 502 || this.status === 503 || this.status === 507;
  }
}

/** No answer after this long counts as unreachable. */
const TIMEOUT_MS = 15_000;
/** Pauses before a write is sent again by the same name, ms. A longer outage is for whoever asked. */
const SEND_AGAIN_AFTER_MS = [400, 1500];

interface Sending {
  method: string;
  path: string;
  body: unknown;
  keepalive: boolean;
  /** The write's own name: however often it is sent, it is done once. */
  name: string | null;
}

async function send({ method, path, body, keepalive, name }: Sending): Promise<Response> {
  try {
    return await fetch(`/api${path}`, {
      method,
      keepalive,
      signal: AbortSignal.timeout(TIMEOUT_MS),
      ...(name === null
        ? {}
        : {
            body: JSON.stringify(body ?? {}),
            headers: { 'Content-Type': 'application/json', 'Idempotency-Key': name, [TAB_HEADER]: tab },
          }),
    });
  } catch {
    throw new ApiProblem(0, 'unreachable', 'The server cannot be reached.', [], undefined);
  }
}

/** What was answered. @throws ApiProblem */
export async function answerOf<T>(response: Response): Promise<T> {
  // What was kept tells when it was kept.
  if (!response.headers.has(KEPT_AT)) learnServerTime(response.headers.get('Date'));
  if (response.status === 204) return undefined as T;
  const json = (await response.json().catch(() => null)) as Partial<ProblemJson> | null;
  if (response.ok && json !== null) return asOfNow(response, json) as T;
  // What is not sent yet is kept on this device, and goes out once it is known again.
  if (json?.code === 'sign-in') window.location.assign(`/sign-in?to=${encodeURIComponent(window.location.pathname)}`);
  throw new ApiProblem(
    response.status,
    json?.code ?? 'unreadable',
    json?.detail ?? 'The server gave an answer that cannot be read.',
    json?.fields ?? [],
    json?.current,
  );
}

/** A body that was put together before, there or here, knows what time it was then: by now it is later. */
function asOfNow(response: Response, json: object): object {
  const kept = Number(response.headers.get(KEPT_AT));
  const told = response.headers.get(NOW_HEADER);
  if (told !== null && 'now' in json) return asOfKept(kept, { ...json, now: told });
  return asOfKept(kept, json);
}

function asOfKept(kept: number, json: object): object {
  const { now } = json as { now?: unknown };
  return kept > 0 && typeof now === 'string'
    ? { ...json, now: new Date(Date.parse(now) + Date.now() - kept).toISOString() }
    : json;
}

interface Patience {
  /** The request may outlive its page. */
  keepalive?: boolean;
  /** Whoever asks keeps what was not stored and sends it again by itself. */
  asksAgain?: boolean;
}

async function request<T>(
  method: string,
  path: string,
  body?: unknown,
  { keepalive = false, asksAgain = false }: Patience = {},
): Promise<T> {
  const name = method === 'GET' ? null : nanoid();
  for (let attempt = 0; ; attempt += 1) {
    try {
      return await answerOf<T>(await send({ method, path, body, keepalive, name }));
    } catch (error) {
      const again = SEND_AGAIN_AFTER_MS[attempt];
      if (
        name === null ||
        keepalive ||
        asksAgain ||
        again === undefined ||
        !(error instanceof ApiProblem && error.passing)
      )
        throw error;
      await new Promise((resolve) => setTimeout(resolve, again));
    }
  }
}

/** Part of a list. */
export interface ListPage<T> {
  rows: T[];
  /** Address of the next part; null at the end. */
  next: string | null;
}

async function page<T>(path: string): Promise<ListPage<T>> {
  const response = await send({ method: 'GET', path, body: undefined, keepalive: false, name: null });
  const next = /^<\/api([^>]+)>; rel="next"$/.exec(response.headers.get('link') ?? '');
  return { rows: await answerOf<T[]>(response), next: next?.[1] ?? null };
}

/** A whole list, part after part. A row that moved meanwhile comes once. */
async function whole<T>(path: string, idOf: (row: T) => string): Promise<T[]> {
  const rows = new Map<string, T>();
  for (let at: string | null = path; at !== null;) {
    const part: ListPage<T> = await page<T>(at);
    for (const row of part.rows) rows.set(idOf(row), row);
    at = part.next;
  }
  return [...rows.values()];
}

/** A query as an address has it: what is not asked is left out. */
const wordsOf = (query: object): Record<string, string> =>
  Object.fromEntries(
    Object.entries(query).flatMap(([key, value]) =>
      value === undefined || value === '' ? [] : [[key, String(value)] as const],
    ),
  );

/** Every call of the interface to the server. */
export const api = {
  /** Boards as lists show them: without versions and features. */
  boards: (at: string | null) => page<ListedBoard>(at ?? '/boards'),
  board: (id: string) => request<StoredBoard>('GET', `/boards/${id}`),
  addBoard: (board: Board) => request<StoredBoard>('POST', '/boards', board),
  saveBoard: (id: string, basedOn: number, steps: BoardStep[], keepalive = false) =>
    request<StoredBoard>('PUT', `/boards/${id}`, { basedOn, steps }, { keepalive, asksAgain: true }),
  revisions: (id: string, before: number | null, named: boolean) =>
    request<Revision[]>('GET', `/boards/${id}/revisions?named=${named}${before === null ? '' : `&before=${before}`}`),
  revision: (id: string, number: number) => request<Revision>('GET', `/boards/${id}/revisions/${number}`),
  nameRevision: (id: string, number: number, name: string) =>
    request<Revision>('PUT', `/boards/${id}/revisions/${number}/name`, { name }),
  removeBoard: (id: string, basedOn: number) => request<void>('POST', `/boards/${id}/remove`, { basedOn }),
  restoreBoard: (id: string) => request<StoredBoard>('POST', `/boards/${id}/restore`, {}),
  importBoard: (file: BoardFile, addPieces: boolean) =>
    request<StoredBoard>('POST', '/boards/import', { file, addPieces }),
  facts: (boardId: string) => request<BoardFacts>('GET', `/boards/${boardId}/facts`),
  addFacts: (boardId: string, facts: Fact[]) =>
    request<BoardFacts>('POST', `/boards/${boardId}/facts`, { facts }, { asksAgain: true }),
  /** @param complete waits a while for what is still being worked out */
  schedule: (complete = false) => request<ShopWork>('GET', complete ? '/schedule?complete=true' : '/schedule'),
  saveSchedule: (version: number, schedule: ScheduleDocument) =>
    request<StoredSchedule>('PUT', '/schedule', { version, schedule }),
  newCalendarAddress: () => request<{ path: string }>('POST', '/schedule/calendar'),
  closeCalendar: () => request<undefined>('POST', '/schedule/calendar/close'),
  earlierPrices: () => request<EarlierPrices>('GET', '/money/earlier'),
  shopping: () => request<StoredShopping>('GET', '/shopping'),
  saveShopping: (version: number, shopping: ShoppingDocument) =>
    request<StoredShopping>('PUT', '/shopping', { version, shopping }),
  devices: () => request<Devices>('GET', '/devices'),
  invite: (wish: Pick<Device, 'person' | 'may'>) => request<Invitation>('POST', '/devices/invite', wish),
  changeDevice: (id: string, change: Pick<Device, 'name' | 'person' | 'may'>) =>
    request<Devices>('PUT', `/devices/${id}`, change),
  confirm: (passphrase: string) => request<void>('POST', '/devices/confirm', { passphrase }, { asksAgain: true }),
  endDevice: (id: string) => request<Devices>('POST', `/devices/${id}/end`, {}),
  waits: () => request<Waits>('GET', '/waits'),
  log: (query: LogQuery) => request<LogPage>('GET', `/log?${new URLSearchParams(wordsOf(query)).toString()}`),
  logEntry: (id: string) => request<StoredEntry>('GET', `/log/${id}`),
  addLogEntry: (entry: LogEntry) => request<StoredEntry>('POST', '/log', entry, { asksAgain: true }),
  changeLogEntry: (id: string, change: EntryChange) => request<StoredEntry>('PUT', `/log/${id}`, change),
  removeLogEntry: (id: string) => request<void>('POST', `/log/${id}/remove`, {}),
  restoreLogEntry: (id: string) => request<void>('POST', `/log/${id}/restore`, {}),
  logPairs: () => request<{ pairs: Pair[] }>('GET', '/log/pairs'),
  readings: (after: number | undefined) =>
    request<Readings>('GET', `/readings${after === undefined ? '' : `?after=${after}`}`),
  sendReading: (reading: Reading) => request<void>('POST', '/readings', reading),
  keepPicture: (boardId: string, id: string, picture: Picture) =>
    request<void>('PUT', `/boards/${boardId}/pictures/${id}`, picture, { asksAgain: true }),
  picture: (boardId: string, id: string) => request<Picture>('GET', `/boards/${boardId}/pictures/${id}`),
  rack: () => whole<StoredPiece>('/rack', (stored) => stored.piece.id),
  addPiece: (piece: PieceFields) => request<StoredPiece>('POST', '/rack', piece),
  changePiece: (id: string, version: number, piece: PieceFields) =>
    request<StoredPiece>('PUT', `/rack/${id}`, { version, piece }, { asksAgain: true }),
  removePiece: (id: string, version: number) => request<StoredPiece>('POST', `/rack/${id}/remove`, { version }),
  restorePiece: (id: string, version: number) => request<StoredPiece>('POST', `/rack/${id}/restore`, { version }),
  addPieces: (pieces: PieceFields[], species: Species[]) =>
    request<{ added: number }>('POST', '/rack/batch', { pieces, species }),
  saw: (boards: readonly string[]) => request<SawBook>('GET', `/saw?boards=${boards.join(',')}`),
  keepCut: (boards: PlannedBoard[], cut: BareCut) => request<SawBook>('POST', '/saw/keep', { boards, cut }),
  releaseCut: (boards: string[]) => request<SawBook>('POST', '/saw/release', { boards }),
  cutPiece: (unit: PlannedUnit) => request<SawBook>('POST', '/saw/cut', unit),
  undoCutting: (id: string) => request<SawBook>('POST', `/saw/cuttings/${id}/undo`),
  failStrips: (id: string, version: number, failed: StripName[]) =>
    request<SawBook>('POST', `/saw/cuttings/${id}/fail`, { version, failed }),
  runs: (boardId: string) => request<Runs>('GET', `/boards/${boardId}/runs`),
  startRun: (boardId: string, start: RunStart) => request<StoredRun>('POST', `/boards/${boardId}/runs`, start),
  changeRun: (id: string, version: number, change: RunChange) =>
    request<StoredRun>('PUT', `/runs/${id}`, { version, ...change }),
  shop: () => request<StoredShop>('GET', '/shop'),
  saveShop: (version: number, shop: Shop) =>
    request<StoredShop>('PUT', '/shop', { version, shop }, { asksAgain: true }),
  beginShop: (version: number, shop: Shop) => request<StoredShop>('POST', '/shop/begin', { version, shop }),
  keepDemo: (version: number) => request<StoredShop>('POST', '/shop/keep', { version }),
  shopsAside: () => request<ShopAside[]>('GET', '/shops/aside'),
  takeUpShop: (id: number, version: number) => request<StoredShop>('POST', `/shops/aside/${id}/take-up`, { version }),
  throwShopAway: (id: number) => request<ShopAside[]>('POST', `/shops/aside/${id}/throw-away`),
  bringShopBack: (id: number) => request<ShopAside[]>('POST', `/shops/aside/${id}/restore`),
  species: () => request<Species[]>('GET', '/species'),
  addSpecies: (species: Species) => request<Species[]>('POST', '/species', species),
  changeSpecies: (before: Species, species: Species) =>
    request<Species[]>('PUT', `/species/${species.code}`, { before, species }),
};
