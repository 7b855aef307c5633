import type { Operation } from '#core/steps/operation.ts';
import type { Finding } from '#core/checks/finding.ts';
import { HabitButton, SchoolButton } from '../habits/HabitButton.tsx';
import { durationWords } from '../quantities/duration.ts';
import { Length, Say } from '../quantities/Length.tsx';
import { FindingCards } from './FindingCard.tsx';
import classes from './StepList.module.css';
import { WaysTable } from './WaysTable.tsx';

export interface StepListProps {
  operations: readonly Operation[];
  /** Boxes to tick and cautions in full, for paper. */
  forPaper?: boolean;
  /** Steps that are done at the bench, by id. */
  done?: ReadonlySet<string>;
  /** What rules found; shown at the step it belongs to. */
  findings?: readonly Finding[];
}

/** The steps in working order, with what to set, what to do, what it takes, and why. */
export function StepList({ operations, forPaper = false, findings = [], done }: StepListProps) {
  const shown = new Set<string>();
  return (
    <ol className={classes.steps} data-paper={forPaper || undefined}>
      {operations.map((op) => {
        // What belongs to one step is said there; what concerns all steps of its kind, as several glue-ups, at the first.
        const first = !shown.has(op.kind);
        const here = findings.filter((f) => (f.step === null ? first && f.at === op.kind : f.step === op.id));
        shown.add(op.kind);
        return (
          <li key={op.number} data-done={done?.has(op.id) || undefined}>
            <h3>
              {forPaper && (
                <span className={classes.box} aria-hidden="true">
                  {done?.has(op.id) && '✓'}
                </span>
              )}
              <span className={classes.number}>{op.number}</span>{' '}
              <span className={classes.title}>
                <Say phrase={op.title} />
              </span>
              {done?.has(op.id) && <span className={classes.done}>✓ done</span>}
              <span className={classes.takes}>
                {op.machine && `${op.machine}, `}
                {durationWords(op.minutes)}
                {op.repeats > 1 && ` × ${op.repeats}`}
              </span>
            </h3>
            {forPaper ? (
              here.map((f, i) => (
                <p key={i} className={classes.caution}>
                  ⚠ <Say phrase={f.what} />
                  {f.accepted && <> Gone on with: {f.accepted}</>}
                </p>
              ))
            ) : (
              <FindingCards findings={here} />
            )}
            {op.settings.length > 0 && (
              <p className={classes.settings}>
                {op.settings.map((s, i) => (
                  <span key={i}>
                    {s.label}{' '}
                    <b>
                      <Length mm={s.value.mm} rounding={s.value.rounding} />
                    </b>
                  </span>
                ))}
              </p>
            )}
            {op.parts.length > 0 && <PartLines operation={op} />}
            <ul>
              {op.lines.map((line, i) => (
                <li key={i}>
                  <Say phrase={line} />
                </li>
              ))}
            </ul>
            {op.waitMinutes !== null && (
              <p className={classes.wait}>
                Then {durationWords(op.waitMinutes)} for {op.waitFor ?? 'the next step'}.
              </p>
            )}
            {forPaper ? (
              op.cautions.map((c, i) => (
                <p key={i} className={classes.caution}>
                  ⚠ <Say phrase={c} />
                </p>
              ))
            ) : (
              <>
                {(op.habit ?? op.school) && (
                  <p className={classes.habits}>
                    {op.school && <SchoolButton question={op.school} />} {op.habit && <HabitButton habit={op.habit} />}
                  </p>
                )}
                <details>
                  <summary>
                    Why{op.ways.length > 0 && ', other ways'}
                    {op.cautions.length > 0 && ', and what can hurt'}
                  </summary>
                  <p>
                    <Say phrase={op.why} />
                  </p>
                  {op.ways.length > 0 && <WaysTable ways={op.ways} taken={op.machine} />}
                  {op.cautions.map((c, i) => (
                    <p key={i} className={classes.caution}>
                      ⚠ <Say phrase={c} />
                    </p>
                  ))}
                </details>
              </>
            )}
          </li>
        );
      })}
    </ol>
  );
}

function PartLines({ operation }: { operation: Operation }) {
  return (
    <ul className={classes.parts} aria-label="Before and after">
      {operation.parts.map((part) => (
        <li key={`${part.part}${part.before}`}>
          <b>{part.part}</b> {part.dimension} <Length mm={part.before} /> →{' '}
          <b>
            <Length mm={part.after} rounding="up" />
          </b>
          {part.passes !== null && (
            <span>{part.passes === 1 ? '1 pass' : `${part.passes} passes, last one light`}</span>
          )}
        </li>
      ))}
    </ul>
  );
}
