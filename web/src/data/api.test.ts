import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { plainBoard } from '#core/plan/planArbitrary.ts';
import { api, ApiProblem } from './api.ts';

interface Asked {
  path: string;
  init: RequestInit;
}
let asked: Asked[];
let answers: (Response | Error)[];

beforeEach(() => {
  asked = [];
  answers = [];
  vi.useFakeTimers();
  vi.stubGlobal('fetch', (path: string, init: RequestInit) => {
    asked.push({ path, init });
    const answer = answers.shift() ?? new TypeError('Failed to fetch');
    return answer instanceof Error ? Promise.reject(answer) : Promise.resolve(answer);
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const busy = () => Response.json({ code: 'busy', detail: 'The database is busy.', fields: [] }, { status: 503 });
const refused = () =>
  Response.json(
    {
      code: 'invalid',
      detail: 'The piece is not valid.',
      fields: [{ path: 'mark', message: 'must not be empty' }],
      current: 7,
    },
    { status: 400 },
  );
const names = () => asked.map(({ init }) => (init.headers as Record<string, string> | undefined)?.['Idempotency-Key']);
/** Lets a call go through all its pauses. */
async function settled<T>(call: Promise<T>): Promise<T | ApiProblem> {
  const caught = call.catch((error: unknown) => error as ApiProblem);
  await vi.advanceTimersByTimeAsync(10_000);
  return caught;
}

describe('a write', () => {
  it('that finds the server busy goes again after a pause, by the same name, and is then done', async () => {
    answers = [busy(), busy(), Response.json({ id: 'b', revision: 1 })];
    expect(await settled(api.addBoard(plainBoard()))).toMatchObject({ id: 'b' });
    expect(asked).toHaveLength(3);
    expect(new Set(names()).size).toBe(1);
    expect(names()[0]).toMatch(/^[\w-]{10,}$/);
  });

  it('two writes never share a name', async () => {
    answers = [Response.json({}), Response.json({})];
    await settled(api.addBoard(plainBoard()));
    await settled(api.addBoard(plainBoard()));
    expect(new Set(names()).size).toBe(2);
  });

  it('that is refused is not sent again; its fields and what is stored come along', async () => {
    answers = [refused()];
    const problem = (await settled(api.addBoard(plainBoard()))) as ApiProblem;
    expect(asked).toHaveLength(1);
    expect([problem.status, problem.code, problem.message, problem.passing, problem.current]).toEqual([
      400,
      'invalid',
      'The piece is not valid.',
      false,
      7,
    ]);
    expect(problem.fields).toEqual([{ path: 'mark', message: 'must not be empty' }]);
  });

  it('is given up after a few tries, with a sentence', async () => {
    const problem = (await settled(api.addBoard(plainBoard()))) as ApiProblem;
    expect(asked).toHaveLength(3);
    expect([problem.status, problem.message, problem.passing]).toEqual([0, 'The server cannot be reached.', true]);
  });

  it('of what is kept and sent again by its owner is tried once', async () => {
    await settled(api.saveBoard('b', 1, []));
    expect(asked).toHaveLength(1);
  });
});

describe('an answer', () => {
  it('nobody can read is told as such', async () => {
    answers = [new Response('<html>Bad gateway</html>', { status: 502 })];
    const problem = (await settled(api.shop())) as ApiProblem;
    expect([problem.status, problem.message, problem.passing]).toEqual([
      502,
      'The server gave an answer that cannot be read.',
      true,
    ]);
  });

  it('a list comes part after part to its end, each row once though it moved meanwhile', async () => {
    const row = (id: string) => ({ piece: { id }, version: 1 });
    answers = [
      Response.json([row('a'), row('b')], { headers: { link: '</api/rack?after=b>; rel="next"' } }),
      Response.json([row('b'), row('c')]),
    ];
    expect(((await settled(api.rack())) as { piece: { id: string } }[]).map((r) => r.piece.id)).toEqual([
      'a',
      'b',
      'c',
    ]);
    expect(asked.map((a) => a.path)).toEqual(['/api/rack', '/api/rack?after=b']);
  });

  it('reading has no name and no body', async () => {
    answers = [Response.json([])];
    await settled(api.species());
    expect([asked[0]!.init.method, asked[0]!.init.body, names()[0]]).toEqual(['GET', undefined, undefined]);
  });
});
