import type { Ladder, RungSource } from '#core/ladders/ladder.ts';
import { Length, Say } from '../../quantities/Length.tsx';
import { HabitButton } from '../../habits/HabitButton.tsx';
import classes from './LadderView.module.css';
import { Staircase } from './Staircase.tsx';

const TITLES = { thickness: 'Thickness', width: 'Width', length: 'Length' } as const;

/** Where the figure of a rung comes from, in words. */
const SOURCES: Readonly<Record<RungSource, string>> = {
  habit: 'a habit of this shop; until it is changed, common practice.',
  piece: 'measured on the piece, and reckoned for a part of this size.',
  machine: 'a figure of the machine, in Shop; its manual decides.',
  sizes: 'what is over between the sizes before and after.',
};

/** A dimension as falling stairs to scale, and every rung with its figure; opened, a rung tells its reason and the habit behind it, which can be changed there. */
export function LadderView({ ladder }: { ladder: Ladder }) {
  const { dimension, rungs, target, reached, shortBy, limiting } = ladder;
  return (
    <section className={classes.ladder} aria-label={`${TITLES[dimension]} ladder`}>
      <header>
        <h3>{TITLES[dimension]}</h3>
        <p data-short={shortBy > 0 || undefined}>
          {shortBy > 0 ? (
            <>
              comes out{' '}
              <b>
                <Length mm={reached} />
              </b>
              , <Length mm={shortBy} /> short of <Length mm={target} />
            </>
          ) : (
            <>
              <b>
                <Length mm={reached} />
              </b>{' '}
              as wanted
            </>
          )}
        </p>
      </header>
      <Staircase ladder={ladder} />
      {rungs[0] && (
        <p className={classes.start}>
          <span>In the rack</span>
          <b>
            <Length mm={rungs[0].before} />
          </b>
        </p>
      )}
      <ol>
        {rungs.map((rung, i) => (
          <li key={rung.id}>
            <details>
              <summary>
                <span>
                  <span className={classes.number}>{i + 1}</span>{' '}
                  <span>
                    <Say phrase={rung.label} />
                  </span>
                </span>
                <span className={classes.taken}>
                  −<Length mm={rung.taken} bare />
                </span>
                <b>
                  <Length mm={rung.after} />
                </b>
              </summary>
              <p>
                <Say phrase={rung.why} />
              </p>
              <p>
                Source: {SOURCES[rung.source]} {rung.habit && <HabitButton habit={rung.habit} />}
              </p>
            </details>
          </li>
        ))}
      </ol>
      {limiting && (
        <p className={classes.limiting}>
          Decided by <Say phrase={limiting} />.
        </p>
      )}
    </section>
  );
}
