import { certain } from '#core/lists/there.ts';
import { SegmentedControl } from '@mantine/core';
import { useMemo, useState } from 'react';
import type { Finding } from '#core/checks/finding.ts';
import { stationOf, type OperationKind } from '#core/steps/operation.ts';
import { ShownAs, useSettledBoard } from '../../data/openBoard.tsx';
import { OF_PARTS, OF_ROWS, OF_STRIPS, GluedWordsContext, useGluedWords } from './gluedWords.ts';
import { panelView, blockView } from './gluedViews.ts';
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

const GLUING: readonly OperationKind[] = ['layOut', 'layRows', 'layParts', 'dryRun', 'glue', 'join', 'flattenSections'];
/** What is glued second, in words. */
const SECOND = { rows: { words: OF_ROWS, label: 'The rows' }, parts: { words: OF_PARTS, label: 'The parts' } } as const;

/** The glue-ups that do not go wrong: groups, clamps and cauls in their places, a rehearsal, a clock, and the panel made flat. */
export function GluePlace() {
  const open = useSettledBoard();
  const [stage, setStage] = useState<'panel' | 'block'>('panel');
  const shown = useMemo(() => (stage === 'block' ? blockView(open) : panelView(open)), [open, stage]);
  if (stripsOf(open.board).length === 0) return <NoStrips />;
  const { again } = open.plan;
  if (!again) return <GlueUps ofBlock={false} />;
  return (
    <ShownAs open={shown}>
      <GluedWordsContext value={stage === 'block' ? SECOND[again.how].words : OF_STRIPS}>
        <SegmentedControl
          className={classes.stages}
          size="sm"
          aria-label="What is glued"
          value={stage}
          onChange={setStage}
          data={[
            { value: 'panel', label: 'The panel of strips' },
            { value: 'block', label: SECOND[again.how].label },
          ]}
        />
        <GlueUps key={stage} ofBlock={stage === 'block'} />
      </GluedWordsContext>
    </ShownAs>
  );
}

/** Whether a finding is about rows or parts rather than the strips of their panel. */
const isOfBlock = ({ part, at }: Finding): boolean =>
  part === 'rows' || part === 'parts' || at === 'layRows' || at === 'layParts';

/** The glue-ups of one panel, or of the block of one board. */
function GlueUps({ ofBlock }: { ofBlock: boolean }) {
  const { plan, findings, session } = useSettledBoard();
  const [chosen, setChosen] = useState('');
  const { one, whole } = useGluedWords();
  const { glueUps } = plan.gluing;
  const glueUp = glueUps.find((g) => g.id === chosen) ?? glueUps[0];
  const steps = plan.operations.filter((o) => stationOf(o.kind) === 'glue');
  const flattens = plan.operations.filter((o) => o.kind === 'flattenPanel');
  const flattening = certain(ofBlock ? flattens.at(-1) : flattens[0]);
  const about = findings.filter((f) => f.at && GLUING.includes(f.at) && isOfBlock(f) === ofBlock);
  return (
    <div className={classes.page}>
      <div className={classes.column}>
        <section>
          <h2>Groups</h2>
          {!ofBlock && <GroupEditor />}
          <GroupTree chosen={glueUp?.id ?? ''} onChoose={setChosen} />
        </section>
        {glueUp && (
          <section>
            <h2>
              {glueUp.joins.length > 0 ? 'Join to' : 'Glue'} {one}s {glueUp.firstStrip} to {glueUp.lastStrip}, from
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
        {about.length > 0 && (
          <section>
            <h2>What to mind</h2>
            <FindingCards findings={about} />
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
          <h2>Making the {whole} flat</h2>
          <p className={classes.note}>
            {durationWords(flattening.minutes)} by {flattening.machine?.toLowerCase()}
            {plan.gluing.sectionWidth !== null && ', after its sections were flattened before they were joined'}.
            Cleanest side down first.
          </p>
          <WaysTable
            ways={plan.again && !ofBlock ? flattening.ways : plan.flattening}
            taken={flattening.machine}
            onChoose={(id) =>
              session.edit((b) => ({
                ...b,
                differs: { ...b.differs, schools: { ...b.differs.schools, flatten: id as never } },
              }))
            }
          />
          <p className={classes.chips}>
            <SchoolButton question="flatten" />{' '}
            {plan.again?.up && ofBlock ? <SchoolButton question="endGrain" /> : <SchoolButton question="snipe" />}
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
