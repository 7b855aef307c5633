import type { Knex } from 'knex';
import type { z } from 'zod';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plainBoard, plainPiece } from '#core/plan/planArbitrary.ts';
import { randomFrom } from '#core/propose/random.ts';
import { apiForTests, serveApi, type TestApi } from './apiForTests.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import { operations } from './operations/index.ts';
import { problemOf } from './problem.ts';
import { inTransaction } from './stores/transaction.ts';
import { stripsOf } from '#core/board/recipe.ts';

let api: TestApi;
let db: Knex;
beforeAll(async () => {
  api = await apiForTests('concurrency');
  ({ db } = api);
});
afterAll(() => api.close());

const { id: _id, ...piece } = plainPiece();

describe('a write that its client named', () => {
  it('is done once however often it comes, also at the same moment, and answered as it was', async () => {
    const name = { 'Idempotency-Key': 'a-name-of-its-own-1' };
    const answers = await Promise.all(
      Array.from({ length: 12 }, () => api.call('POST', '/boards', plainBoard({ name: 'Once' }), name)),
    );
    expect(new Set(answers.map((a) => `${a.status} ${a.body.id}`)).size).toBe(1);
    expect(
      (await api.list<{ board: { name: string } }>('/boards')).filter((b) => b.board.name === 'Once'),
    ).toHaveLength(1);
    // The same after something else has changed the board: what was answered then is what is answered now.
    const { id } = answers[0]!.body;
    await api.call('PUT', `/boards/${id}`, { basedOn: 1, board: plainBoard({ name: 'Changed' }) });
    expect((await api.call('POST', '/boards', plainBoard({ name: 'Once' }), name)).body).toMatchObject({
      id,
      revision: 1,
    });
  });

  it('that was refused may be tried again by the same name, and another kind of write may not have it', async () => {
    const name = { 'Idempotency-Key': 'another-name-2' };
    expect((await api.call('POST', '/rack', { ...piece, mark: 'N1', length: -1 }, name)).status).toBe(400);
    expect((await api.call('POST', '/rack', { ...piece, mark: 'N1' }, name)).status).toBe(201);
    expect(await api.call('POST', '/boards', plainBoard(), name)).toMatchObject({
      status: 422,
      body: { code: 'write-id-taken' },
    });
    expect((await api.call('POST', '/rack', { ...piece, mark: 'N2' }, { 'Idempotency-Key': 'x' })).status).toBe(400);
  });
});

describe('a document that has no row yet', () => {
  /** What is written into each first, and what of it tells the writers apart. */
  const FIRST: Readonly<Record<string, (i: number) => object>> = {
    '/shop': (i) => ({ shop: { ...DEFAULT_SHOP, name: `Shop ${i}` } }),
    '/schedule': (i) => ({ schedule: { order: [`step ${i}`], taken: [], waiting: [] } }),
    '/shopping': (i) => ({ shopping: { boards: null, ticked: [`line ${i}`] } }),
  };
  const versioned = operations.filter(
    (o) => o.method === 'put' && !o.path.includes('{') && 'version' in ((o.input as z.ZodObject | null)?.shape ?? {}),
  );

  it('is known to these tests, whichever it is', () => {
    expect(versioned.map((o) => o.path).sort()).toEqual(Object.keys(FIRST).sort());
  });

  it.each(Object.keys(FIRST))(
    '%s: of eight devices that write it at once one gets in, and the others are told what is there',
    async (path) => {
      for (let round = 0; round < 4; round += 1) {
        for (const table of ['shops', 'schedules', 'shopping']) await db(table).delete();
        const answers = await Promise.all(
          Array.from({ length: 8 }, (_, i) => api.call('PUT', path, { version: 0, ...FIRST[path]!(i) })),
        );
        const won = answers.findIndex((a) => a.status === 200);
        expect(answers.map((a) => a.status).sort()).toEqual([200, ...Array<number>(7).fill(409)]);
        expect((await api.call('GET', path)).body).toMatchObject({ version: 1, ...FIRST[path]!(won) });
        for (const refused of answers.filter((a) => a.status === 409))
          expect(refused.body).toMatchObject({ code: 'stale', current: { version: 1, ...FIRST[path]!(won) } });
      }
    },
  );
});

