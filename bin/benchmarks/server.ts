import { certain, firstOf, nth } from '#core/lists/there.ts';
import { spawn, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { Agent } from 'node:http';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { firstFit } from '#core/cutting/firstFit.ts';
import { cutProblemFor } from '#core/saw/cutForBoard.ts';
import { bareCut } from '#core/saw/rebuildCut.ts';
import type { CuttingRecord } from '#core/saw/sawRecords.ts';
import type { Piece } from '#core/stock/piece.ts';
import type { Board } from '#core/board/board.ts';
import type { StoredBoard } from '#contract/boards.ts';
import { COMPLETE_HEADER } from '#contract/schedule.ts';
import { addBoard } from '../../server/src/stores/boardStore.ts';
import { openDatabase } from '../../server/src/stores/database.ts';
import { openStore } from '../../server/src/stores/openStore.ts';
import { addMissingPieces } from '../../server/src/stores/rackStore.ts';
import { inTransaction } from '../../server/src/stores/transaction.ts';
import { benchInstance } from './instances.ts';
import type { Figure } from './figure.ts';
import { heaviestFigures } from './heaviest.ts';
import { ask, load, type Load } from './loadClient.ts';
import { startTestDatabase, newDatabase } from '../mariadb/testDatabase.ts';
import { ROOT } from '../root.ts';
import { flatRecipe, stripsOf } from '#core/board/recipe.ts';

const CLIENTS = 50;
const SECONDS = 6;
const BOARDS = 300;
const PIECES = 2000;
const CUTTINGS = 5000;
const BAD_REQUESTS = 30_000;
/** How often another client asks while a large plan is kept, ms. */
const ASK_EVERY_MS = 10;

/** Every figure that the server's issue asks for: a server and a database of their own, clients on loopback. */
export async function serverFigures(): Promise<Figure[]> {
  const database = await startTestDatabase(true);
  try {
    const shop = await filledShop(await newDatabase(database.url, 'bench'), PIECES, BOARDS);
    const server = await startAt(shop.url);
    const lists = await listFigures(server.base);
    const saves = await saveFigures(server.base, shop.boards);
    const today = await todayFigures(server, shop);
    const memory = await memoryFigure(server);
    await stop(server.process);
    const large = await filledShop(await newDatabase(database.url, 'bench_large'), 5000, 1, 200);
    const keeper = await startAt(large.url);
    const keep = await keepFigures(keeper.base, firstOf(large.boards), large.rack);
    await stop(keeper.process);
    return [...lists, ...saves, ...today, ...keep, ...heaviestFigures(), memory];
  } finally {
    await database.stop();
  }
}

export interface Serving {
  base: string;
  process: ChildProcess;
}

export async function startAt(databaseUrl: string, more: Record<string, string> = {}): Promise<Serving> {
  const child = spawn(
    process.execPath,
    [join(ROOT, 'node_modules/tsx/dist/cli.mjs'), join(ROOT, 'server/src/main.ts')],
    {
      cwd: ROOT,
      stdio: ['ignore', 'ignore', 'pipe'],
      env: { ...process.env, DATABASE_URL: databaseUrl, PORT: '0', HOST: '127.0.0.1', ...more },
    },
  );
  const base = await new Promise<string>((resolve, reject) => {
    let told = '';
    child.stderr.on('data', (chunk: Buffer) => {
      told += chunk.toString();
      if (process.env.BENCH_SHOW) process.stderr.write(chunk);
      const address = /Serving (\S+)/.exec(told)?.[1];
      if (address) resolve(address);
    });
    child.once('exit', () => reject(new Error(told)));
  });
  return { base, process: child };
}

export async function stop(child: ChildProcess): Promise<void> {
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGTERM');
  await gone;
}

interface Filled {
  url: string;
  boards: StoredBoard[];
  rack: readonly Piece[];
}

/** A database with boards of 12 to 40 strips, pieces, and cuttings of those boards. */
export async function filledShop(url: string, pieces: number, boards: number, strips?: number): Promise<Filled> {
  const db = openDatabase(url);
  await openStore(db);
  const { rack, board } = benchInstance(strips ?? 40, pieces);
  const stored = await inTransaction(db, async (tx) => {
    await addMissingPieces(tx, rack);
    const added: StoredBoard[] = [];
    for (let i = 0; i < boards; i += 1) {
      const mine: Board = {
        ...board,
        name: `Board ${i}`,
        width: Math.min(board.width, 1500),
        recipe: flatRecipe(stripsOf(board).slice(0, strips ?? 12 + (i % 29))),
      };
      added.push(await addBoard(tx, mine));
    }
    return added;
  });
  if (strips === undefined) {
    const rows = Array.from({ length: CUTTINGS }, (_, i) =>
      cuttingOf(i, nth(rack, i % rack.length), nth(stored, i % stored.length)),
    );
    for (let at = 0; at < rows.length; at += 500) {
      const part = rows.slice(at, at + 500);
      await db('cuttings').insert(
        part.map(({ id, record }) => ({
          id,
          piece_id: record.pieceId,
          document: JSON.stringify(record),
          cut_at: new Date(),
          version: 1,
        })),
      );
      await db('cutting_boards').insert(part.map(({ id, board: board_id }) => ({ cutting_id: id, board_id })));
    }
  }
  await db.destroy();
  return { url, boards: stored, rack };
}

function cuttingOf(
  i: number,
  piece: Piece,
  { id: board, board: laidOut }: StoredBoard,
): { id: string; board: string; record: CuttingRecord } {
  const strips = stripsOf(laidOut);
  const strip = nth(strips, i % strips.length);
  const way = { shows: 'edge' as const, rip: 37, thickness: 20 };
  const demand = {
    board,
    strip: 1,
    stripId: strip.id,
    copy: 1 + Math.floor(i / 300),
    spare: 0,
    species: piece.species,
    length: 480,
    ways: [way],
    from: null,
    together: null,
  };
  const ripped = { demand, way, from: 2, planed: 20.8, order: 'crosscutFirst' as const, layer: 1, layers: 1 };
  return {
    id: `cut${i}`,
    board,
    record: {
      planId: 'gone',
      pieceId: piece.id,
      unit: 0,
      piece,
      failed: [],
      leftovers: [],
      blanks: [
        {
          number: 1,
          pieceId: piece.id,
          unit: 0,
          from: 10,
          length: 480,
          leftoverWidth: 8,
          done: true,
          strips: [ripped],
        },
      ],
    },
  };
}

async function listFigures(base: string): Promise<Figure[]> {
  const figures: Figure[] = [];
  for (const [path, what] of [
    ['/api/boards', `first page of ${BOARDS} boards`],
    ['/api/rack', `first page of ${PIECES} pieces`],
  ] as const) {
    await load(base, CLIENTS, 1, () => ({ method: 'GET', path }));
    const { perSecond, p99, refused } = await load(base, CLIENTS, SECONDS, () => ({ method: 'GET', path }));
    figures.push(
      {
        name: `GET ${path}, ${what}, ${CLIENTS} clients`,
        value: perSecond,
        unit: '/s',
        goal: '>= 300',
        ok: perSecond >= 300 && refused === 0,
      },
      { name: `GET ${path}, 99 of 100 answers within`, value: p99, unit: 'ms', goal: '< 400', ok: p99 < 400 },
    );
  }
  return figures;
}

/** Today of a full shop: complete after one piece changed, at once when nothing did, and what others get done while all of it is planned anew. */
async function todayFigures(server: Serving, { boards, rack }: Filled): Promise<Figure[]> {
  const { base } = server;
  const agent = new Agent({ keepAlive: true });
  const complete = async () => {
    for (;;) {
      const answer = await ask(base, agent, { method: 'GET', path: '/api/schedule?complete=true', headers: PACKED });
      if (answer.status >= 500) throw new Error(`Today answered ${answer.status}`);
      if (answer.headers[COMPLETE_HEADER] === 'true') return;
    }
  };
  const change = async (path: string, edit: (stored: Stored) => object) => {
    const stored = JSON.parse((await ask(base, agent, { method: 'GET', path })).text) as Stored;
    const body = JSON.stringify(edit(stored));
    const { status, text } = await ask(base, agent, { method: 'PUT', path, body });
    if (status !== 200) throw new Error(`${path} answered ${status}: ${text.slice(0, 300)}`);
  };
  await complete();
  const [first] = await timed(complete);
  const [unchanged] = await timed(complete);
  const waits = { longest: 0, refused: 0 };
  /** Seconds of processor from a change of one piece until Today is complete, while another client asks on. */
  const afterChange = async (at: number, edit: (piece: Piece) => object): Promise<number> => {
    const { id, ...fields } = nth(rack, at);
    let done = false;
    const other = (async () => {
      while (!done) {
        const [waited, { status }] = await timed(() => ask(base, agent, { method: 'GET', path: '/api/shop' }));
        waits.longest = Math.max(waits.longest, waited);
        if (status >= 500) waits.refused += 1;
        await sleep(ASK_EVERY_MS);
      }
    })();
    const before = processorSeconds(server);
    const body = JSON.stringify({ version: 1, piece: { ...fields, ...edit(nth(rack, at)) } });
    const saved = await ask(base, agent, { method: 'PUT', path: `/api/rack/${id}`, body });
    if (saved.status !== 200) throw new Error(`the piece answered ${saved.status}: ${saved.text.slice(0, 300)}`);
    await complete();
    const spent = processorSeconds(server) - before;
    done = true;
    await other;
    return spent;
  };
  const thicker = ({ thickness }: Piece) => ({ thickness: thickness + 1 });
  const noted = await afterChange(SOME_PIECE, () => ({ note: 'Seen by rain' }));
  const some = await afterChange(SOME_PIECE + 1, thicker);
  // The thinnest and shortest of its species: every board begins with it.
  const every = await afterChange(0, thicker);
  const busy = await whileAllIsPlanned(base, boards, () =>
    change('/api/shop', ({ version, shop }) => ({
      version,
      shop: { ...shop, saw: { ...shop.saw, kerf: shop.saw.kerf === 3 ? 3.1 : 3 } },
    })),
  );
  agent.destroy();
  const figure = (name: string, value: number, unit: string, goal: string, ok: boolean): Figure => ({
    name,
    value,
    unit,
    goal,
    ok,
  });
  const what = `of ${BOARDS} boards from ${PIECES} pieces`;
  return [
    figure(`Today ${what} complete, a note on one piece`, noted, 's of processor', '< 3', noted < 3),
    figure(`Today ${what} complete, one piece changed`, some, 's of processor', '< 3', some < 3),
    figure('the same of a piece that every board is cut from', every, 's of processor', '< 10', every < 10),
    figure('longest wait of another client meanwhile', waits.longest, 'ms', '< 100', waits.longest < 100),
    figure('answers of 500 and more meanwhile', waits.refused, '', '= 0', waits.refused === 0),
    figure(`Today ${what}, unchanged`, Math.min(first, unchanged), 'ms', '< 100', Math.min(first, unchanged) < 100),
    figure('lists while all boards are planned anew', busy.lists, '/s', '>= 150', busy.lists >= 150),
    figure('board saves while all boards are planned anew', busy.saves, '/s', '>= 125', busy.saves >= 125),
    figure('answers of 400 and more meanwhile', busy.refused, '', '= 0', busy.refused === 0),
  ];
}

/** A piece that lies somewhere among the others. */
const SOME_PIECE = 500;

const PACKED = { 'Accept-Encoding': 'gzip' };

interface Stored {
  version: number;
  shop: { saw: { kerf: number } };
}

async function timed<T>(work: () => Promise<T>): Promise<[ms: number, value: T]> {
  const began = performance.now();
  const value = await work();
  return [performance.now() - began, value];
}

/** Lists and saves while somebody waits for the work of a shop whose every board is planned again and again. */
async function whileAllIsPlanned(
  base: string,
  boards: readonly StoredBoard[],
  changeShop: () => Promise<void>,
): Promise<{ lists: number; saves: number; refused: number }> {
  const agent = new Agent({ keepAlive: true });
  let over = false;
  const planning = (async () => {
    while (!over) {
      await changeShop();
      await ask(base, agent, { method: 'GET', path: '/api/schedule?complete=true', headers: PACKED });
    }
  })();
  const lists = await load(base, CLIENTS, SECONDS, () => ({ method: 'GET', path: '/api/boards' }));
  const saves = await loadOfSaves(base, boards);
  over = true;
  await planning;
  agent.destroy();
  return { lists: lists.perSecond, saves: saves.perSecond, refused: lists.refused + saves.refused };
}

/** Seconds of processor that a server has taken so far, in all its threads. */
function processorSeconds({ process: child }: Serving): number {
  const children = readFileSync(`/proc/${child.pid}/task/${child.pid}/children`, 'utf8').trim().split(' ').map(Number);
  const ticks = [certain(child.pid), ...children]
    .filter((pid) => pid > 0)
    .map((pid) => {
      const fields = readFileSync(`/proc/${pid}/stat`, 'utf8')
        .replace(/^.*\) /, '')
        .split(' ');
      return Number(fields[11]) + Number(fields[12]);
    });
  return ticks.reduce((a, b) => a + b, 0) / TICKS_A_SECOND;
}

