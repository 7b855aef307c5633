import { memo, useState } from 'react';
import type { Seasons } from '#core/wood/moisture.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { Length } from '../../quantities/Length.tsx';
import { SeasonFields } from '../../quantities/SeasonFields.tsx';
import classes from './SeasonPanel.module.css';
import { stripsOf } from '#core/board/recipe.ts';

/** How the board moves through the year, what it weighs, how hard it is; where it will live can be set here. */
export const SeasonPanel = memo(function SeasonPanel() {
  const { movement } = useSettledBoard().plan;
  const [open, setOpen] = useState(false);
  return (
    <details className={classes.panel} open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>
        Through the year{' '}
        <b>
          +<Length mm={movement.across} />
        </b>
      </summary>
      {open && <SeasonDetails />}
    </details>
  );
});

function SeasonDetails() {
  const { board, plan, input, session } = useSettledBoard();
  const { movement } = plan;
  const set = (seasons: Seasons | null) => session.edit((b) => ({ ...b, seasons }));
  const hardness = stripsOf(board)
    .map((s) => input.species.find((w) => w.code === s.species)?.hardness ?? null)
    .filter((h) => h !== null);
  return (
    <>
      <p>
        In the damp month the board is{' '}
        <b>
          <Length mm={movement.across} />
        </b>{' '}
        wider
        {movement.along > 0.05 && (
          <>
            {' '}
            and{' '}
            <b>
              <Length mm={movement.along} />
            </b>{' '}
            longer
          </>
        )}{' '}
        than in the dry one
        {plan.lastly ? (
          '.'
        ) : (
          <>
            ; with every strip lying the other way it would be <Length mm={movement.otherWay} />.
          </>
        )}{' '}
        Its wood goes between {movement.dryMoisture.toFixed(1)} and {movement.dampMoisture.toFixed(1)} % moisture.
      </p>
      {!movement.holds && (
        <p className={classes.caution}>The coefficients hold between 6 and 14 %: outside it the figure is a guess.</p>
      )}
      {movement.unknown.length > 0 && (
        <p className={classes.caution}>
          Not counted, because nobody has entered how it moves:{' '}
          {movement.unknown.map((code) => input.species.find((s) => s.code === code)?.name ?? code).join(', ')}.
        </p>
      )}
      <div className={classes.air}>
        <SeasonFields
          seasons={movement.seasons}
          inherit={{ label: 'As the shop says', on: !movement.own, choose: () => set(null) }}
          onChange={set}
        />
      </div>
      <table>
        <thead>
          <tr>
            <th>Strip</th>
            <th>wider</th>
            <th>thicker</th>
          </tr>
        </thead>
        <tbody>
          {movement.strips.map((m) => (
            <tr key={m.number}>
              <th scope="row">{m.number}</th>
              <td>{m.across === null ? 'not known' : <Length mm={m.across} bare />}</td>
              <td>{m.up === null ? 'not known' : <Length mm={m.up} bare />}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {hardness.length > 0 && (
        <p>
          Side hardness {Math.min(...hardness)}
          {Math.max(...hardness) !== Math.min(...hardness) && ` to ${Math.max(...hardness)}`} N
          {hardness.length < stripsOf(board).length && ', of the strips it is known for'}.
        </p>
      )}
      <small>Wood Handbook, chapters 4 and 13, from memory; coefficients with each species.</small>
    </>
  );
}