describe("transactions that get in each other's way", () => {
  it('are run again: two that lock the same rows in opposite order both come through', async () => {
    await db.schema.createTable('crossing', (t) => {
      t.integer('id').primary();
      t.integer('n').notNullable();
    });
    await db('crossing').insert([
      { id: 1, n: 0 },
      { id: 2, n: 0 },
    ]);
    const cross = (first: number, second: number) =>
      inTransaction(db, async (tx) => {
        await tx('crossing').where({ id: first }).increment('n', 1);
        await new Promise((resolve) => setTimeout(resolve, 30));
        await tx('crossing').where({ id: second }).increment('n', 1);
      });
    await Promise.all(Array.from({ length: 6 }, (_, i) => (i % 2 === 0 ? cross(1, 2) : cross(2, 1))));
    expect(await db('crossing').orderBy('id').select('n')).toEqual([{ n: 6 }, { n: 6 }]);
    await db.schema.dropTable('crossing');
  });

  it.each([
    ['a cluster refuses the commit', 'ER_LOCK_DEADLOCK', 2],
    ['a row was waited for too long', 'ER_LOCK_WAIT_TIMEOUT', 2],
    ['something else went wrong', 'ER_PARSE_ERROR', 1],
  ])('are run again when %s, and not otherwise', async (_, code, runs) => {
    let ran = 0;
    // As a database says it when it comes to the commit: everything before went well, and nothing of it is stored.
    const refusing = {
      transaction: async (work: (tx: Knex.Transaction) => Promise<unknown>) => {
        const done = await db.transaction(async (tx) => {
          const answer = await work(tx);
          if (ran === 1) throw Object.assign(new Error('refused'), { code });
          return answer;
        });
        return done;
      },
    } as unknown as Knex;
    const tried = inTransaction(refusing, async (tx) => {
      ran += 1;
      await tx('changes').insert({ topics: `certified ${code}`, board: null, tab: null, made_at: new Date() });
      return 'stored';
    });
    if (runs === 2) expect(await tried).toBe('stored');
    else await expect(tried).rejects.toThrow('refused');
    expect([ran, (await db('changes').where({ topics: `certified ${code}` })).length]).toEqual([runs, runs - 1]);
  });

  it('of ten hands on boards, pieces, plans and cuts none is answered 500, and nothing is half done', async () => {
    for (let i = 0; i < 12; i += 1)
      await api.call('POST', '/rack', { ...piece, mark: `C${i}`, length: 460, width: 120 });
    const boards = await Promise.all(
      Array.from({ length: 4 }, (_, i) => api.call('POST', '/boards', plainBoard({ name: `Hand ${i}` }, [46, 46]))),
    );
    const ids = boards.map((b) => b.body.id as string);
    const { pick, below } = randomFrom(3);
    const rack = await api.list<{ piece: { id: string }; version: number }>('/rack');
    const statuses = new Map<number, number>();
    const hand = async () => {
      for (let i = 0; i < 25; i += 1) {
        const id = pick(ids);
        const { body: now } = await api.call('GET', `/boards/${id}`);
        const p = pick(rack);
        const strips = now.board ? stripsOf(now.board) : [];
        const cut = {
          bound: null,
          proofs: [],
          blanks: [
            {
              pieceId: p.piece.id,
              unit: 0,
              from: 10,
              length: 429,
              strips: strips.map((s, n) => ({
                board: id,
                stripId: s.id,
                copy: 1,
                spare: 0,
                way: { shows: 'edge', rip: 32, thickness: 46 },
                from: 2 + n * 35,
                layer: 1,
                layers: 1,
              })),
            },
          ],
        };
        const book = (await api.call('GET', `/saw?boards=${id}`)).body;
        const plan = book.plans[0];
        const answer = await [
          () =>
            api.call('PUT', `/boards/${id}`, {
              basedOn: now.revision ?? 1,
              board: { ...plainBoard({}, [46, 46]), name: `Hand ${below(99)}` },
            }),
          () => api.call('POST', '/saw/keep', { boards: [{ id, revision: now.revision ?? 1 }], cut }),
          () =>
            api.call('POST', '/saw/release', { boards: [id, ...ids.filter((o) => o !== id)].slice(0, 1 + below(3)) }),
          () =>
            api.call('POST', '/saw/cut', {
              planId: plan?.id ?? 'none',
              pieceId: plan?.plan.blanks[0]?.pieceId ?? 'none',
              unit: 0,
            }),
          () => api.call('POST', `/saw/cuttings/${book.cuttings[0]?.id ?? 'none'}/undo`),
          () => api.call('POST', `/rack/${p.piece.id}/remove`, { version: p.version }),
          () => api.call('POST', `/boards/${id}/remove`, { basedOn: now.revision ?? 1 }),
          () => api.call('POST', `/boards/${id}/restore`),
        ][below(8)]!();
        statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1);
      }
    };
    await Promise.all(Array.from({ length: 10 }, hand));
    expect([...statuses.keys()].filter((s) => s >= 500)).toEqual([]);
    expect((statuses.get(200) ?? 0) + (statuses.get(204) ?? 0)).toBeGreaterThan(50);
    // Every promise belongs to a plan, and every plan promises just what it cuts.
    const { promises, plans } = (await api.call('GET', `/saw?boards=${ids.join(',')}`)).body;
    for (const plan of plans)
      expect(promises.filter((p: { planId: string }) => p.planId === plan.id)).toHaveLength(plan.plan.blanks.length);
  }, 60_000);
});

