import { afterAll, beforeAll, expect, it } from 'vitest';
import { firstFit } from '#core/cutting/firstFit.ts';
import { cutProblemFor } from '#core/saw/cutForBoard.ts';
import { plainBoard, plainPiece } from '#core/plan/planArbitrary.ts';
import { bareCut } from '#core/saw/rebuildCut.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { newDatabase } from '../../../bin/mariadb/testDatabase.ts';
import { serveApi, type TestApi } from '../apiForTests.ts';
import { openStore } from '../stores/openStore.ts';
import { WorkerPool } from './workerPool.ts';

let api: TestApi;
let pool: WorkerPool;
beforeAll(async () => {
  const url = await newDatabase(process.env.TEST_DATABASE_URL!, 'workers');
  pool = new WorkerPool(url);
  api = await serveApi(url, { workers: pool });
  await openStore(api.db);
});
afterAll(async () => {
  await pool.stop();
  await api.close();
});

/** How many times another client was answered before a large request was. */
async function answeredMeanwhile<T>(large: Promise<T>): Promise<{ answer: T; others: number }> {
  let done = false;
  const answer = large.finally(() => {
    done = true;
  });
  let others = 0;
  while (!done) {
    expect((await api.call('GET', '/shop')).status).toBe(200);
    others += 1;
  }
  return { answer: await answer, others };
}

const pieces = Array.from({ length: 5000 }, (_, i) =>
  plainPiece({
    id: `h${i}`,
    mark: `H${i}`,
    length: 600 + (i % 1500),
    width: 60 + (i % 140),
    note: 'A plank like any other, with a note that takes some room in a file. '.repeat(3),
  }),
);
const board = plainBoard(
  { width: 1500 },
  Array<number>(200)
    .fill(46)
    .map((w, i) => w - (i % 5)),
);

it('a large file, a plan of 200 strips from 5000 pieces and a heap of nonsense keep nobody else waiting', async () => {
  const file = {
    format: 'cadenza-board',
    version: 7,
    board,
    rack: pieces,
    species: HANDBOOK_SPECIES.slice(0, 20),
    shop: DEFAULT_SHOP,
  };
  expect(JSON.stringify({ file, addPieces: true }).length).toBeGreaterThan(3_000_000);
  const imported = await answeredMeanwhile(api.call('POST', '/boards/import', { file, addPieces: true }));
  expect([imported.answer.status, imported.others > 10]).toEqual([201, true]);
  expect(await api.list('/rack')).toHaveLength(5000);

  const { id } = imported.answer.body;
  const cut = bareCut(
    firstFit(
      cutProblemFor([{ key: id, board, done: [] }], {
        rack: pieces,
        shop: DEFAULT_SHOP,
        species: HANDBOOK_SPECIES,
        promised: [],
      }),
    ),
  );
  const kept = await answeredMeanwhile(api.call('POST', '/saw/keep', { boards: [{ id, revision: 1 }], cut }));
  expect([kept.answer.status, kept.others > 2]).toEqual([200, true]);

  const written = await answeredMeanwhile(api.call('GET', `/boards/${id}/file`));
  expect([written.answer.status, written.answer.body.rack.length, written.others > 2]).toEqual([200, 5000, true]);

  const nonsense = `{${Array.from({ length: 700_000 }, (_, i) => `"k${i}":1`).join(',')}}`;
  const refused = await answeredMeanwhile(api.call('POST', '/boards', nonsense));
  expect([refused.answer.status, refused.others > 2]).toEqual([400, true]);
  expect(JSON.stringify(refused.answer.body).length).toBeLessThan(20_000);
  expect(JSON.stringify(refused.answer.body)).toMatch(/and 699\d{3} more/);
}, 120_000);

it('says what is wrong, repeats once and carries what is stored, from a thread as from the server itself', async () => {
  const large = { ...board, use: 'x'.repeat(70_000) };
  expect(await api.call('POST', '/boards', large)).toMatchObject({
    status: 400,
    type: expect.stringContaining('problem+json') as string,
    body: { fields: [{ path: 'use' }] },
  });
  const name = { 'Idempotency-Key': 'from-a-thread' };
  const steps = Array.from({ length: 5 }, () => ({ board, undo: null, redo: null }));
  const [{ body: made }] = [await api.call('POST', '/boards', plainBoard())];
  const [one, two] = await Promise.all([
    api.call('PUT', `/boards/${made.id}`, { basedOn: 1, steps }, name),
    api.call('PUT', `/boards/${made.id}`, { basedOn: 1, steps }, name),
  ]);
  expect([one.status, two.status, one.body.revision, two.body.revision]).toEqual([200, 200, 6, 6]);
  expect(
    await api.call('PUT', `/boards/${made.id}`, {
      basedOn: 1,
      steps: steps.map((s) => ({ ...s, board: { ...s.board, name: 'Late' } })),
    }),
  ).toMatchObject({ status: 409, body: { code: 'stale', current: { revision: 6 } } });
});
