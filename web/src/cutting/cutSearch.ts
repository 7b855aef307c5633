import type { CutPlan } from '#core/cutting/cutPlan.ts';
import type { CutProblem } from '#core/cutting/cutProblem.ts';
import { firstFit } from '#core/cutting/firstFit.ts';
import { joinPlans } from '#core/cutting/joinPlans.ts';
import type { CutAnswer, CutRequest } from './cutWorker.ts';

/** More workers than this find nothing sooner: there are only a few species. */
const MOST_WORKERS = 2;

/**
 * Searches for a better cut plan beside the page. First fit answers at once; then the species, which never share wood, are shared out to
 * workers. `stop` ends them and what was told last stands.
 */
export class CutSearch {
  private readonly workers: Worker[] = [];
  private running = 0;
  /** An answer that was on its way when the search was stopped is about a board that has changed since. */
  private stopped = false;

  constructor(problem: CutProblem, seconds: number, tell: (plan: CutPlan, done: boolean) => void) {
    const shares = shareOut(problem);
    const parts = shares.map(firstFit);
    this.running = shares.length;
    tell(joinPlans(parts), shares.length === 0);
    shares.forEach((share, i) => {
      const worker = new Worker(new URL('./cutWorker.ts', import.meta.url), { type: 'module' });
      worker.onmessage = (event: MessageEvent<CutAnswer>) => {
        if (this.stopped) return;
        parts[i] = event.data.plan;
        if (event.data.done) {
          this.running -= 1;
          worker.terminate();
        }
        tell(joinPlans(parts), this.running === 0);
      };
      worker.onerror = () => {
        if (this.stopped) return;
        this.running -= 1;
        tell(joinPlans(parts), this.running === 0);
      };
      worker.postMessage({ problem: share, seconds } satisfies CutRequest);
      this.workers.push(worker);
    });
  }

  stop(): void {
    this.stopped = true;
    for (const worker of this.workers) worker.terminate();
  }
}

/** Species in shares of about equal work, largest first. */
function shareOut(problem: CutProblem): CutProblem[] {
  const counts = new Map<string, number>();
  for (const d of problem.demands) counts.set(d.species, (counts.get(d.species) ?? 0) + 1);
  const shares = Array.from(
    { length: Math.min(MOST_WORKERS, counts.size, Math.max(1, navigator.hardwareConcurrency)) },
    () => ({ work: 0, species: new Set<string>() }),
  );
  for (const [species, count] of [...counts].sort((a, b) => b[1] - a[1])) {
    const least = shares.reduce((a, b) => (b.work < a.work ? b : a));
    least.work += count * problem.rack.filter((p) => p.species === species).length;
    least.species.add(species);
  }
  return shares.map(({ species }) => ({
    ...problem,
    demands: problem.demands.filter((d) => species.has(d.species)),
    rack: problem.rack.filter((p) => species.has(p.species)),
  }));
}
