import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plainBoard } from '#core/plan/planArbitrary.ts';
import { newDatabase } from '../../../bin/mariadb/testDatabase.ts';
import { serveApi, type TestApi } from '../apiForTests.ts';
import { openDatabase } from '../stores/database.ts';
import { addDevice } from '../stores/deviceStore.ts';
import { openStore } from '../stores/openStore.ts';
import { setPassphrase } from '../stores/passphraseStore.ts';
import { makeLog } from './requestLog.ts';

const PASSPHRASE = 'four planed mules asleep';
const written: Record<string, unknown>[] = [];
let api: TestApi;
let origin: string;
let cookie: string;
let ending = false;
beforeAll(async () => {
  const url = await newDatabase(process.env.TEST_DATABASE_URL!, 'watch');
  const db = openDatabase(url);
  await openStore(db);
  await setPassphrase(db, PASSPHRASE);
  cookie = `cadenza=${await addDevice(db, { name: 'Desk', person: null, may: 'work' })}`;
  await db.destroy();
  api = await serveApi(url, {
    around: { asked: true, addresses: [] },
    log: makeLog('info', { write: (line: string) => void written.push(JSON.parse(line) as Record<string, unknown>) }),
    ending: () => ending,
    limits: { refusals: 60 },
  });
  origin = api.base.slice(0, -'/api'.length);
});
afterAll(() => api.close());

const ask = (path: string, init: RequestInit = {}) => fetch(origin + path, { redirect: 'manual', ...init });

describe('what is written down', () => {
  it('is every answer by the name of its operation, under the id that the answer carries, and no secret', async () => {
    written.length = 0;
    const made = await ask('/api/boards', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Cookie: cookie, 'X-Request-Id': 'given-by-a-proxy' },
      body: JSON.stringify(plainBoard({ name: 'Secret of the shop' })),
    });
    expect(made.headers.get('x-request-id')).toBe('given-by-a-proxy');
    const odd = await ask('/api/boards/none?secret=1', { headers: { Cookie: cookie, 'X-Request-Id': 'a b\tc' } });
    expect(odd.headers.get('x-request-id')).toMatch(/^[\w-]{12}$/);
    await ask('/api/calendar/a-secret-address');
    await ask('/join/a-secret-code');
    await ask('/sign-in', {
      method: 'POST',
      body: new URLSearchParams({ passphrase: 'a wrong passphrase', device: 'x' }),
    });
    while (written.length < 5) await new Promise((resolve) => setTimeout(resolve, 5));
    expect(written.map(({ asked, status }) => [asked, status])).toEqual([
      ['post /boards', 201],
      ['get /boards/{id}', 404],
      ['get /calendar/{secret}', 404],
      ['get page', 404],
      ['post page', 401],
    ]);
    expect(written[0]).toMatchObject({
      id: 'given-by-a-proxy',
      level: 30,
      device: expect.stringMatching(/^[\w-]{12}$/),
    });
    const all = JSON.stringify(written);
    for (const secret of ['Secret of', 'secret=1', 'a-secret', 'wrong passphrase', cookie.slice(8)])
      expect(all).not.toContain(secret);
  });

  it('is a fault of the server with what it was, and the answer tells nothing of the inside', async () => {
    written.length = 0;
    await api.db.schema.renameTable('shopping', 'shopping_gone');
    const answer = await ask('/api/shopping', { headers: { Cookie: cookie } });
    await api.db.schema.renameTable('shopping_gone', 'shopping');
    expect(answer.status).toBe(500);
    expect(await answer.text()).not.toMatch(/shopping|select/);
    expect(written.find((w) => w.msg === 'failed')).toMatchObject({
      asked: 'get /shopping',
      level: 50,
      id: answer.headers.get('x-request-id'),
    });
  });
});

describe('figures', () => {
  it('are told to this machine alone, and not through a proxy', async () => {
    await ask('/api/rack', { headers: { Cookie: cookie } });
    const text = await (await ask('/metrics')).text();
    expect(text).toMatch(/^cadenza_answers_total\{operation="get \/rack",status="200"\} [1-9]/m);
    expect(text).toMatch(/^cadenza_answer_seconds_count\{operation="get \/rack"\} [1-9]/m);
    for (const name of ['cadenza_open_pages', 'cadenza_database_connections', 'cadenza_memory_bytes'])
      expect(text).toMatch(new RegExp(`^${name} [\\d.]+`, 'm'));
    expect((await ask('/metrics', { headers: { 'X-Forwarded-For': '127.0.0.1' } })).status).not.toBe(200);
  });
});

describe('health', () => {
  it('tells life apart from being ready for work', async () => {
    expect((await ask('/api/health/ready')).status).toBe(200);
    ending = true;
    const ready = await ask('/api/health/ready');
    expect([ready.status, ((await ready.json()) as { status: string }).status]).toEqual([503, 'ending']);
    expect((await ask('/api/health/live')).status).toBe(200);
    ending = false;
  });
});

describe('too many requests', () => {
  it('of strangers are refused for a while', async () => {
    const statuses = await Promise.all(Array.from({ length: 200 }, () => ask('/api/boards').then((a) => a.status)));
    expect(new Set(statuses)).toEqual(new Set([401, 429]));
    const problem = (await (await ask('/api/boards')).json()) as { code: string; detail: string };
    expect([problem.code, problem.detail]).toEqual(['too-often', expect.stringContaining('Wait ten seconds')]);
  });
});
