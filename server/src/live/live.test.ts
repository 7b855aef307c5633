import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LiveChange } from '#contract/live.ts';
import { plainBoard, plainPiece } from '#core/plan/planArbitrary.ts';
import { apiForTests, serveApi, type TestApi } from '../apiForTests.ts';
import { forgetOldChanges, newestChange } from '../stores/changeStore.ts';
import { openDatabase } from '../stores/database.ts';
import { GONE_AFTER_MS, stay } from '../stores/presenceStore.ts';
import { newDatabase } from '../../../bin/mariadb/testDatabase.ts';
import { openStore } from '../stores/openStore.ts';
import { ChangeFeed } from './changeFeed.ts';
import { LiveRoutes } from './liveRoutes.ts';
import { Page } from './pageForTests.ts';

let url: string;
let api: TestApi;
let other: TestApi;
const lives: LiveRoutes[] = [];
/** A server of its own on the same database. */
async function server(): Promise<TestApi> {
  const db = openDatabase(url);
  const live = new LiveRoutes(db, new ChangeFeed(db, 20));
  lives.push(live);
  const served = await serveApi(url, { live });
  return { ...served, close: async () => (live.stop(), await served.close(), db.destroy()) };
}
beforeAll(async () => {
  url = await newDatabase(process.env.TEST_DATABASE_URL!, 'live');
  const db = openDatabase(url);
  await openStore(db);
  await db.destroy();
  [api, other] = await Promise.all([server(), server()]);
});
afterAll(() => Promise.all([api.close(), other.close()]));

const { id: _id, ...piece } = plainPiece();

describe('an open page', () => {
  it('is told what any server on its database stored, by whom and of which board, once', async () => {
    const pages = await Promise.all([Page.at(api, 'tab=one'), Page.at(other, 'tab=two')]);
    const board = (await api.call('POST', '/boards', plainBoard())).body;
    await other.call(
      'PUT',
      `/boards/${board.id}`,
      { basedOn: 1, board: plainBoard({ name: 'New' }) },
      { 'Cadenza-Tab': 'two' },
    );
    await api.call('POST', '/rack', { ...piece, mark: 'L1' });
    for (const page of pages) {
      await page.until(() => page.changes.length >= 3);
      expect(page.changes.map(({ topics, board: of, tab }) => ({ topics, of, tab }))).toEqual([
        { topics: ['boards'], of: null, tab: null },
        { topics: ['boards'], of: board.id, tab: 'two' },
        { topics: ['rack'], of: null, tab: null },
      ]);
      expect(new Set(page.changes.map((c) => c.id)).size).toBe(3);
      page.close();
    }
  });

  it('hears nothing of what was refused, only looked at, or repeated by the same name', async () => {
    const page = await Page.at(api, 'tab=quiet');
    const name = { 'Idempotency-Key': 'told-only-once' };
    await api.call('POST', '/rack', { ...piece, mark: 'L2', length: -1 });
    await api.call('GET', '/rack');
    await Promise.all([1, 2, 3].map(() => api.call('POST', '/rack', { ...piece, mark: 'L2' }, name)));
    await api.call('PUT', '/shopping', { version: 0, shopping: { boards: [], ticked: [] } });
    await page.until(() => page.changes.some((c) => c.topics.includes('shopping')));
    expect(page.changes.map((c) => c.topics.join())).toEqual(['rack', 'shopping']);
    page.close();
  });

  it('that was away is told what it missed; after too long it looks at everything anew', async () => {
    const first = await Page.at(api, 'tab=away');
    await first.until((said) => said.some((s) => s.event === 'change'));
    const last = first.said.find((s) => s.event === 'change')!.id!;
    first.close();
    await api.call('POST', '/rack', { ...piece, mark: 'L3' });
    for (const [query, headers] of [
      [`tab=away&after=${last}`, {}],
      // As a browser says it when it comes back by itself.
      ['tab=away&after=0', { 'Last-Event-ID': String(last) }],
    ] as const) {
      const back = await Page.at(other, query, headers);
      await back.until((said) => said.some((s) => s.event === 'change'));
      expect(back.changes.map((c) => c.topics.join())).toEqual(['rack']);
      back.close();
    }
    const newest = await newestChange(api.db);
    await api.db('changes').update({ made_at: new Date(0) });
    await forgetOldChanges(api.db);
    expect(await newestChange(api.db)).toBeGreaterThanOrEqual(newest);
    const late = await Page.at(api, `tab=late&after=${last - 1}`);
    await late.until((said) => said.some((s) => s.event === 'anew'));
    expect(late.changes).toEqual([]);
    late.close();
    // So does one that heard of what is not there: a backup was restored.
    const ahead = await Page.at(api, `tab=ahead&after=${newest + 500}`);
    await ahead.until((said) => said.some((s) => s.event === 'anew'));
    ahead.close();
  });

  it('is told of a change whose number was given out earlier than it was committed', async () => {
    const page = await Page.at(api, 'tab=order');
    const slow = await api.db.transaction();
    await slow('changes').insert({ topics: 'log', board: null, tab: null, made_at: new Date() });
    await api.call('POST', '/rack', { ...piece, mark: 'L4' });
    await page.until(() => page.changes.length === 1);
    // One that loses its stream now goes on before the number that is not there yet, whichever server it comes back to, and by when.
    const early = page.said.findLast((s) => s.id !== null)!.id!;
    expect(early).toBeLessThan(page.changes[0]!.id);
    await slow.commit();
    await page.until(() => page.changes.length === 2);
    expect(page.changes.map((c) => c.topics.join())).toEqual(['rack', 'log']);
    expect(page.changes[1]!.id).toBeLessThan(page.changes[0]!.id);
    expect(page.said.findLast((s) => s.id !== null)!.id).toBe(page.changes[0]!.id);
    page.close();
    const back = await Page.at(other, 'tab=order', { 'Last-Event-ID': String(early) });
    await back.until(() => back.changes.length === 2);
    expect(back.changes.map((c) => c.topics.join())).toEqual(['log', 'rack']);
    back.close();
  });

  it.each([
    ['', 'Tab'],
    ['tab=a%20b', 'Tab'],
    ['tab=a&after=-1', 'After must not be negative.'],
    [`tab=a&name=${'n'.repeat(41)}`, 'Name'],
  ])('that asks by "%s" is answered with what is wrong', async (query, sentence) => {
    const answer = await api.call('GET', `/live?${query}`);
    expect([answer.status, answer.body.code]).toEqual([400, 'invalid']);
    expect(answer.body.detail).toContain(sentence);
  });
});

