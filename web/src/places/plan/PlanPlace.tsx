import { Button } from '@mantine/core';
import { Link } from 'react-router';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { FindingCard } from './FindingCard.tsx';
import { GlueTree } from './GlueTree.tsx';
import { LadderView } from './LadderView.tsx';
import { MaterialFigures } from './MaterialFigures.tsx';
import { PartsTable } from './PartsTable.tsx';
import classes from './PlanPlace.module.css';
import { StepList } from './StepList.tsx';

/** Everything the core computes of a board, on one page: findings, ladders, parts, glue-ups, steps, wood. */
export function PlanPlace() {
  const { board, plan, findings } = useSettledBoard();
  if (board.strips.length === 0) {
    return (
      <div className={classes.empty}>
        <h2>No plan yet</h2>
        <p>A plan begins with strips. Lay some out, and everything here is computed at once.</p>
        <Button component={Link} to="../layout" relative="path">Lay out strips</Button>
      </div>
    );
  }
  return (
    <div className={classes.page}>
      <div className={classes.column}>
        <section>
          <h2>From stock to finished</h2>
          <p className={classes.lead}>Before less what is taken is what is left, rung by rung. Open a rung for its reason.</p>
          <LadderView ladder={plan.ladders.thickness} />
          <LadderView ladder={plan.ladders.width} />
          <LadderView ladder={plan.ladders.length} />
        </section>
        <section>
          <h2>Glue-ups</h2>
          <GlueTree />
        </section>
      </div>
      <div className={classes.column}>
        {findings.length > 0 && (
          <section>
            <h2>What to mind</h2>
            {findings.map((finding, i) => <FindingCard key={i} finding={finding} />)}
          </section>
        )}
        <section>
          <h2>Wood</h2>
          <MaterialFigures materials={plan.materials} count={board.count} />
          <PartsTable />
        </section>
        <section>
          <h2>Steps</h2>
          <StepList operations={plan.operations} />
        </section>
      </div>
    </div>
  );
}