/** Of Linux on every machine that Debian runs on (`getconf CLK_TCK`). */
const TICKS_A_SECOND = 100;

/** Each client works on a board of its own, as people do. */
async function loadOfSaves(base: string, boards: readonly StoredBoard[]): Promise<Load> {
  const agent = new Agent({ keepAlive: true });
  const newest = await Promise.all(
    boards.slice(0, CLIENTS).map(async ({ id }) => {
      const { text } = await ask(base, agent, { method: 'GET', path: `/api/boards/${id}` });
      return JSON.parse(text) as StoredBoard;
    }),
  );
  agent.destroy();
  const revisions = newest.map((b) => b.revision);
  return load(base, CLIENTS, SECONDS, (client, last) => {
    if (last && last.status < 300) revisions[client] = nth(revisions, client) + 1;
    const { id, board } = nth(newest, client);
    const body = JSON.stringify({ basedOn: revisions[client], board: { ...board, use: `Save ${revisions[client]}` } });
    return { method: 'PUT', path: `/api/boards/${id}`, body };
  });
}

async function saveFigures(base: string, boards: readonly StoredBoard[]): Promise<Figure[]> {
  const { perSecond, p99, refused } = await loadOfSaves(base, boards);
  return [
    {
      name: `board saves, ${CLIENTS} clients`,
      value: perSecond,
      unit: '/s',
      goal: '>= 250',
      ok: perSecond >= 250 && refused === 0,
    },
    { name: 'board saves, 99 of 100 answers within', value: p99, unit: 'ms', goal: '< 300', ok: p99 < 300 },
  ];
}

