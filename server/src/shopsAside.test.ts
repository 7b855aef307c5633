import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ShopAside } from '#contract/shop.ts';
import { plainBoard, plainPiece } from '#core/plan/planArbitrary.ts';
import { startingShop, usualAnswers } from '#core/shop/startingShop.ts';
import { apiForTests, type TestApi } from './apiForTests.ts';
import { seedDemo } from './demo/seed.ts';

let api: TestApi;
beforeAll(async () => {
  api = await apiForTests('shops_aside');
  await seedDemo(api.db);
});
afterAll(() => api.close());

const shop = async () => (await api.call('GET', '/shop')).body;
const aside = async () => (await api.call('GET', '/shops/aside')).body as ShopAside[];
const contents = async () => ({
  name: (await shop()).shop.name,
  boards: (await api.list<{ board: { name: string } }>('/boards')).map((b) => b.board.name).sort(),
  marks: (await api.list<{ piece: { mark: string } }>('/rack')).map((p) => p.piece.mark).sort(),
  log: (await api.call('GET', '/log')).body.entries.map((e: { name: string }) => e.name),
});
const { id: _id, ...piece } = plainPiece({ mark: 'P1' });
const own = startingShop({ ...usualAnswers('metric'), name: 'Mine' });

describe('a shop of one’s own beside the demo', () => {
  let demo: Awaited<ReturnType<typeof contents>>;
  let demoBoard: { id: string; revision: number };

  it('the demo says that it is one', async () => {
    demo = await contents();
    [demoBoard] = (await api.list<{ id: string; revision: number }>('/boards')) as [typeof demoBoard];
    expect([(await shop()).demo, demo.boards.length, demo.marks.length > 15]).toEqual([true, 8, true]);
    expect(await aside()).toEqual([]);
  });

  it('begins with nothing in its rack, and the demo is set aside whole', async () => {
    const before = await shop();
    expect((await api.call('POST', '/shop/begin', { version: before.version, shop: own })).body).toMatchObject({
      demo: false,
      version: before.version + 1,
      shop: { name: 'Mine' },
    });
    expect(await contents()).toEqual({ name: 'Mine', boards: [], marks: [], log: [] });
    expect(await aside()).toMatchObject([
      { name: demo.name, demo: true, boards: demo.boards.length, pieces: demo.marks.length, finished: 3 },
    ]);
    // A mark that a piece of the demo has is free here.
    expect((await api.call('POST', '/rack', { ...piece, mark: demo.marks[0] })).status).toBe(201);
  });

  it('nothing of what is aside can be reached or brought back piece by piece', async () => {
    const { id, revision } = demoBoard;
    expect((await api.call('GET', `/boards/${id}`)).status).toBe(404);
    expect((await api.call('POST', `/boards/${id}/restore`)).status).toBe(404);
    expect((await api.call('PUT', `/boards/${id}`, { basedOn: revision, board: plainBoard() })).status).toBe(404);
    const [hidden] = await api.db('pieces').whereNotNull('aside_id').select('id', 'version');
    expect((await api.call('POST', `/rack/${hidden.id}/restore`, { version: hidden.version })).status).toBe(404);
  });

  it('what was removed before stays removed, and both shops come back as they were left, as often as they change places', async () => {
    await api.call('POST', '/boards', plainBoard({ name: 'My board' }));
    const mine = await contents();
    for (let round = 0; round < 2; round += 1) {
      const [{ id }] = (await aside()) as [ShopAside];
      const taken = await api.call('POST', `/shops/aside/${id}/take-up`, { version: (await shop()).version });
      expect([taken.status, taken.body.demo]).toEqual([200, true]);
      expect(await contents()).toEqual(demo);
      const [{ id: mineId, boards }] = (await aside()) as [ShopAside];
      expect(boards).toBe(1);
      await api.call('POST', `/shops/aside/${mineId}/take-up`, { version: (await shop()).version });
      expect(await contents()).toEqual(mine);
    }
  });

  it('a stale write changes nothing, and says what is stored', async () => {
    const before = [await contents(), await aside()];
    for (const path of ['/shop/begin', '/shop/keep', `/shops/aside/${(await aside())[0]!.id}/take-up`]) {
      const body = { version: 0, ...(path === '/shop/begin' ? { shop: own } : {}) };
      expect(await api.call('POST', path, body)).toMatchObject({
        status: 409,
        body: { code: 'stale', current: { shop: { name: 'Mine' } } },
      });
    }
    expect([await contents(), await aside()]).toEqual(before);
  });

  it('is thrown away and brought back, and what is not there is told so', async () => {
    const [{ id }] = (await aside()) as [ShopAside];
    expect((await api.call('POST', `/shops/aside/${id}/throw-away`)).body).toEqual([]);
    const { version } = await shop();
    expect((await api.call('POST', `/shops/aside/${id}/take-up`, { version })).status).toBe(404);
    expect((await api.call('POST', `/shops/aside/${id}/restore`)).body).toHaveLength(1);
    for (const odd of ['999', 'x', '-1']) {
      expect((await api.call('POST', `/shops/aside/${odd}/take-up`, { version })).status).toBe(404);
      expect((await api.call('POST', `/shops/aside/${odd}/throw-away`)).status).toBe(404);
    }
  });

  it('the demo can become one’s own', async () => {
    const [{ id }] = (await aside()) as [ShopAside];
    await api.call('POST', `/shops/aside/${id}/take-up`, { version: (await shop()).version });
    const { version } = await shop();
    expect((await api.call('POST', '/shop/keep', { version })).body).toMatchObject({
      demo: false,
      version: version + 1,
    });
    expect(await contents()).toEqual(demo);
  });

  it('a shop that nobody touched yet leaves nothing behind', async () => {
    const fresh = await apiForTests('shops_untouched');
    expect((await fresh.call('POST', '/shop/begin', { version: 0, shop: own })).body).toMatchObject({ version: 1 });
    expect((await fresh.call('GET', '/shops/aside')).body).toEqual([]);
    // One that was described, though empty, is somebody's.
    await fresh.call('POST', '/shop/begin', { version: 1, shop: { ...own, name: 'Second' } });
    expect((await fresh.call('GET', '/shops/aside')).body).toMatchObject([{ name: 'Mine', boards: 0 }]);
    await fresh.close();
  });

  it('from two devices at once one begins, and the other is told', async () => {
    const { version } = await shop();
    const answers = await Promise.all(
      ['One', 'Two'].map((name) => api.call('POST', '/shop/begin', { version, shop: { ...own, name } })),
    );
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409]);
  });
});
