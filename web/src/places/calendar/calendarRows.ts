import { firstOf, lastOf } from '#core/lists/there.ts';
import { HELD, resourceName } from '#core/schedule/resources.ts';
import type { Placed } from '#core/schedule/task.ts';
import type { WorkTask } from '#core/schedule/work.ts';
import type { ShopSchedule } from '../../scheduling/useShopSchedule.ts';

/** A stretch on a row; minutes since 1970. */
export interface Bar {
  key: string;
  board: string;
  from: number;
  to: number;
  /** Hands are on it, it waits, or it was done. */
  kind: 'hands' | 'wait' | 'past' | 'pastWait';
  /** The task it is a part of; null for what was done. */
  placed: Placed | null;
  title: string;
  pinned: boolean;
}

/** How much of something is held from a moment on. */
export interface Level {
  at: number;
  amount: number;
}

export type Row =
  | { id: string; kind: 'board' | 'person' | 'machine'; name: string; bars: Bar[]; due: number | null }
  | { id: string; kind: 'held'; name: string; levels: Level[]; capacity: number };

/** A wait shorter than that is not drawn, minutes. */
const SHORTEST_WAIT = 10;

interface Held {
  from: number;
  until: number;
  amount: number;
}

/** Everything on one timeline, by board and by resource. */
export function calendarRows({ work, problem, schedule }: ShopSchedule): Row[] {
  const placed = [...schedule.placed.values()];
  const bars = placed.flatMap((p): Bar[] => {
    const task = p.task as WorkTask;
    const common = {
      board: task.board,
      placed: p,
      title: titleOf(task),
      pinned: task.pinned !== null || task.person !== null,
    };
    return [
      ...p.hands.map((h, k): Bar => ({ ...common, key: `${task.id} ${k}`, from: h.from, to: h.to, kind: 'hands' })),
      ...(p.until - lastOf(p.hands).to >= SHORTEST_WAIT
        ? [{ ...common, key: `${task.id} wait`, from: lastOf(p.hands).to, to: p.until, kind: 'wait' as const }]
        : []),
    ];
  });
  const past = work.boards.flatMap((b) =>
    b.work.past.flatMap((step): (Bar & { machines: string[] })[] => {
      const common = {
        board: b.id,
        placed: null,
        title: step.title.filter((part) => typeof part === 'string').join(''),
        pinned: false,
        machines: step.machines,
      };
      const key = `${b.id} ${step.step} ${step.copy}`;
      return [
        { ...common, key, from: step.from, to: step.to, kind: 'past' },
        ...(step.until - step.to >= SHORTEST_WAIT
          ? [{ ...common, key: `${key} wait`, from: step.to, to: step.until, kind: 'pastWait' as const }]
          : []),
      ];
    }),
  );
  const handsOf = (chosen: (p: Placed) => boolean) =>
    bars.filter((b) => b.kind === 'hands' && b.placed !== null && chosen(b.placed));
  const machines = [...new Set(placed.flatMap((p) => p.task.machines).concat(past.flatMap((p) => p.machines)))];
  return [
    ...work.boards.map((b): Row => ({
      id: b.id,
      kind: 'board',
      name: b.work.name,
      bars: [...past, ...bars].filter((bar) => bar.board === b.id),
      due: problem.dues.get(b.id)?.at ?? null,
    })),
    ...work.shop.people.map((person): Row => ({
      id: `person ${person.id}`,
      kind: 'person',
      name: person.name,
      bars: handsOf((p) => p.people.includes(person.id)),
      due: null,
    })),
    ...machines.map((machine): Row => ({
      id: `machine ${machine}`,
      kind: 'machine',
      name: resourceName(machine),
      bars: [
        ...past.filter((p) => p.kind === 'past' && p.machines.includes(machine)),
        ...handsOf((p) => p.task.machines.includes(machine)),
      ],
      due: null,
    })),
    ...heldRows(placed, problem),
  ];
}

/** Clamps by their kind, the tray, places to dry: how much is held when. Of nested clamps only all of a kind are drawn. */
function heldRows(placed: readonly Placed[], problem: ShopSchedule['problem']): Row[] {
  const widest = new Map<string, string>();
  for (const resource of problem.capacities.keys()) {
    const name = resourceName(resource);
    const before = widest.get(name);
    if (!before || (problem.capacities.get(resource) ?? 0) > (problem.capacities.get(before) ?? 0))
      widest.set(name, resource);
  }
  return [...widest].flatMap(([name, resource]): Row[] => {
    const held: Held[] = [
      ...problem.held
        .filter((h) => h.resource === resource)
        .map((h) => ({ from: problem.from, until: h.until, amount: h.amount })),
      ...placed.flatMap((p) =>
        p.task.holds
          .filter((h) => h.resource === resource)
          .map((h) => ({ from: firstOf(p.hands).from, until: lastOf(p.hands).to + h.after, amount: h.amount })),
      ),
    ];
    if (held.length === 0) return [];
    const capacity = problem.capacities.get(resource) ?? 1;
    const turns = [...new Set(held.flatMap((h) => [h.from, h.until]))].sort((a, b) => a - b);
    const levels = turns.map((at) => ({
      at,
      amount: held.reduce((sum, h) => sum + (h.from <= at + 1e-6 && h.until > at + 1e-6 ? h.amount : 0), 0),
    }));
    return [{ id: resource, kind: 'held', name: resource === HELD.bath ? 'Bath' : name, levels, capacity }];
  });
}

/** A step's title without its figures: there is no room for them. */
const titleOf = (task: WorkTask): string => task.title.filter((part) => typeof part === 'string').join('');
