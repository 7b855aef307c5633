import type { Board } from '../board/board.ts';
import { factsThatHold } from '../facts/factsThatHold.ts';
import { doneSteps } from '../facts/doneSteps.ts';
import type { Fact } from '../facts/fact.ts';
import { bathFor } from '../finish/bath.ts';
import type { FinishPlan } from '../finish/finishPlan.ts';
import type { Finish } from '../shop/finishes.ts';
import { certain } from '../lists/there.ts';
import type { GlueUp } from '../gluing/glueUps.ts';
import type { Shop } from '../shop/shop.ts';
import type { Operation, OperationKind, StepStation } from '../steps/operation.ts';
import { stationOf } from '../steps/operation.ts';
import { SETTING_MINUTES } from '../steps/ways.ts';
import { handMinutes } from '../steps/handMinutes.ts';
import { ofKind } from '../steps/instruction.ts';
import type { Measure, Phrase } from '../units/phrase.ts';
import { machinesOf } from '../steps/machinesOf.ts';
import { clampsHeld, HELD } from './resources.ts';
import type { Task } from './task.ts';

const HOUR = 60;
const DAY = 24 * HOUR;
const MINUTE_MS = 60_000;

/** A step of a board, or a part of one between two waits, that is still to be done. */
export interface WorkTask extends Task {
  step: string;
  copy: number;
  /** How often the step is done, and which part of it this is, of how many: coats of a finish, wetting and what comes after. */
  copies: number;
  part: number;
  parts: number;
  number: number;
  kind: OperationKind;
  station: StepStation;
  title: Phrase;
  waitFor: string | null;
  /** The machine's settings in words and lengths. */
  settings: { label: string; value: Measure }[];
}

/** A step that was done, where it happened; minutes since 1970. */
export interface PastStep {
  step: string;
  copy: number;
  number: number;
  title: Phrase;
  machines: string[];
  from: number;
  to: number;
  /** When its wait is over, and what it waits for. */
  until: number;
  waitFor: string | null;
}

/** All that is to be done on a board, and what was. */
export interface BoardWork {
  board: string;
  name: string;
  count: number;
  tasks: WorkTask[];
  past: PastStep[];
  /** What is still held by what was begun, until when. */
  held: { resource: string; amount: number; until: number }[];
}

/** What is known of a board when its work is read off its plan. */
export interface WorkOf {
  id: string;
  board: Pick<Board, 'name' | 'count' | 'gluing' | 'pins' | 'length' | 'width' | 'thickness'>;
  operations: readonly Operation[];
  glueUps: readonly GlueUp[];
  finish: Pick<FinishPlan, 'coatings'>;
  facts: readonly Fact[];
  /** Glue-ups whose clock runs though nobody has said that they are done; minutes since 1970. */
  running?: readonly { glueUp: string; copy: number; from: number; until: number }[];
}

/** Not broken off: glue and oil cannot wait for tomorrow. */
const UNBROKEN: ReadonlySet<OperationKind> = new Set<OperationKind>(['glue', 'join', 'dryRun', 'oil', 'topCoat']);

export const taskId = (board: string, step: string, copy: number, part = 1): string =>
  `${board}/${step}/${copy}/${part}`;

/** A part of a step: hands, then a wait. */
interface Part {
  minutes: number;
  wait: number;
  waitFor: string | null;
  cure: number;
  holds: { resource: string; amount: number; after: number }[];
}

