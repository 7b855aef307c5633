import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { ShopWork } from '#contract/schedule.ts';
import { stripsOf } from '#core/board/recipe.ts';
import { firstOf } from '#core/lists/there.ts';
import { plainBoard, plainPiece } from '#core/plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import { newDatabase } from '../../../bin/mariadb/testDatabase.ts';
import { serveApi, type TestApi } from '../apiForTests.ts';
import { openDatabase } from '../stores/database.ts';
import { openStore } from '../stores/openStore.ts';
import { stateOfShop } from '../stores/workStore.ts';
import { PlannedWork, type Planning } from './plannedWork.ts';
import { ShopPlanner } from './planShop.ts';

/** What the plain board's strips are of. */
const STRIPS = firstOf(stripsOf(plainBoard())).species;
const NEVER_STOPPED = () => false;

let api: TestApi;
let closeOwn: () => Promise<void>;
/** Planning waits until it is let go on, as a full shop would. */
let gate: { open(): void; begun: number; stopped: { value: boolean } };
let hold: Promise<void>;

beforeAll(async () => {
  const planning: Planning = async (now, stopped) => {
    gate.begun += 1;
    gate.stopped = stopped;
    await hold;
    await new ShopPlanner(api.db).bringUpToDate(now, () => stopped.value);
  };
  const url = await newDatabase(process.env.TEST_DATABASE_URL!, 'planning');
  const own = openDatabase(url);
  closeOwn = () => own.destroy();
  api = await serveApi(url, { work: new PlannedWork(own, planning) });
  await openStore(api.db);
  await api.call('PUT', '/shop', { version: 0, shop: { ...DEFAULT_SHOP, name: 'Shed' } });
  // Of two that are as thick the shorter one is taken.
  for (const [mark, species, length] of [
    ['B1', STRIPS, 2400],
    ['B2', STRIPS, 2600],
    ['W1', 'walnut-european', 2400],
  ] as const) {
    const { id: _, ...piece } = plainPiece({ mark, species, length, width: 220, thickness: 56 });
    await api.call('POST', '/rack', piece);
  }
  for (const name of ['Bread', 'Cheese', 'Ham'])
    await api.call('POST', '/boards', plainBoard({ name, length: 300, width: 90 }, [45, 45]));
});
beforeEach(() => {
  hold = new Promise((resolve) => {
    gate = { open: resolve, begun: 0, stopped: { value: false } };
  });
});
afterAll(async () => {
  await api.close();
  await closeOwn();
});

const ask = async (query = '') => (await api.call('GET', `/schedule${query}`)).body as ShopWork;
const change = async (mark: string, fields: object) => {
  const piece = (await api.list<{ piece: { id: string; mark: string }; version: number }>('/rack')).find(
    (p) => p.piece.mark === mark,
  )!;
  const { id, ...rest } = piece.piece;
  const saved = await api.call('PUT', `/rack/${id}`, { version: piece.version, piece: { ...rest, ...fields } });
  expect(saved.status).toBe(200);
};

