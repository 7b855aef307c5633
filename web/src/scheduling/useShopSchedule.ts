import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { ShopWork, StoredSchedule } from '#contract/schedule.ts';
import { latestStarts } from '#core/schedule/bound.ts';
import { firstSchedule, WORTH_MINUTES } from '#core/schedule/improve.ts';
import { shopProblem } from '#core/schedule/shopProblem.ts';
import type { Schedule, ScheduleProblem } from '#core/schedule/task.ts';
import { api, ApiProblem } from '../data/api.ts';
import { keys, queryClient } from '../data/queryClient.ts';
import type { ScheduleAnswer, ScheduleRequest } from './scheduleWorker.ts';

const MINUTE_MS = 60_000;
/** What another device did is here as soon as this, ms. */
const LOOK_AGAIN_MS = 30_000;
/** Nobody watches longer than that, seconds. */
const SEARCH_SECONDS = 8;

/** What is known is shown at once, and grows while the rest is worked out. */
async function askForWork(): Promise<ShopWork> {
  let work = await api.schedule();
  while (!work.upToDate) {
    queryClient.setQueryData(keys.schedule, work);
    work = await api.schedule(true);
  }
  return work;
}

export const scheduleQuery = {
  queryKey: keys.schedule,
  queryFn: askForWork,
  refetchInterval: LOOK_AGAIN_MS,
} as const;

/** How good the order is that is shown, as far as it is known. */
export interface Search {
  running: boolean;
  /** Shop hours it could be shorter at most, as a share; null until the bound is known. */
  gap: number | null;
  proven: boolean;
}

/** The work of the shop in its places. */
export interface ShopSchedule {
  work: ShopWork;
  problem: ScheduleProblem;
  schedule: Schedule;
  /** When each task must be begun for its board to be in time. */
  latest: ReadonlyMap<string, number>;
  search: Search;
}

/** @returns the problem that some work puts, from the moment it was told on */
export function problemOf(work: ShopWork): ScheduleProblem {
  return shopProblem(
    work.boards.map((b) => ({ work: b.work, due: b.due })),
    work.shop,
    work.zone,
    Math.floor(Date.parse(work.now) / MINUTE_MS),
  );
}

/** What an order depends on: another search is worth while only when that is another. */
const signature = ({ tasks, dues, people, capacities }: ScheduleProblem): string =>
  JSON.stringify([
    tasks.map((t) => [t.id, t.pinned, t.person, Math.round(t.minutes), Math.round(t.wait)]),
    [...dues],
    people.map((p) => p.id),
    [...capacities],
  ]);

/** Whether an order is so much better that what people know is turned over for it. */
function isWorth(better: Schedule, kept: Schedule): boolean {
  const [a, b] = [better.score, kept.score];
  return b.late - a.late >= WORTH_MINUTES || (a.late <= b.late + 1 && b.open - a.open >= 4 * WORTH_MINUTES);
}

/** Everything that is to be done in the shop, in an order that makes the dates: shown at once, bettered while somebody watches, and kept so that every page and calendar tells the same. */
export function useShopSchedule(): { data: ShopSchedule | null; error: Error | null } {
  const query = useQuery(scheduleQuery);
  const work = query.data;
  const problem = useMemo(() => work && problemOf(work), [work]);
  const schedule = useMemo(() => work && problem && firstSchedule(problem, work.schedule.order), [work, problem]);
  const latest = useMemo(() => problem && latestStarts(problem), [problem]);
  const [search, setSearch] = useState<Search>({ running: false, gap: null, proven: false });
  const key = useMemo(() => problem && signature(problem), [problem]);
  const newest = useRef({ work, problem, schedule });
  useEffect(() => {
    newest.current = { work, problem, schedule };
  });
  useEffect(() => {
    const { problem: given, schedule: first } = newest.current;
    if (!given || !first || given.tasks.length < 2) {
      setSearch({ running: false, gap: 0, proven: true });
      return undefined;
    }
    const worker = new Worker(new URL('./scheduleWorker.ts', import.meta.url), { type: 'module' });
    setSearch((s) => ({ ...s, running: true }));
    worker.addEventListener('message', ({ data }: MessageEvent<ScheduleAnswer>) => {
      setSearch({ running: !data.done, gap: data.gap, proven: data.proven });
      if (!data.done) return;
      worker.terminate();
      void keep(newest.current.work, data.order);
    });
    const request: ScheduleRequest = { problem: given, order: first.order, seconds: SEARCH_SECONDS };
    worker.postMessage(request);
    return () => worker.terminate();
  }, [key]);
  return {
    data: work && problem && schedule && latest ? { work, problem, schedule, latest, search } : null,
    error: work ? null : (query.error ?? query.failureReason),
  };
}

/** Keeps an order that is worth it; where another device was first, its order holds. */
async function keep(work: ShopWork | undefined, order: readonly string[]): Promise<void> {
  if (!work) return;
  const problem = problemOf(work);
  const shown = firstSchedule(problem, work.schedule.order);
  const better = firstSchedule(problem, order);
  if (work.schedule.order.length > 0 && !isWorth(better, shown)) return;
  try {
    takeDecided(await api.saveSchedule(work.version, { ...work.schedule, order: [...better.order] }));
  } catch {
    void queryClient.invalidateQueries({ queryKey: keys.schedule });
  }
}

function takeDecided(stored: StoredSchedule): void {
  queryClient.setQueryData(keys.schedule, (work: ShopWork | undefined) => work && { ...work, ...stored });
}

/** Decides about the shop's work: which boards are taken up, and which wait. What another device decided meanwhile stays. @param change of the newest there is @throws ApiProblem */
export async function decideWork(
  work: ShopWork,
  change: (schedule: ShopWork['schedule']) => ShopWork['schedule'],
): Promise<void> {
  let newest = work;
  for (let again = 0; ; again += 1) {
    try {
      takeDecided(await api.saveSchedule(newest.version, change(newest.schedule)));
      // Which boards are in work is for the server to say.
      await queryClient.invalidateQueries({ queryKey: keys.schedule });
      return;
    } catch (error) {
      if (!(error instanceof ApiProblem && error.code === 'stale') || again === MOST_TRIES) throw error;
      newest = await api.schedule();
    }
  }
}

/** So often another device may be first. */
const MOST_TRIES = 4;

/** A board that somebody takes up. */
export const takenUp =
  (id: string) =>
  ({ taken, waiting, order }: ShopWork['schedule']): ShopWork['schedule'] => ({
    order,
    taken: [...taken.filter((t) => t !== id), id],
    waiting: waiting.filter((w) => w !== id),
  });

/** Boards that wait until somebody takes them up again. */
export const putOff =
  (ids: readonly string[]) =>
  ({ taken, waiting, order }: ShopWork['schedule']): ShopWork['schedule'] => ({
    order,
    taken: taken.filter((t) => !ids.includes(t)),
    waiting: [...waiting.filter((w) => !ids.includes(w)), ...ids],
  });
