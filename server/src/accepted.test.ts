import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readBoardFile } from '#core/format/boardFile.ts';
import { firstFit } from '#core/cutting/firstFit.ts';
import { cutProblemFor } from '#core/saw/cutForBoard.ts';
import { makePlan } from '#core/plan/plan.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from '#core/plan/planArbitrary.ts';
import { bareCut } from '#core/saw/rebuildCut.ts';
import type { Piece } from '#core/stock/piece.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { apiForTests, type TestApi } from './apiForTests.ts';
import { stripsOf, withStrips } from '#core/board/recipe.ts';

let api: TestApi;
beforeAll(async () => {
  api = await apiForTests('accepted');
});
afterAll(() => api.close());

const rack = async () => (await api.list<{ piece: Piece }>('/rack')).map((r) => r.piece);
const marks = (() => {
  let n = 0;
  return () => `A${(n += 1)}`;
})();

/** Lengths as programs send them: thirds, six decimals and more, just at and just past what fits. */
const anyLength = (least: number, greatest: number) =>
  fc.oneof(
    fc.double({ min: least, max: greatest, noNaN: true }),
    fc.integer({ min: Math.ceil(least), max: Math.floor(greatest) }).map((n) => n + 1 / 3),
    fc.integer({ min: Math.ceil(least * 64), max: Math.floor(greatest * 64) }).map((n) => ((n / 64) * 25.4) / 25.4),
  );
const species = fc.oneof(
  { weight: 6, arbitrary: fc.constantFrom('maple-hard', 'beech-european') },
  {
    weight: 1,
    arbitrary: fc.constantFrom('MAPLE-HARD', 'maple-hárd ', 'maple-hard ', 'plywood', ' maple-hard', 'maple_hard'),
  },
);
const pieceArbitrary = fc
  .record({
    species,
    length: anyLength(200, 2500),
    width: anyLength(40, 260),
    thickness: anyLength(8, 60),
    past: fc.constantFrom(0, 5e-7, 9.9e-7, 1e-6, 1.1e-6, 1e-4),
    note: fc.string({ unit: 'binary', maxLength: 20 }),
    moisture: fc.option(fc.double({ min: 0, max: 30, noNaN: true })),
    amount: fc.double({ min: 0, max: 5000, noNaN: true }),
  })
  .map(({ past, amount, ...fields }) => {
    const { id: _id, ...piece } = plainPiece();
    const defects = [
      {
        id: 'd',
        kind: 'knot',
        face: 'up',
        from: fields.length - 30 + past,
        across: 5,
        length: 30,
        width: 10,
        treatment: 'cut',
      },
    ];
    return { ...piece, ...fields, mark: marks(), defects, price: { amount, per: 'cubicMetre' } };
  });

