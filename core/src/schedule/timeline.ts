import { entryOf, firstOf, lastOf } from '../lists/there.ts';
import { clampCount } from '../shop/gluing.ts';
import type { DayHours } from '../shop/hours.ts';
import type { Shop } from '../shop/shop.ts';
import type { Phrase } from '../units/phrase.ts';
import type { Operation, OperationKind } from '../steps/operation.ts';
import { criticalPath } from './schedule.ts';

/** A step on the timeline; minutes from Monday 00:00 of the week it begins in. */
export interface TimelineTask {
  id: string;
  /** Number of the step, and which panel of the batch. */
  step: number;
  copy: number;
  kind: OperationKind;
  title: Phrase;
  machine: string | null;
  /** Hands are on it in these stretches: within the shop's hours. */
  hands: { from: number; to: number }[];
  /** It waits until then; equal to the end of the hands where there is no wait. */
  until: number;
  waitFor: string | null;
  clamps: number;
  /** Minutes it may be late without making the board late, shop hours not counted. */
  slack: number;
  critical: boolean;
}

export interface Timeline {
  tasks: TimelineTask[];
  from: number;
  to: number;
  /** When the panel is out of its clamps and may be worked; null without glue-ups. */
  panelReady: number | null;
  handsMinutes: number;
  waitMinutes: number;
  /** Clamps the shop has. */
  clamps: number;
}

/** A glue-up of a panel that was begun: when, and until when it is in its clamps, minutes from Monday 00:00 of the week the timeline begins in. */
export interface Glued {
  glueUp: string;
  copy: number;
  from: number;
  until: number;
}

const DAY = 1440;

function minuteOf(time: string): number {
  const [hours, minutes] = time.split(':').map(Number) as [number, number];
  return hours * 60 + minutes;
}

/** Opening and closing of a day, minutes from midnight; null when closed. */
type OpenDay = { from: number; to: number } | null;

/** The shop's next open stretch that ends after a moment. */
function openStretch(hours: readonly OpenDay[], at: number): { from: number; to: number } {
  for (let day = Math.floor(at / DAY); ; day += 1) {
    const open = hours[((day % 7) + 7) % 7];
    if (!open) continue;
    const [from, to] = [day * DAY + open.from, day * DAY + open.to];
    if (to > at) return { from: Math.max(from, at), to };
  }
}

/** What is left of a sum that came to nothing, minutes. */
const NO_MINUTES = 1e-9;

/** Hands-on work from a moment on, in the shop's hours. What may not be broken off begins where it fits in one stretch, with the time somebody must stay by it, if any day is long enough. */
function work(
  hours: readonly OpenDay[],
  at: number,
  { minutes, stayMinutes, kind }: Operation,
): { from: number; to: number }[] {
  const unbroken = UNBROKEN.includes(kind);
  const longest = Math.max(...hours.map((h) => (h ? h.to - h.from : 0)));
  const stretches: { from: number; to: number }[] = [];
  let left = minutes;
  let from = at;
  if (left <= NO_MINUTES) {
    const open = openStretch(hours, at);
    return [{ from: open.from, to: open.from }];
  }
  while (left > NO_MINUTES) {
    const open = openStretch(hours, from);
    const room = open.to - open.from;
    if (unbroken && room < left + stayMinutes && longest >= left + stayMinutes) {
      from = open.to;
      continue;
    }
    const take = Math.min(room, left);
    stretches.push({ from: open.from, to: open.from + take });
    left -= take;
    from = open.to;
  }
  return stretches;
}

interface Draft {
  id: string;
  operation: Operation;
  copy: number;
  after: string[];
}

/** Glue on and clamps closing cannot wait for tomorrow. */
const UNBROKEN: readonly OperationKind[] = ['glue', 'join', 'dryRun', 'oil', 'topCoat'];

/**
 * Lays the steps into the shop's hours: one person, each tool once, the clamps there are. Waits go on at night. Among steps that could be done the one with the least slack goes first.
 * @param start minutes from Monday 00:00; before the shop opens it begins when it does
 * @param glued what has been glued already: it is not done again, nor is what came before it
 */
