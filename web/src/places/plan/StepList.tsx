import type { Operation } from '#core/plan/operation.ts';
import { Length, Say } from '../../quantities/Length.tsx';
import classes from './StepList.module.css';

interface StepListProps {
  operations: readonly Operation[];
  /** Boxes to tick and cautions in full, for paper. */
  forPaper?: boolean;
}

/** The steps in working order, with what to set, what to do, and why. */
export function StepList({ operations, forPaper = false }: StepListProps) {
  return (
    <ol className={classes.steps} data-paper={forPaper || undefined}>
      {operations.map((op) => (
        <li key={op.number}>
          <h3>
            {forPaper && <span className={classes.box} aria-hidden="true" />}
            <span className={classes.number}>{op.number}</span> <Say phrase={op.title} />
          </h3>
          {op.settings.length > 0 && (
            <p className={classes.settings}>
              {op.settings.map((s, i) => <span key={i}>{s.label} <b><Length mm={s.value.mm} rounding={s.value.rounding} /></b></span>)}
            </p>
          )}
          <ul>{op.lines.map((line, i) => <li key={i}><Say phrase={line} /></li>)}</ul>
          {op.waitMinutes !== null && <p className={classes.wait}>Then {Number((op.waitMinutes / 60).toFixed(1))} h in clamps.</p>}
          {forPaper ? op.cautions.map((c, i) => <p key={i} className={classes.caution}>⚠ <Say phrase={c} /></p>) : (
            <details>
              <summary>Why{op.cautions.length > 0 && ', and what can hurt'}</summary>
              <p><Say phrase={op.why} /></p>
              {op.cautions.map((c, i) => <p key={i} className={classes.caution}>⚠ <Say phrase={c} /></p>)}
            </details>
          )}
        </li>
      ))}
    </ol>
  );
}
