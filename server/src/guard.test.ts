import { request } from 'node:http';
import { mkdtempSync, mkdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plainBoard } from '#core/plan/planArbitrary.ts';
import { apiForTests, type TestApi } from './apiForTests.ts';
import { allowedHosts, isLoopback } from './guard.ts';

let api: TestApi;
const web = mkdtempSync(join(tmpdir(), 'cadenza-web-'));
mkdirSync(join(web, 'assets'));
writeFileSync(join(web, 'index.html'), '<!doctype html><title>Cadenza</title>');
writeFileSync(join(web, 'assets', 'a.js'), 'export const a = 1;');
writeFileSync(join(web, 'icon.svg'), '<svg xmlns="http://www.w3.org/2000/svg"/>');

beforeAll(async () => {
  api = await apiForTests('doors', { webFolder: web, hosts: allowedHosts('127.0.0.1', 'shed.example, Depot.Example') });
});
afterAll(() => api.close());

/** A request as a browser or another program would send it, whatever its headers; nothing of the path is tidied up. */
function raw(
  method: string,
  path: string,
  headers: Record<string, string> = {},
  body = '',
): Promise<{ status: number; code: string; detail: string; headers: Record<string, unknown> }> {
  const { hostname, port } = new URL(api.base);
  return new Promise((resolve, reject) => {
    const sent = request(
      {
        hostname,
        port,
        method,
        path,
        headers: { ...(body ? { 'Content-Length': Buffer.byteLength(body) } : {}), ...headers },
      },
      (answer) => {
        let text = '';
        answer.on('data', (chunk: Buffer) => (text += chunk.toString()));
        answer.on('end', () => {
          const problem = String(answer.headers['content-type']).includes('problem+json')
            ? (JSON.parse(text) as { code: string; detail: string })
            : { code: '', detail: text };
          resolve({
            status: answer.statusCode ?? 0,
            code: problem.code,
            detail: problem.detail,
            headers: answer.headers,
          });
        });
      },
    );
    sent.on('error', reject);
    sent.end(body);
  });
}

const JSON_TYPE = { 'Content-Type': 'application/json' };

describe('a name that this server is not known by', () => {
  it.each(['evil.example', 'evil.example:4180', '127.0.0.1.evil.example', 'localhost.evil.example', '192.0.2.7'])(
    '"%s" is refused for reads and writes, with how it is let in',
    async (host) => {
      for (const [method, path] of [
        ['GET', '/api/boards'],
        ['GET', '/'],
        ['POST', '/api/boards'],
      ] as const) {
        const answer = await raw(method, path, { Host: host, ...JSON_TYPE }, method === 'POST' ? '{}' : '');
        expect([answer.status, answer.code]).toEqual([421, 'foreign-host']);
        expect(answer.detail).toContain('start it with CADENZA_HOSTS=');
      }
    },
  );

  it.each([
    'localhost',
    'LOCALHOST:9',
    '127.0.0.1:80',
    '[::1]:4180',
    'shed.example',
    'depot.example:443',
    'localhost.',
  ])('"%s" is its own', async (host) => {
    expect((await raw('GET', '/api/shop', { Host: host })).status).toBe(200);
  });

  it('listening everywhere it goes by the addresses and the name of the machine, and nothing else', () => {
    const hosts = allowedHosts('0.0.0.0', '');
    expect(hosts.has('127.0.0.1') && hosts.has('localhost')).toBe(true);
    expect(hosts.has('evil.example')).toBe(false);
    expect([isLoopback('127.3.2.1'), isLoopback('::1'), isLoopback('0.0.0.0'), isLoopback('127.evil.example')]).toEqual(
      [true, true, false, false],
    );
  });
});

