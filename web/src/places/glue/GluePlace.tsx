import { certain } from '#core/lists/there.ts';
import { useState } from 'react';
import { stationOf, type OperationKind } from '#core/steps/operation.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { SchoolButton } from '../../habits/HabitButton.tsx';
import { FindingCards } from '../../planning/FindingCard.tsx';
import { NoStrips } from '../../planning/NoStrips.tsx';
import { StepList } from '../../planning/StepList.tsx';
import { WaysTable } from '../../planning/WaysTable.tsx';
import { durationWords } from '../../quantities/duration.ts';
import { ClampDrawing } from './ClampDrawing.tsx';
import classes from './GluePlace.module.css';
import { GlueChoices } from './GlueChoices.tsx';
import { GroupEditor } from './GroupEditor.tsx';
import { GroupTree } from './GroupTree.tsx';
import { Rehearsal } from './Rehearsal.tsx';
import { RunPanel } from './RunPanel.tsx';
import { TimelineDrawing } from './TimelineDrawing.tsx';
import { stripsOf } from '#core/board/recipe.ts';

const GLUING: readonly OperationKind[] = ['layOut', 'dryRun', 'glue', 'join', 'flattenSections'];

/** The glue-ups that do not go wrong: groups, clamps and cauls in their places, a rehearsal, a clock, and the panel made flat. */
export function GluePlace() {
  const { board, plan, findings, session } = useSettledBoard();
  const [chosen, setChosen] = useState('');
  if (stripsOf(board).length === 0) return <NoStrips />;
  const { glueUps } = plan.gluing;
  const glueUp = glueUps.find((g) => g.id === chosen) ?? glueUps[0];
  const steps = plan.operations.filter((o) => stationOf(o.kind) === 'glue');
  const flattening = certain(plan.operations.find((o) => o.kind === 'flattenPanel'));
  return (
    <div className={classes.page}>
      <div className={classes.column}>
        <section>
          <h2>Groups</h2>
          <GroupEditor />
          <GroupTree chosen={glueUp?.id ?? ''} onChoose={setChosen} />
        </section>
        {glueUp && (
          <section>
            <h2>
              {glueUp.joins.length > 0 ? 'Join to' : 'Glue'} strips {glueUp.firstStrip} to {glueUp.lastStrip}, from
              above
            </h2>
            <ClampDrawing glueUp={glueUp} />
            <p className={classes.chips}>
              <SchoolButton question="level" /> <SchoolButton question="squeezeOut" />{' '}
              <SchoolButton question="edgeMarks" />
            </p>
          </section>
        )}
        {glueUp && (
          <section>
            <h2>The glue-up itself</h2>
            <RunPanel key={glueUp.id} glueUp={glueUp} />
          </section>
        )}
        <section>
          <h2>Time</h2>
          <TimelineDrawing />
        </section>
      </div>
      <div className={classes.column}>
        {findings.some((f) => f.at && GLUING.includes(f.at)) && (
          <section>
            <h2>What to mind</h2>
            <FindingCards findings={findings.filter((f) => f.at && GLUING.includes(f.at))} />
          </section>
        )}
        <section>
          <h2>Glue and hands</h2>
          <GlueChoices />
        </section>
        {glueUp && (
          <section>
            <h2>Rehearse</h2>
            <Rehearsal glueUp={glueUp} />
          </section>
        )}
        <section>
          <h2>Making the panel flat</h2>
          <p className={classes.note}>
            {durationWords(flattening.minutes)} by {flattening.machine?.toLowerCase()}
            {plan.gluing.sectionWidth !== null && ', after its sections were flattened before they were joined'}.
            Cleanest side down first.
          </p>
          <WaysTable
            ways={plan.flattening}
            taken={flattening.machine}
            onChoose={(id) =>
              session.edit((b) => ({
                ...b,
                differs: { ...b.differs, schools: { ...b.differs.schools, flatten: id as never } },
              }))
            }
          />
          <p className={classes.chips}>
            <SchoolButton question="flatten" /> <SchoolButton question="snipe" />
          </p>
        </section>
        <section>
          <h2>Steps</h2>
          <StepList
            operations={steps}
            findings={findings.filter((f) => f.station === 'glue' && !GLUING.includes(certain(f.at)))}
          />
        </section>
      </div>
    </div>
  );
}
