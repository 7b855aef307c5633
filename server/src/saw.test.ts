import type { Knex } from 'knex';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Board } from '#core/board/board.ts';
import { firstFit } from '#core/cutting/firstFit.ts';
import { cutProblemFor } from '#core/saw/cutForBoard.ts';
import { plainBoard, plainPiece } from '#core/plan/planArbitrary.ts';
import { bareCut } from '#core/saw/rebuildCut.ts';
import { doneFor, promisedToOthers } from '#core/saw/sawBook.ts';
import type { SawBook } from '#core/saw/sawRecords.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import type { Piece } from '#core/stock/piece.ts';
import { volumeBetween } from '#core/stock/shape.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { newDatabase } from '../../bin/mariadb/testDatabase.ts';
import { apiForTests, type TestApi } from './apiForTests.ts';
import { openDatabase } from './stores/database.ts';
import { stripsOf } from '#core/board/recipe.ts';

let api: TestApi;
let db: Knex;
let call: TestApi['call'];

beforeAll(async () => {
  api = await apiForTests('saw');
  ({ db, call } = api);
});
afterAll(() => api.close());
beforeEach(async () => {
  for (const table of [
    'cutting_boards',
    'cuttings',
    'promises',
    'cut_plan_boards',
    'cut_plans',
    'revisions',
    'boards',
    'pieces',
  ])
    await db(table).delete();
});

const rackNow = async (): Promise<Piece[]> => (await api.list<{ piece: Piece }>('/rack')).map((r) => r.piece);
const bookOf = async (...boards: string[]) => (await call('GET', `/saw?boards=${boards.join(',')}`)).body as SawBook;
const addPiece = async (change: Partial<Piece> = {}) => {
  const { id: _id, ...fields } = plainPiece(change);
  return (await call('POST', '/rack', fields)).body.piece as Piece;
};
const addBoard = async (board: Board) =>
  (await call('POST', '/boards', board)).body as { id: string; revision: number };

/** The decisions of a first-fit plan for a board, as a tab would send them. */
async function planned(id: string, board: Board, rack?: Piece[]) {
  const book = await bookOf(id);
  const plan = firstFit(
    cutProblemFor([{ key: id, board, done: doneFor(book, id) }], {
      rack: rack ?? (await rackNow()),
      shop: DEFAULT_SHOP,
      species: HANDBOOK_SPECIES,
      promised: promisedToOthers(book, [id]),
    }),
  );
  return bareCut(plan);
}
const keep = async (board: { id: string; revision: number }, cut: unknown) =>
  call('POST', '/saw/keep', { boards: [{ id: board.id, revision: board.revision }], cut });