/** The work of a board that is not done yet, in order, and what was done. @param shop the board's own; people, clamps and room are everybody's */
export function workOf({ id, board, operations, glueUps, finish, facts, running = [] }: WorkOf, shop: Shop): BoardWork {
  const held = factsThatHold(facts);
  const repeats = new Map(operations.map((o) => [o.id, o.repeats]));
  const done = new Map<string, { at: number; minutes: number | null; wait: number }>();
  for (const fact of held)
    if (fact.kind === 'done' && fact.copy <= (repeats.get(fact.step) ?? 0))
      done.set(`${fact.step}/${fact.copy}`, {
        at: Date.parse(fact.at) / MINUTE_MS,
        minutes: fact.minutes,
        wait: fact.wait?.minutes ?? 0,
      });
  const ended = held.flatMap((f) => (f.kind === 'done' ? (f.ends ?? []) : []));
  const isEnded = (step: string, copy: number) =>
    ended.some((e) => e.step === step && (e.copy === null || e.copy === copy));
  // Of one that is not done on every panel, the panels that are.
  const whole = doneSteps(facts, repeats);
  const past: PastStep[] = [];
  for (const o of operations)
    for (let copy = 1; copy <= o.repeats; copy += 1) {
      const own = done.get(`${o.id}/${copy}`);
      if (own)
        past.push({
          ...about(o, copy, shop),
          from: own.at - (own.minutes ?? o.minutes),
          to: own.at,
          until: isEnded(o.id, copy) ? own.at : own.at + own.wait,
          waitFor: o.waitFor,
        });
    }
  const begun = beforeRunning(operations, running);
  for (const run of running) {
    const o = operations.find((one) => one.glueUp === run.glueUp);
    if (o && !done.has(`${o.id}/${run.copy}`) && run.copy <= o.repeats)
      past.push({
        ...about(o, run.copy, shop),
        from: run.from,
        to: Math.min(run.until, run.from + o.minutes),
        until: run.until,
        waitFor: o.waitFor,
      });
  }
  const over = new Map(past.map((p) => [`${p.step}/${p.copy}`, p.until]));
  const isOver = (step: string, copy: number) => over.has(`${step}/${copy}`) || whole.has(step) || begun.has(step);
  const tasks: WorkTask[] = [];
  const byId = new Map(operations.map((o) => [o.id, o]));
  const lastPart = new Map<string, string>();
  for (const o of operations) {
    const machines = machinesOf(o.resources.tools, shop);
    const parts = partsOf(o, { board, glueUps, finish }, shop);
    for (let copy = 1; copy <= o.repeats; copy += 1) {
      if (isOver(o.id, copy)) continue;
      // What is done panel by panel waits only for its own panel, everything else for all of them.
      const before = o.after.flatMap((step) => {
        const other = byId.get(step);
        const same = o.repeats > 1 && other?.repeats === o.repeats && other.glueUp !== null && o.glueUp !== null;
        return Array.from({ length: other?.repeats ?? 0 }, (_, k) => k + 1)
          .filter((n) => !same || n === copy)
          .map((n) => ({ step, copy: n }));
      });
      const notBefore = Math.max(0, ...before.flatMap((b) => over.get(`${b.step}/${b.copy}`) ?? []));
      const pin = board.pins.find((p) => p.step === o.id && p.copy === copy);
      parts.forEach((part, k) => {
        const first = k === 0;
        tasks.push({
          id: taskId(id, o.id, copy, k + 1),
          board: id,
          minutes: part.minutes,
          stay: k === parts.length - 1 ? o.stayMinutes : 0,
          wait: part.wait,
          cure: part.cure,
          unbroken: UNBROKEN.has(o.kind),
          after: first ? before.flatMap((b) => lastPart.get(`${b.step}/${b.copy}`) ?? []) : [taskId(id, o.id, copy, k)],
          people: o.glueUp !== null && board.gluing.helper ? Math.min(2, shop.people.length) : 1,
          person: pin?.person !== undefined && shop.people.some((p) => p.id === pin.person) ? pin.person : null,
          machines,
          setting: first ? settingOf(o, machines) : null,
          holds: part.holds,
          notBefore: first ? notBefore : 0,
          pinned: first && pin?.at ? Date.parse(pin.at) / MINUTE_MS : null,
          step: o.id,
          copy,
          copies: o.repeats,
          part: k + 1,
          parts: parts.length,
          number: o.number,
          kind: o.kind,
          station: stationOf(o.kind),
          title: o.title,
          waitFor: part.waitFor,
          settings: first ? o.settings : [],
        });
      });
      lastPart.set(`${o.id}/${copy}`, taskId(id, o.id, copy, parts.length));
    }
  }
  return {
    board: id,
    name: board.name,
    count: board.count,
    tasks,
    past,
    held: stillHeld(past, operations, glueUps, shop),
  };
}

const about = (o: Operation, copy: number, shop: Shop) => ({
  step: o.id,
  copy,
  number: o.number,
  title: o.title,
  machines: machinesOf(o.resources.tools, shop),
});

/** Everything that must have been done before a glue-up whose clock runs. */
function beforeRunning(operations: readonly Operation[], running: readonly { glueUp: string }[]): ReadonlySet<string> {
  const byId = new Map(operations.map((o) => [o.id, o]));
  const over = new Set<string>();
  const end = (id: string) => {
    if (over.has(id)) return;
    over.add(id);
    byId.get(id)?.after.forEach(end);
  };
  for (const { glueUp } of running) operations.find((o) => o.glueUp === glueUp)?.after.forEach(end);
  return over;
}

