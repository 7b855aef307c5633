import type { GlueUp } from '#core/gluing/glueUps.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import classes from './GlueTree.module.css';

/** Which strips are glued together, in which order, and whether the glue's time is enough. */
export function GlueTree() {
  const { plan: { gluing }, board, input } = useSettledBoard();
  if (gluing.glueUps.length === 0) return <p className={classes.note}>One strip: nothing to glue.</p>;
  const hours = gluing.clampMinutesEach / 60;
  return (
    <>
      <p className={classes.note}>
        {input.shop.glue.name}: {gluing.usableMinutes.toFixed(1)} safe minutes from first glue to last clamp, so at most {gluing.mostParts} pieces at once;{' '}
        {Number(hours.toFixed(1))} h in clamps after each{board.count > 1 && `; all of it for each of the ${board.count} boards`}.
      </p>
      <ol className={classes.tree}>
        {gluing.glueUps.map((g) => (
          <li key={g.id} data-level={g.level}>
            <b>{g.joins.length === 0 ? `Strips ${g.firstStrip}–${g.lastStrip}` : `Join to ${g.firstStrip}–${g.lastStrip}`}</b>
            <span>{g.parts} pieces, {g.clamps} clamps</span>
            <Minutes glueUp={g} usable={gluing.usableMinutes} />
          </li>
        ))}
      </ol>
    </>
  );
}

function Minutes({ glueUp, usable }: { glueUp: GlueUp; usable: number }) {
  const late = glueUp.assemblyMinutes > usable + 1e-9;
  return (
    <span className={classes.minutes} data-late={late || undefined}>
      <span className={classes.meter} aria-hidden="true"><i style={{ width: `${Math.min(100, (glueUp.assemblyMinutes / usable) * 100)}%` }} /></span>
      {glueUp.assemblyMinutes.toFixed(1)} min{late && ', too late'}
    </span>
  );
}
