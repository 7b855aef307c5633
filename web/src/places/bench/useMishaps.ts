import { useEffect, useRef, useState } from 'react';
import { firstMishaps, mayHaveMishaps, type Mishaps } from '#core/bench/mishaps.ts';
import type { Plan } from '#core/plan/plan.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import type { MishapAnswer, MishapRequest } from './mishapWorker.ts';

const NONE: Mishaps = { told: [], more: false };

/** What went otherwise at the bench and is not decided yet. Each way out is a plan of its own, so a worker works them out; until it answers, what was told before stays. */
export function useMishaps(input: PlanInput, plan: Plan): Mishaps {
  const [mishaps, setMishaps] = useState(NONE);
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
    if (!mayHaveMishaps(input.facts ?? [])) setMishaps(NONE);
    else if (typeof Worker === 'undefined') setMishaps(firstMishaps(input, plan));
    else {
      worker.current ??= begin((answer) => {
        if (answer.number === newest.current) setMishaps(answer.mishaps);
      });
      worker.current.postMessage({ number: newest.current, input } satisfies MishapRequest);
    }
  }, [input, plan]);
  return mishaps;
}

function begin(tell: (answer: MishapAnswer) => void): Worker {
  const worker = new Worker(new URL('./mishapWorker.ts', import.meta.url), { type: 'module' });
  worker.addEventListener('message', ({ data }: MessageEvent<MishapAnswer>) => tell(data));
  return worker;
}