describe('whatever the API accepts, every other part reads', () => {
  it('pieces: they come back as they were answered, go into files and cut plans', async () => {
    let accepted = 0;
    const board = (await api.call('POST', '/boards', plainBoard({}, [20, 20]))).body;
    await fc.assert(
      fc.asyncProperty(pieceArbitrary, async (fields) => {
        const added = await api.call('POST', '/rack', fields);
        expect([201, 400]).toContain(added.status);
        if (added.status !== 201) {
          expect(added.body.fields.length).toBeGreaterThan(0);
          return;
        }
        accepted += 1;
        const { piece, version } = added.body;
        expect((await rack()).find((p) => p.id === piece.id)).toEqual(piece);
        // What was answered is accepted again, and is what is stored then.
        const { id, ...again } = piece;
        expect((await api.call('PUT', `/rack/${id}`, { version, piece: again })).body.piece).toEqual(piece);
        const file = await api.call('GET', `/boards/${board.id}/file`);
        expect(file.status).toBe(200);
        expect(readBoardFile(JSON.stringify(file.body))).toMatchObject({ ok: true });
        await api.call('POST', `/rack/${id}/remove`, { version: version + 1 });
      }),
      { numRuns: 80, seed: 12 },
    );
    expect(accepted).toBeGreaterThan(20);
  }, 60_000);

  it('boards: they save, go out and in as files, and their first plan can be kept', async () => {
    const { id: _id, ...plank } = plainPiece({ length: 3000, width: 200, count: 20 });
    const added = await Promise.all(
      ['maple-hard', 'beech-european', 'walnut-black'].map((code) =>
        api.call('POST', '/rack', { ...plank, species: code, mark: marks() }),
      ),
    );
    expect(added.map((a) => a.status)).toEqual([201, 201, 201]);
    let kept = 0;
    await fc.assert(
      fc.asyncProperty(planInputArbitrary, fc.constantFrom('', 'MAPLE-HARD', 'plywood'), async ({ board }, odd) => {
        const sent =
          odd && stripsOf(board)[0]
            ? withStrips(board, [{ ...stripsOf(board)[0]!, species: odd }, ...stripsOf(board).slice(1)])
            : board;
        const made = await api.call('POST', '/boards', sent);
        expect([201, 400]).toContain(made.status);
        if (made.status !== 201) return;
        expect((await api.call('GET', `/boards/${made.body.id}`)).body).toEqual(made.body);
        const file = await api.call('GET', `/boards/${made.body.id}/file`);
        const back = await api.call('POST', '/boards/import', { file: file.body, addPieces: true });
        expect([file.status, back.status, back.body.board]).toEqual([200, 201, made.body.board]);
        const stock = await rack();
        makePlan(planInput(made.body.board, stock, file.body.shop));
        const cut = bareCut(
          firstFit(
            cutProblemFor([{ key: made.body.id, board: made.body.board, done: [] }], {
              rack: stock,
              shop: file.body.shop,
              species: HANDBOOK_SPECIES,
              promised: [],
            }),
          ),
        );
        const keep = await api.call('POST', '/saw/keep', { boards: [{ id: made.body.id, revision: 1 }], cut });
        expect(keep.status, JSON.stringify(keep.body)).toBe(200);
        kept += 1;
        await api.call('POST', '/saw/release', { boards: [made.body.id] });
      }),
      { numRuns: 40, seed: 5 },
    );
    expect(kept).toBeGreaterThan(10);
  }, 60_000);

  it('a claimed bound above the cost, or a proof of another cost, is not believed; a figure that no plan has is refused', async () => {
    const board = (await api.call('POST', '/boards', plainBoard({}, [46, 46]))).body;
    const stock = await rack();
    const {
      body: { shop },
    } = await api.call('GET', '/shop');
    const cut = bareCut(
      firstFit(
        cutProblemFor([{ key: board.id, board: board.board, done: [] }], {
          rack: stock,
          shop,
          species: HANDBOOK_SPECIES,
          promised: [],
        }),
      ),
    );
    const keep = (change: object) =>
      api.call('POST', '/saw/keep', { boards: [{ id: board.id, revision: 1 }], cut: { ...cut, ...change } });
    for (const bound of [1e308, -1e308]) expect((await keep({ bound })).status).toBe(400);
    const claimed = await keep({ bound: 1e6, proofs: [{ species: 'maple-hard', total: 1, bound: 1 }] });
    expect(claimed.body.plans[0].plan).toMatchObject({ bound: null, gap: null, proofs: [] });
    expect(
      (
        await api.call('POST', '/saw/keep', {
          boards: [
            { id: board.id, revision: 1 },
            { id: board.id, revision: 1 },
          ],
          cut,
        })
      ).body.fields,
    ).toEqual([{ path: 'boards', message: 'Boards must name each board once.' }]);
    expect(
      (
        await api.call('POST', '/saw/keep', {
          boards: [
            { id: board.id, revision: 1 },
            { id: board.id.toLowerCase() === board.id ? board.id.toUpperCase() : board.id.toLowerCase(), revision: 1 },
          ],
          cut,
        })
      ).status,
    ).toBe(404);
  });

  it('a clock that was forgotten for eighty days takes no more notes, but can be ended', async () => {
    const board = (await api.call('POST', '/boards', plainBoard())).body;
    const due = { firstClamp: 3, lastClamp: 7, scrapeFrom: 30, scrapeTo: 45, outOfClamps: 120, fullStrength: 1440 };
    const run = (await api.call('POST', `/boards/${board.id}/runs`, { glueUp: 'G1.1', copy: 1, title: 'Strips', due }))
      .body;
    await api
      .db('glue_runs')
      .where({ id: run.id })
      .update({ started_at: new Date(Date.now() - 80 * 86_400_000) });
    expect(await api.call('PUT', `/runs/${run.id}`, { version: 1, mark: 'scraped' })).toMatchObject({
      status: 409,
      body: { code: 'too-old', detail: expect.stringContaining('80 days ago') as string },
    });
    expect((await api.call('PUT', `/runs/${run.id}`, { version: 1, end: true })).status).toBe(200);
    expect((await api.call('GET', `/boards/${board.id}/runs`)).status).toBe(200);
  });
});