describe('what is to be done in the shop', () => {
  it('is answered at once with what is known, and says what is not; whoever waits gets all of it from one run', async () => {
    expect(await ask()).toMatchObject({ upToDate: false, unknown: 3, idle: [], boards: [] });
    const waiting = ['?complete=true', '?complete=true', ''].map(ask);
    expect((await waiting[2])!.upToDate).toBe(false);
    gate.open();
    for (const answer of [await waiting[0]!, await waiting[1]!]) {
      expect(answer).toMatchObject({ upToDate: true, unknown: 0 });
      expect(answer.idle.map((b) => b.name)).toEqual(['Ham', 'Cheese', 'Bread']);
    }
    expect(gate.begun).toBe(1);
  });

  it('is not sent again while it is the same, but what time it is', async () => {
    const first = await api.call('GET', '/schedule');
    const again = await api.call('GET', '/schedule', undefined, { 'If-None-Match': first.headers.get('etag')! });
    expect([again.status, gate.begun]).toEqual([304, 0]);
    expect(Date.parse(again.headers.get('cadenza-now')!)).toBeGreaterThanOrEqual(Date.parse(first.body.now as string));
  });

  it('a note changes no plan, a piece that nobody uses changes none; one that is used does, of the boards that use it', async () => {
    const planner = new ShopPlanner(api.db);
    const bring = () => planner.bringUpToDate(Date.now(), NEVER_STOPPED);
    await bring();
    expect(await bring()).toEqual({ looked: 0, planned: 0 });
    await change('B1', { note: 'Seen by rain' });
    expect(await bring()).toEqual({ looked: 0, planned: 0 });
    await change('W1', { thickness: 40 });
    expect(await bring()).toEqual({ looked: 0, planned: 0 });
    await change('B2', { length: 3000 });
    expect(await bring()).toEqual({ looked: 3, planned: 0 });
    await change('B1', { thickness: 57 });
    const { looked, planned } = await bring();
    expect([looked, planned > 0]).toEqual([3, true]);
    const shop = (await api.call('GET', '/shop')).body;
    await api.call('PUT', '/shop', {
      version: shop.version,
      shop: { ...shop.shop, saw: { ...shop.shop.saw, kerf: 2 } },
    });
    expect(await bring()).toEqual({ looked: 3, planned: 3 });
  });

  it('a board that is gone is in it no more, and one that is new is', async () => {
    gate.open();
    const { idle } = await ask('?complete=true');
    await api.call('POST', `/boards/${idle[0]!.id}/remove`, { basedOn: 1 });
    expect((await ask('?complete=true')).idle.map((b) => b.name)).toEqual(['Cheese', 'Bread']);
    await api.call('POST', `/boards/${idle[0]!.id}/restore`);
    expect((await ask('?complete=true')).idle.map((b) => b.name).sort()).toEqual(['Bread', 'Cheese', 'Ham']);
  });
});

describe('a run', () => {
  it('is let go of when nobody waits for it, and another one is begun by whoever asks next', async () => {
    const stops: { value: boolean }[] = [];
    let finish: () => void = () => {};
    const work = new PlannedWork(
      api.db,
      (_now, stopped) => {
        stops.push(stopped);
        return new Promise<void>((resolve) => (finish = resolve));
      },
      20,
    );
    const gone = new AbortController();
    const asked = work.settle(Date.now(), 60_000, gone.signal);
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect(stops).toEqual([{ value: false }]);
    gone.abort();
    expect(await asked).toBe(false);
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect(stops).toEqual([{ value: true }]);
    finish();
    const next = work.settle(Date.now(), 60_000);
    await new Promise((resolve) => setTimeout(resolve, 60));
    finish();
    await new ShopPlanner(api.db).bringUpToDate(Date.now(), NEVER_STOPPED);
    expect([await next, stops.length]).toEqual([true, 2]);
  });

  it('that fails says why to whoever waits, and the next one is begun anew', async () => {
    let fails = true;
    const work = new PlannedWork(api.db, () => (fails ? Promise.reject(new Error('no disk')) : Promise.resolve()));
    await expect(work.settle(Date.now(), 1000)).rejects.toThrow('no disk');
    fails = false;
    expect(await work.settle(Date.now(), 1000)).toBe(true);
  });

  it('knows every change that may decide something: of a board, its facts, the rack, the shop and the saw book', async () => {
    const now = Date.now();
    const states = [await stateOfShop(api.db, now)];
    const [board] = await api.list<{ id: string; revision: number; board: { name: string } }>('/boards');
    const { body: stored } = await api.call('GET', `/boards/${board!.id}`);
    for (const write of [
      () => api.call('PUT', `/boards/${board!.id}`, { basedOn: stored.revision, board: { ...stored.board, use: 'x' } }),
      () =>
        api.call('POST', `/boards/${board!.id}/facts`, {
          facts: [{ kind: 'note', id: 'n1', at: '2026-12-01T08:00:00.000Z', text: 'Heavy' }],
        }),
      () => change('B1', { length: 2401 }),
    ]) {
      await write();
      states.push(await stateOfShop(api.db, now));
    }
    expect(new Set(states).size).toBe(states.length);
    expect(await stateOfShop(api.db, now)).toBe(states.at(-1));
  });
});