describe('who is at a board', () => {
  it('is told to those who are there too, on every server: who comes, who goes, and whose server was killed', async () => {
    const desk = await Page.at(api, 'tab=desk&name=Desk&board=b');
    const tablet = await Page.at(other, 'tab=tablet&name=Tablet&board=b');
    const elsewhere = await Page.at(other, 'tab=else&name=Elsewhere&board=c');
    await desk.until(() => desk.here.join() === 'Desk,Tablet');
    await tablet.until(() => tablet.here.join() === 'Desk,Tablet');
    await elsewhere.until(() => elsewhere.here.join() === 'Elsewhere');
    // It goes to another board before its first stream has ended.
    const moved = await Page.at(other, 'tab=tablet&name=Tablet&board=c');
    tablet.close();
    await desk.until(() => desk.here.join() === 'Desk');
    await moved.until(() => moved.here.join() === 'Elsewhere,Tablet');
    // A server that was killed says nothing any more: another one clears up behind it.
    await api.db('presences').insert({ tab: 'dead', name: 'Dead', board: 'b', seen_at: new Date() });
    await api
      .db('presences')
      .where({ tab: 'dead' })
      .update({ seen_at: new Date(Date.now() - GONE_AFTER_MS - 1000) });
    await stay(api.db, ['desk']);
    await desk.until((said) => said.filter((s) => s.event === 'here').length >= 3);
    expect(desk.here).toEqual(['Desk']);
    expect(await api.db('presences').where({ tab: 'dead' })).toEqual([]);
    for (const page of [desk, elsewhere, moved]) page.close();
  });

  it('a server that stops ends its streams, and a page goes on at another one without missing anything', async () => {
    const third = await server();
    const page = await Page.at(third, 'tab=moves');
    await page.until((said) => said.some((s) => s.event === 'change'));
    const last = page.said.find((s) => s.event === 'change')!.id!;
    await third.close();
    await api.call('POST', '/rack', { ...piece, mark: 'L5' });
    const again = await Page.at(other, 'tab=moves', { 'Last-Event-ID': String(last) });
    await again.until(() => again.changes.length > 0);
    expect(again.changes.map((c) => c.topics.join())).toEqual(['rack']);
    again.close();
  });
});

it('a database that is gone for a while is asked again until it is back', async () => {
  const lone = await apiForTests('live_gone');
  let gone = false;
  const db = new Proxy(lone.db, {
    apply: (target, _this, args) => {
      if (gone) throw new Error('gone');
      return (target as unknown as (...a: unknown[]) => unknown)(...args);
    },
  });
  const feed = new ChangeFeed(db, 10);
  const told: LiveChange[] = [];
  await feed.subscribe((changes) => told.push(...changes));
  gone = true;
  await lone.call('POST', '/rack', { ...piece, mark: 'G1' });
  await new Promise((resolve) => setTimeout(resolve, 60));
  expect(told).toEqual([]);
  gone = false;
  while (told.length === 0) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(told.map((c) => c.topics.join())).toEqual(['rack']);
  feed.stop();
  await lone.close();
});
