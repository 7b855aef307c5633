import { mkdtempSync, mkdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Device, Devices, Right } from '#contract/devices.ts';
import { plainBoard } from '#core/plan/planArbitrary.ts';
import { newDatabase } from '../../../bin/mariadb/testDatabase.ts';
import { serveApi, type TestApi } from '../apiForTests.ts';
import { allowedHosts } from '../guard.ts';
import { ChangeFeed } from '../live/changeFeed.ts';
import { LiveRoutes } from '../live/liveRoutes.ts';
import { BACKUP_DESCRIBED } from '../backup/backupRoutes.ts';
import { operations } from '../operations/index.ts';
import { startServer, StartError } from '../serve.ts';
import { openDatabase } from '../stores/database.ts';
import { addDevice } from '../stores/deviceStore.ts';
import { openStore } from '../stores/openStore.ts';
import { passphraseProblem, setPassphrase } from '../stores/passphraseStore.ts';

const PASSPHRASE = 'four planed mules asleep';
const web = mkdtempSync(join(tmpdir(), 'cadenza-web-'));
mkdirSync(join(web, 'assets'));
writeFileSync(join(web, 'index.html'), '<!doctype html><title>Inside</title>');
writeFileSync(join(web, 'assets', 'a.js'), 'export const a = 1;');

let url: string;
let api: TestApi;
let live: LiveRoutes;
let origin: string;
beforeAll(async () => {
  url = await newDatabase(process.env.TEST_DATABASE_URL!, 'signin');
  const db = openDatabase(url);
  await openStore(db);
  await setPassphrase(db, PASSPHRASE);
  live = new LiveRoutes(db, new ChangeFeed(db, 20));
  api = await serveApi(url, {
    webFolder: web,
    live,
    around: { asked: true, addresses: ['http://192.0.2.1:4180'] },
    proxies: ['loopback'],
    hosts: allowedHosts('127.0.0.1', 'shed.example'),
    keeper: { url, program: (name) => name, folder: join(web, 'copies') },
    // A thousand guesses are made here.
    limits: { refusals: 5000 },
  });
  origin = api.base.slice(0, -'/api'.length);
});
beforeEach(() => api.db('attempts').delete());
afterAll(async () => {
  live.stop();
  await api.close();
});

const ask = (path: string, init: RequestInit = {}) => fetch(origin + path, { redirect: 'manual', ...init });
const form = (fields: Record<string, string>, headers: Record<string, string> = {}): RequestInit => ({
  method: 'POST',
  body: new URLSearchParams(fields),
  headers,
});
const signIn = (passphrase: string, device = 'Tablet', to = '', headers = {}) =>
  ask(`/sign-in${to}`, form({ passphrase, device }, headers));
/** What a browser keeps of an answer. */
const cookieOf = (response: Response) => (response.headers.get('set-cookie') ?? '').split(';')[0]!;
/** The cookie of a device that was let in. */
const deviceWith = async (may: Right, name = 'A device', said = true) =>
  `cadenza=${await addDevice(api.db, { name, person: null, may }, said)}`;
const alert = async (response: Response) => /<p role="alert">([^<]*)/.exec(await response.text())?.[1];

/** A path of an operation with something in its braces. */
const somewhere = (path: string) => path.replace('{number}', '1').replace(/\{\w+\}/g, 'nothing');

