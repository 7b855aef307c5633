import { Button, Switch } from '@mantine/core';
import { IconAlertTriangle, IconArrowLeft, IconArrowRight, IconCheck, IconRuler2 } from '@tabler/icons-react';
import { lazy, startTransition, Suspense, useEffect, useMemo, useRef, useState, type TouchEvent } from 'react';
import { Link, useSearchParams } from 'react-router';
import { looksAfter, type Look } from '#core/bench/inspection.ts';
import { isPractice, practiceMishaps } from '#core/bench/practice.ts';
import type { StepProgress } from '#core/bench/progress.ts';
import { lessonOf } from '#core/bench/teaching.ts';
import { stripsOf } from '#core/board/recipe.ts';
import { factsThatHold } from '#core/facts/factsThatHold.ts';
import { DEFER_TO_MANUAL } from '#core/steps/cautions.ts';
import type { Operation } from '#core/steps/operation.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { FindingCards } from '../../planning/FindingCard.tsx';
import { clockWords, durationWords } from '../../quantities/duration.ts';
import { Length, Say } from '../../quantities/Length.tsx';
import { useClock } from '../../quantities/useClock.ts';
import { LineNote } from '../../shell/LineNote.tsx';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import classes from './bench.module.css';
import { MishapCards } from './MishapCards.tsx';
import { PartTicks } from './PartTicks.tsx';
import { PracticeButton } from './PracticeButton.tsx';
import { useBench } from './useBench.ts';
import { usePersisted } from './usePersisted.ts';
import { useWakeLock } from './useWakeLock.ts';

// The step's words and its button are there first, also on a phone; what is asked for later comes when it is.
const BenchDone = lazy(async () => ({ default: (await import('./BenchDone.tsx')).BenchDone }));
const InspectCard = lazy(async () => ({ default: (await import('./InspectCard.tsx')).InspectCard }));
const IntoTheLog = lazy(async () => ({ default: (await import('./IntoTheLog.tsx')).IntoTheLog }));
const MeasureDialog = lazy(async () => ({ default: (await import('./MeasureDialog.tsx')).MeasureDialog }));
const StepDrawing = lazy(async () => ({ default: (await import('./StepDrawing.tsx')).StepDrawing }));
const TroubleDialog = lazy(async () => ({ default: (await import('./TroubleDialog.tsx')).TroubleDialog }));

/** What is open over the page: figures or trouble of a step. */
interface Dialog {
  kind: 'measure' | 'trouble';
  step: Operation;
  about?: Look['finding'];
}

/** By then a page that was just put together has been painted, ms. */
const AFTER_PAINT_MS = 60;

/** A finger must travel so far sideways to mean it, pixels. */
const SWIPE_PX = 80;

/** The step that is due now, alone on the page: made for hands with glue on them, two metres away. */
export function BenchPlace() {
  const { board, plan, id, findings } = useSettledBoard();
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
  const next = progress.steps.find((s) => s.step.number > step.number && s.state !== 'done')?.step;
  const measures = bench.measures(step);
  const lesson = lessonOf(step.kind);
  const looks = looksAfter(step.kind);
  const here = findings.filter((f) => f.step === step.id || (f.step === null && f.at === step.kind));
  const beginner = teaching === 'yes';
  const many = shown.times.length > 1;

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

      <div className={classes.step}>
        <div className={classes.work}>
          <h2 className={classes.title}>
            <Say phrase={step.title} />
          </h2>
          <Standing shown={shown} now={now} onOpen={show} />
          {many && (
            <p className={classes.copies}>
              {shown.times.map((time, k) => (
                <span key={k} data-done={time !== null || undefined} data-now={k + 1 === copy || undefined}>
                  {time ? '✓ ' : ''}Panel {k + 1}
                </span>
              ))}
            </p>
          )}
          {step.settings.length > 0 && (
            <dl className={classes.settings}>
              {step.settings.map((s, i) => (
                <div key={i}>
                  <dt>{s.label}</dt>
                  <dd>
                    <Length mm={s.value.mm} rounding={s.value.rounding} />
                  </dd>
                </div>
              ))}
            </dl>
          )}
          <PartTicks board={id} step={step} copy={copy} />
          {step.waitMinutes !== null && (
            <p className={classes.wait}>
              Then {durationWords(step.waitMinutes)} for {step.waitFor ?? 'the next step'}.
            </p>
          )}
          {next && (
            <p className={classes.next}>
              After it: <Say phrase={next.title} />
            </p>
          )}
        </div>
        <div className={classes.side}>
          <div className={classes.drawing}>
            {later && (
              <Suspense>
                <StepDrawing step={step} />
              </Suspense>
            )}
          </div>
          <FindingCards findings={here} />
          {step.cautions.length > 0 && (
            <section className={classes.hurt} aria-label="What can hurt">
              {step.cautions.map((c, i) => (
                <p key={i}>
                  <IconAlertTriangle size={22} aria-hidden="true" /> <Say phrase={c} />
                </p>
              ))}
              <p className={classes.manual}>
                <Say phrase={DEFER_TO_MANUAL} />
              </p>
            </section>
          )}
          {looks.length > 0 && (
            <section className={classes.good} aria-label="What good looks like">
              <h3>What good looks like</h3>
              <ul>
                {looks.map((look, i) => (
                  <li key={i}>
                    <b>
                      <Say phrase={look.what} />
                    </b>
                    . <Say phrase={look.how} />.
                  </li>
                ))}
              </ul>
            </section>
          )}
          <details className={classes.teach} open={beginner || undefined} key={`${step.id}${beginner}`}>
            <summary>Why, and the usual mistakes</summary>
            <p>
              <Say phrase={step.why} />
            </p>
            <p>
              <b>Right when:</b> {lesson.right}
            </p>
            <ul>
              {lesson.mistakes.map((m) => (
                <li key={m.mistake}>
                  <b>{m.mistake}</b> {m.looks}
                </li>
              ))}
            </ul>
          </details>
        </div>
      </div>

      {later && (
        <Suspense>
          <BenchDone progress={progress} held={held} onOpen={show} onTakeBack={bench.takeBack} />
        </Suspense>
      )}

      <div className={classes.bar}>
        <button type="button" className={classes.tool} onClick={() => move(-1)} aria-label="The step before">
          <IconArrowLeft size={34} />
        </button>
        <button type="button" className={classes.tool} onClick={() => move(1)} aria-label="The next step">
          <IconArrowRight size={34} />
        </button>
        <button
          type="button"
          className={classes.tool}
          onClick={() => open('measure')}
          disabled={measures.length === 0}
          title={measures.length === 0 ? 'This step leaves nothing to measure' : undefined}
        >
          <IconRuler2 size={30} aria-hidden="true" />
          <span>Measure</span>
        </button>
        <button type="button" className={classes.tool} onClick={() => open('trouble')}>
          <IconAlertTriangle size={30} aria-hidden="true" />
          <span>Trouble</span>
        </button>
        <button
          type="button"
          className={classes.tool}
          onClick={clock.running ? clock.stop : clock.start}
          aria-pressed={clock.running}
        >
          <b>{clockWords(clock.elapsed)}</b>
          <span>{clock.running ? 'Stop the clock' : 'Clock'}</span>
        </button>
        <button type="button" className={classes.go} onClick={finish} disabled={shown.state !== 'free'}>
          <IconCheck size={40} aria-hidden="true" />
          <span>{shown.state === 'done' ? 'Done' : many ? `Panel ${copy} done` : 'Done, go on'}</span>
        </button>
      </div>

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

/** False until the page has shown itself, then true. */
function useLater(): boolean {
  const [later, setLater] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => startTransition(() => setLater(true)), AFTER_PAINT_MS);
    return () => clearTimeout(timer);
  }, []);
  return later;
}

