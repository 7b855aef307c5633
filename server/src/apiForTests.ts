import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Knex } from 'knex';
import { newDatabase } from '../../bin/mariadb/testDatabase.ts';
import { createApp, type AppOptions } from './app.ts';
import { openDatabase } from './stores/database.ts';
import { openStore } from './stores/openStore.ts';

export interface Answer {
  status: number;
  type: string;
  headers: Headers;
  // What an answer holds is what the tests are about; each looks at its own part.
  body: any; // eslint-disable-line @typescript-eslint/no-explicit-any
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
    const sent = body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) };
    const response = await fetch(base + path, {
      method,
      ...sent,
      headers: { ...(method === 'GET' ? {} : { 'Content-Type': 'application/json' }), ...headers },
    });
    const text = await response.text();
    return {
      status: response.status,
      type: response.headers.get('content-type') ?? '',
      headers: response.headers,
      body: text === '' ? null : JSON.parse(text),
    };
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
