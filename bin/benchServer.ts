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
import { addBoard } from '../server/src/stores/boardStore.ts';
import { openDatabase } from '../server/src/stores/database.ts';
import { openStore } from '../server/src/stores/openStore.ts';
import { addMissingPieces } from '../server/src/stores/rackStore.ts';
import { inTransaction } from '../server/src/stores/transaction.ts';
import { benchInstance } from './benchInstance.ts';
import type { Figure } from './bench.ts';
import { ask, load } from './loadClient.ts';
import { startTestDatabase, newDatabase } from './mariadb/testDatabase.ts';
import { ROOT } from './root.ts';
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
    const memory = await memoryFigure(server);
    await stop(server.process);
    const large = await filledShop(await newDatabase(database.url, 'bench_large'), 5000, 1, 200);
    const keeper = await startAt(large.url);
    const keep = await keepFigures(keeper.base, firstOf(large.boards), large.rack);
    await stop(keeper.process);
    return [...lists, ...saves, ...keep, memory];
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

/** A database with boards of 12 to 40 strips, pieces, and cuttings of those boards. */
export async function filledShop(
  url: string,
  pieces: number,
  boards: number,
  strips?: number,
): Promise<{ url: string; boards: StoredBoard[]; rack: readonly Piece[] }> {
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

/** Each client works on a board of its own, as people do. */
async function saveFigures(base: string, boards: readonly StoredBoard[]): Promise<Figure[]> {
  const revisions = boards.map((b) => b.revision);
  const { perSecond, p99, refused } = await load(base, CLIENTS, SECONDS, (client, last) => {
    if (last && last.status < 300) revisions[client] = nth(revisions, client) + 1;
    const { id, board } = nth(boards, client);
    const body = JSON.stringify({ basedOn: revisions[client], board: { ...board, use: `Save ${revisions[client]}` } });
    return { method: 'PUT', path: `/api/boards/${id}`, body };
  });
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
