import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiProblem } from './api.ts';
import { draftNames, EditLine, type Versioned } from './editLine.ts';
import { mergeChanges, same } from './mergeChanges.ts';

interface Shop {
  name: string;
  saw: { kerf: number; depth: number };
  clamps: number[];
}

const START: Shop = { name: 'Shed', saw: { kerf: 3, depth: 70 }, clamps: [8] };

/** A record on a server that may be gone, and what the page shows of it. */
class Pretend {
  stored: Versioned<Shop> = { value: START, version: 1 };
  shown: Versioned<Shop> = this.stored;
  gone = false;
  saves = 0;

  line(): EditLine<Shop> {
    return new EditLine<Shop>({
      name: 'shop',
      stored: () => this.shown,
      show: (state) => (this.shown = state),
      check: (value) => {
        if (value.saw.kerf < 0) throw new Error('Kerf must not be negative.');
        return value;
      },
      save: async (version, value) => {
        await Promise.resolve();
        if (this.gone) throw new ApiProblem(503, 'database-gone', 'The database is gone.', [], undefined);
        if (version !== this.stored.version) throw new ApiProblem(409, 'stale', 'Changed elsewhere.', [], this.stored);
        if (value.name === 'refused') throw new ApiProblem(400, 'invalid', 'Name is refused.', [], undefined);
        this.saves += 1;
        this.stored = { value, version: version + 1 };
        return this.stored;
      },
      currentIn: ({ current }) => current as Versioned<Shop>,
    });
  }
}

let server: Pretend;
let drafts: Map<string, string>;
const settle = (ms = 50) => vi.advanceTimersByTimeAsync(ms);
const kerf =
  (value: number) =>
  (shop: Shop): Shop => ({ ...shop, saw: { ...shop.saw, kerf: value } });

beforeEach(() => {
  vi.useFakeTimers();
  server = new Pretend();
  drafts = new Map();
  const methods = {
    getItem: (k: string) => drafts.get(k) ?? null,
    setItem: (k: string, v: string) => drafts.set(k, v),
    removeItem: (k: string) => drafts.delete(k),
  };
  // As in a browser, its own keys are those that are stored.
  vi.stubGlobal(
    'sessionStorage',
    new Proxy(methods, {
      ownKeys: () => [...drafts.keys()],
      getOwnPropertyDescriptor: (_, key) =>
        drafts.has(String(key)) ? { enumerable: true, configurable: true } : undefined,
    }),
  );
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('edits of a record', () => {
  it('stay on the page while the server is gone, say so, and go out when it is back', async () => {
    const line = server.line();
    server.gone = true;
    line.change(kerf(2.5));
    await settle();
    line.change((shop) => ({ ...shop, name: 'Depot' }));
    await settle();
    expect(server.shown.value).toMatchObject({ name: 'Depot', saw: { kerf: 2.5 } });
    expect(line.snapshot()).toEqual({ kind: 'offline', message: 'The database is gone.' });
    // A page that looks again meanwhile shows what was typed, not what is stored.
    expect(line.over(server.stored).value).toMatchObject({ name: 'Depot', saw: { kerf: 2.5 } });
    server.gone = false;
    await settle(3000);
    expect(server.stored).toMatchObject({ version: 2, value: { name: 'Depot', saw: { kerf: 2.5 } } });
    expect([line.snapshot().kind, drafts.size]).toEqual(['saved', 0]);
  });

  it('outlive a reload', async () => {
    server.gone = true;
    server.line().change(kerf(2.4));
    await settle();
    // Whatever page comes next finds it, though it shows another record.
    expect(draftNames()).toEqual(['shop']);
    server.gone = false;
    server.shown = server.stored;
    server.line();
    await settle(3000);
    expect(server.stored.value.saw.kerf).toBe(2.4);
  });

  it('made elsewhere meanwhile stay, with the fields changed here on top of them', async () => {
    const line = server.line();
    server.stored = { value: { ...START, clamps: [8, 4], saw: { kerf: 3, depth: 55 } }, version: 7 };
    line.change(kerf(2.2));
    await settle();
    expect(server.stored).toEqual({ version: 8, value: { ...START, clamps: [8, 4], saw: { kerf: 2.2, depth: 55 } } });
    expect(server.shown).toEqual(server.stored);
  });

  it('that make no valid record change nothing; what the server refuses is said and kept', async () => {
    const line = server.line();
    expect(() => line.change(kerf(-1))).toThrow('Kerf must not be negative.');
    expect(server.shown.value).toEqual(START);
    line.change((shop) => ({ ...shop, name: 'refused' }));
    await settle();
    expect(line.snapshot()).toEqual({ kind: 'refused', message: 'Name is refused.' });
    expect(server.shown.value.name).toBe('refused');
  });

  it('are taken back one by one, and the last state wins however quick the hands are', async () => {
    const line = server.line();
    expect(line.canUndo()).toBe(false);
    for (const value of [2, 2.1, 2.2, 2.3]) line.change(kerf(value));
    await settle(200);
    expect([server.stored.value.saw.kerf, server.saves <= 4]).toEqual([2.3, true]);
    line.undo();
    line.undo();
    await settle(200);
    expect(server.stored.value.saw.kerf).toBe(2.1);
    line.undo();
    line.undo();
    await settle(200);
    expect(server.stored.value).toEqual(START);
    expect([line.canUndo(), line.undo()]).toEqual([false, false]);
  });

  it('are taken back alone: what somebody else changed since then stays', async () => {
    const line = server.line();
    line.change(kerf(2));
    await settle();
    server.stored = { value: { ...server.stored.value, name: 'Depot', saw: { kerf: 2, depth: 40 } }, version: 9 };
    server.shown = server.stored;
    line.undo();
    await settle();
    expect(server.stored).toEqual({ version: 10, value: { name: 'Depot', saw: { kerf: 3, depth: 40 }, clamps: [8] } });
  });
});

const record = fc.record({
  a: fc.integer({ min: 0, max: 3 }),
  b: fc.record({ c: fc.integer({ min: 0, max: 3 }), d: fc.array(fc.integer({ min: 0, max: 2 }), { maxLength: 2 }) }),
  e: fc.option(fc.record({ f: fc.boolean() })),
});

it('merged changes keep what only one side changed, and never lose mine', () => {
  fc.assert(
    fc.property(record, record, record, (base, mine, theirs) => {
      const merged = mergeChanges(base, mine, theirs);
      expect(merged.a).toBe(mine.a === base.a ? theirs.a : mine.a);
      expect(merged.b.c).toBe(mine.b.c === base.b.c ? theirs.b.c : mine.b.c);
      expect(merged.b.d).toEqual(same(mine.b.d, base.b.d) ? theirs.b.d : mine.b.d);
      expect(mergeChanges(base, mine, base)).toEqual(mine);
      expect(mergeChanges(base, base, theirs)).toEqual(theirs);
    }),
  );
});