/** A machine that is set the same for several boards is set once. */
function settingOf(o: Operation, machines: readonly string[]): Task['setting'] {
  const [machine] = machines;
  const minutes = machine === undefined ? 0 : (SETTING_MINUTES[machine as keyof typeof SETTING_MINUTES] ?? 0);
  if (minutes <= 0 || o.settings.length === 0 || o.minutes <= minutes) return null;
  return { key: o.settings.map((s) => `${s.label} ${s.value.mm.toFixed(1)}`).join(', '), minutes };
}

/** The parts of a step that a wait lies between: each coat of a finish, and the paper after wetted wood is dry. */
function partsOf(
  o: Operation,
  { board, glueUps, finish }: Pick<WorkOf, 'board' | 'glueUps' | 'finish'>,
  shop: Shop,
): Part[] {
  const coats = ofKind(o.instructions, 'coat');
  const coating = coats.length > 0 ? coatOf(o, finish) : null;
  if (coating) return coatParts(o, coating, board, shop);
  const wait = o.waitMinutes ?? 0;
  const glueUp = o.glueUp === null ? undefined : glueUps.find((g) => g.id === o.glueUp);
  const holds = glueUp
    ? [
        ...clampsHeld(glueUp, shop.clamps).map((c) => ({ ...c, after: wait })),
        ...(shop.space.glueUps === null ? [] : [{ resource: HELD.glueUps, amount: 1, after: wait }]),
      ]
    : [];
  const again = ofKind(o.instructions, 'resand');
  if (again.length > 0 && wait > 0) {
    const wet = Math.min(o.minutes, handMinutes(ofKind(o.instructions, 'wet'), shop.pace.work));
    return [
      { minutes: wet, wait, waitFor: o.waitFor, cure: 0, holds },
      { minutes: o.minutes - wet, wait: 0, waitFor: null, cure: 0, holds: [] },
    ];
  }
  return [{ minutes: o.minutes, wait, waitFor: o.waitFor, cure: 0, holds }];
}

/** The finish that a step puts on. */
function coatOf(o: Operation, { coatings }: Pick<FinishPlan, 'coatings'>): Finish | null {
  const [coat] = ofKind(o.instructions, 'coat');
  return coatings.find(({ finish: f }) => f.kind === coat?.finish && f.coats === coat.coats)?.finish ?? null;
}

function coatParts(o: Operation, finish: Finish, board: WorkOf['board'], shop: Shop): Part[] {
  const { coats, dryHours, cureDays, method, soakMinutes } = finish;
  const dries = dryHours * HOUR;
  const bath = method === 'bath' && shop.bath ? tray(shop.bath, board) : null;
  return Array.from({ length: coats }, (_, k): Part => {
    const last = k === coats - 1;
    return {
      minutes: o.minutes / coats,
      wait: dries,
      waitFor: last ? o.waitFor : `coat ${k + 1} of ${coats}`,
      cure: last ? cureDays * DAY : 0,
      holds: [
        ...(bath ? [{ resource: HELD.bath, amount: bath.share, after: 2 * soakMinutes * bath.times }] : []),
        ...(shop.space.drying === null ? [] : [{ resource: HELD.drying, amount: board.count, after: dries }]),
      ],
    };
  });
}

/** Which share of the tray boards take, and how many times it is filled. More than are in it are soaked one after the other. */
function tray(bath: NonNullable<Shop['bath']>, board: WorkOf['board']): { share: number; times: number } | null {
  const volume = board.length * board.width * board.thickness;
  const all = bathFor(bath, board, volume, 1000);
  const own = bathFor(bath, board, volume, board.count);
  return all && own ? { share: own.atOnce / all.atOnce, times: own.times } : null;
}

/** Clamps and room that panels in their clamps still hold. */
function stillHeld(
  past: readonly PastStep[],
  operations: readonly Operation[],
  glueUps: readonly GlueUp[],
  shop: Shop,
): BoardWork['held'] {
  return past.flatMap(({ step, until, to }) => {
    const o = operations.find((one) => one.id === step);
    const glueUp = o && o.glueUp !== null && glueUps.find((g) => g.id === o.glueUp);
    if (!glueUp || until <= to) return [];
    return [
      ...clampsHeld(glueUp, shop.clamps),
      ...(shop.space.glueUps === null ? [] : [{ resource: HELD.glueUps, amount: 1 }]),
    ].map((held) => ({ ...certain(held), until }));
  });
}
