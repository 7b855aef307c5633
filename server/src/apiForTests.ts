import { Agent, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Knex } from 'knex';
import { newDatabase } from '../../bin/mariadb/testDatabase.ts';
import { createApp, type AppOptions } from './app.ts';
import { operations } from './operations/index.ts';
import { openDatabase } from './stores/database.ts';
import { openStore } from './stores/openStore.ts';

export interface Answer {
  status: number;
  type: string;
  headers: Map<string, string>;
  // What an answer holds is what the tests are about; each looks at its own part.
  body: any; // oxlint-disable-line typescript/no-explicit-any
}

/** Ways that no operation describes: they are looked at by tests of their own. */
const UNDESCRIBED = ['/openapi.json', '/health'];

/** Holds an answer against what the OpenAPI text says of it: no test can pass on one that is not described. @throws Error naming the operation */
function asDescribed(method: string, path: string, status: number, body: unknown): void {
  const answers = status >= 200 && status < 300;
  const [plain] = path.split('?');
  const operation = operations.find(
    (o) => o.method === method.toLowerCase() && new RegExp(`^${o.path.replace(/\{\w+\}/g, '[^/]+')}$`).test(plain!),
  );
  if (!operation) {
    if (answers && !UNDESCRIBED.includes(plain!))
      throw new Error(`${method} ${path} answers, and no operation describes it`);
    return;
  }
  const [described, , schema] = operation.ok;
  if (answers && status !== described)
    throw new Error(`${method} ${operation.path} answered ${status}; described is ${described}`);
  if (status !== described || !schema) return;
  const read = schema.safeParse(body);
  if (!read.success)
    throw new Error(
      `${method} ${operation.path} answered otherwise than described: ${JSON.stringify(read.error.issues.slice(0, 3))}`,
    );
}

const connections = new Agent({ keepAlive: true });

/** One request and its whole answer: thousands of them are sent, and `fetch` takes a fifth of their time. */
function ask(
  address: string,
  method: string,
  headers: Record<string, string>,
  body: string | undefined,
): Promise<{ status: number; headers: Map<string, string>; text: string }> {
  return new Promise((resolve, reject) => {
    const sent = request(address, { method, headers, agent: connections }, (answer) => {
      const parts: Buffer[] = [];
      answer.on('error', reject);
      answer.on('data', (part: Buffer) => parts.push(part));
      answer.on('end', () =>
        resolve({
          status: answer.statusCode ?? 0,
          headers: new Map(Object.entries(answer.headers).map(([name, value]) => [name, String(value)])),
          text: Buffer.concat(parts).toString('utf8'),
        }),
      );
    });
    sent.on('error', reject);
    sent.end(body);
  });
}

/** An API on a database of its own, for tests. */
export interface TestApi {
  db: Knex;
  server: Server;
  /** `http://127.0.0.1:…/api` */
  base: string;
  /** Sends a request; a body that is text goes as it is, anything else as JSON. */
  call(method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<Answer>;
  /** Every row of a list, over all its pages. */
  list<T>(path: string): Promise<T[]>;
  close(): Promise<void>;
}

/** Serves the API on a new database named for the test, its tables made. */
export async function apiForTests(name: string, options: AppOptions = {}): Promise<TestApi> {
  const api = await serveApi(await newDatabase(process.env.TEST_DATABASE_URL!, name), options);
  await openStore(api.db);
  return api;
}

/** Serves the API on a database as it is. */
export async function serveApi(url: string, options: AppOptions = {}): Promise<TestApi> {
  const db = openDatabase(url);
  const server = createApp(db, options).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api`;
  const call = async (
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer> => {
    const sent = body === undefined || typeof body === 'string' ? body : JSON.stringify(body);
    const type: Record<string, string> = method === 'GET' ? {} : { 'Content-Type': 'application/json' };
    const answer = await ask(base + path, method, { ...type, ...headers }, sent);
    const answered: unknown = answer.text === '' ? null : JSON.parse(answer.text);
    asDescribed(method, path, answer.status, answered);
    const { status, headers: told } = answer;
    return { status, type: told.get('content-type') ?? '', headers: told, body: answered };
  };
  return {
    db,
    server,
    base,
    call,
    list: async (path) => {
      const rows = [];
      for (let next: string | undefined = path; next;) {
        const { body, headers } = await call('GET', next);
        rows.push(...body);
        next = /^<\/api([^>]+)>; rel="next"$/.exec(headers.get('link') ?? '')?.[1];
      }
      return rows;
    },
    close: async () => {
      server.close();
      await db.destroy();
    },
  };
}
