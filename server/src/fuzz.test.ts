import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import { UNDRAWN } from '#core/features/feature.ts';
import { panelFacts, plainBoard, plainPiece } from '#core/plan/planArbitrary.ts';
import { randomFrom } from '#core/propose/random.ts';
import { apiForTests, type Answer, type TestApi } from './apiForTests.ts';
import { nameOf } from './operation.ts';
import { addDevice } from './stores/deviceStore.ts';
import { BACKUP_DESCRIBED } from './backup/backupRoutes.ts';
import { operations } from './operations/index.ts';
import type { Fact } from '#core/facts/fact.ts';
import type { LogEntry } from '#core/log/entry.ts';
import { BOARD_FILE_VERSION } from '#core/format/boardFile.ts';

/** More rounds by hand: FUZZ_REQUESTS=100000 FUZZ_SEED=7 npx vitest run server/src/fuzz.test.ts */
const REQUESTS = Number(process.env.FUZZ_REQUESTS ?? 2000);
const SEED = Number(process.env.FUZZ_SEED ?? 1);

let api: TestApi;
/** Of a device that may work, of one that may look, and of none. */
const cookies: Record<'work' | 'look' | 'out', Record<string, string>> = { work: {}, look: {}, out: {} };
beforeAll(async () => {
  api = await apiForTests('fuzz', { around: { asked: true, addresses: [] }, limits: { requests: 1e6, refusals: 1e6 } });
  for (const may of ['work', 'look'] as const)
    cookies[may] = { Cookie: `cadenza=${await addDevice(api.db, { name: may, person: null, may }, true)}` };
});
afterAll(() => api.close());

const { id: _id, ...piece } = plainPiece({
  form: { bow: 1, cup: 1, crook: 1, twist: 1 },
  farEnd: { width: 140, thickness: 48 },
  moisture: 9,
  price: { amount: 12, per: 'boardFoot' },
  defects: [{ id: 'd1', kind: 'knot', face: 'up', from: 100, across: 10, length: 20, width: 20, treatment: 'cut' }],
});
const board = plainBoard({
  worked: {
    edges: null,
    corners: { kind: 'round', size: 10 },
    others: [{ id: 'o1', name: 'Small', length: 100, width: 60 }],
    features: [
      {
        kind: 'mark',
        id: 'm1',
        face: 'top',
        name: 'Hut',
        method: 'router',
        x: 100,
        y: 60,
        length: 60,
        width: 20,
        depth: 1,
        ...UNDRAWN,
        art: { name: 'a', length: 1000, width: 10, d: 'M0 0L1000 10' },
      },
    ],
  },
});
const due = { firstClamp: 3, lastClamp: 7, scrapeFrom: 30, scrapeTo: 45, outOfClamps: 120, fullStrength: 1440 };
const strip = {
  board: 'x',
  stripId: 's1',
  copy: 1,
  spare: 0,
  way: { shows: 'edge', rip: 32, thickness: 46 },
  from: 2,
  layer: 1,
  layers: 1,
};
const cut = {
  bound: 1,
  proofs: [{ species: 'maple-hard', total: 1, bound: 1 }],
  blanks: [{ pieceId: 'p1', unit: 0, from: 10, length: 429, strips: [strip] }],
};

const AT = '2026-11-27T08:00:00.000Z';
const measured: Fact = {
  kind: 'measured',
  id: 'm1',
  at: AT,
  device: 'd1',
  thing: 'panel',
  copy: 1,
  step: 'flattenPanel',
  stage: 'flat',
  dimension: 'thickness',
  value: 28.3,
  instrument: 'caliper',
};
const done: Fact = {
  kind: 'done',
  id: 'd1',
  at: AT,
  step: 'glue:a',
  copy: 1,
  minutes: 12.5,
  wait: { minutes: 30, for: 'the glue' },
  ends: [{ step: 'dryRun', copy: null }],
};
const size = { length: 400, width: 260, thickness: 30 };
const logged: LogEntry = {
  board: { ...board, versions: [] },
  boardId: null,
  finishedAt: AT,
  forWhom: 'A hut',
  wished: size,
  reached: size,
  pieces: [{ mark: 'P1', species: 'maple-hard', length: 429, width: 150 }],
  glue: 'Glue',
  finish: 'Oil',
  minutesPlanned: 60,
  minutesTaken: 70,
  minutesPlannedOfTaken: 60,
  cost: 12,
  currency: 'EUR',
  grams: 2000,
  facts: [measured],
  pairs: [{ what: 'minutes', step: 'glue', machine: null, species: null, width: 250, planned: 10, happened: 12 }],
  face: [
    {
      species: 'maple-hard',
      corners: [
        [0, 0],
        [400, 0],
        [400, 260],
      ],
    },
  ],
  care: [{ at: AT, what: 'oiled', note: '' }],
};

