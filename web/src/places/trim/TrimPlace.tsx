import { SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { isAt } from '#core/plan/operation.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { NoStrips } from '../../planning/NoStrips.tsx';
import { StepList } from '../../planning/StepList.tsx';
import { BoardWork } from './BoardWork.tsx';
import { SquareCheck } from './SquareCheck.tsx';
import { OtherBoards } from './OtherBoards.tsx';
import { SpotList } from './SpotList.tsx';
import { TemplateView } from './TemplateView.tsx';
import { TrimDrawing } from './TrimDrawing.tsx';
import classes from './TrimPlace.module.css';

const VIEWS = [{ value: 'panel', label: 'Size' }, { value: 'board', label: 'Edges and features' }, { value: 'files', label: 'Templates and jobs' }] as const;
type View = (typeof VIEWS)[number]['value'];

/** From the flat panel to finished boards: where they lie and how they are cut, whether they came out square and flat, and what is worked into them. */
export function TrimPlace() {
  const { board, plan, findings } = useSettledBoard();
  const [params, setParams] = useSearchParams();
  const [spot, setSpot] = useState<string | null>(null);
  if (board.strips.length === 0) return <NoStrips />;
  const view: View = VIEWS.find((v) => v.value === params.get('view'))?.value ?? 'panel';
  const operations = plan.operations.filter((o) => isAt('trim', o.kind));
  return (
    <div className={classes.page}>
      <div className={classes.column}>
        <SegmentedControl className={classes.views} size="sm" aria-label="What is trimmed" value={view} onChange={(v) => setParams(v === 'panel' ? {} : { view: v }, { replace: true })} data={[...VIEWS]} />
        {view === 'panel' ? (
          <>
            <section>
              <h2>The panel</h2>
              <TrimDrawing chosen={spot} onChoose={setSpot} />
              <SpotList chosen={spot} onChoose={setSpot} />
              <OtherBoards />
            </section>
            <section>
              <h2>Is it square and flat?</h2>
              <SquareCheck />
            </section>
          </>
        ) : view === 'board' ? <BoardWork /> : <TemplateView />}
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
