import type { MishapWay } from '#core/bench/mishap.ts';
import type { Mishaps } from '#core/bench/mishaps.ts';
import { capitalised } from '#core/units/phrase.ts';
import { Say } from '../../quantities/Length.tsx';
import classes from './bench.module.css';

interface MishapCardsProps {
  mishaps: Mishaps;
  onDecide(fact: string, way: MishapWay): void;
  onTakeBack(fact: string): void;
}

/** What went otherwise than planned, each in one sentence, with its ways and what they cost; one press takes one. */
export function MishapCards({ mishaps: { told, more }, onDecide, onTakeBack }: MishapCardsProps) {
  const cards = told.map((mishap) => (
    <section key={mishap.fact} className={classes.mishap} aria-label="What went otherwise">
      <p>
        <Say phrase={capitalised(mishap.says)} />
      </p>
      <div className={classes.ways}>
        {mishap.ways.map((way) => (
          <button
            key={`${way.way}${way.title.length}`}
            type="button"
            className={classes.way}
            onClick={() => onDecide(mishap.fact, way)}
          >
            <b>
              <Say phrase={way.title} />
            </b>
            <span>
              <Say phrase={capitalised(way.cost)} />
            </span>
          </button>
        ))}
        <button type="button" className={classes.way} onClick={() => onTakeBack(mishap.fact)}>
          <b>That was a slip</b>
          <span>As if it had not been noted</span>
        </button>
      </div>
    </section>
  ));
  return (
    <>
      {cards}
      {more && <p className={classes.mishap}>More was noted: it comes when these are decided.</p>}
    </>
  );
}