describe('a page of another site', () => {
  let id: string;
  beforeAll(async () => {
    id = (await api.call('POST', '/boards', plainBoard())).body.id as string;
    await api.call('POST', `/boards/${id}/remove`, { basedOn: 1 });
  });

  it.each<[string, Record<string, string>]>([
    ['with its origin', { Origin: 'http://evil.example' }],
    ['with a hidden origin', { Origin: 'null' }],
    ['of another port here', { Origin: 'http://localhost:3000' }],
    ['that the browser calls cross-site', { 'Sec-Fetch-Site': 'cross-site' }],
    ['that the browser calls same-site', { 'Sec-Fetch-Site': 'same-site' }],
  ])('%s changes nothing', async (_, headers) => {
    const answer = await raw('POST', `/api/boards/${id}/restore`, { ...headers, ...JSON_TYPE }, '{}');
    expect([answer.status, answer.code]).toEqual([403, 'other-site']);
    expect((await api.call('GET', `/boards/${id}`)).status).toBe(404);
  });

  it.each<[string, Record<string, string>]>([
    ['a form', { 'Content-Type': 'application/x-www-form-urlencoded' }],
    ['a plain form', { 'Content-Type': 'text/plain' }],
    ['nothing said', {}],
    ['a look-alike', { 'Content-Type': 'application/jsonp' }],
  ])('a write sent as %s changes nothing, also one without a body', async (_, headers) => {
    for (const path of [`/api/boards/${id}/restore`, '/api/saw/cuttings/x/undo']) {
      const answer = await raw('POST', path, headers);
      expect([answer.status, answer.code]).toEqual([415, 'not-json']);
    }
    expect((await api.call('GET', `/boards/${id}`)).status).toBe(404);
  });

  it("its own pages, a proxy's name for it, and programs without a browser may write", async () => {
    const { host } = new URL(api.base);
    for (const headers of [
      { Origin: `http://${host}`, 'Sec-Fetch-Site': 'same-origin' },
      { Host: '127.0.0.1:1', Origin: 'https://shed.example' },
      {},
    ] as Record<string, string>[]) {
      const answer = await raw('POST', `/api/boards/${id}/restore`, {
        ...headers,
        'Content-Type': 'application/json; charset=utf-8',
      });
      expect(answer.status, JSON.stringify(headers)).toBe(200);
      const { body } = await api.call('GET', `/boards/${id}`);
      await api.call('POST', `/boards/${id}/remove`, { basedOn: body.revision });
    }
  });

  it('gets no answer that it may frame, sniff or read', async () => {
    const { headers } = await raw('GET', '/');
    expect(headers).toMatchObject({
      'x-content-type-options': 'nosniff',
      'x-frame-options': 'DENY',
      'cross-origin-resource-policy': 'same-origin',
      'referrer-policy': 'same-origin',
    });
    expect(headers['content-security-policy']).toMatch(/default-src 'self'.*frame-ancestors 'none'/);
    expect(headers['access-control-allow-origin']).toBeUndefined();
  });
});

it.each<[string, string, string, Record<string, string>, number]>([
  ['out of the folder', 'GET', '/assets/..%2f..%2fpackage.json', {}, 403],
  ['a path with a null', 'GET', '/assets/%00', {}, 400],
  ['half an escape', 'GET', '/assets/%E0%A4%A', {}, 400],
  ['a range beyond the end', 'GET', '/icon.svg', { Range: 'bytes=9999-' }, 416],
  ['another version', 'GET', '/icon.svg', { 'If-Match': '"nope"' }, 412],
  ['a file that is not there', 'GET', '/assets/b.js', {}, 404],
  ['an encoding nobody knows', 'POST', '/api/boards', { ...JSON_TYPE, 'Content-Encoding': 'rot13' }, 415],
])('what Express itself refuses is a problem answer: %s', async (_, method, path, headers, status) => {
  const answer = await raw(method, path, headers, method === 'POST' ? '{}' : '');
  expect([answer.status, answer.code === '']).toEqual([status, false]);
});

it('a page of a board asks early for what it reads; nothing else of an address gets into a header', async () => {
  const early = async (path: string) => ((await raw('GET', path)).headers.link ?? '') as string;
  const link = await early('/boards/b-1/bench');
  for (const asked of ['/api/boards/b-1', '/api/boards/b-1/facts', '/api/rack', '/api/saw?boards=b-1'])
    expect(link).toContain(`<${asked}>; rel=preload; as=fetch; crossorigin`);
  for (const path of [
    '/',
    '/rack',
    '/boards/b1',
    '/boards/%0d%0aX:1/bench',
    '/boards/<x>/bench',
    `/boards/${'x'.repeat(41)}/bench`,
  ])
    expect([path, await early(path)]).toEqual([path, '']);
});