async function keepFigures(
  base: string,
  { id, revision, board }: StoredBoard,
  rack: readonly Piece[],
): Promise<Figure[]> {
  const { shop, species } = benchInstance(1, 1);
  const cut = bareCut(firstFit(cutProblemFor([{ key: id, board, done: [] }], { rack, shop, species, promised: [] })));
  const body = JSON.stringify({ boards: [{ id, revision }], cut });
  const agent = new Agent({ keepAlive: true });
  const times: number[] = [];
  let longest = 0;
  // The first one also starts the thread and warms it up, as the first of a day does.
  for (let round = 0; round < 6; round += 1) {
    let done = false;
    const other = (async () => {
      while (!done) {
        const began = performance.now();
        await ask(base, agent, { method: 'GET', path: `/api/boards/${id}` });
        longest = Math.max(longest, performance.now() - began);
        await sleep(ASK_EVERY_MS);
      }
    })();
    const began = performance.now();
    const { status, text } = await ask(base, agent, { method: 'POST', path: '/api/saw/keep', body });
    times.push(performance.now() - began);
    done = true;
    await other;
    if (status !== 200) throw new Error(`keep answered ${status}: ${text.slice(0, 300)}`);
  }
  agent.destroy();
  const [first = Number.NaN, ...rest] = times;
  const typical = rest.sort((a, b) => a - b)[Math.floor(rest.length / 2)] ?? Number.NaN;
  return [
    {
      name: 'keep of one board of 200 strips from 5000 pieces, median of 5',
      value: typical,
      unit: 'ms',
      goal: '< 500',
      ok: typical < 500,
    },
    {
      name: 'the very first, with the start of its thread',
      value: first,
      unit: 'ms',
      goal: '< 5000',
      ok: first < 5000,
    },
    { name: 'longest wait of another client meanwhile', value: longest, unit: 'ms', goal: '< 150', ok: longest < 150 },
  ];
}

