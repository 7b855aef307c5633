import { usePersisted } from './usePersisted.ts';

/** The clock of one step: it runs while the hands do, through a reload too. */
export function useStepClock(key: string, now: number) {
  const [kept, keep] = usePersisted(`cadenza-clock/${key}`);
  const [gone, since] = ranSoFar(kept);
  const elapsed = gone + (since === null ? 0 : Math.max(0, (now - since) / 60_000));
  return {
    elapsed,
    running: since !== null,
    /** Minutes it counted; null where it never ran. */
    minutes: kept === '' ? null : Math.min(6000, Math.round(elapsed * 100) / 100),
    start: () => keep(`${elapsed} ${Date.now()}`),
    stop: () => keep(String(elapsed)),
    reset: () => keep(''),
  };
}

/** Minutes a clock counted before it was started last, and when that was; one that was never started counted none. */
function ranSoFar(kept: string): [number, number | null] {
  const [gone = NaN, since = NaN] = kept.split(' ').map(Number);
  return [Number.isFinite(gone) ? gone : 0, Number.isFinite(since) ? since : null];
}

export type StepClock = ReturnType<typeof useStepClock>;
