import ICAL from 'ical.js';
import { beforeAll, describe, expect, it } from 'vitest';
import type { ShopWork } from '#contract/schedule.ts';
import { plainBoard, plainPiece } from '#core/plan/planArbitrary.ts';
import { firstSchedule } from '#core/schedule/improve.ts';
import { shopProblem } from '#core/schedule/shopProblem.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import { apiForTests, type TestApi } from './apiForTests.ts';

let api: TestApi;
let board: { id: string; revision: number; board: object };

beforeAll(async () => {
  api = await apiForTests('schedule');
  await api.call('PUT', '/shop', { version: 0, shop: { ...DEFAULT_SHOP, name: 'Shed', zone: 'Europe/Vienna' } });
  const { id: _, ...piece } = plainPiece({ mark: 'A1', length: 2400, width: 220, thickness: 56, count: 8 });
  await api.call('POST', '/rack', piece);
  board = (
    await api.call(
      'POST',
      '/boards',
      plainBoard({ name: 'Bread', length: 300, width: 180, thickness: 30 }, [45, 45, 45, 45]),
    )
  ).body;
  return () => api.close();
});
const work = async () => (await api.call('GET', '/schedule?complete=true')).body as ShopWork;
const texts = async (path: string) => {
  const response = await fetch(`${api.base}${path}`);
  return { status: response.status, type: response.headers.get('content-type'), text: await response.text() };
};

describe('the work of the shop', () => {
  it('a board is idle until it has a day or is taken up, and rests when it is put off', async () => {
    const idle = await work();
    expect([idle.boards, idle.idle.map((b) => b.name), idle.version]).toEqual([[], ['Bread'], 0]);
    const decide = (version: number, taken: string[], waiting: string[]) =>
      api.call('PUT', '/schedule', { version, schedule: { order: [], taken, waiting } });
    expect((await decide(0, [board.id], [])).body.version).toBe(1);
    expect((await work()).boards.map((b) => b.id)).toEqual([board.id]);
    await decide(1, [], [board.id]);
    const off = await work();
    expect([off.boards, off.idle[0]!.waiting]).toEqual([[], true]);
    await api.call('PUT', '/schedule', { version: 2, schedule: { order: [], taken: [board.id], waiting: [] } });
  });

  it('two devices that order the work at once: one gets in, the other is told what is there', async () => {
    const { version, schedule } = await work();
    const [one, two] = await Promise.all(
      ['x', 'y'].map((id) => api.call('PUT', '/schedule', { version, schedule: { ...schedule, order: [id] } })),
    );
    expect([one!.status, two!.status].sort()).toEqual([200, 409]);
    const refused = one!.status === 409 ? one! : two!;
    expect([refused.body.code, refused.body.current.version]).toEqual(['stale', version + 1]);
  });

  it('what is done at the bench, pinned or due is in it at once', async () => {
    const before = (await work()).boards[0]!;
    const first = before.work.tasks[0]!;
    await api.call('POST', `/boards/${board.id}/facts`, {
      facts: [
        {
          kind: 'done',
          id: 'f1',
          at: new Date().toISOString(),
          step: first.step,
          copy: 1,
          minutes: 12,
          wait: null,
          ends: [],
        },
      ],
    });
    const after = (await work()).boards[0]!;
    expect([after.work.past.map((p) => p.step), after.work.tasks.length]).toEqual([
      [first.step],
      before.work.tasks.length - 1,
    ]);
    const stored = (await api.call('GET', `/boards/${board.id}`)).body;
    const at = new Date(Date.now() + 5 * 86_400_000).toISOString();
    const due = { day: '2031-05-01', time: '06:30', cured: false };
    await api.call('PUT', `/boards/${board.id}`, {
      basedOn: stored.revision,
      board: { ...stored.board, due, pins: [{ step: after.work.tasks[0]!.step, copy: 1, at, person: null }] },
    });
    const pinned = (await work()).boards[0]!;
    expect([pinned.due, pinned.work.tasks[0]!.pinned]).toEqual([due, Date.parse(at) / 60_000]);
  });

  it.each([
    [{ order: ['a', 'a'] }, 'schedule.order', /each step once/],
    [{ taken: 'all' }, 'schedule.taken', /array|list/i],
  ])('%j is refused by name, and nothing changes', async (change, path, why) => {
    const { version, schedule } = await work();
    const { status, body } = await api.call('PUT', '/schedule', { version, schedule: { ...schedule, ...change } });
    expect([status, body.fields[0].path]).toEqual([400, path]);
    expect(body.fields[0].message).toMatch(why);
    expect((await work()).version).toBe(version);
  });
});

