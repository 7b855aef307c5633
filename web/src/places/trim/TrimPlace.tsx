import { isAt } from '#core/plan/operation.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { NoStrips } from '../../planning/NoStrips.tsx';
import { StepList } from '../../planning/StepList.tsx';
import { SquareCheck } from './SquareCheck.tsx';
import { TrimDrawing } from './TrimDrawing.tsx';
import classes from './TrimPlace.module.css';

/** From the flat panel to boards of exact size: where they lie, in which order they are cut, and whether they came out square and flat. */
export function TrimPlace() {
  const { board, plan, findings } = useSettledBoard();
  if (board.strips.length === 0) return <NoStrips />;
  const operations = plan.operations.filter((o) => isAt('trim', o.kind));
  return (
    <div className={classes.page}>
      <div className={classes.column}>
        <section>
          <h2>The panel</h2>
          <TrimDrawing />
        </section>
        <section>
          <h2>Is it square and flat?</h2>
          <SquareCheck />
        </section>
      </div>
      <div className={classes.column}>
        <section>
          <h2>Steps</h2>
          <StepList operations={operations} findings={findings.filter((f) => isAt('trim', f.at))} />
        </section>
      </div>
    </div>
  );
}
