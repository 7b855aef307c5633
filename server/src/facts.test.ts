import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Fact } from '#core/facts/fact.ts';
import { panelFacts, plainBoard } from '#core/plan/planArbitrary.ts';
import { apiForTests, type TestApi } from './apiForTests.ts';

let api: TestApi;
let id: string;
beforeAll(async () => {
  api = await apiForTests('facts');
  id = (await api.call('POST', '/boards', plainBoard())).body.id;
});
afterAll(() => api.close());

const spot = { id: 's', x: 1, y: 2, length: 10, width: 5, what: 'Gap' };
const [glued, found] = panelFacts(612.5, [spot]) as [Fact, Fact];
const add = (facts: unknown, board = id) => api.call('POST', `/boards/${board}/facts`, { facts });

describe('what happened to a board', () => {
  it('is added and never edited: sent twice it is there once, and an id stands for one thing only', async () => {
    expect((await add([glued])).body.facts).toEqual([glued]);
    expect((await add([glued, found])).body.facts).toEqual([glued, found]);
    expect(await add([{ ...glued, value: 700 }])).toMatchObject({
      status: 409,
      body: { code: 'another-fact', current: glued },
    });
    expect((await api.call('GET', `/boards/${id}/facts`)).body.facts).toEqual([glued, found]);
  });

  it('shows in lists at once, though the board did not change', async () => {
    const before = await api.call('GET', '/boards');
    const back: Fact = { kind: 'takenBack', id: 'back', at: glued.at, fact: found.id };
    await add([back]);
    const after = await api.call('GET', '/boards', undefined, { 'If-None-Match': before.headers.get('etag')! });
    expect([after.status, after.body[0].facts]).toEqual([200, [glued, found, back]]);
    expect(after.body[0].revision).toBe(before.body[0].revision);
  });

  it('undo of a wish takes nothing back', async () => {
    const { revision, board } = (await api.call('GET', `/boards/${id}`)).body;
    await api.call('PUT', `/boards/${id}`, { basedOn: revision, board: { ...board, length: 350 } });
    await api.call('PUT', `/boards/${id}`, { basedOn: revision + 1, board });
    expect((await api.call('GET', `/boards/${id}/facts`)).body.facts).toHaveLength(3);
  });

  it('goes out with the board file and comes in with it', async () => {
    const file = (await api.call('GET', `/boards/${id}/file`)).body;
    expect(file.facts).toHaveLength(3);
    const copy = (await api.call('POST', '/boards/import', { file, addPieces: false })).body.id;
    expect((await api.call('GET', `/boards/${copy}/facts`)).body.facts).toEqual(file.facts);
  });

  it('decides what is planned at the saw: the longer panel asks for longer strips', async () => {
    const listed = (await api.list<{ id: string; facts: Fact[] }>('/boards')).find((b) => b.id === id)!;
    expect(listed.facts[0]).toEqual(glued);
  });

  it('is refused in a sentence: nonsense, two of one id, too many at once, a board that is gone', async () => {
    expect(await add([{ ...glued, id: 'n', value: -1 }])).toMatchObject({
      status: 400,
      body: { fields: [{ path: 'facts[0].value' }] },
    });
    expect((await add([])).status).toBe(400);
    expect((await add([glued, glued])).status).toBe(400);
    const many = Array.from({ length: 501 }, (_, i) => ({ ...glued, id: `m${i}` }));
    expect((await add(many)).body.detail).toContain('at most 500 facts at once');
    expect((await add([{ ...glued, id: 'n' }], 'nobody')).status).toBe(404);
    const gone = (await api.call('POST', '/boards', plainBoard())).body;
    await api.call('POST', `/boards/${gone.id}/remove`, { basedOn: gone.revision });
    expect(await add([{ ...glued, id: 'n' }], gone.id)).toMatchObject({ status: 404, body: { code: 'not-found' } });
  });

  it('from two devices at once all of it arrives, each once', async () => {
    const board = (await api.call('POST', '/boards', plainBoard())).body.id;
    const batch = (device: string) =>
      Array.from({ length: 20 }, (_, i): Fact => ({ ...glued, kind: 'measured', id: `${device}${i}` }) as Fact);
    const sent = ['a', 'b'].flatMap((device) =>
      batch(device).flatMap((fact) => [add([fact], board), add([fact], board)]),
    );
    expect(new Set((await Promise.all(sent)).map((r) => r.status))).toEqual(new Set([200]));
    const { facts } = (await api.call('GET', `/boards/${board}/facts`)).body;
    expect(facts.map((f: Fact) => f.id).sort()).toEqual([...batch('a'), ...batch('b')].map((f) => f.id).sort());
  });
});