describe('a calendar that others subscribe to', () => {
  it('is closed until somebody makes an address; guesses and old addresses find nothing', async () => {
    expect((await texts('/calendar/guess.ics')).status).toBe(404);
    const { path } = (await api.call('POST', '/schedule/calendar')).body as { path: string };
    const secret = path.slice('/api/calendar/'.length, -'.ics'.length);
    expect(secret.length).toBeGreaterThanOrEqual(40);
    expect((await texts(`/calendar/${secret}.ics`)).status).toBe(200);
    for (const guess of [
      secret.slice(1),
      `${secret}x`,
      secret.toLowerCase() === secret ? 'a' : secret.toLowerCase(),
      '%00',
      '..%2f',
      "' or 1=1",
    ])
      expect((await texts(`/calendar/${guess}.ics`)).status).toBe(404);
    const next = (await api.call('POST', '/schedule/calendar')).body as { path: string };
    expect((await texts(`/calendar/${secret}.ics`)).status).toBe(404);
    expect((await texts(next.path.slice(4))).status).toBe(200);
    await api.call('POST', '/schedule/calendar/close');
    expect((await texts(next.path.slice(4))).status).toBe(404);
    expect((await work()).calendar).toBe(false);
  });

  it('tells every step where the schedule has it, and reminds of waits; another reader reads it so', async () => {
    const { path } = (await api.call('POST', '/schedule/calendar')).body as { path: string };
    const told = await texts(path.slice(4));
    expect(told.type).toContain('text/calendar');
    const calendar = new ICAL.Component(ICAL.parse(told.text));
    const events = calendar.getAllSubcomponents('vevent').map((c) => new ICAL.Event(c));
    const now = await work();
    const schedule = firstSchedule(
      shopProblem(
        now.boards.map((b) => ({ work: b.work, due: b.due })),
        now.shop,
        now.zone,
        Math.floor(Date.parse(now.now) / 60_000),
      ),
      now.schedule.order,
    );
    const waits = now.boards.flatMap((b) => b.work.tasks).filter((t) => t.wait >= 5);
    const hands = [...schedule.placed.values()].flatMap((p) => p.hands);
    const reminding = events.filter((e) => e.component.getFirstSubcomponent('valarm'));
    expect([events.length, reminding.length]).toEqual([hands.length + waits.length, waits.length]);
    expect(new Set(events.map((e) => e.uid)).size).toBe(events.length);
    const begins = events.filter((e) => !reminding.includes(e)).map((e) => e.startDate.toJSDate().getTime());
    for (const hand of hands) expect(begins.some((b) => Math.abs(b - hand.from * 60_000) < 61_000)).toBe(true);
    expect(events.every((e) => e.summary.startsWith('Bread: '))).toBe(true);
  });
});

describe('what is to be bought', () => {
  it('is kept with its ticks; two devices never overwrite each other', async () => {
    const { version } = (await api.call('GET', '/shopping')).body;
    const shopping = { boards: [board.id], ticked: ['glue water-resistant'] };
    expect((await api.call('PUT', '/shopping', { version, shopping })).body).toEqual({
      version: version + 1,
      shopping,
    });
    const late = await api.call('PUT', '/shopping', { version, shopping: { boards: null, ticked: [] } });
    expect([late.status, late.body.current.shopping]).toEqual([409, shopping]);
  });

  it('pieces know since when they lie in the rack, also after they were changed', async () => {
    const [stored] = await api.list<{ piece: { id: string }; version: number; since: string }>('/rack');
    const { id, ...piece } = stored!.piece;
    await new Promise((resolve) => setTimeout(resolve, 5));
    const changed = await api.call('PUT', `/rack/${id}`, {
      version: stored!.version,
      piece: { ...piece, note: 'Dry' },
    });
    expect(changed.body.since).toBe(stored!.since);
  });

  it('earlier prices are those of the log', async () => {
    expect((await api.call('GET', '/money/earlier')).body).toEqual({ boardsYear: 0, prices: [] });
  });
});
