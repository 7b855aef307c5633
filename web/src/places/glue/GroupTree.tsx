import type { GlueUp } from '#core/gluing/glueUps.ts';
import { glueOf } from '#core/shop/shop.ts';
import { useGluedStage } from './gluedWords.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { durationWords } from '../../quantities/duration.ts';
import { Length } from '../../quantities/Length.tsx';
import { Measured } from '../../quantities/Measured.tsx';
import classes from './GroupTree.module.css';

interface GroupTreeProps {
  chosen: string;
  onChoose(id: string): void;
}

/** From strips to panel: which glue-up joins what, whether it closes in time, and how long it waits. */
export function GroupTree({ chosen, onChoose }: GroupTreeProps) {
  const {
    plan: { gluing, shop, allowances },
    numbersFrom = 0,
  } = useSettledBoard();
  const { one, many, whole } = useGluedStage();
  if (gluing.glueUps.length === 0) return <p className={classes.note}>One {one}: nothing to glue.</p>;
  const copies = allowances.panels.length;
  const levels = Math.max(...gluing.glueUps.map((g) => g.level));
  return (
    <>
      <ol className={classes.tree}>
        {gluing.glueUps.map((g) => (
          <li key={g.id} style={{ paddingLeft: `${(g.level - 1) * 22}px` }}>
            <button type="button" aria-pressed={g.id === chosen} onClick={() => onChoose(g.id)}>
              <b>
                {g.joins.length === 0
                  ? `${many} ${numbersFrom + g.firstStrip}–${numbersFrom + g.lastStrip}`
                  : `${levels === g.level ? `The ${whole}` : 'Join'}: ${numbersFrom + g.firstStrip}–${numbersFrom + g.lastStrip}`}
              </b>
              <span>
                {g.parts} pieces, <Length mm={g.width} /> wide, {g.clamps.wanted} clamps
              </span>
              <Minutes glueUp={g} usable={gluing.usableMinutes} />
              <span>then {durationWords(g.waitMinutes)}</span>
            </button>
          </li>
        ))}
      </ol>
      <p className={classes.note}>
        {glueOf(shop).name} at <Measured quantity="temperature" value={shop.room.temperature} />:{' '}
        {gluing.usableMinutes.toFixed(1)} safe minutes until all is pressed, so at most {gluing.mostParts} pieces at
        once. In clamps one after the other: {durationWords(gluing.clampMinutes)}
        {gluing.sideBySide > 1 && `, ${gluing.sideBySide} glue-ups side by side`}
        {copies > 1 && `, for each of ${copies} ${whole}s`}.
        {gluing.sectionWidth !== null && (
          <>
            {' '}
            Groups are at most <Length mm={gluing.sectionWidth} /> wide, so that each can be made flat before they are
            joined.
          </>
        )}
      </p>
    </>
  );
}

function Minutes({ glueUp, usable }: { glueUp: GlueUp; usable: number }) {
  const late = glueUp.assemblyMinutes > usable + 1e-9;
  return (
    <span className={classes.minutes} data-late={late || undefined}>
      <span className={classes.meter} aria-hidden="true">
        <i style={{ width: `${Math.min(100, (glueUp.assemblyMinutes / usable) * 100)}%` }} />
      </span>
      {glueUp.assemblyMinutes.toFixed(1)} min{late && ', too late'}
    </span>
  );
}
