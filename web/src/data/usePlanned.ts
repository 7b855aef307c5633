import { startTransition, useEffect, useRef, useState } from 'react';
import { checkPlan } from '#core/checks/checkPlan.ts';
import type { Finding } from '#core/checks/finding.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import { makePlan, type Plan } from '#core/plan/plan.ts';
import type { SawBook } from '#core/saw/sawRecords.ts';
import type { SessionState } from './boardSession.ts';

/** A state of the board with what follows from it. */
export interface Planned extends SessionState {
  /** What is kept at the saw: it changes in one with the plan that follows from it. */
  book: SawBook;
  input: PlanInput;
  plan: Plan;
  findings: Finding[];
}

/** While something is dragged the plan is made anew this often, ms: fast enough to be read, seldom enough to leave the frames to the drawing. */
const PLAN_EVERY_MS = 500;

/**
 * The plan of a board, a moment after the hands: at once when they have rested, then at its own pace while the board keeps changing, and always to the last.
 * Plan and checks are two tasks and React renders what follows from them between two frames, so that a drag stays smooth however much hangs on the plan.
 */
export function usePlanned(state: SessionState, rest: Omit<PlanInput, 'board'>, book: SawBook): Planned {
  const [planned, setPlanned] = useState<Planned>(() => {
    const input = { ...rest, board: state.board };
    const plan = makePlan(input);
    return { ...state, book, input, plan, findings: checkPlan(plan, input) };
  });
  const made = useRef(planned);
  const last = useRef(-Infinity);
  useEffect(() => {
    const { input: before, ...was } = made.current;
    if (
      before.board === state.board &&
      before.rack === rest.rack &&
      before.shop === rest.shop &&
      before.species === rest.species &&
      before.facts === rest.facts &&
      before.saw === rest.saw
    ) {
      if (Object.entries({ ...state, book }).some(([key, value]) => was[key as keyof typeof was] !== value))
        publish({ ...made.current, ...state, book });
      return;
    }
    let timer = setTimeout(
      () =>
        inRender(() => {
          last.current = performance.now();
          const input = { ...rest, board: state.board };
          const plan = makePlan(input);
          timer = setTimeout(() =>
            inRender(() => publish({ ...state, book, input, plan, findings: checkPlan(plan, input) })),
          );
        }),
      Math.max(0, last.current + PLAN_EVERY_MS - performance.now()),
    );
    return () => clearTimeout(timer);

    function publish(next: Planned): void {
      made.current = next;
      startTransition(() => setPlanned(next));
    }
    /** What goes wrong in a task of its own is shown as what goes wrong while rendering is. */
    function inRender(work: () => void): void {
      try {
        work();
      } catch (error) {
        setPlanned(() => {
          throw error;
        });
      }
    }
  }, [state, rest, book]);
  return planned;
}
