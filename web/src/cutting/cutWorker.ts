import loadHighs from 'highs';
import wasmUrl from 'highs/runtime?url';
import type { CutPlan } from '#core/cutting/cutPlan.ts';
import type { CutProblem } from '#core/cutting/cutProblem.ts';
import { highsSolver } from '#core/cutting/highsSolver.ts';
import { improveCut } from '#core/cutting/improveCut.ts';

/** What a page asks of the worker. To stop it, the page ends the worker: what was told last is kept. */
export interface CutRequest {
  problem: CutProblem;
  seconds: number;
}

export interface CutAnswer {
  plan: CutPlan;
  done: boolean;
}

/** The least time between two messages: a page need not redraw more often. */
const TELL_EVERY_SECONDS = 0.2;

const highs = loadHighs({ locateFile: () => wasmUrl });

self.addEventListener('message', (event: MessageEvent<CutRequest>) => {
  void highs.then((loaded) => {
    const now = () => performance.now() / 1000;
    let told = -Infinity;
    const tell = (plan: CutPlan, done: boolean) => self.postMessage({ plan, done } satisfies CutAnswer);
    const plan = improveCut(event.data.problem, highsSolver(loaded), {
      seconds: event.data.seconds,
      now,
      onProgress: (better) => {
        if (now() - told < TELL_EVERY_SECONDS) return;
        told = now();
        tell(better, false);
      },
    });
    tell(plan, true);
  });
});