/** What holds a step up, or that it is done. */
function Standing({ shown, now, onOpen }: { shown: StepProgress; now: number; onOpen(step: string): void }) {
  if (shown.state === 'done') return <p className={classes.isDone}>✓ This is done.</p>;
  if (shown.held.length > 0)
    return (
      <p className={classes.held}>
        First:{' '}
        {shown.held.map((step, i) => (
          <span key={step.id}>
            {i > 0 && ', '}
            <button type="button" className={classes.link} onClick={() => onOpen(step.id)}>
              step {step.number}, <Say phrase={step.title} />
            </button>
          </span>
        ))}
      </p>
    );
  if (shown.waitsUntil !== null && shown.waitsUntil > now)
    return (
      <p className={classes.held} role="status">
        It still waits: {durationWords((shown.waitsUntil - now) / 60_000)} to go. Go on only when it is ready.
      </p>
    );
  return null;
}

/** The clock of one step: it runs while the hands do, through a reload too. */
function useStepClock(key: string, now: number) {
  const [kept, keep] = usePersisted(`cadenza-clock/${key}`);
  const [gone, since] = ranSoFar(kept);
  const elapsed = gone + (since === null ? 0 : Math.max(0, (now - since) / 60_000));
  return {
    elapsed,
    running: since !== null,
    /** Minutes it counted; null where it never ran. */
    minutes: kept === '' ? null : Math.min(6000, Math.round(elapsed * 100) / 100),
    start: () => keep(`${elapsed} ${Date.now()}`),
    stop: () => keep(String(elapsed)),
    reset: () => keep(''),
  };
}

/** Minutes a clock counted before it was started last, and when that was; one that was never started counted none. */
function ranSoFar(kept: string): [number, number | null] {
  const [gone = NaN, since = NaN] = kept.split(' ').map(Number);
  return [Number.isFinite(gone) ? gone : 0, Number.isFinite(since) ? since : null];
}

/** A finger drawn sideways over the page. */
function useSwipe(onSwipe: (by: number) => void) {
  const from = useRef<{ x: number; y: number } | null>(null);
  return {
    onTouchStart: (event: TouchEvent) => {
      const touch = event.touches[0];
      const inDrawing = event.target instanceof Element && event.target.closest('svg, input, dialog, [role=dialog]');
      from.current = touch && !inDrawing ? { x: touch.clientX, y: touch.clientY } : null;
    },
    onTouchEnd: (event: TouchEvent) => {
      const touch = event.changedTouches[0];
      const start = from.current;
      from.current = null;
      if (!start || !touch) return;
      const [dx, dy] = [touch.clientX - start.x, touch.clientY - start.y];
      if (Math.abs(dx) > SWIPE_PX && Math.abs(dx) > 2 * Math.abs(dy)) onSwipe(dx < 0 ? 1 : -1);
    },
  };
}