describe('a device that is not known', () => {
  it('gets nothing of any operation, of the live stream or of the description, and says how to go on', async () => {
    const paths = operations
      .filter((o) => !o.path.startsWith('/calendar/'))
      .map((o) => [o.method.toUpperCase(), `/api${somewhere(o.path)}`] as const);
    expect(paths.length).toBeGreaterThan(55);
    for (const [method, path] of [
      ...paths,
      ['POST', '/api/devices/confirm'],
      ...BACKUP_DESCRIBED.map(([path, method]) => [method.toUpperCase(), `/api${somewhere(path)}`] as const),
      ['GET', '/api/openapi.json'],
      ['GET', '/api/live?tab=a'],
      ['GET', '/api/nothing'],
    ] as const) {
      const answer = await ask(path, {
        method,
        ...(method === 'GET' ? {} : { body: '{}', headers: { 'Content-Type': 'application/json' } }),
      });
      expect([method, path, answer.status, ((await answer.json()) as { code: string }).code]).toEqual([
        method,
        path,
        401,
        'sign-in',
      ]);
    }
  });

  it('is led from a page to where one signs in, and gets neither the page nor its parts', async () => {
    const page = await ask('/boards/b1/bench?step=a', { headers: { Accept: 'text/html' } });
    expect([page.status, page.headers.get('location')]).toEqual([303, '/sign-in?to=%2Fboards%2Fb1%2Fbench%3Fstep%3Da']);
    for (const path of ['/assets/a.js', '/index.html', '/manifest.webmanifest'])
      expect([path, (await ask(path)).status]).toEqual([path, 401]);
    const door = await (await ask('/sign-in')).text();
    expect(door).toContain('<form method="post"');
    expect(door).not.toContain('Inside');
  });

  it('may know that the server lives, and read a calendar only by its secret', async () => {
    expect((await ask('/api/health')).status).toBe(200);
    expect((await ask('/api/calendar/guessed')).status).toBe(404);
    const cookie = await deviceWith('work');
    const made = await ask('/api/schedule/calendar', {
      method: 'POST',
      headers: { Cookie: cookie, 'Content-Type': 'application/json' },
      body: '{}',
    });
    const { path } = (await made.json()) as { path: string };
    expect((await (await ask(path)).text()).startsWith('BEGIN:VCALENDAR')).toBe(true);
  });

  it.each([
    ['none', ''],
    ['one of another name', 'other=abc'],
    ['one that was made up', 'cadenza=AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA'],
    ['an empty one', 'cadenza='],
    ['half a character', 'cadenza=%ED%A0%80'],
    ['a very long one', `cadenza=${'x'.repeat(4000)}`],
  ])('is not known by a cookie such as %s', async (_, Cookie) => {
    expect((await ask('/api/boards', { headers: { Cookie } })).status).toBe(401);
  });
});

