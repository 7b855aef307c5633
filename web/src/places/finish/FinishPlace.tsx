import { stripsOf } from '#core/board/recipe.ts';
import { stationOf } from '#core/steps/operation.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { BoardSteps } from '../../planning/BoardSteps.tsx';
import { NoStrips } from '../../planning/NoStrips.tsx';
import { FinishCoats } from './FinishCoats.tsx';
import { FinishDates } from './FinishDates.tsx';
import classes from './FinishPlace.module.css';
import { PackList } from './PackList.tsx';
import { SidesToSand } from './SidesToSand.tsx';

/** From the trimmed board to the one in somebody's kitchen: how its sides are sanded, what goes on them, and when it may be used. */
export function FinishPlace() {
  const { board, plan, findings } = useSettledBoard();
  if (stripsOf(board).length === 0) return <NoStrips />;
  const operations = plan.operations.filter((o) => stationOf(o.kind) === 'finish');
  return (
    <div className={classes.page}>
      <div className={classes.column}>
        <SidesToSand />
        <FinishDates />
        <PackList />
      </div>
      <div className={classes.column}>
        <FinishCoats />
        <section>
          <h2>Steps</h2>
          <BoardSteps operations={operations} findings={findings.filter((f) => f.station === 'finish')} />
        </section>
      </div>
    </div>
  );
}
