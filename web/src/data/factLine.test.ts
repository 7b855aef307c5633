import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Fact } from '#core/facts/fact.ts';
import { factsThatHold } from '#core/facts/factsThatHold.ts';
import { ApiProblem } from './api.ts';
import { FACT_KEY } from './factKey.ts';
import { FactLine, waitingNames, type Noted } from './factLine.ts';

/** A server that keeps facts, and may be gone; each is taken once, and an id stands for one thing. */
class Pretend {
  facts: Fact[] = [];
  shown: Fact[] = [];
  gone = false;
  /** It takes what is sent, and its answer gets lost. */
  mute = false;
  sends = 0;
  /** Answers wait here while it is not null. */
  slow: (() => void)[] | null = null;

  line(): FactLine {
    const line = new FactLine({
      name: 'b1',
      show: (facts) => (this.shown = facts),
      send: async (facts) => {
        this.sends += 1;
        if (this.slow) await new Promise<void>((resolve) => this.slow!.push(resolve));
        else await Promise.resolve();
        if (this.gone) throw new ApiProblem(0, 'unreachable', 'The server cannot be reached.', [], undefined);
        for (const fact of facts) {
          const known = this.facts.find((f) => f.id === fact.id);
          if (known && JSON.stringify(known) !== JSON.stringify(fact))
            throw new ApiProblem(409, 'another-fact', 'Taken.', [], known);
          if (!known) this.facts = [...this.facts, fact];
        }
        if (this.mute) throw new ApiProblem(0, 'unreachable', 'The server cannot be reached.', [], undefined);
        return this.facts;
      },
    });
    this.shown = line.over(this.facts);
    return line;
  }
}

let server: Pretend;
let device: Map<string, string>;
const settle = (ms = 500) => vi.advanceTimersByTimeAsync(ms);
const length = (value: number): Noted => ({ kind: 'measured', thing: 'panel', copy: 1, dimension: 'length', value });
const values = (facts: Fact[]) =>
  facts.map((f) => (f.kind === 'measured' ? f.value : `-${(f as { fact: string }).fact}`));

