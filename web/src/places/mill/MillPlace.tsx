import { firstOf } from '#core/lists/there.ts';
import { Button, SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { stationOf } from '#core/steps/operation.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { FindingCards } from '../../planning/FindingCard.tsx';
import { MaterialFigures } from '../../planning/MaterialFigures.tsx';
import { NoStrips } from '../../planning/NoStrips.tsx';
import { PartsTable } from '../../planning/PartsTable.tsx';
import { BoardSteps } from '../../planning/BoardSteps.tsx';
import { SheetDrawing } from '../sheet/SheetDrawing.tsx';
import { BatchChoice } from './BatchChoice.tsx';
import { FurthestSizes } from './FurthestSizes.tsx';
import { LadderView } from './LadderView.tsx';
import classes from './MillPlace.module.css';
import { MoistureLines } from './MoistureLines.tsx';
import { OrderTable } from './OrderTable.tsx';
import { stripsOf } from '#core/board/recipe.ts';

const LADDERS = ['thickness', 'width', 'length'] as const;

/** From rough stock to strips ready for glue: what is left after each step, in which order, on which machine, set to what. */
export function MillPlace() {
  const { board, plan, findings } = useSettledBoard();
  const [shown, setShown] = useState<(typeof LADDERS)[number]>('thickness');
  if (stripsOf(board).length === 0) return <NoStrips />;
  const steps = plan.operations.filter((o) => stationOf(o.kind) === 'mill');
  const here = findings.filter((f) => f.station === null || f.station === 'mill');
  return (
    <div className={classes.page}>
      <div className={classes.column}>
        <section>
          <h2>From stock to finished</h2>
          <SegmentedControl
            size="sm"
            aria-label="Ladder"
            value={shown}
            onChange={(v) => setShown(v)}
            data={LADDERS.map((l) => ({
              value: l,
              label: `${firstOf(l).toUpperCase()}${l.slice(1)}${plan.ladders[l].shortBy > 0 ? ', short' : ''}`,
            }))}
          />
          <LadderView ladder={plan.ladders[shown]} />
          <FurthestSizes />
        </section>
        <section>
          <h2>Order of milling</h2>
          <OrderTable />
        </section>
        {board.count > 1 && !plan.again && (
          <section>
            <h2>{board.count} boards, how many to a panel</h2>
            <BatchChoice />
          </section>
        )}
        <section>
          <h2>Marking</h2>
          <SheetDrawing marks />
          <p className={classes.lead}>
            <Link to="../sheet" relative="path">
              Print it with the bench sheet
            </Link>
          </p>
        </section>
      </div>
      <div className={classes.column}>
        <section>
          <h2>At the machines</h2>
          {steps.length > 0 ? (
            <BoardSteps operations={steps} findings={findings} />
          ) : (
            <p className={classes.lead}>
              All its strips are cut and on the bench, or the rack gives none: see{' '}
              <Link to="../cuts" relative="path">
                Cuts
              </Link>
              .
            </p>
          )}
        </section>
        {here.some((f) => f.at === undefined) && (
          <section>
            <h2>What to mind</h2>
            <FindingCards findings={here.filter((f) => f.at === undefined)} />
          </section>
        )}
        <MoistureLines />
        <section>
          <h2>Wood</h2>
          <MaterialFigures
            materials={plan.materials}
            shop={plan.shop}
            coatings={plan.finish.coatings}
            count={board.count}
          />
          <PartsTable />
          <Button component={Link} to="../glue" relative="path" mt={12}>
            On to the glue-up
          </Button>
        </section>
      </div>
    </div>
  );
}
