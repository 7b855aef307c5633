import { IconAlertTriangle } from '@tabler/icons-react';
import { lazy, Suspense } from 'react';
import { looksAfter } from '#core/bench/inspection.ts';
import type { StepProgress } from '#core/bench/progress.ts';
import { lessonOf } from '#core/bench/teaching.ts';
import { isToldAt, stopsOfNoStep } from '#core/checks/checkPlan.ts';
import { DEFER_TO_MANUAL } from '#core/steps/cautions.ts';
import type { Operation } from '#core/steps/operation.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { FindingCards } from '../../planning/FindingCard.tsx';
import { durationWords } from '../../quantities/duration.ts';
import { Length, Say } from '../../quantities/Length.tsx';
import classes from './bench.module.css';
import { PartTicks } from './PartTicks.tsx';

const StepDrawing = lazy(async () => ({ default: (await import('./StepDrawing.tsx')).StepDrawing }));

interface BenchStepProps {
  shown: StepProgress;
  /** What comes after it. */
  next: Operation | undefined;
  /** Which of its panels is due, from 1. */
  copy: number;
  /** Whether nothing was done yet: once strips are cut, what the rack gives is no matter here. */
  first: boolean;
  now: number;
  /** Whether why and the usual mistakes stand open. */
  learning: boolean;
  /** The drawing comes once the words are there. */
  drawn: boolean;
  onOpen(step: string): void;
}

/** One step, readable from two metres: what to do, at which settings, of which parts; beside it the drawing, what can hurt and what good looks like. */
export function BenchStep({ shown, next, copy, first, now, learning, drawn, onOpen }: BenchStepProps) {
  const { id, findings, plan } = useSettledBoard();
  const { step } = shown;
  const lesson = lessonOf(step.kind);
  const looks = looksAfter(step.kind);
  const here = findings.filter((f) => isToldAt(f, step));
  const before = first ? stopsOfNoStep(findings, plan.operations) : [];
  const many = shown.times.length > 1;
  return (
    <div className={classes.step}>
      <div className={classes.work}>
        <h2 className={classes.title}>
          <Say phrase={step.title} />
        </h2>
        <Standing shown={shown} now={now} onOpen={onOpen} />
        {before.length > 0 && (
          <section className={classes.before} aria-label="Before you begin">
            <h3>Before you begin</h3>
            <FindingCards findings={before} />
          </section>
        )}
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
          {drawn && (
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
        <details className={classes.teach} open={learning || undefined} key={`${step.id}${learning}`}>
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
  );
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