const BAD: readonly { method: string; path: string; body?: string }[] = [
  { method: 'POST', path: '/api/boards', body: '{"name":' },
  { method: 'POST', path: '/api/boards', body: JSON.stringify({ name: 'x'.repeat(10_000) }) },
  { method: 'PUT', path: '/api/boards/nobody', body: JSON.stringify({ basedOn: 1e308, board: null }) },
  { method: 'POST', path: '/api/rack/batch', body: JSON.stringify({ pieces: Array(200).fill({}), species: [] }) },
  { method: 'GET', path: '/api/rack?after=nonsense' },
  { method: 'POST', path: '/api/saw/keep', body: JSON.stringify({ boards: [], cut: { [`${'k'.repeat(50)}`]: 1 } }) },
  { method: 'GET', path: '/api/nowhere' },
];

async function memoryFigure({ base, process: child }: Serving): Promise<Figure> {
  let sent = 0;
  await load(base, CLIENTS, 600, () => {
    sent += 1;
    return sent > BAD_REQUESTS ? null : nth(BAD, sent % BAD.length);
  });
  const status = readFileSync(`/proc/${child.pid}/task/${child.pid}/children`, 'utf8').trim().split(' ').map(Number);
  // The tsx command runs the server in a child of its own.
  const resident = [certain(child.pid), ...status]
    .filter((pid) => pid > 0)
    .map((pid) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0));
  const megabytes = Math.max(...resident) / 1000;
  return {
    name: `memory of the server after ${BAD_REQUESTS} bad requests`,
    value: megabytes,
    unit: 'MB',
    goal: '< 400',
    ok: megabytes < 400,
  };
}
