import { Button, Switch } from '@mantine/core';
import { lazy, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { looksAfter, type Look } from '#core/bench/inspection.ts';
import { isPractice, practiceMishaps } from '#core/bench/practice.ts';
import { stripsOf } from '#core/board/recipe.ts';
import { factsThatHold } from '#core/facts/factsThatHold.ts';
import type { Operation } from '#core/steps/operation.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { durationWords } from '../../quantities/duration.ts';
import { useClock } from '../../quantities/useClock.ts';
import { LineNote } from '../../shell/LineNote.tsx';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import classes from './bench.module.css';
import { BenchBar } from './BenchBar.tsx';
import { BenchStep } from './BenchStep.tsx';
import { MishapCards } from './MishapCards.tsx';
import { PracticeButton } from './PracticeButton.tsx';
import { useBench } from './useBench.ts';
import { useLater } from './useLater.ts';
import { usePersisted } from './usePersisted.ts';
import { useStepClock } from './useStepClock.ts';
import { useSwipe } from './useSwipe.ts';
import { useWakeLock } from './useWakeLock.ts';

// The step's words and its button are there first, also on a phone; what is asked for later comes when it is.
const BenchDone = lazy(async () => ({ default: (await import('./BenchDone.tsx')).BenchDone }));
const InspectCard = lazy(async () => ({ default: (await import('./InspectCard.tsx')).InspectCard }));
const IntoTheLog = lazy(async () => ({ default: (await import('./IntoTheLog.tsx')).IntoTheLog }));
const MeasureDialog = lazy(async () => ({ default: (await import('./MeasureDialog.tsx')).MeasureDialog }));
const TroubleDialog = lazy(async () => ({ default: (await import('./TroubleDialog.tsx')).TroubleDialog }));

/** What is open over the page: figures or trouble of a step. */
interface Dialog {
  kind: 'measure' | 'trouble';
  step: Operation;
  about?: Look['finding'];
}

/** The step that is due now, alone on the page: made for hands with glue on them, two metres away. */
export function BenchPlace() {
  const { board, plan, id } = useSettledBoard();
  const bench = useBench();
  const { progress, mishaps } = bench;
  const [search, setSearch] = useSearchParams();
  const [dialog, setDialog] = useState<Dialog | null>(null);
  /** The step that was just done, while it is looked at. */
  const [lookAt, setLookAt] = useState<string | null>(null);
  const lastDone = useRef('');
  // Once the plan has caught up, whoever took it back, it may be done again.
  useEffect(() => {
    lastDone.current = '';
  }, [progress]);
  const [contrast, setContrast] = usePersisted('cadenza-bench/contrast');
  const [teaching, setTeaching] = usePersisted('cadenza-bench/beginner');
  const now = useClock(1000);
  const later = useLater();
  useWakeLock();
  const held = useMemo(() => factsThatHold(bench.facts), [bench.facts]);

  const chosen = progress.steps.find((s) => s.step.id === search.get('step'));
  // What still waits is no work for the hands where there is other work.
  const due =
    progress.steps.find((s) => s.state === 'free' && (s.waitsUntil === null || s.waitsUntil <= now)) ?? progress.due;
  const shown = chosen ?? due ?? progress.steps.at(-1);
  const copy = shown ? Math.max(0, shown.times.indexOf(null)) + 1 : 1;
  const clock = useStepClock(shown ? `${id}/${shown.step.id}/${copy}` : '', now);

  const show = (step: string | null) => {
    setSearch(step === null ? {} : { step }, { replace: true });
    window.scrollTo({ top: 0 });
  };
  const move = (by: number) => {
    const at = progress.steps.findIndex((s) => s === shown) + by;
    const next = progress.steps[at];
    if (next) show(next === due ? null : next.step.id);
  };
  const open = (kind: Dialog['kind'], step = shown?.step, about?: Look['finding']) => {
    if (step && (kind === 'trouble' || bench.measures(step).length > 0)) setDialog({ kind, step, about });
  };
  const finish = () => {
    if (!shown || shown.state !== 'free') return;
    const { step } = shown;
    // Pressed twice before the plan has caught up it is done once.
    const pressed = `${step.id}/${copy}`;
    if (lastDone.current === pressed || !bench.done(step, copy, clock.minutes)) return;
    lastDone.current = pressed;
    // In a practice run things go wrong as they do: they are there to be answered.
    if (isPractice(board)) for (const mishap of practiceMishaps(step, bench.measures(step), board)) bench.note(mishap);
    clock.reset();
    show(null);
    // Of what is done panel by panel all are looked at together.
    if (looksAfter(step.kind).length > 0 && shown.times.filter((t) => !t).length === 1) setLookAt(step.id);
  };
  useShortcuts('Bench', [
    { keys: ' ', does: 'Done: go on (a foot switch too)', run: finish },
    { keys: 'ArrowRight', does: 'Look at the next step', run: () => move(1) },
    { keys: 'ArrowLeft', does: 'Look at the step before', run: () => move(-1) },
    { keys: 'm', does: 'Note what you measured', run: () => open('measure') },
    { keys: 'w', does: 'Note what went wrong', run: () => open('trouble') },
    { keys: 'd', does: 'Back to the step that is due', run: () => show(null) },
  ]);
  const swipe = useSwipe((by) => move(by));

  if (stripsOf(board).length === 0 || !shown)
    return (
      <div className={classes.page}>
        <div className={classes.empty}>
          <h2>Nothing to do at the bench yet</h2>
          <p>Lay out strips first; then every step is shown here, one at a time.</p>
          <Button component={Link} to="../layout" relative="path" size="lg">
            Lay out strips
          </Button>
        </div>
      </div>
    );

  const { step } = shown;
  const looked = plan.operations.find((o) => o.id === lookAt);
  const beginner = teaching === 'yes';

  return (
    <div className={classes.page} data-contrast={contrast === 'high' || undefined} {...swipe}>
      <div className={classes.head}>
        <progress
          className={classes.progress}
          max={progress.steps.length}
          value={progress.steps.filter((s) => s.state === 'done').length}
          aria-label="Steps done"
        />
        <span>
          Step {step.number} of {progress.steps.length}
          {step.machine && `, ${step.machine}`}, {durationWords(step.minutes)}
        </span>
        {shown !== due && due && (
          <Button size="compact-md" variant="default" onClick={() => show(null)}>
            Back to what is due
          </Button>
        )}
        <LineNote state={bench.state} />
        <Switch
          label="High contrast"
          checked={contrast === 'high'}
          onChange={(event) => setContrast(event.currentTarget.checked ? 'high' : '')}
        />
        <Switch
          label="I am learning"
          checked={beginner}
          onChange={(event) => setTeaching(event.currentTarget.checked ? 'yes' : '')}
        />
        {beginner &&
          (isPractice(board) ? (
            <b>Practice run: nothing of it is made. What goes wrong wants an answer.</b>
          ) : (
            <PracticeButton />
          ))}
      </div>

      <MishapCards
        mishaps={mishaps}
        onDecide={(fact, way) => bench.decide(fact, way)}
        onTakeBack={(fact) => bench.takeBack([fact])}
      />

      {progress.due === null && !isPractice(board) && (
        <Suspense>
          <IntoTheLog />
        </Suspense>
      )}

      {looked && (
        <Suspense>
          <InspectCard
            step={looked}
            looks={looksAfter(looked.kind)}
            measures={bench.measures(looked).length > 0}
            onMeasure={() => open('measure', looked)}
            onFinding={(look) => open('trouble', looked, look.finding)}
            onGood={() => setLookAt(null)}
          />
        </Suspense>
      )}

      <BenchStep
        shown={shown}
        next={progress.steps.find((s) => s.step.number > shown.step.number && s.state !== 'done')?.step}
        copy={copy}
        first={progress.strays === 0 && progress.steps.every((s) => s.times.every((t) => t === null))}
        now={now}
        learning={beginner}
        drawn={later}
        onOpen={show}
      />

      {later && (
        <Suspense>
          <BenchDone progress={progress} held={held} onOpen={show} onTakeBack={bench.takeBack} />
        </Suspense>
      )}

      <BenchBar
        clock={clock}
        canMeasure={bench.measures(step).length > 0}
        free={shown.state === 'free'}
        goes={shown.state === 'done' ? 'Done' : shown.times.length > 1 ? `Panel ${copy} done` : 'Done, go on'}
        onMove={move}
        onMeasure={() => open('measure')}
        onTrouble={() => open('trouble')}
        onDone={finish}
      />

      <Suspense>
        {dialog?.kind === 'measure' && (
          <MeasureDialog
            measures={bench.measures(dialog.step)}
            onClose={() => setDialog(null)}
            onNote={({ thing, copy: of, stage, dimension }, value) =>
              bench.note({ kind: 'measured', thing, copy: of, stage, dimension, value, step: dialog.step.id })
            }
          />
        )}
        {dialog?.kind === 'trouble' && (
          <TroubleDialog
            step={dialog.step}
            copy={copy}
            about={dialog.about}
            onNote={bench.note}
            onClose={() => setDialog(null)}
          />
        )}
      </Suspense>
    </div>
  );
}