export function timelineOf(
  operations: readonly Operation[],
  shop: Pick<Shop, 'hours' | 'clamps'>,
  start = 0,
  glued: readonly Glued[] = [],
): Timeline {
  const { drafts, begun } = stillToDo(tasksOf(operations), glued);
  const hours = shop.hours.map((day: DayHours): OpenDay => day && { from: minuteOf(day.from), to: minuteOf(day.to) });
  const clamps = clampCount(shop.clamps);
  const left = new Set(drafts.map((d) => d.id));
  const times = criticalPath(
    drafts.map((d) => ({
      id: d.id,
      minutes: d.operation.minutes + (d.operation.waitMinutes ?? 0),
      after: d.after.filter((id) => left.has(id)),
    })),
  );
  const done = new Map<string, TimelineTask>(
    begun.map(({ draft: { id, copy, operation }, run }) => [
      id,
      {
        id,
        step: operation.number,
        copy,
        kind: operation.kind,
        title: operation.title,
        machine: operation.machine,
        hands: [{ from: run.from, to: Math.min(start, run.from + operation.minutes) }],
        until: run.until,
        waitFor: operation.waitFor,
        clamps: run.until > start ? Math.min(clampsOf(operation), clamps) : 0,
        slack: 0,
        critical: true,
      },
    ]),
  );
  const holding = [...done.values()].filter((t) => t.clamps > 0);
  /** What each step still waits for, those that wait for nothing, and what waits for each. */
  const waitsFor = new Map(drafts.map((d) => [d.id, new Set(d.after.filter((id) => !done.has(id)))]));
  const ready = drafts.filter((d) => entryOf(waitsFor, d.id).size === 0);
  const waiting = new Map<string, Draft[]>();
  for (const draft of drafts)
    for (const id of entryOf(waitsFor, draft.id)) {
      const others = waiting.get(id);
      if (others) others.push(draft);
      else waiting.set(id, [draft]);
    }
  let hands = start;
  while (ready.length > 0) {
    const held = (at: number) =>
      holding.reduce((sum, t) => (firstOf(t.hands).from <= at && t.until > at ? sum + t.clamps : sum), 0);
    const options = ready.map((draft) => {
      let from = Math.max(hands, ...draft.after.map((id) => entryOf(done, id).until));
      const { operation } = draft;
      let stretches = work(hours, from, operation);
      // Clamps come free when a wait is over; a glue-up that wants more than the shop has takes all of them.
      const wanted = Math.min(clampsOf(operation), clamps);
      while (wanted > 0 && held(firstOf(stretches).from) + wanted > clamps) {
        const at = firstOf(stretches).from;
        from = Math.min(...holding.filter((t) => t.until > at).map((t) => t.until));
        stretches = work(hours, from, operation);
      }
      return { draft, stretches, wanted };
    });
    const earliest = Math.min(...options.map((o) => firstOf(o.stretches).from));
    // What can begin as soon as anything can; of those, what has the least time to lose.
    const next = firstOf(
      options
        .filter((o) => firstOf(o.stretches).from <= earliest + 1e-9)
        .sort(
          (a, b) =>
            entryOf(times, a.draft.id).slack - entryOf(times, b.draft.id).slack ||
            a.draft.operation.number - b.draft.operation.number ||
            a.draft.copy - b.draft.copy,
        ),
    );
    const { draft, stretches, wanted } = next;
    const end = lastOf(stretches).to;
    const { operation } = draft;
    const { slack } = entryOf(times, draft.id);
    const task: TimelineTask = {
      id: draft.id,
      step: operation.number,
      copy: draft.copy,
      kind: operation.kind,
      title: operation.title,
      machine: operation.machine,
      hands: stretches,
      until: end + (operation.waitMinutes ?? 0),
      waitFor: operation.waitFor,
      clamps: wanted,
      slack,
      critical: slack < 1e-6,
    };
    done.set(task.id, task);
    if (wanted > 0) holding.push(task);
    hands = end;
    ready.splice(ready.indexOf(draft), 1);
    for (const next of waiting.get(draft.id) ?? []) {
      const left = entryOf(waitsFor, next.id);
      left.delete(draft.id);
      if (left.size === 0) ready.push(next);
    }
  }
  const tasks = [...done.values()].sort((a, b) => firstOf(a.hands).from - firstOf(b.hands).from || a.step - b.step);
  const gluing = tasks.filter((t) => t.kind === 'glue' || t.kind === 'join');
  return {
    tasks,
    from: tasks[0]?.hands[0]?.from ?? start,
    to: Math.max(start, ...tasks.map((t) => t.until)),
    panelReady: gluing.length > 0 ? Math.max(...gluing.map((t) => t.until)) : null,
    handsMinutes: timesOf(drafts, (o) => o.minutes),
    waitMinutes: timesOf(drafts, (o) => o.waitMinutes ?? 0),
    clamps,
  };
}

