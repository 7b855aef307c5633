import { measuresOf } from '#core/bench/measures.ts';
import type { Board } from '#core/board/board.ts';
import type { Fact } from '#core/facts/fact.ts';
import { certain } from '#core/lists/there.ts';
import { entryOf } from '#core/log/entryOf.ts';
import type { LogEntry } from '#core/log/entry.ts';
import { makePlan } from '#core/plan/plan.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import type { OperationKind } from '#core/steps/operation.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { tramShedBoards, tramShedHalfDone, tramShedRack, tramShedShop } from './tramShed.ts';

const MINUTE_MS = 60_000;
const DAY_MS = 86_400_000;

const given = (board: Board): PlanInput => ({
  board,
  rack: tramShedRack,
  shop: tramShedShop,
  species: [...HANDBOOK_SPECIES],
});

/** How hands and machines of the shed differ from what the plan thinks. */
interface Ways {
  /** So much more than planned goes off at flattening, mm, panel by panel. */
  flattening: readonly number[];
  /** Minutes for one that is planned. */
  slower: number;
}

/** What happened to a board up to a step: every step before it done, panels measured once they were flat, boards once they were sanded. @param end when the last of it happened, milliseconds since 1970 */
function happened(board: Board, last: OperationKind, end: number, { flattening, slower }: Ways): Fact[] {
  const { operations } = makePlan(given(board));
  const steps = operations.slice(0, operations.findIndex((o) => o.kind === last) + 1);
  const whole = steps.reduce((sum, o) => sum + o.minutes * o.repeats + (o.waitMinutes ?? 0), 0);
  let at = end - whole * MINUTE_MS;
  const moment = () => new Date((at += MINUTE_MS / 60)).toISOString();
  return steps.flatMap((step): Fact[] => {
    const facts: Fact[] = Array.from({ length: step.repeats }, (_, k): Fact => {
      at += step.minutes * MINUTE_MS;
      return {
        kind: 'done',
        id: `step-${step.number}-${k + 1}`,
        at: moment(),
        step: step.id,
        copy: k + 1,
        minutes: Math.round(step.minutes * slower * 10) / 10,
        wait: step.waitMinutes === null ? null : { minutes: step.waitMinutes, for: step.waitFor ?? 'the next step' },
        ends: step.after.map((id) => ({ step: id, copy: null })),
      };
    });
    at += (step.waitMinutes ?? 0) * MINUTE_MS;
    if (step.kind !== 'flattenPanel') return facts;
    for (const measure of measuresOf(step, operations, board, tramShedShop)) {
      const { thing, copy, stage, dimension, expected } = measure;
      if (dimension !== 'thickness') continue;
      const more = flattening[(copy - 1) % flattening.length] ?? 0;
      facts.push({
        kind: 'measured',
        id: `flat-${step.number}-${copy}`,
        at: moment(),
        thing,
        copy,
        stage,
        dimension,
        value: Math.round((certain(expected, 'a flat panel has a thickness') - more) * 10) / 10,
        step: step.id,
      });
    }
    return facts;
  });
}

/** What happened so far to the board that is half done: everything up to the flat panel, which came out too thin. @param now milliseconds since 1970 */
export const halfDoneFacts = (now: number): Fact[] =>
  happened(tramShedHalfDone, 'flattenPanel', now - 15 * MINUTE_MS, { flattening: [1.2], slower: 1.15 });

/** Three boards that were done before, the last one three days ago. @param now milliseconds since 1970 */
export function finishedBoards(now: number): LogEntry[] {
  const design = (name: string) =>
    certain(
      tramShedBoards.find((b) => b.name === name),
      'a board of the demo',
    );
  const made = [
    {
      ...design('Middle Hut bread boards'),
      name: 'Upper Hut bread boards',
      price: 118,
      days: 40,
      forWhom: 'Upper Hut',
      ways: { flattening: [0.6, 0.9, 0.5], slower: 1.2 },
    },
    {
      ...design('Lower Hut dough board'),
      name: 'Middle Hut dough board',
      price: 149,
      days: 18,
      forWhom: 'Middle Hut',
      ways: { flattening: [0.7], slower: 1.1 },
    },
    {
      ...design('Upper Hut carving board'),
      name: 'Lower Hut carving board',
      price: 198,
      days: 3,
      forWhom: 'Lower Hut',
      ways: { flattening: [0.8], slower: 1.3 },
    },
  ];
  return made.map(({ days, forWhom, ways, ...board }) => {
    const end = now - days * DAY_MS;
    const { operations } = makePlan(given(board));
    const last = certain(operations.at(-1), 'a board of the demo has steps').kind;
    const facts = happened(board, last, end, ways);
    const gone: Fact[] = facts.flatMap((f) =>
      f.kind === 'measured'
        ? [
            {
              kind: 'decided' as const,
              id: `way-${f.id}`,
              at: new Date(end).toISOString(),
              about: f.id,
              way: 'goOn' as const,
            },
          ]
        : [],
    );
    return entryOf({ ...given(board), facts: [...facts, ...gone] }, null, new Date(end).toISOString(), forWhom);
  });
}