/** One good body for every write, and the query of every list. */
const samples = (): Record<string, unknown> => ({
  'post /species': HANDBOOK_SPECIES[1],
  'put /species/{code}': { before: HANDBOOK_SPECIES[1], species: HANDBOOK_SPECIES[1] },
  'put /shop': { version: 0, shop: DEFAULT_SHOP },
  'post /shop/begin': { version: 9, shop: DEFAULT_SHOP },
  'post /shop/keep': { version: 9 },
  'post /shops/aside/{number}/take-up': { version: 9 },
  'post /shops/aside/{number}/throw-away': {},
  'post /shops/aside/{number}/restore': {},
  'put /schedule': { version: 0, schedule: { order: ['b/crosscut/1/1'], taken: ['b'], waiting: [] } },
  'post /schedule/calendar': {},
  'post /schedule/calendar/close': {},
  'put /shopping': { version: 0, shopping: { boards: ['b'], ticked: ['paper'] } },
  'post /rack': piece,
  'post /rack/batch': { pieces: [piece], species: [HANDBOOK_SPECIES[0]] },
  'put /rack/{id}': { version: 1, piece },
  'post /rack/{id}/remove': { version: 1 },
  'post /rack/{id}/restore': { version: 2 },
  'post /saw/keep': { boards: [{ id: 'x', revision: 1 }], cut },
  'post /saw/release': { boards: ['x'] },
  'post /saw/cut': { planId: 'x', pieceId: 'p1', unit: 0 },
  'post /saw/cuttings/{id}/undo': {},
  'post /saw/cuttings/{id}/fail': { version: 1, failed: [{ board: 'x', stripId: 's1', copy: 1, spare: 0 }] },
  'post /boards/{id}/runs': { glueUp: 'G1.1', copy: 1, title: 'Strips', due },
  'put /runs/{id}': { version: 1, mark: 'firstClamp', note: 'x' },
  'post /boards': board,
  'post /boards/import': {
    file: {
      format: 'cadenza-board',
      version: BOARD_FILE_VERSION,
      board,
      facts: panelFacts(500, [{ id: 'b1', x: 1, y: 1, length: 10, width: 10, what: 'Gap' }]),
      rack: [plainPiece()],
      species: HANDBOOK_SPECIES.slice(0, 3),
      shop: DEFAULT_SHOP,
    },
    addPieces: true,
  },
  'put /boards/{id}': { basedOn: 1, steps: [{ board, undo: 1, redo: null }] },
  'put /boards/{id}/revisions/{number}/name': { name: 'A' },
  'post /boards/{id}/facts': { facts: [measured, done] },
  'put /boards/{id}/pictures/{picture}': { type: 'image/jpeg', data: '/9j/4AAQSkZJRgABAQAAAQABAAD' },
  'post /readings': { instrument: 'caliper', value: 28.3, unit: 'mm', flat: false },
  'post /log': logged,
  'put /log/{id}': { version: 1, forWhom: 'A hut', care: { at: AT, what: 'oiled', note: 'dull' } },
  'post /log/{id}/remove': {},
  'post /log/{id}/restore': {},
  'post /boards/{id}/remove': { basedOn: 1 },
  'post /boards/{id}/restore': {},
  'post /devices/invite': { person: 'one', may: 'look' },
  'put /devices/{id}': { name: 'Tablet', person: 'one', may: 'look' },
  'post /devices/{id}/end': {},
});
const ODD: readonly unknown[] = [
  '\ud800',
  'a\udfff',
  1e308,
  -1e308,
  '',
  'x'.repeat(10_000),
  null,
  true,
  [],
  {},
  -1,
  0.5,
  2 ** 53,
  '\u0000',
  '木ä\u202e',
  Array(300).fill(1),
];

