import { Button } from '@mantine/core';
import { useState } from 'react';
import { furthest } from '#core/plan/furthest.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { Length } from '../../quantities/Length.tsx';
import classes from './MillPlace.module.css';

/** The other way round: what the board could be with this wood. Worked out when asked, for it makes the plan many times. */
export function FurthestSizes() {
  const { input, plan } = useSettledBoard();
  const [found, setFound] = useState<{ input: PlanInput; thickness: number; length: number } | null>(null);
  const now = found?.input === input ? found : null;
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
        <Button
          size="compact-sm"
          variant="default"
          onClick={() =>
            setFound({ input, thickness: furthest(input, 'thickness'), length: furthest(input, 'length') })
          }
        >
          How thick and long could it be?
        </Button>
      )}
    </p>
  );
}
