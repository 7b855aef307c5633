import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LogPage, StoredEntry } from '#contract/log.ts';
import type { Fact } from '#core/facts/fact.ts';
import { entryOf } from '#core/log/entryOf.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { apiForTests, type TestApi } from './apiForTests.ts';

let api: TestApi;
let id: string;
beforeAll(async () => {
  api = await apiForTests('bench');
  id = (await api.call('POST', '/boards', plainBoard({ name: 'On the bench' }))).body.id;
});
afterAll(() => api.close());

/** The least that begins like a picture of its kind. */
const jpeg = (size: number) =>
  Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0]), Buffer.alloc(size)]).toString('base64');

describe('pictures from the bench', () => {
  const keep = (picture: unknown, name = 'p1', board = id) =>
    api.call('PUT', `/boards/${board}/pictures/${name}`, picture);

  it('are kept once under their own id, and come back as they were', async () => {
    const picture = { type: 'image/jpeg', data: jpeg(5000) };
    expect((await keep(picture)).status).toBe(204);
    expect((await keep(picture)).status).toBe(204);
    expect((await api.call('GET', `/boards/${id}/pictures/p1`)).body).toEqual(picture);
    expect(await keep({ ...picture, data: jpeg(6000) })).toMatchObject({
      status: 409,
      body: { code: 'another-picture' },
    });
  });

  it('that are none, too large, or of a board that is not there are refused in a sentence', async () => {
    const refused = async (picture: unknown, board = id) => (await keep(picture, 'p2', board)).body.detail as string;
    expect(await refused({ type: 'image/jpeg', data: Buffer.alloc(100, 'text').toString('base64') })).toContain(
      'no picture',
    );
    expect(await refused({ type: 'image/png', data: jpeg(100) })).toContain('no picture');
    expect(await refused({ type: 'image/jpeg', data: jpeg(1_200_000) })).toContain('1 MB');
    expect(await refused({ type: 'image/gif', data: jpeg(100) })).toContain('image/jpeg');
    expect(await refused({ type: 'image/jpeg', data: '§§§§§§§§§§§§§§§§' })).toContain('base64');
    expect(await refused({ type: 'image/jpeg', data: jpeg(100) }, 'nowhere')).toContain('does not exist');
    expect((await api.call('GET', `/boards/${id}/pictures/p2`)).status).toBe(404);
  });
});

it('what is waited for is told of all boards, until work goes on from it or the board is removed', async () => {
  const at = new Date(Date.now() - 60_000).toISOString();
  const glued: Fact = {
    kind: 'done',
    id: 'g',
    at,
    step: 'glue:a',
    copy: 1,
    minutes: null,
    wait: { minutes: 30, for: 'the glue' },
  };
  await api.call('POST', `/boards/${id}/facts`, { facts: [glued] });
  const waits = async () =>
    (await api.call('GET', '/waits')).body.waits as { board: string; name: string; until: string }[];
  expect(await waits()).toMatchObject([
    { board: id, name: 'On the bench', until: new Date(Date.parse(at) + 30 * 60_000).toISOString() },
  ]);
  const next: Fact = {
    kind: 'done',
    id: 'n',
    at,
    step: 'flattenPanel',
    copy: 1,
    minutes: null,
    ends: [{ step: 'glue:a', copy: null }],
  };
  await api.call('POST', `/boards/${id}/facts`, { facts: [next] });
  expect(await waits()).toEqual([]);
  // The glue clock of a glue-up stands there too, until somebody says that its step is done.
  const due = { firstClamp: 3, lastClamp: 8, scrapeFrom: 30, scrapeTo: 45, outOfClamps: 120, fullStrength: 1440 };
  await api.call('POST', `/boards/${id}/runs`, { glueUp: 'a', copy: 1, title: 'Strips 1 to 6', due });
  expect(await waits()).toMatchObject([{ board: id, for: 'the glue of strips 1 to 6', step: 'a' }]);
  const again: Fact = { ...glued, id: 'g2', at: new Date().toISOString(), step: 'join:a' };
  await api.call('POST', `/boards/${id}/facts`, { facts: [again] });
  expect((await waits()).map((w) => (w as { fact?: string }).fact)).toEqual(['g2']);
});

