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
        <>
          With this wood, and these strips: the thickest board is{' '}
          <b>
            <Length mm={now.thickness} />
          </b>
          , the longest{' '}
          <b>
            <Length mm={now.length} />
          </b>
          , and it is{' '}
          <b>
            <Length mm={plan.panelWidth - 2 * plan.shop.habits.panelEdgeTrim} />
          </b>{' '}
          wide at most.
        </>
      ) : (
        <Button size="compact-sm" variant="default" onClick={() => setAsked(true)}>
          How thick and long could it be?
        </Button>
      )}
    </p>
  );
}