describe('promising wood', () => {
  it('gives the same wood to one of two boards only, even when both ask at once', async () => {
    await addPiece({ length: 460, width: 120 });
    const board = plainBoard({}, [46, 46, 46]);
    const [one, two] = [await addBoard(board), await addBoard({ ...board, name: 'The other' })];
    const cuts = await Promise.all([planned(one.id, board), planned(two.id, board)]);
    const answers = await Promise.all([keep(one, cuts[0]), keep(two, cuts[1])]);
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409]);
    const refused = answers.find((a) => a.status === 409)!;
    expect(refused.body.code).toBe('wood-taken');
    expect(refused.body.detail).toMatch(/^Wood of piece P1 is promised to "(Test board|The other)" meanwhile/);
    expect(await db('promises').count({ n: '*' }).first()).toEqual({ n: 1 });
  });

  it('lets two boards share a plank, moves the promise into the leftover, and brings it back with undo', async () => {
    const piece = await addPiece({
      length: 1000,
      defects: [
        { id: 'd1', kind: 'stain', face: 'up', from: 700, across: 10, length: 50, width: 20, treatment: 'harmless' },
      ],
    });
    const board = plainBoard({}, [46, 46, 46]);
    const [one, two] = [await addBoard(board), await addBoard({ ...board, name: 'The other' })];
    const first = (await keep(one, await planned(one.id, board))).body as SawBook;
    expect((await keep(two, await planned(two.id, board))).status).toBe(200);
    const both = await bookOf(one.id, two.id);
    expect(both.promises.map((p) => [p.pieceId, p.from, p.to, p.boards])).toEqual([
      [piece.id, 10, 439, [one.id]],
      [piece.id, 442, 871, [two.id]],
    ]);
    expect(both.plans.map((p) => p.plan.blanks.map((b) => [b.from, b.length]))).toEqual([[[10, 429]], [[442, 429]]]);

    const cut = await call('POST', '/saw/cut', { planId: first.plans[0]!.id, pieceId: piece.id, unit: 0 });
    expect(cut.status).toBe(200);
    const rack = await rackNow();
    // By hand: behind 10 + 429 + 3 there are 558 left, which hold the other board's promise; beside three rips of 32 there are 43.
    expect(rack.map((p) => [p.mark, p.length, p.width, p.origin])).toEqual([
      ['P1a', 558, 150, { kind: 'offcut', of: 'P1' }],
      ['P1b', 429, 43, { kind: 'offcut', of: 'P1' }],
    ]);
    expect(rack[0]!.defects).toMatchObject([{ kind: 'stain', from: 258, across: 10, length: 50 }]);
    const after = await bookOf(one.id, two.id);
    expect(cut.body.cuttings).toEqual(after.cuttings);
    const others = after.plans.find((p) => p.boards.includes(two.id))!;
    expect(others.plan.blanks.map((b) => [b.pieceId, b.from])).toEqual([[rack[0]!.id, 0]]);
    expect(after.cuttings[0]!.record.blanks[0]!.strips.map((s) => s.demand.strip)).toEqual([1, 2, 3]);

    expect((await call('POST', `/saw/cuttings/${after.cuttings[0]!.id}/undo`)).status).toBe(200);
    const undone = await bookOf(one.id, two.id);
    expect(undone.cuttings).toEqual([]);
    expect(await rackNow()).toEqual([piece]);
    expect(undone.plans.flatMap((p) => p.plan.blanks.map((b) => [b.pieceId, b.from])).sort()).toEqual([
      [piece.id, 10],
      [piece.id, 442],
    ]);
  });

  it('refuses a piece that went meanwhile, a plan for an older board, strips nobody asked for, and taking out promised wood', async () => {
    const piece = await addPiece();
    const board = plainBoard();
    const stored = await addBoard(board);
    const cut = await planned(stored.id, board);
    const other = {
      ...cut,
      blanks: cut.blanks.map((b) => ({ ...b, strips: b.strips.map((s) => ({ ...s, stripId: 'nobody' })) })),
    };
    expect((await keep(stored, other)).body.detail).toMatch(/no longer asks for what it cuts from piece P1/);
    expect((await keep({ ...stored, revision: 7 }, cut)).body.code).toBe('stale');
    expect((await keep(stored, cut)).status).toBe(200);
    const removal = await call('POST', `/rack/${piece.id}/remove`, { version: 1 });
    expect([removal.status, removal.body.detail]).toEqual([
      409,
      'Piece P1 is promised to "Test board". Release its wood there first.',
    ]);
    expect((await call('POST', '/saw/release', { boards: [stored.id] })).body.plans).toEqual([]);
    expect((await call('POST', `/rack/${piece.id}/remove`, { version: 1 })).status).toBe(200);
    expect((await keep(stored, cut)).body.detail).toBe(
      'Piece P1 is no longer in the rack. Plan again with what is there.',
    );
  });
});

