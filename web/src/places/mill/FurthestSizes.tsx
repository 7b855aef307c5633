import { Button } from '@mantine/core';
import { useDeferredValue, useMemo, useState } from 'react';
import { furthest } from '#core/plan/furthest.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { Length } from '../../quantities/Length.tsx';
import classes from './MillPlace.module.css';

/** The other way round: what the board could be with this wood. Worked out when asked, for it makes the plan many times; from then on it follows what is changed, here or on another device. */
export function FurthestSizes() {
  const { input, plan } = useSettledBoard();
  const [asked, setAsked] = useState(false);
  // The rest of the page does not wait for it.
  const made = useDeferredValue(input);
  const now = useMemo(
    () => (asked ? { thickness: furthest(made, 'thickness'), length: furthest(made, 'length') } : null),
    [asked, made],
  );
  return (
    <p className={classes.lead} role="status">
      {now ? (
        <Furthest {...now} width={plan.panelWidth - 2 * plan.shop.habits.panelEdgeTrim} />
      ) : (
        <Button size="compact-sm" variant="default" onClick={() => setAsked(true)}>
          How thick and long could it be?
        </Button>
      )}
    </p>
  );
}

function Furthest({ thickness, length, width }: Record<'thickness' | 'length' | 'width', number>) {
  const size = (mm: number) => (
    <b>
      <Length mm={mm} />
    </b>
  );
  if (thickness === 0 && length === 0)
    return <>With the wood that is there, these strips cannot be had at any size: see Cuts for what is missing.</>;
  return (
    <>
      With this wood, and these strips:{' '}
      {thickness === 0 ? 'no thickness can be had at this length' : <>the thickest board is {size(thickness)}</>},{' '}
      {length === 0 ? 'no length at this thickness' : <>the longest {size(length)}</>}, and it is {size(width)} wide at
      most.
    </>
  );
}
