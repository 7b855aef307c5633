import { certain } from '#core/lists/there.ts';
import { SegmentedControl } from '@mantine/core';
import { useMemo, useState } from 'react';
import type { Finding } from '#core/checks/finding.ts';
import { stationOf, type OperationKind } from '#core/steps/operation.ts';
import type { Plan } from '#core/plan/plan.ts';
import { ShownAs, useSettledBoard } from '../../data/openBoard.tsx';
import { gluedPartsOf, type GluedPart } from './gluedParts.ts';
import { GluedStageContext, useGluedStage } from './gluedWords.ts';
import { SchoolButton } from '../../habits/HabitButton.tsx';
import { FindingCards } from '../../planning/FindingCard.tsx';
import { NoStrips } from '../../planning/NoStrips.tsx';
import { BoardSteps } from '../../planning/BoardSteps.tsx';
import { WaysTable } from '../../planning/WaysTable.tsx';
import { durationWords } from '../../quantities/duration.ts';
import { ClampDrawing } from './ClampDrawing.tsx';
import classes from './GluePlace.module.css';
import { GlueChoices } from './GlueChoices.tsx';
import { GroupEditor } from './GroupEditor.tsx';
import { GroupTree } from './GroupTree.tsx';
import { Rehearsal } from './Rehearsal.tsx';
import { RunPanel } from './RunPanel.tsx';
import { StackClamps } from './StackClamps.tsx';
import { BoardTime } from './BoardTime.tsx';
import { stripsOf } from '#core/board/recipe.ts';

const GLUING: readonly OperationKind[] = [
  'layOut',
  'layRows',
  'layParts',
  'layFrame',
  'layBack',
  'layBits',
  'dryRun',
  'glue',
  'join',
  'flattenSections',
];
/** The glue-ups that do not go wrong: groups, clamps and cauls in their places, a rehearsal, a clock, and the panel made flat. */
export function GluePlace() {
  const open = useSettledBoard();
  const [chosen, setStage] = useState('panel');
  const stages = useMemo(() => gluedPartsOf(open.plan), [open.plan]);
  const stage = stages.find((s) => s.id === chosen) ?? certain(stages.find((s) => s.id === 'panel'));
  const { view } = stage;
  const shown = useMemo(() => view(open), [open, view]);
  if (stripsOf(open.board).length === 0) return <NoStrips />;
  if (stages.length === 1) return <GlueUps stage="panel" />;
  return (
    <ShownAs open={shown}>
      <GluedStageContext value={stage.glued}>
        <SegmentedControl
          className={classes.stages}
          size="sm"
          aria-label="What is glued"
          value={stage.id}
          onChange={setStage}
          data={stages.map(({ id, label }) => ({ value: id, label }))}
        />
        <GlueUps key={stage.id} stage={stage.kind} />
      </GluedStageContext>
    </ShownAs>
  );
}

/** What a finding is about: the strips of a panel, rows or parts, or the frame. */
function stageOf({ part, at }: Finding, { stacks, frame, back }: Plan): GluedPart['kind'] {
  if (at === 'layBits' || stacks.some((s) => s.stack.operation.id === part)) return 'stack';
  if (at === 'layBack' || (back && (part === 'back' || part === 'back panel'))) return 'back';
  if (part === 'rows' || part === 'parts' || at === 'layRows' || at === 'layParts') return 'block';
  return at === 'layFrame' || frame?.rings.some((r) => part?.startsWith(`${r.operation.id}/`)) ? 'frame' : 'panel';
}

/** The glue-ups of one panel, of the block of one board, or of two strips of its frame. */
function GlueUps({ stage }: { stage: GluedPart['kind'] }) {
  const { plan, findings, session, numbersFrom = 0 } = useSettledBoard();
  const ofBlock = stage === 'block';
  const [chosen, setChosen] = useState('');
  const { one, whole } = useGluedStage();
  const { glueUps } = plan.gluing;
  const glueUp = glueUps.find((g) => g.id === chosen) ?? glueUps[0];
  const steps = plan.operations.filter((o) => stationOf(o.kind) === 'glue');
  const flattens = plan.operations.filter((o) => o.kind === 'flattenPanel');
  const flattening = certain(ofBlock ? flattens.at(-1) : flattens[0]);
  const about = findings.filter((f) => f.at && GLUING.includes(f.at) && stageOf(f, plan) === stage);
  return (
    <div className={classes.page}>
      <div className={classes.column}>
        <section>
          <h2>Groups</h2>
          {stage === 'panel' && numbersFrom === 0 && <GroupEditor />}
          <GroupTree chosen={glueUp?.id ?? ''} onChoose={setChosen} />
        </section>
        {glueUp && (
          <section>
            <h2>
              {glueUp.joins.length > 0 ? 'Join to' : 'Glue'} {one}s {numbersFrom + glueUp.firstStrip} to{' '}
              {numbersFrom + glueUp.lastStrip}, {stage === 'stack' ? 'end to end' : 'from above'}
            </h2>
            {stage === 'stack' ? <StackClamps glueUp={glueUp} /> : <ClampDrawing glueUp={glueUp} />}
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
          <BoardTime />
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
        {stage !== 'frame' && stage !== 'back' && stage !== 'stack' && (
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
        )}
        <section>
          <h2>Steps</h2>
          <BoardSteps
            operations={steps}
            findings={findings.filter((f) => f.station === 'glue' && !GLUING.includes(certain(f.at)))}
          />
        </section>
      </div>
    </div>
  );
}