describe('after the saw', () => {
  it('takes one of identical pieces, and a strip that failed is asked for again', async () => {
    const piece = await addPiece({ length: 460, width: 120, count: 3 });
    const board = plainBoard({}, [46, 46, 46, 46, 46]);
    const stored = await addBoard(board);
    const kept = (await keep(stored, await planned(stored.id, board))).body as SawBook;
    expect(kept.plans[0]!.plan.blanks.map((b) => b.unit)).toEqual([0, 1]);
    const cut = (await call('POST', '/saw/cut', { planId: kept.plans[0]!.id, pieceId: piece.id, unit: 0 }))
      .body as SawBook;
    expect((await rackNow()).find((p) => p.id === piece.id)!.count).toBe(2);
    expect(cut.plans[0]!.plan.blanks.map((b) => b.unit)).toEqual([0]);

    const { id, version, record } = cut.cuttings[0]!;
    const { board: b, stripId, copy, spare } = record.blanks[0]!.strips[0]!.demand;
    const failed = [{ board: b, stripId, copy, spare }];
    const struck = (await call('POST', `/saw/cuttings/${id}/fail`, { version, failed })).body as SawBook;
    expect(doneFor(struck, stored.id)[0]!.blank.strips.map((s) => s.demand.stripId)).toEqual(['s2', 's3']);
    expect((await call('POST', `/saw/cuttings/${id}/fail`, { version, failed })).body.code).toBe('stale');
    const again = await planned(stored.id, board);
    expect(again.blanks.flatMap((x) => x.strips.map((s) => s.stripId)).sort()).toEqual(['s1', 's4', 's5']);
    expect((await keep(stored, again)).status).toBe(200);
  });

  it('books two pieces cut at the same moment, and neither comes back', async () => {
    for (const id of ['a', 'b', 'c']) await addPiece({ mark: `Q${id}`, length: 460, width: 40 });
    const board = plainBoard({}, [46, 46, 46]);
    const stored = await addBoard(board);
    const [plan] = ((await keep(stored, await planned(stored.id, board))).body as SawBook).plans;
    const answers = await Promise.all(
      plan!.plan.blanks.map((b) => call('POST', '/saw/cut', { planId: plan!.id, pieceId: b.pieceId, unit: b.unit })),
    );
    expect(answers.map((a) => a.status)).toEqual([200, 200, 200]);
    const book = await bookOf(stored.id);
    expect([book.cuttings.length, book.plans[0]!.plan.blanks.length]).toEqual([3, 0]);
    expect(await db('promises').count({ n: '*' }).first()).toEqual({ n: 0 });
  });

  it('never gives wood back twice: a piece that was cut is not restored, leftovers of an undone cut are gone', async () => {
    const piece = await addPiece();
    const board = plainBoard();
    const stored = await addBoard(board);
    const kept = (await keep(stored, await planned(stored.id, board))).body as SawBook;
    const cut = (await call('POST', '/saw/cut', { planId: kept.plans[0]!.id, pieceId: piece.id, unit: 0 }))
      .body as SawBook;
    const restored = await call('POST', `/rack/${piece.id}/restore`, { version: 2 });
    expect([restored.status, restored.body.detail]).toEqual([
      409,
      'Piece P1 was cut. Take that cut back on the Cuts of its board instead.',
    ]);
    const leftover = cut.cuttings[0]!.record.leftovers[0]!.id;
    expect((await call('POST', `/saw/cuttings/${cut.cuttings[0]!.id}/undo`)).status).toBe(200);
    expect((await call('POST', `/rack/${leftover}/restore`, { version: 2 })).status).toBe(404);
    expect((await rackNow()).map((p) => p.mark)).toEqual(['P1']);
  });

  it('tells of no cutting whose boards are all gone', async () => {
    const piece = await addPiece();
    const board = plainBoard();
    const stored = await addBoard(board);
    const kept = (await keep(stored, await planned(stored.id, board))).body as SawBook;
    await call('POST', '/saw/cut', { planId: kept.plans[0]!.id, pieceId: piece.id, unit: 0 });
    await call('POST', `/boards/${stored.id}/remove`, { basedOn: 1 });
    expect(await bookOf(stored.id)).toEqual({ promises: [], plans: [], cuttings: [] });
    await call('POST', `/boards/${stored.id}/restore`);
    expect((await bookOf(stored.id)).cuttings.length).toBe(1);
  });

  it('loses no wood: strips, kerfs and what is thrown away are all that the rack is poorer by', async () => {
    const piece = await addPiece({ farEnd: { width: 130, thickness: 46 } });
    const board = plainBoard({}, [40, 40, 40, 40, 40, 40]);
    const stored = await addBoard(board);
    const kept = (await keep(stored, await planned(stored.id, board))).body as SawBook;
    const { blanks } = kept.plans[0]!.plan;
    await call('POST', '/saw/cut', { planId: kept.plans[0]!.id, pieceId: piece.id, unit: 0 });
    const left = (await rackNow()).reduce((sum, p) => sum + volumeBetween(p, 0, p.length), 0);
    // The end trim, two blanks and two kerfs are gone from the length; offcuts beside the rips came back.
    const end = Math.max(...blanks.map((b) => b.from + b.length)) + 3;
    const beside = (await rackNow())
      .filter((p) => p.length === 429)
      .reduce((sum, p) => sum + volumeBetween(p, 0, p.length), 0);
    expect((left - beside) / volumeBetween(piece, end, 2000)).toBeCloseTo(1, 6);
    expect(left).toBeLessThan(volumeBetween(piece, 0, 2000));
  });

  it('does not undo when a leftover has been used', async () => {
    const piece = await addPiece();
    const board = plainBoard();
    const stored = await addBoard(board);
    const kept = (await keep(stored, await planned(stored.id, board))).body as SawBook;
    const cut = (await call('POST', '/saw/cut', { planId: kept.plans[0]!.id, pieceId: piece.id, unit: 0 }))
      .body as SawBook;
    const { id: leftover } = cut.cuttings[0]!.record.leftovers[0]!;
    await call('POST', `/rack/${leftover}/remove`, { version: 1 });
    const undo = await call('POST', `/saw/cuttings/${cut.cuttings[0]!.id}/undo`);
    expect([undo.status, undo.body.code]).toEqual([409, 'leftover-used']);
    expect((await call('POST', '/saw/cut', { planId: kept.plans[0]!.id, pieceId: piece.id, unit: 0 })).body.code).toBe(
      'not-planned',
    );
  });
});