describe('the passphrase', () => {
  it('lets a device in by a cookie that no script and no other site can use; what is stored lets nobody in', async () => {
    const answer = await signIn(PASSPHRASE, 'The bench tablet', '?to=%2Frack');
    expect([answer.status, answer.headers.get('location')]).toEqual([303, '/rack']);
    expect(answer.headers.get('set-cookie')).toMatch(
      /^cadenza=[\w-]{43}; Max-Age=\d+; Path=\/; .*HttpOnly; SameSite=Lax$/,
    );
    const Cookie = cookieOf(answer);
    expect((await ask('/', { headers: { Cookie } })).status).toBe(200);
    const { devices, own, may } = (await (await ask('/api/devices', { headers: { Cookie } })).json()) as Devices;
    expect([devices.find((d) => d.id === own)?.name, may]).toEqual(['The bench tablet', 'work']);
    const [[tables]] = [await Promise.all(['devices', 'doors', 'changes', 'writes'].map((t) => api.db(t).select()))];
    expect(JSON.stringify(tables)).not.toContain(Cookie.slice('cadenza='.length));
    expect(JSON.stringify(await api.db('doors').select())).toMatch(/\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  });

  it('through a proxy with TLS the cookie goes over TLS alone and belongs to this very name', async () => {
    const answer = await signIn(PASSPHRASE, 'Phone', '', {
      'X-Forwarded-Proto': 'https',
      'X-Forwarded-For': '198.51.100.7',
    });
    expect(answer.headers.get('set-cookie')).toMatch(/^__Host-cadenza=.*; Path=\/; .*HttpOnly; Secure; SameSite=Lax$/);
    // The same secret under the plain name is another cookie.
    const Cookie = cookieOf(answer).replace('__Host-', '');
    expect((await ask('/api/boards', { headers: { Cookie, 'X-Forwarded-Proto': 'https' } })).status).toBe(401);
  });

  it.each(['//evil.example', '/\\evil.example', 'https://evil.example', '/a b', '/sign-in?to=/', 'rack'])(
    'leads to no other place than one of this server: not to "%s"',
    async (to) => {
      const answer = await signIn(PASSPHRASE, 'Phone', `?to=${encodeURIComponent(to)}`);
      expect(answer.headers.get('location')).toBe('/');
    },
  );

  it('that is wrong, missing or far too long is said so, and the name of the device stays', async () => {
    const wrong = await signIn('something else <b>', 'My "tablet" <x>');
    const text = await wrong.text();
    expect([wrong.status, wrong.headers.get('set-cookie')]).toEqual([401, null]);
    expect(text).toContain('That is not the passphrase.');
    expect(text).toContain('value="My &quot;tablet&quot; &lt;x&gt;"');
    expect(text).not.toContain('<x>');
    expect([(await signIn('', 'x')).status, await alert(await signIn('', 'x'))]).toEqual([
      400,
      'Passphrase must be given.',
    ]);
    expect(await alert(await signIn('x'.repeat(201), 'x'))).toBe('Passphrase must be at most 200 characters.');
    expect(await alert(await signIn(PASSPHRASE, '  '))).toMatch(/^Device /);
    expect((await ask('/sign-in', form({ passphrase: 'x'.repeat(9000), device: 'x' }))).status).toBe(413);
  });

  it('guessed a thousand times is hardly ever looked at, the true one has to wait too, and after the wait it is let in', async () => {
    const began = Date.now();
    const answers = await Promise.all(
      Array.from({ length: 1000 }, (_, i) => signIn(`guess number ${i}`, 'Guesser').then((a) => a.status)),
    );
    const counts = new Map([...new Set(answers)].map((s) => [s, answers.filter((a) => a === s).length]));
    expect([...counts.keys()].every((s) => [401, 429, 503].includes(s))).toBe(true);
    // A handful, and one each time the wait doubles.
    expect(counts.get(401)).toBeLessThanOrEqual(6 + Math.log2(1 + (Date.now() - began) / 1000));
    // However long that took: the last failure was just now.
    await api.db('attempts').update({ made_at: new Date() });
    const waits = await signIn(PASSPHRASE);
    expect(waits.status).toBe(429);
    expect(Number(waits.headers.get('retry-after'))).toBeGreaterThan(0);
    expect(await alert(waits)).toMatch(/^That was not it too often\. Try again in \d+ seconds\.$/);
    // Somebody else, at another address, is not kept waiting.
    expect((await signIn(PASSPHRASE, 'Other', '', { 'X-Forwarded-For': '198.51.100.8' })).status).toBe(303);
    await api.db('attempts').update({ made_at: new Date(Date.now() - 16 * 60_000) });
    expect((await signIn(PASSPHRASE)).status).toBe(303);
    expect(await api.db('attempts').where('address', 'like', '%127.0.0.1')).toEqual([]);
  });

  it('must be one: not too short, not of the same few signs, not what everybody tries first', async () => {
    for (const [text, problem] of [
      ['short', 'at least 12 characters'],
      ['aaaaaaaaaaaaaaaa', 'at least 5 different'],
      ['x'.repeat(300), 'at most 200'],
      ['password12345678', 'tried first'],
      ['qwertyuiop123', 'tried first'],
      ['iloveyou-iloveyou', 'tried first'],
      ['cadenza-cadenza', 'tried first'],
      ['another four words here', null],
      [PASSPHRASE, null],
    ] as const)
      expect([text, await passphraseProblem(text)]).toEqual([
        text,
        problem === null ? null : expect.stringContaining(problem),
      ]);
  });

  it('that is changed ends every session and every code; the new one holds on every server', async () => {
    const before = await deviceWith('work');
    await setPassphrase(api.db, 'another four words here');
    expect((await ask('/api/boards', { headers: { Cookie: before } })).status).toBe(401);
    expect((await signIn(PASSPHRASE)).status).toBe(401);
    expect((await signIn('another four words here')).status).toBe(303);
    await setPassphrase(api.db, PASSPHRASE);
  });

  it('is not taken from a form of another site', async () => {
    const answer = await signIn(PASSPHRASE, 'x', '', { Origin: 'https://evil.example' });
    expect([answer.status, answer.headers.get('set-cookie')]).toEqual([403, null]);
  });
});

describe('rights', () => {
  it('a device that may look reads everything and changes nothing, whatever is asked', async () => {
    const Cookie = await deviceWith('look');
    for (const { method, path } of operations.filter((o) => o.method !== 'get')) {
      const answer = await ask(`/api${somewhere(path)}`, {
        method: method.toUpperCase(),
        headers: { Cookie, 'Content-Type': 'application/json' },
        body: JSON.stringify(plainBoard()),
      });
      expect([path, answer.status, ((await answer.json()) as { code: string }).code]).toEqual([path, 403, 'look-only']);
    }
    // Nor does it take everything out, or put anything back.
    for (const [path, method] of BACKUP_DESCRIBED) {
      const answer = await ask(`/api${somewhere(path)}`, {
        method: method.toUpperCase(),
        headers: { Cookie, 'Content-Type': 'application/json' },
        ...(method === 'get' ? {} : { body: '{}' }),
      });
      expect([path, answer.status, ((await answer.json()) as { code: string }).code]).toEqual([path, 403, 'look-only']);
    }
    for (const path of ['/api/boards', '/api/rack', '/api/shop', '/api/devices'])
      expect((await ask(path, { headers: { Cookie } })).status).toBe(200);
  });

  it('are given, taken and named by a device that may work, but not taken from itself; what is odd is refused by name', async () => {
    const Cookie = await deviceWith('work', 'Desk');
    const other = await deviceWith('look', 'Phone');
    const write = (method: string, path: string, body: unknown) =>
      ask(`/api${path}`, {
        method,
        headers: { Cookie, 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
      });
    const { devices, own } = (await (await ask('/api/devices', { headers: { Cookie } })).json()) as Devices;
    const phone = devices.find((d: Device) => d.name === 'Phone' && d.id !== own)!;
    expect((await write('PUT', `/devices/${phone.id}`, { name: 'Yard phone', person: 'p1', may: 'work' })).status).toBe(
      200,
    );
    expect(
      (
        await ask('/api/schedule', {
          method: 'PUT',
          headers: { Cookie: other, 'Content-Type': 'application/json' },
          body: '{}',
        })
      ).status,
    ).toBe(400);
    for (const [body, sentence] of [
      [{ name: '', person: null, may: 'work' }, 'Name'],
      [{ name: 'x', person: null, may: 'all' }, 'May must be work or look.'],
      [{ name: 'x', person: 'a b', may: 'look' }, 'Person'],
    ] as const) {
      const answer = await write('PUT', `/devices/${phone.id}`, body);
      expect([answer.status, ((await answer.json()) as { detail: string }).detail]).toEqual([
        400,
        expect.stringContaining(sentence),
      ]);
    }
    const self = await write('PUT', `/devices/${own}`, { name: 'Desk', person: null, may: 'look' });
    expect([self.status, ((await self.json()) as { code: string }).code]).toEqual([409, 'own-device']);
    expect((await write('PUT', '/devices/nobody', { name: 'x', person: null, may: 'look' })).status).toBe(404);
  });
});

describe('a device on which the passphrase was not said for a while', () => {
  const write = (Cookie: string, method: string, path: string, body: unknown = {}) =>
    ask(`/api${path}`, {
      method,
      headers: { Cookie, 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  const problem = async (answer: Response) => [answer.status, ((await answer.json()) as { code: string }).code];

  it('is asked for it before it decides who else may work, or what is restored; then it may for ten minutes', async () => {
    const Cookie = await deviceWith('work', 'Left open', false);
    await deviceWith('look', 'Another phone');
    const { devices } = (await (await ask('/api/devices', { headers: { Cookie } })).json()) as Devices;
    const { id } = devices.find((d) => d.name === 'Another phone')!;
    const decisions: [string, string, unknown][] = [
      ['POST', '/devices/invite', { person: null, may: 'work' }],
      ['PUT', `/devices/${id}`, { name: 'Another phone', person: null, may: 'work' }],
      ['POST', '/backups/restore', { token: 'anything' }],
      ['POST', '/backups/back', {}],
    ];
    for (const decision of decisions)
      expect([decision[1], ...(await problem(await write(Cookie, ...decision)))]).toEqual([
        decision[1],
        403,
        'confirm',
      ]);
    // Work, names, and letting somebody look, go on.
    expect((await write(Cookie, 'POST', '/boards', plainBoard())).status).toBe(201);
    expect((await write(Cookie, 'POST', '/devices/invite', { person: null, may: 'look' })).status).toBe(201);
    expect((await write(Cookie, 'PUT', `/devices/${id}`, { name: 'Renamed', person: null, may: 'look' })).status).toBe(
      200,
    );

    expect(await problem(await write(Cookie, 'POST', '/devices/confirm', { passphrase: 'not that one' }))).toEqual([
      400,
      'wrong-passphrase',
    ]);
    expect(await problem(await write(Cookie, 'POST', '/devices/confirm', {}))).toEqual([400, 'invalid']);
    expect((await write(Cookie, 'POST', '/devices/confirm', { passphrase: PASSPHRASE })).status).toBe(204);
    expect((await write(Cookie, ...decisions[0]!)).status).toBe(201);
    expect((await write(Cookie, ...decisions[1]!)).status).toBe(200);
    // Said on one device it is said on that one alone, and not for ever.
    const other = await deviceWith('work', 'A third', false);
    expect(await problem(await write(other, ...decisions[0]!))).toEqual([403, 'confirm']);
    await api.db('devices').update({ confirmed_at: new Date(Date.now() - 11 * 60_000) });
    expect(await problem(await write(Cookie, ...decisions[0]!))).toEqual([403, 'confirm']);
  });

  it('is kept waiting after many wrong ones, like anybody who signs in', async () => {
    const Cookie = await deviceWith('work', 'Guesser', false);
    const answers = [];
    for (let i = 0; i < 8; i += 1)
      answers.push((await write(Cookie, 'POST', '/devices/confirm', { passphrase: `guess ${i}` })).status);
    expect(answers.slice(0, 5)).toEqual([400, 400, 400, 400, 400]);
    expect(answers.at(-1)).toBe(429);
    // Each counts by itself: the one who guessed, and whoever is no such device.
    expect((await signIn(PASSPHRASE, 'Again', '', { Cookie })).status).toBe(429);
    expect((await signIn(PASSPHRASE)).status).toBe(303);
    const other = await deviceWith('work', 'Another one', false);
    expect((await write(other, 'POST', '/devices/confirm', { passphrase: PASSPHRASE })).status).toBe(204);
  });

  it('is never made to wait behind strangers, however many guess from wherever', async () => {
    const Cookie = await deviceWith('work', 'At the bench', false);
    await api.db('attempts').insert(
      Array.from({ length: 300 }, (_, i) => ({
        address: i < 150 ? '::ffff:127.0.0.1' : `192.0.2.${i - 100}`,
        made_at: new Date(),
      })),
    );
    expect((await signIn(PASSPHRASE)).status).toBe(429);
    const crowd = Array.from({ length: 30 }, (_, i) =>
      signIn(`a guess ${i}`, 'Guesser', '', { 'X-Forwarded-For': `198.51.100.${i}` }),
    );
    expect((await write(Cookie, 'POST', '/devices/confirm', { passphrase: PASSPHRASE })).status).toBe(204);
    expect((await signIn(PASSPHRASE, 'At the bench', '', { Cookie })).status).toBe(303);
    await Promise.all(crowd);
  });

  it('is asked for before anything is taken out, or a file of somebody is read', async () => {
    const Cookie = await deviceWith('work', 'Left open', false);
    const get = await ask('/api/backups/all', { headers: { Cookie } });
    expect(await problem(get)).toEqual([403, 'confirm']);
    for (const path of ['/backups/all/ready', '/backups/copies/cadenza-2026-01-01T000000Z.sql/look'])
      expect(await problem(await write(Cookie, 'POST', path))).toEqual([403, 'confirm']);
    const sent = { method: 'POST', headers: { Cookie, 'Content-Type': 'application/sql' }, body: 'x' };
    expect(await problem(await ask('/api/backups/look', sent))).toEqual([403, 'confirm']);
    await write(Cookie, 'POST', '/devices/confirm', { passphrase: PASSPHRASE });
    expect((await write(Cookie, 'POST', '/backups/all/ready')).status).toBe(204);
    expect(await problem(await ask('/api/backups/look', sent))).toEqual([409, 'backup']);
  });
});

it('what is noted at the bench is known by whom, where a device is somebody\u2019s', async () => {
  const token = await addDevice(api.db, { name: 'Bench tablet', person: 'ada', may: 'work' });
  const send = async (Cookie: string, method: string, path: string, body?: unknown) =>
    (await (
      await ask(`/api${path}`, {
        method,
        headers: { Cookie, 'Content-Type': 'application/json' },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      })
    ).json()) as Record<string, unknown>;
  const [hers, nobodys] = [`cadenza=${token}`, await deviceWith('work')];
  const { id } = await send(hers, 'POST', '/boards', plainBoard());
  const note = (fact: string) => ({
    facts: [{ kind: 'note', id: fact, at: '2026-11-28T08:00:00.000Z', text: 'Begun' }],
  });
  await send(hers, 'POST', `/boards/${String(id)}/facts`, note('f1'));
  // Sent again from another device it stays hers.
  await send(nobodys, 'POST', `/boards/${String(id)}/facts`, note('f1'));
  const noted = await send(nobodys, 'POST', `/boards/${String(id)}/facts`, note('f2'));
  expect(noted.by).toEqual({ f1: 'ada' });
});

describe('a session', () => {
  it('that is ended is over at once: for requests, and for the stream that is open', async () => {
    const Cookie = await deviceWith('work', 'Lost');
    const desk = await deviceWith('work', 'Desk');
    const stream = await ask('/api/live?tab=lost', { headers: { Cookie } });
    const closed = (async () => {
      for await (const _part of stream.body!);
    })();
    const { devices } = (await (await ask('/api/devices', { headers: { Cookie: desk } })).json()) as Devices;
    const lost = devices.find((d) => d.name === 'Lost')!;
    expect(
      (
        await ask(`/api/devices/${lost.id}/end`, {
          method: 'POST',
          headers: { Cookie: desk, 'Content-Type': 'application/json' },
          body: '{}',
        })
      ).status,
    ).toBe(200);
    expect((await ask('/api/boards', { headers: { Cookie } })).status).toBe(401);
    await closed;
  });

  it('of a device that was not seen for a quarter of a year is over', async () => {
    const Cookie = await deviceWith('work', 'Forgotten');
    await api
      .db('devices')
      .where({ name: 'Forgotten' })
      .update({ seen_at: new Date(Date.now() - 91 * 86_400_000) });
    expect((await ask('/api/boards', { headers: { Cookie } })).status).toBe(401);
  });

  it('is ended by signing out, and the secret is worth nothing then', async () => {
    const Cookie = await deviceWith('work');
    const out = await ask('/sign-out', { method: 'POST', headers: { Cookie } });
    expect([out.status, out.headers.get('location')]).toEqual([303, '/sign-in']);
    expect((await ask('/api/boards', { headers: { Cookie } })).status).toBe(401);
  });

  it('signing in again on the same device leaves one of it', async () => {
    const first = cookieOf(await signIn(PASSPHRASE, 'Twice'));
    await signIn(PASSPHRASE, 'Twice', '', { Cookie: first });
    expect(await api.db('devices').where({ name: 'Twice' })).toHaveLength(1);
  });
});

describe('a code for another device', () => {
  const invite = async (may: Right = 'work') => {
    const Cookie = await deviceWith('work');
    const answer = await ask('/api/devices/invite', {
      method: 'POST',
      headers: { Cookie, 'Content-Type': 'application/json' },
      body: JSON.stringify({ person: 'p1', may }),
    });
    return ((await answer.json()) as { path: string }).path;
  };

  it('lets one device in, with the rights it was made for; looking at it uses nothing up', async () => {
    const path = await invite('look');
    for (let i = 0; i < 2; i += 1) expect(await (await ask(path)).text()).toContain('Use Cadenza on this device');
    const joined = await ask(path, form({ device: 'Yard phone' }));
    expect([joined.status, joined.headers.get('location')]).toEqual([303, '/']);
    const { devices, own, may } = (await (
      await ask('/api/devices', { headers: { Cookie: cookieOf(joined) } })
    ).json()) as Devices;
    expect([may, devices.find((d) => d.id === own)]).toEqual([
      'look',
      expect.objectContaining({ name: 'Yard phone', person: 'p1' }),
    ]);
    const again = await ask(path, form({ device: 'Second' }));
    expect([again.status, again.headers.get('set-cookie')]).toEqual([404, null]);
    expect(await again.text()).toContain('This code is not good any more');
  });

  it('used by two at the same moment lets one of them in', async () => {
    const path = await invite();
    const both = await Promise.all(['a', 'b', 'c'].map((device) => ask(path, form({ device }))));
    expect(both.map((a) => a.status).sort()).toEqual([303, 404, 404]);
  });

  it('is over after ten minutes; a page of another site that asks for codes keeps nobody from signing in', async () => {
    const path = await invite();
    await api.db('invitations').update({ expires_at: new Date(Date.now() - 1000) });
    expect((await ask(path, form({ device: 'Late' }))).status).toBe(404);
    const guesses = [];
    for (let i = 0; i < 12; i += 1)
      guesses.push((await ask(`/join/guess${i}`, { headers: { 'Sec-Fetch-Site': 'cross-site' } })).status);
    expect(new Set(guesses)).toEqual(new Set([404]));
    expect(await api.db('attempts').select()).toEqual([]);
    expect((await signIn(PASSPHRASE)).status).toBe(303);
  });
});

it('what a proxy passes on is taken for an address only where it is one, and never longer than any', async () => {
  for (const odd of [
    'x'.repeat(300),
    "'; drop table attempts",
    '198.51.100.999',
    'fe80::1%'.padEnd(400, 'y'),
    'device abc',
  ]) {
    await api.db('attempts').delete();
    expect((await signIn('not that one', 'Tablet', '', { 'X-Forwarded-For': odd })).status).toBe(401);
    const [{ address }] = (await api.db('attempts').select('address')) as [{ address: string }];
    expect(address).toMatch(/^(::ffff:127\.0\.0\.1|127\.0\.0\.1|fe80::1)$/);
  }
});

it('a page of another site opens no stream and reads no figures, and no page may use what the shop needs not', async () => {
  const Cookie = await deviceWith('look');
  const foreign: Record<string, string>[] = [
    { 'Sec-Fetch-Site': 'cross-site' },
    { Origin: 'https://elsewhere.example' },
  ];
  for (const headers of foreign)
    for (const path of ['/api/live?tab=a', '/metrics']) {
      const answer = await ask(path, { headers: { Cookie, ...headers } });
      expect([path, answer.status]).toEqual([path, 403]);
    }
  const allowed = (await ask('/sign-in')).headers.get('permissions-policy') ?? '';
  expect(allowed).toMatch(/camera=\(\)/);
  expect(allowed).toMatch(/screen-wake-lock=\(self\)/);
});

describe('a server that others can reach', () => {
  const start = (options: Partial<Parameters<typeof startServer>[0]>) =>
    startServer({
      databaseUrl: url,
      host: '127.0.0.1',
      port: 0,
      webFolder: null,
      begin: null,
      tell: () => {},
      ...options,
    });

  it.each([
    ['listens everywhere', { host: '0.0.0.0' }],
    ['has a proxy in front of it', { proxies: '127.0.0.1' }],
    ['is known by another name', { hosts: 'shed.example' }],
  ])('does not start without a passphrase when it %s, and asks for it when it has one', async (_, options) => {
    const bare = await newDatabase(process.env.TEST_DATABASE_URL!, 'bare');
    await expect(start({ ...options, databaseUrl: bare })).rejects.toThrow(
      /does not start without a passphrase.*CADENZA_PASSPHRASE_FILE/,
    );
    await expect(start({ ...options, databaseUrl: bare, passphrase: () => Promise.resolve('short') })).rejects.toThrow(
      StartError,
    );
    const server = await start({ ...options, databaseUrl: bare, passphrase: () => Promise.resolve(PASSPHRASE) });
    expect((await fetch(`${server.address}api/boards`)).status).toBe(401);
    await server.stop();
    // Said once, it holds.
    const later = await start({ ...options, databaseUrl: bare });
    expect((await fetch(`${later.address}api/boards`)).status).toBe(401);
    await later.stop();
  });

  it('asks nobody on loopback, where no device need be let in', async () => {
    const server = await start({});
    const boards = await fetch(`${server.address}api/boards`);
    // A proxy in front keeps a connection for a minute, and must be the one that closes it.
    expect([boards.status, boards.headers.get('keep-alive')]).toEqual([200, 'timeout=65']);
    const invited = await fetch(`${server.address}api/devices/invite`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ person: null, may: 'work' }),
    });
    expect([invited.status, ((await invited.json()) as { code: string }).code]).toEqual([409, 'not-shared']);
    await server.stop();
  });

  it.each(['garbage', '127.0.0.1/40', '192.0.2.0/24/8'])('with a proxy that is none says so: %s', async (proxies) => {
    await expect(start({ proxies })).rejects.toThrow(
      `CADENZA_PROXY must be addresses or nets such as 192.0.2.7 or 192.0.2.0/24, not "${proxies}".`,
    );
  });

  it('with a certificate that is none says so', async () => {
    const tls = { cert: Buffer.from('no certificate'), key: Buffer.from('no key') };
    await expect(start({ tls })).rejects.toThrow(/CADENZA_CERT and CADENZA_KEY/);
  });
});
