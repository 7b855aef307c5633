import { useEffect, useMemo, useRef, useState } from 'react';
import { firstMishaps, undecidedFacts, type Mishaps } from '#core/bench/mishaps.ts';
import type { Plan } from '#core/plan/plan.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import type { MishapAnswer, MishapRequest } from './mishapWorker.ts';

const NONE: Mishaps = { told: [], more: false };
/** Page tests have none. */
const HAS_WORKERS = typeof Worker !== 'undefined';

/**
 * What went otherwise at the bench and is not decided yet. Each way out is a plan of its own, so a worker works them out; until it answers, what was told before stays, but
 * for what is decided by now.
 */
export function useMishaps(input: PlanInput, plan: Plan): Mishaps {
  const undecided = useMemo(() => undecidedFacts(input.facts ?? []), [input.facts]);
  const [answered, setAnswered] = useState(NONE);
  const worker = useRef<Worker | null>(null);
  const newest = useRef(0);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [],
  );
  useEffect(() => {
    newest.current += 1;
    if (!HAS_WORKERS || undecided.size === 0) return;
    worker.current ??= begin((answer) => {
      if (answer.number === newest.current) setAnswered(answer.mishaps);
    });
    worker.current.postMessage({ number: newest.current, input } satisfies MishapRequest);
  }, [input, undecided]);
  return useMemo(() => {
    if (undecided.size === 0) return NONE;
    const { told, more } = HAS_WORKERS ? answered : firstMishaps(input, plan);
    return { told: told.filter((m) => undecided.has(m.fact)), more };
  }, [answered, undecided, input, plan]);
}

function begin(tell: (answer: MishapAnswer) => void): Worker {
  const worker = new Worker(new URL('./mishapWorker.ts', import.meta.url), { type: 'module' });
  worker.addEventListener('message', ({ data }: MessageEvent<MishapAnswer>) => tell(data));
  return worker;
}