describe('what is said when the database does not answer', () => {
  const asked = (code: string, repeatable: boolean, name?: string) =>
    problemOf(Object.assign(new Error('x'), { code, ...(name ? { name } : {}) }), repeatable);
  it('is what is known: nothing was changed, or it may have been', () => {
    expect(asked('ECONNREFUSED', false)).toMatchObject({
      status: 503,
      code: 'database-gone',
      sentence: expect.stringContaining('Nothing was changed') as string,
    });
    expect(asked('PROTOCOL_CONNECTION_LOST', false)).toMatchObject({
      status: 503,
      code: 'database-gone',
      sentence: expect.stringContaining('may have been stored or not') as string,
    });
    // A write with a name, or a look, can simply be sent again.
    expect(asked('PROTOCOL_CONNECTION_LOST', true).sentence).not.toContain('may have been stored');
    expect(asked('', false, 'KnexTimeoutError')).toMatchObject({ status: 503, code: 'busy' });
    expect(asked('ER_LOCK_DEADLOCK', false)).toMatchObject({ status: 503, code: 'busy' });
    expect(asked('ER_RECORD_FILE_FULL', false)).toMatchObject({ status: 507, code: 'disk-full' });
  });

  it('a pool that is taken is busy, not gone, and nobody waits long for it', async () => {
    const url = new URL(process.env.TEST_DATABASE_URL!);
    url.pathname = '/cadenza_concurrency';
    const busy = await serveApi(url.href);
    const held = await Promise.all(Array.from({ length: 12 }, () => busy.db.transaction()));
    const began = Date.now();
    const answer = await busy.call('GET', '/shop');
    expect(answer).toMatchObject({ status: 503, body: { code: 'busy' } });
    expect(answer.headers.get('retry-after')).toBe('1');
    expect(Date.now() - began).toBeLessThan(4000);
    await Promise.all(held.map((tx) => tx.rollback()));
    expect((await busy.call('GET', '/shop')).status).toBe(200);
    await busy.close();
  });
});