it('a pile goes in at once or not at all, and says which row is wrong', async () => {
  const { id: _id, ...fields } = plainPiece();
  const pile = (marks: string[], change: object = {}) => ({
    pieces: marks.map((mark) => ({ ...fields, mark, ...change })),
    species: [],
  });
  expect((await call('POST', '/rack/batch', pile(['A1', 'A2', 'A1']))).body.fields).toEqual([
    { path: 'pieces[2].mark', message: 'Piece 3: mark A1 is already on another piece.' },
  ]);
  expect((await call('POST', '/rack/batch', pile(['A1'], { species: 'plywood' }))).body.fields[0].path).toBe(
    'pieces[0].species',
  );
  expect(await rackNow()).toEqual([]);
  const thousand = Array.from({ length: 1000 }, (_, i) => `X${i}`);
  expect((await call('POST', '/rack/batch', pile(thousand))).body).toEqual({ added: 1000 });
  expect((await rackNow()).length).toBe(1000);
});

it('a database of version 1 is brought up with all it holds', async () => {
  const old = openDatabase(await newDatabase(process.env.TEST_DATABASE_URL!, 'old'));
  const { migrations } = await import('./migrations/index.ts');
  await migrations['001-first-tables']!.up(old);
  const {
    cutting: _cutting,
    seasons: _s,
    versions: _v,
    differs: _d,
    gluing: _g,
    perPanel: _p,
    accepted: _ac,
    recipe: _r8,
    ...plain
  } = plainBoard();
  const board = {
    ...plain,
    strips: stripsOf(plainBoard()).map(
      ({ kind: _k, turned: _t, rolled: _r, locked: _l, sideKept: _sk, ...strip }) => strip,
    ),
  };
  const { name, currency, planer, habits, pace } = DEFAULT_SHOP;
  const { head: _h, leastWidth: _lw, leastThickness: _lt, ...oldPlaner } = planer!;
  const { ripFat: _rf, edgeTreatment: _et, ...oldHabits } = habits;
  const { clampInset: _ci, helperShare: _hs, work: _wk, ...oldPace } = pace;
  const shop = {
    name,
    currency,
    planer: { ...oldPlaner, width: 310 },
    habits: oldHabits,
    pace: oldPace,
    glue: { name: 'Bone glue', assemblyMinutes: 8, clampMinutes: 240 },
  };
  await old('pieces').insert({
    id: 'p1',
    mark: 'P1',
    species: 'maple-hard',
    length: 500.1,
    width: 100,
    thickness: 30,
    surface: 'surfaced',
    rings: 'flat',
    note: 'Offcut of a shelf',
    version: 4,
    updated_at: new Date(),
  });
  await old('shops').insert({
    id: 1,
    version: 2,
    document: JSON.stringify({ ...shop, saw: { kerf: 2.4, cutDepth: 70 } }),
    updated_at: new Date(),
  });
  await old('boards').insert({ id: 'b1', revision: 1, created_at: new Date() });
  await old('revisions').insert({
    board_id: 'b1',
    number: 1,
    format_version: 1,
    document: JSON.stringify(board),
    made_at: new Date(),
  });
  await old('species').insert({
    code: 'bog-oak',
    name: 'Bog oak',
    botanical: 'Quercus',
    density: 800,
    hardness: null,
    pores: 'ring',
    oily: false,
    colour: '#332211',
    line_colour: '#221100',
    source: 'by hand',
  });
  for (const name of Object.keys(migrations).sort().slice(1)) await migrations[name]!.up(old);
  const { piecesInRack } = await import('./stores/rackStore.ts');
  const { readShop } = await import('./stores/shopStore.ts');
  const { readBoard } = await import('./stores/boardStore.ts');
  expect((await piecesInRack(old))[0]).toMatchObject({
    version: 4,
    piece: { length: 500.1, surface: 'twoFaces', origin: { kind: 'offcut' }, count: 1, defects: [] },
  });
  expect((await readShop(old)).shop).toMatchObject({
    saw: { kerf: 2.4 },
    crosscutSaw: { kerf: 2.4 },
    planer: { leastWidth: 20, width: 310, head: 'straight' },
    jointer: { width: 310 },
    glue: 'own',
    pace: { work: 1 },
  });
  // The one glue of before goes on being the shop's, with its own times.
  expect((await readShop(old)).shop.glues[0]).toMatchObject({
    id: 'own',
    name: 'Bone glue',
    openMinutes: 4,
    closedMinutes: 8,
    clampMinutes: 240,
  });
  expect(await readBoard(old, 'b1')).toMatchObject({
    undo: null,
    redo: null,
    board: {
      cutting: { pins: [] },
      seasons: null,
      versions: [],
      perPanel: 1,
      accepted: [],
      recipe: plainBoard().recipe,
    },
  });
  const { allSpecies } = await import('./stores/speciesStore.ts');
  const species = await allSpecies(old);
  expect(species.find((s) => s.code === 'maple-hard')).toEqual(HANDBOOK_SPECIES.find((s) => s.code === 'maple-hard'));
  expect(species.find((s) => s.code === 'bog-oak')).toMatchObject({
    radial: null,
    sapColour: '#332211',
    dust: 'usual',
  });
  await old.destroy();
});