/** Writes that carry a document which another write takes on its own. */
const CARRIED = [
  'put /boards/{id}',
  'put /rack/{id}',
  'put /species/{code}',
  'post /rack/batch',
  'post /shop/begin',
  'post /boards/import',
  'post /log',
];

type Path = (string | number)[];

/** Where a value stands in a body: every field, every entry of a list, the whole. */
function pathsOf(value: unknown, at: Path = []): Path[] {
  if (Array.isArray(value)) return [at, ...value.slice(0, 2).flatMap((v, i) => pathsOf(v, [...at, i]))];
  if (typeof value === 'object' && value !== null)
    return [at, ...Object.entries(value).flatMap(([k, v]) => pathsOf(v, [...at, k]))];
  return [at];
}

function replaced(value: unknown, [key, ...rest]: Path, by: unknown): unknown {
  if (key === undefined) return by;
  if (Array.isArray(value)) return value.map((v: unknown, i) => (i === key ? replaced(v, rest, by) : v));
  return { ...(value as object), [key]: replaced((value as Record<string, unknown>)[key], rest, by) };
}

/** JSON with half characters as a hostile client writes them. */
const written = (value: unknown) => JSON.stringify(value);

function wellAnswered(answer: Answer, what: string): void {
  expect(answer.status, what).toBeLessThan(500);
  const text = JSON.stringify(answer.body) ?? '';
  if (answer.status >= 400) {
    expect(answer.type, what).toContain('application/problem+json');
    expect(answer.body.detail.length, what).toBeGreaterThan(10);
    expect(answer.body.fields.length, what).toBeLessThanOrEqual(50);
    expect(text.length, what).toBeLessThan(60_000);
  }
  expect(text, what).not.toMatch(/node_modules|\bat .*\.ts:\d|ER_[A-Z]+|insert into|select `|ECONN/);
}

it('has a sample of every write that the OpenAPI document knows', async () => {
  const { body } = await api.call('GET', '/openapi.json', undefined, cookies.work);
  const described = Object.entries(body.paths as Record<string, Record<string, unknown>>).flatMap(([path, methods]) =>
    Object.keys(methods)
      .filter((m) => m !== 'parameters')
      .map((m) => `${m} ${path.replace('/api', '')}`),
  );
  // Health, the live stream, the passphrase said again and backups are no operations: each has tests of its own.
  const beside = [
    'get /health',
    'get /live',
    'post /devices/confirm',
    ...BACKUP_DESCRIBED.map(([path, method]) => `${method} ${path}`),
  ];
  expect(described.filter((name) => !name.startsWith('get ') && !beside.includes(name)).sort()).toEqual(
    Object.keys(samples()).sort(),
  );
  expect(described.length).toBe(operations.length + beside.length);
});

it(`answers ${REQUESTS} odd requests over every operation without a fault of its own (seed ${SEED})`, async () => {
  vi.spyOn(console, 'error').mockImplementation(() => {});
  const { next: random, pick } = randomFrom(SEED);
  const ids = { board: 'x', piece: 'x', cutting: 'x', run: 'x' };
  let accepted = 0;
  for (let i = 0; i < REQUESTS; i += 1) {
    const operation = pick(operations);
    const { method, path } = operation;
    const kind = path.startsWith('/rack')
      ? ids.piece
      : path.startsWith('/runs')
        ? ids.run
        : path.includes('cuttings')
          ? ids.cutting
          : ids.board;
    const address = path
      .replace(
        '{id}',
        random() < 0.8 ? kind : pick(['nobody', '%F0%9F%8D%9E', '..%2f..', '%ED%A0%80', 'a'.repeat(500), "'"]),
      )
      .replace('{number}', pick(['1', '0', '-1', '99999999999', 'x']));
    const query =
      method === 'get' && random() < 0.4
        ? `?${pick(['after', 'before', 'boards', 'named', 'x'])}=${pick(['1', 'x', '%00', '-1', '1e308', encodeURIComponent('["a",1]'), 'W10', 'a,,b', 'ä'])}`
        : '';
    let body: unknown = method === 'get' ? undefined : samples()[nameOf(operation)];
    if (method !== 'get') {
      const marked = (text: string) => text.replaceAll('"P1"', `"P${i}"`);
      body = JSON.parse(marked(JSON.stringify(body)));
      for (let n = Math.floor(random() * 3); n > 0; n -= 1) body = replaced(body, pick(pathsOf(body)), pick(ODD));
    }
    const headers =
      random() < 0.1
        ? { 'Idempotency-Key': pick(['12345678', 'x', 'same-name-again', 'ä']).replace('ä', 'short') }
        : undefined;
    const who = pick(['work', 'work', 'work', 'work', 'look', 'out'] as const);
    const answer = await api.call(
      method.toUpperCase(),
      address + query,
      method === 'get' ? undefined : random() < 0.03 ? pick(['{', '[[[[', '"', '{"a":1}}', '\ufeff{}']) : written(body),
      { ...headers, ...cookies[who] },
    );
    // Whoever is not let in gets as far as the door, and no further whatever is sent.
    if (who === 'out' && !path.startsWith('/calendar/')) expect([who, answer.status]).toEqual([who, 401]);
    if (who === 'look' && method !== 'get') expect([403, 413, 415]).toContain(answer.status);
    wellAnswered(answer, `${method} ${address}${query} ${written(body)?.slice(0, 500)}`);
    if (answer.status < 300) {
      accepted += 1;
      if (nameOf(operation) === 'post /boards' || path === '/boards/import') ids.board = answer.body.id;
      if (nameOf(operation) === 'post /rack') ids.piece = answer.body.piece.id;
      if (path === '/boards/{id}/runs' && method === 'post') ids.run = answer.body.id;
    }
  }
  // A fuzz that is refused everywhere tries nothing.
  expect(accepted).toBeGreaterThan(REQUESTS / 20);
}, 600_000);

it('every field of every write takes or refuses odd values in a sentence that names it', async () => {
  const stored = (await api.call('POST', '/boards', board, cookies.work)).body.id as string;
  const added = (await api.call('POST', '/rack', { ...piece, mark: 'sweep' }, cookies.work)).body.piece.id as string;
  let refused = 0;
  for (const [name, sample] of Object.entries(samples())) {
    const [method, path] = name.split(' ') as [string, string];
    const address = path
      .replace('{id}', path.startsWith('/rack') ? added : path.startsWith('/boards') ? stored : 'nobody')
      .replace('{number}', '1');
    for (const [i, at] of pathsOf(sample).entries()) {
      // Deep in a document a field gets two of them, and the next ones the rest; what a write of its own goes through is looked at here and there.
      const [deep, every] = CARRIED.includes(name) ? [2, 16] : [3, 4];
      for (const odd of ODD.slice(0, 8).filter((_, k) => at.length < deep || (i + k) % every === 0)) {
        const sent = [method.toUpperCase(), address, written(replaced(sample, at, odd))] as const;
        const answer = await api.call(...sent, cookies.work);
        // Who may not change anything learns nothing of what would have been wrong.
        if (i % 7 === 0 && odd === ODD[0]) {
          expect([name, (await api.call(...sent, cookies.look)).body.code]).toEqual([name, 'look-only']);
          expect([name, (await api.call(...sent)).body.code]).toEqual([name, 'sign-in']);
        }
        const what = `${name} ${at.join('.')} = ${String(JSON.stringify(odd)).slice(0, 40)}`;
        wellAnswered(answer, what);
        if (answer.status !== 400 || answer.body.fields.length === 0) continue;
        refused += 1;
        const last = at.filter((k) => typeof k === 'string').at(-1);
        if (last !== undefined && at.length < 3)
          expect(JSON.stringify(answer.body.fields).toLowerCase(), what).toContain(last.toLowerCase());
      }
    }
  }
  expect(refused).toBeGreaterThan(1000);
}, 600_000);
