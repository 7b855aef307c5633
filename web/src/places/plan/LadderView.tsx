import type { Ladder } from '#core/plan/ladder.ts';
import { Length, Say } from '../../quantities/Length.tsx';
import { HABIT_WORDS } from '../shop/habitWords.ts';
import classes from './LadderView.module.css';

const TITLES = { thickness: 'Thickness', width: 'Width', length: 'Length' } as const;

/**
 * A dimension as a falling ladder. Each rung's bar is to one scale within the ladder, the part that goes hatched; a rung whose remainder would
 * be drawn far off scale (a plank cut into blanks) only says its figure.
 */
export function LadderView({ ladder }: { ladder: Ladder }) {
  const { dimension, rungs, target, reached, shortBy, limiting } = ladder;
  const widest = Math.max(target, ...rungs.filter((r) => r.before < target * 1.8).map((r) => r.before));
  const percent = (mm: number) => `${(mm / widest) * 100}%`;
  return (
    <section className={classes.ladder} aria-label={`${TITLES[dimension]} ladder`}>
      <header>
        <h3>{TITLES[dimension]}</h3>
        <p data-short={shortBy > 0 || undefined}>
          {shortBy > 0 ? <>comes out <b><Length mm={reached} /></b>, <Length mm={shortBy} /> short of <Length mm={target} /></> : <><b><Length mm={reached} /></b> as wanted</>}
        </p>
      </header>
      {rungs[0] && <p className={classes.start}><span>In the rack</span><span /><b><Length mm={rungs[0].before} /></b></p>}
      <ol>
        {rungs.map((rung) => (
          <li key={rung.id}>
            <details>
              <summary>
                <span className={classes.label}><Say phrase={rung.label} /></span>
                <span className={classes.bar} aria-hidden="true">
                  {rung.before <= widest && <><i style={{ width: percent(rung.after) }} /><em style={{ width: percent(rung.taken) }} /></>}
                </span>
                <span className={classes.taken}>−<Length mm={rung.taken} bare /></span>
                <b><Length mm={rung.after} /></b>
              </summary>
              <p><Say phrase={rung.why} />{rung.habit && <> Set by the shop's habit “{HABIT_WORDS[rung.habit]}”.</>}</p>
            </details>
          </li>
        ))}
      </ol>
      {limiting && <p className={classes.limiting}>Decided by <Say phrase={limiting} />.</p>}
    </section>
  );
}