/** A sum over what is still to be done; steps that are not split into panels count for each. */
function timesOf(drafts: readonly Draft[], minutes: (operation: Operation) => number): number {
  return drafts.reduce(
    (sum, { operation }) => sum + minutes(operation) * (operation.glueUp === null ? operation.repeats : 1),
    0,
  );
}

/** What is left once something has been glued: steps before the first glue-up that was begun are done, and so is what a join took. */
function stillToDo(
  all: readonly Draft[],
  glued: readonly Glued[],
): { drafts: Draft[]; begun: { draft: Draft; run: Glued }[] } {
  const begun = all.flatMap((draft) => {
    const run = glued.find((g) => g.glueUp === draft.operation.glueUp && g.copy === draft.copy);
    return run ? [{ draft, run }] : [];
  });
  if (begun.length === 0) return { drafts: [...all], begun };
  const byId = new Map(all.map((d) => [d.id, d]));
  const over = new Set<string>();
  const end = (id: string) => {
    if (over.has(id)) return;
    over.add(id);
    byId.get(id)?.after.forEach(end);
  };
  for (const { draft } of begun) end(draft.id);
  return {
    drafts: all
      .filter((d) => !over.has(d.id))
      .map((d) => ({ ...d, after: d.after.filter((id) => !over.has(id) || begun.some((b) => b.draft.id === id)) })),
    begun,
  };
}

/** A task for each step, for glue-ups one for each panel: what is done panel by panel waits only for its own panel, everything else for all of them. */
function tasksOf(operations: readonly Operation[]): Draft[] {
  const byId = new Map(operations.map((o) => [o.id, o]));
  const byPanel = ({ glueUp }: Operation) => glueUp !== null;
  const taskId = ({ number }: Operation, copy: number | null) => (copy === null ? String(number) : `${number}/${copy}`);
  const tasksFor = (operation: Operation, copy: number | null): string[] => {
    if (!byPanel(operation)) return [taskId(operation, null)];
    return copy === null
      ? Array.from({ length: operation.repeats }, (_, k) => taskId(operation, k + 1))
      : [taskId(operation, copy)];
  };
  return operations.flatMap((operation) => {
    const copies = byPanel(operation) ? Array.from({ length: operation.repeats }, (_, k) => k + 1) : [null];
    return copies.map((copy): Draft => ({
      id: taskId(operation, copy),
      operation,
      copy: copy ?? 1,
      after: operation.after.flatMap((id) => tasksFor(entryOf(byId, id), copy)),
    }));
  });
}

/** Clamps of all kinds that a step holds. */
function clampsOf({ resources }: Operation): number {
  return clampCount(resources.clamps);
}

/** What there is to do while a task waits: other steps that hands are on then, and how long the shop is open with nothing of this board to do, minutes. */
export interface Meanwhile {
  tasks: TimelineTask[];
  freeMinutes: number;
}

/**
 * What can be done while a task waits.
 * @returns null for a task without a wait
 */
export function meanwhileOf(
  tasks: readonly TimelineTask[],
  task: TimelineTask,
  { hours }: Pick<Shop, 'hours'>,
): Meanwhile | null {
  const from = lastOf(task.hands).to;
  if (task.until <= from + 1) return null;
  const others = tasks.filter(
    (t) => t !== task && t.hands.some((h) => h.from < task.until - 1e-6 && h.to > from + 1e-6),
  );
  const within = (a: number, b: number) => Math.max(0, Math.min(b, task.until) - Math.max(a, from));
  const busy = others.reduce((sum, t) => sum + t.hands.reduce((m, h) => m + within(h.from, h.to), 0), 0);
  let open = 0;
  for (let day = Math.floor(from / DAY); day * DAY < task.until; day += 1) {
    const own = hours[((day % 7) + 7) % 7];
    if (own) open += within(day * DAY + minuteOf(own.from), day * DAY + minuteOf(own.to));
  }
  return { tasks: others, freeMinutes: Math.max(0, open - busy) };
}
