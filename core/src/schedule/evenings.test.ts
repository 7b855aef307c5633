import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { eveningsOf, firstWithRoom } from './evenings.ts';
import type { Placed } from './task.ts';

const placed = (people: string[], ...hands: [number, number][]): Placed =>
  ({ people, hands: hands.map(([from, to]) => ({ from, to })), task: { id: `${hands[0]![0]}` } }) as unknown as Placed;
const schedule = (...all: Placed[]) => ({ placed: new Map(all.map((p, i) => [String(i), p])) });
const people = (...opens: [number, number][][]) => ({
  people: opens.map((open, i) => ({ id: 'ab'.charAt(i), open: open.map(([from, to]) => ({ from, to })) })),
});

describe('evenings in the shop', () => {
  it('worked by hand: 40 of 120 minutes are taken, half of a step lies in the next evening', () => {
    const [first, second] = eveningsOf(
      people([
        [0, 120],
        [1440, 1560],
      ]),
      schedule(placed(['a'], [10, 30]), placed(['a'], [100, 120], [1440, 1470])),
      2,
    );
    expect([first!.free, second!.free]).toEqual([80, 90]);
    expect([first!.steps.length, second!.steps.length]).toEqual([2, 1]);
  });

  it('two who come one after the other make one evening, with the minutes of both', () => {
    const [only] = eveningsOf(people([[0, 120]], [[60, 180]]), schedule(placed(['a', 'b'], [60, 90])), 1);
    expect([only!.from, only!.to, only!.free]).toEqual([0, 180, 240 - 60]);
  });

  it('room is found in the first that has it, and in none where none has', () => {
    const evenings = eveningsOf(
      people([
        [0, 60],
        [100, 220],
      ]),
      schedule(placed(['a'], [0, 50])),
      2,
    );
    expect(firstWithRoom(evenings, 10)?.from).toBe(0);
    expect(firstWithRoom(evenings, 11)?.from).toBe(100);
    expect(firstWithRoom(evenings, 121)).toBeNull();
  });

  it('what is taken and what is free are all there is, whoever comes', () => {
    const span = fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 1, max: 90 }));
    fc.assert(
      fc.property(fc.array(span, { maxLength: 6 }), (spans) => {
        let at = 0;
        const hands = spans.map(([gap, minutes]): [number, number] => [(at += gap), (at += minutes)]);
        const evenings = eveningsOf(people([[0, 5000]]), schedule(...hands.map((h) => placed(['a'], h))), 1);
        const taken = hands.reduce((sum, [from, to]) => sum + to - from, 0);
        expect(evenings[0]!.free + taken).toBeCloseTo(5000, 6);
      }),
    );
  });
});