beforeEach(() => {
  vi.useFakeTimers();
  server = new Pretend();
  device = new Map();
  const storage = {
    getItem: (key: string) => device.get(key) ?? null,
    setItem: (key: string, text: string) => void device.set(key, text),
    removeItem: (key: string) => void device.delete(key),
  };
  vi.stubGlobal(
    'localStorage',
    new Proxy(storage, {
      ownKeys: () => [...device.keys()],
      getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
    }),
  );
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** Lists of facts that this device keeps; what it is called is kept beside them. */
const heldHere = () => [...device.keys()].filter((key) => key.startsWith(FACT_KEY)).length;

describe('facts from this device', () => {
  it('show at once and are sent a moment later, in order, once', async () => {
    const line = server.line();
    line.note(length(500));
    line.note(length(510));
    expect([values(server.shown), server.facts]).toEqual([[500, 510], []]);
    await settle();
    expect([values(server.facts), server.sends, line.snapshot().kind]).toEqual([[500, 510], 1, 'saved']);
    expect(heldHere()).toBe(0);
  });

  it('a drag is one fact as long as it has not left, and another one after that', async () => {
    const line = server.line();
    for (const value of [500, 501, 502]) line.note(length(value), 'drag');
    await settle();
    line.note(length(503), 'drag');
    line.endMerge();
    line.note(length(504), 'drag');
    await settle();
    expect(values(server.facts)).toEqual([502, 503, 504]);
  });

  it('what is noted while others are on their way goes after them, and is not edited into them', async () => {
    const line = server.line();
    line.note(length(500), 'drag');
    server.slow = [];
    await settle();
    line.note(length(501), 'drag');
    expect(values(server.shown)).toEqual([500, 501]);
    const [first] = server.slow;
    server.slow = null;
    first!();
    await settle();
    expect(values(server.facts)).toEqual([500, 501]);
  });

  it('taking back: what has not left never was; what has is taken back by a fact', async () => {
    const line = server.line();
    line.note(length(500));
    await settle();
    line.note(length(510));
    line.takeBack([server.facts[0]!.id, server.shown[1]!.id]);
    await settle();
    expect(values(server.facts)).toEqual([500, `-${server.facts[0]!.id}`]);
  });

  it('what was sent may have arrived though its answer got lost: it is not edited any more, and a fact takes it back', async () => {
    const line = server.line();
    server.mute = true;
    line.note(length(500), 'drag');
    await settle();
    line.note(length(501), 'drag');
    const [first, second] = server.shown;
    expect(values(server.shown)).toEqual([500, 501]);
    line.takeBack([first!.id, second!.id]);
    server.mute = false;
    await settle(4000);
    expect(values(server.facts)).toEqual([500, `-${first!.id}`]);
  });

  it('only the fact whose id was taken gets another, and what takes it back goes along', async () => {
    const line = server.line();
    line.note(length(500), 'drag');
    line.note(length(600));
    const [one] = server.shown;
    server.facts = [{ ...one!, ...length(499) }];
    server.gone = true;
    await settle();
    line.takeBack([one!.id]);
    server.gone = false;
    await settle(4000);
    const [other, renamed, kept, back] = server.facts;
    expect(values([other!, renamed!, kept!])).toEqual([499, 500, 600]);
    expect(back).toMatchObject({ kind: 'takenBack', fact: renamed!.id });
    expect(server.facts).toHaveLength(4);
  });

  it('an answer that was read before they arrived takes nothing away', async () => {
    const line = server.line();
    const readBefore = server.facts;
    line.note(length(500));
    await settle();
    expect(values(line.over(readBefore))).toEqual([500]);
    line.note(length(510));
    expect(values(server.shown)).toEqual([500, 510]);
  });

  it('wait through an outage and a closed browser, and go out from whichever page comes next', async () => {
    server.gone = true;
    const line = server.line();
    line.note(length(500));
    await settle();
    expect(line.snapshot()).toMatchObject({ kind: 'offline' });
    expect(waitingNames()).toEqual(['b1']);
    // The browser is closed: nothing of the old page runs any more.
    vi.clearAllTimers();
    server.gone = false;
    server.line();
    expect(values(server.shown)).toEqual([500]);
    await settle(3000);
    expect([values(server.facts), heldHere()]).toEqual([[500], 0]);
  });

  it('two pages of one device lose nothing to one another', async () => {
    server.gone = true;
    const [one, two] = [server.line(), server.line()];
    one.note(length(500));
    two.note(length(600));
    await settle();
    server.gone = false;
    const third = server.line();
    await settle(3000);
    expect([values(server.facts).sort(), third.snapshot().kind]).toEqual([[500, 600], 'saved']);
  });

  it('an id that another page used for an earlier form of it is given up for a new one', async () => {
    const line = server.line();
    line.note(length(500), 'drag');
    server.facts = [{ ...server.shown[0]!, ...length(499) }];
    await settle(1000);
    expect(values(server.facts)).toEqual([499, 500]);
  });

  it('a refusal is said, and what was noted stays', async () => {
    const line = new FactLine({
      name: 'b2',
      show: () => {},
      send: () => Promise.reject(new ApiProblem(404, 'not-found', 'This board does not exist.', [], undefined)),
    });
    line.note(length(500));
    await settle();
    expect(line.snapshot()).toEqual({ kind: 'refused', message: 'This board does not exist.' });
    expect(waitingNames()).toEqual(['b2']);
  });
});

it('a thousand facts from two devices, their clocks an hour apart, a server that dies at any moment and pages that are closed: each arrives once, in the order of its device, and both see the same', async () => {
  // The worst of moments in turn: gone before it takes anything, and after it took it, before it answers.
  const fates = ['well', 'gone', 'mute', 'well', 'mute', 'gone', 'gone', 'well', 'mute', 'well'] as const;
  const start = Date.now();
  const stores = [new Map<string, string>(), new Map<string, string>()];
  const lines: (FactLine | null)[] = [null, null];
  const use = (which: number) => {
    device = stores[which]!;
    vi.setSystemTime(start + (which === 1 ? 3_600_000 : 0) + turn * 1000);
    lines[which] ??= server.line();
    return lines[which];
  };
  let turn = 0;
  for (; turn < 1000; turn += 1) {
    const which = turn % 2;
    const fate = fates[(turn * 7 + (turn >> 4)) % fates.length]!;
    [server.gone, server.mute] = [fate === 'gone', fate === 'mute'];
    const line = use(which);
    line.over(server.facts);
    line.note(length(1 + turn));
    if (turn % 3 === 0) await line.flush();
    // The browser is closed, and opened again later: what it held is on the device.
    if (turn % 97 === 0) lines[which] = null;
  }
  [server.gone, server.mute] = [false, false];
  for (const which of [0, 1]) {
    const line = use(which);
    for (let tries = 0; tries < 20; tries += 1) {
      await line.flush();
      await settle(20);
    }
  }
  const noted = server.facts.flatMap((f) => (f.kind === 'measured' ? [f] : []));
  expect(new Set(noted.map((f) => f.id)).size).toBe(noted.length);
  expect(noted.map((f) => f.value).sort((a, b) => a - b)).toEqual(Array.from({ length: 1000 }, (_, i) => i + 1));
  // Told by time, what a device noted stands in the order in which it noted it.
  const inTime = factsThatHold(server.facts).flatMap((f) => (f.kind === 'measured' ? [f.value] : []));
  for (const odd of [0, 1]) {
    const own = inTime.filter((v) => (v - 1) % 2 === odd);
    expect(own).toEqual([...own].sort((a, b) => a - b));
  }
  expect(factsThatHold([...server.facts].reverse())).toEqual(factsThatHold(server.facts));
});
