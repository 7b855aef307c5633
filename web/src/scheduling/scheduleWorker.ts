import { Improver } from '#core/schedule/improve.ts';
import { Decoder } from '#core/schedule/decode.ts';
import type { Bounds } from '#core/schedule/bound.ts';
import type { ScheduleProblem } from '#core/schedule/task.ts';

/** What a page asks of the worker: from which order to go on, and for how long. To stop it, the page ends the worker. */
export interface ScheduleRequest {
  problem: ScheduleProblem;
  order: readonly string[];
  seconds: number;
}

export interface ScheduleAnswer {
  /** The best order so far. */
  order: readonly string[];
  bounds: Bounds;
  gap: number;
  proven: boolean;
  done: boolean;
}

/** So many orders are looked at between two looks at the clock. */
const AT_ONCE = 20;
const TELL_EVERY_MS = 300;

self.addEventListener('message', ({ data: { problem, order, seconds } }: MessageEvent<ScheduleRequest>) => {
  const improver = new Improver(problem, new Decoder(problem).schedule(order));
  const ends = performance.now() + seconds * 1000;
  let told = -Infinity;
  const tell = (done: boolean) => {
    const { schedule, bounds, gap, proven } = improver.judged();
    const answer: ScheduleAnswer = { order: schedule.order, bounds, gap, proven, done };
    self.postMessage(answer);
    told = performance.now();
  };
  while (!improver.finished && performance.now() < ends) {
    improver.look(AT_ONCE);
    if (performance.now() - told > TELL_EVERY_MS) tell(false);
  }
  tell(true);
});