describe('the log', () => {
  const input = planInput(plainBoard({ name: 'Bread board', use: 'Bread' }), [plainPiece({ length: 4000 })]);
  const add = (name: string, forWhom: string, day: number, facts: Fact[] = [], of: string | null = null) =>
    api.call(
      'POST',
      '/log',
      entryOf(
        { ...input, board: { ...input.board, name }, facts },
        of,
        `2026-11-${String(day).padStart(2, '0')}T08:00:00.000Z`,
        forWhom,
      ),
    );
  const names = async (query: string) =>
    ((await api.call('GET', `/log?${query}`)).body as LogPage).entries.map((e) => e.name);

  it('lists, looks for words and woods, and sorts; bad questions are refused by name', async () => {
    const note: Fact = { kind: 'note', id: 'n', at: '2026-11-01T08:00:00.000Z', text: 'Walnut stain on my hands' };
    await add('Bread board', 'Lower Hut', 3, [note]);
    await add('Cheese slab', 'Upper Hut', 9);
    await add('Ägg plank', '', 1);
    expect(await names('')).toEqual(['Cheese slab', 'Bread board', 'Ägg plank']);
    expect(await names('sort=oldest')).toEqual(['Ägg plank', 'Bread board', 'Cheese slab']);
    expect(await names('words=HUT%20board')).toEqual(['Bread board']);
    expect(await names('words=stain')).toEqual(['Bread board']);
    expect(await names('words=%25')).toEqual([]);
    expect(await names('species=maple-hard')).toHaveLength(3);
    expect(await names('species=maple')).toEqual([]);
    expect(await api.call('GET', '/log?sort=prettiest')).toMatchObject({
      status: 400,
      body: { fields: [{ path: 'sort' }] },
    });
    expect(await api.call('GET', '/log?from=-1')).toMatchObject({ status: 400, body: { fields: [{ path: 'from' }] } });
  });

  it('keeps a board as it was, whatever becomes of it; care is added, a change on an old page refused', async () => {
    const made = (await add('Carving board', '', 20, [], id)).body as StoredEntry;
    const { revision, board } = (await api.call('GET', `/boards/${id}`)).body;
    await api.call('PUT', `/boards/${id}`, { basedOn: revision, board: { ...board, length: 222, name: 'Another' } });
    const path = `/log/${made.id}`;
    expect((await api.call('GET', path)).body).toEqual(made);
    const care = { at: '2026-12-24T08:00:00.000Z', what: 'oiled', note: 'dull' };
    const cared = (await api.call('PUT', path, { version: 1, forWhom: 'Middle Hut', care })).body as StoredEntry;
    expect(cared).toEqual({ ...made, version: 2, entry: { ...made.entry, forWhom: 'Middle Hut', care: [care] } });
    expect(await names('words=middle')).toEqual(['Carving board']);
    expect(await api.call('PUT', path, { version: 1, forWhom: 'x' })).toMatchObject({
      status: 409,
      body: { code: 'stale', current: cared },
    });
    await api.call('POST', `${path}/remove`, {});
    expect([(await api.call('GET', path)).status, await names('words=middle')]).toEqual([404, []]);
    await api.call('POST', `${path}/restore`, {});
    expect((await api.call('GET', path)).body).toEqual(cared);
    expect((await api.call('POST', '/log/nothing/remove', {})).status).toBe(404);
    expect(
      await api.call('POST', '/log', { ...made.entry, reached: { ...made.entry.reached, width: -3 } }),
    ).toMatchObject({
      status: 400,
      body: { fields: [{ path: 'reached.width' }] },
    });
  });

  it('has a board once, whoever takes it in, and its pictures after it is off the list', async () => {
    const board = (await api.call('POST', '/boards', plainBoard({ name: 'Once' }))).body as {
      id: string;
      revision: number;
    };
    const picture = { type: 'image/png', data: Buffer.from('\x89PNG of it', 'latin1').toString('base64') };
    expect((await api.call('PUT', `/boards/${board.id}/pictures/p1`, picture)).status).toBe(204);
    const both = await Promise.all(['Lower Hut', 'Upper Hut'].map((hut) => add('Once', hut, 21, [], board.id)));
    expect(both.map((b) => b.status).sort()).toEqual([201, 409]);
    const [first, second] = both.sort((a, b) => a.status - b.status);
    expect(second!.body).toMatchObject({ code: 'in-the-log', current: first!.body });
    const query = async () =>
      ((await api.call('GET', `/log?board=${board.id}`)).body as LogPage).entries.map((e) => e.id);
    expect(await query()).toEqual([first!.body.id]);
    // Taken out and in again there is another; the first one has no place beside it.
    await api.call('POST', `/log/${first!.body.id}/remove`, {});
    const again = await add('Once', '', 22, [], board.id);
    expect([again.status, await query()]).toEqual([201, [again.body.id]]);
    expect(await api.call('POST', `/log/${first!.body.id}/restore`, {})).toMatchObject({
      status: 409,
      body: { code: 'in-the-log' },
    });
    expect((await api.call('POST', `/boards/${board.id}/remove`, { basedOn: board.revision })).status).toBe(204);
    expect((await api.call('GET', `/boards/${board.id}/pictures/p1`)).body).toEqual(picture);
  });
});

it('readings are handed on from the last one seen; one that never stops sending is told so', async () => {
  const send = (value: number) =>
    api.call('POST', '/readings', { instrument: 'caliper', value, unit: 'mm', flat: false });
  await send(10);
  const { last } = (await api.call('GET', '/readings')).body as { last: number };
  await send(11);
  await send(12);
  const { body } = await api.call('GET', `/readings?after=${last}`);
  expect((body.readings as { value: number }[]).map((r) => r.value)).toEqual([11, 12]);
  expect((await api.call('GET', `/readings?after=${body.last}`)).body).toEqual({ last: body.last, readings: [] });
  const answers = await Promise.all(Array.from({ length: 60 }, (_, i) => send(i + 1)));
  const refused = answers.find((a) => a.status === 429);
  expect(refused?.body.detail).toContain('never stops');
  expect(answers.filter((a) => a.status === 204).length).toBeGreaterThanOrEqual(15);
});
