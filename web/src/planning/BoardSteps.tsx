import { useMemo, type ComponentProps } from 'react';
import { doneSteps } from '#core/facts/doneSteps.ts';
import { useSettledBoard } from '../data/openBoard.tsx';
import { StepList } from './StepList.tsx';

/** Steps of the open board, those marked that are done at the bench. */
export function BoardSteps(props: Omit<ComponentProps<typeof StepList>, 'done'>) {
  const { plan, input } = useSettledBoard();
  const done = useMemo(
    () => doneSteps(input.facts ?? [], new Map(plan.operations.map((o) => [o.id, o.repeats]))),
    [plan, input],
  );
  return <StepList {...props} done={done} />;
}
