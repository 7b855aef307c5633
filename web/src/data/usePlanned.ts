import { startTransition, useEffect, useState } from 'react';
import { checkPlan } from '#core/checks/checkPlan.ts';
import { makePlan } from '#core/plan/plan.ts';
import { Replanner, type Planned, type Wanted } from './replanner.ts';

/** The plan of a board, a moment after the hands. React renders what follows from it between two frames. */
export function usePlanned(state: Wanted['state'], rest: Wanted['rest'], book: Wanted['book']): Planned {
  const [planned, setPlanned] = useState<Planned | null>(null);
  const [replanner] = useState(
    () =>
      new Replanner(
        { state, rest, book },
        {
          plan: makePlan,
          check: checkPlan,
          publish: (next) => startTransition(() => setPlanned(next)),
          // What goes wrong in a task of its own is shown as what goes wrong while rendering is.
          fail: (error) =>
            setPlanned(() => {
              throw error;
            }),
        },
      ),
  );
  useEffect(() => {
    replanner.want({ state, rest, book });
    return () => replanner.stop();
  }, [replanner, state, rest, book]);
  return planned ?? replanner.first;
}
