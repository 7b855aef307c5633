import { useMemo } from 'react';
import { batchOptions } from '#core/plan/batchOptions.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { durationWords } from '../../quantities/duration.ts';
import { Length } from '../../quantities/Length.tsx';
import { Measured } from '../../quantities/Measured.tsx';
import { Scrolled } from '../../shell/Scrolled.tsx';
import classes from '../../planning/figureTable.module.css';

/** One long panel cut apart, a panel each, or something between: the figures of each, and which is recommended. */
export function BatchChoice() {
  const { input, board, session } = useSettledBoard();
  const options = useMemo(() => batchOptions(input), [input]);
  const taken = Math.min(board.count, board.perPanel);
  return (
    <>
      <Scrolled name="Boards to a panel">
        <table className={classes.table}>
          <thead>
            <tr>
              <th>To a panel</th>
              <th>Panels</th>
              <th>Lost</th>
              <th>Glue-ups</th>
              <th>In clamps</th>
              <th>Hands</th>
            </tr>
          </thead>
          <tbody>
            {options.map((o) => (
              <tr key={o.perPanel}>
                <th scope="row" data-taken={o.perPanel === taken || undefined}>
                  {o.perPanel}
                  {o.recommended && ', recommended'}
                  <br />
                  {o.missing > 0 ? (
                    <small>{o.missing} strips missing</small>
                  ) : o.perPanel === taken ? (
                    <small>taken</small>
                  ) : (
                    <button
                      type="button"
                      aria-label={`Take ${o.perPanel} to a panel`}
                      onClick={() => session.edit((b) => ({ ...b, perPanel: o.perPanel }))}
                    >
                      Take this
                    </button>
                  )}
                </th>
                <td>
                  {o.panels} × <Length mm={o.length} />
                  <br />
                  {o.kilograms !== null && <Measured quantity="weight" value={o.kilograms} />}
                  {!o.alone && ', two people'}
                </td>
                <td>
                  <Length mm={o.lostLength} />
                </td>
                <td>{o.glueUps}</td>
                <td>{durationWords(o.clampMinutes)}</td>
                <td>{durationWords(o.handsMinutes)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scrolled>
      <p className={classes.note}>
        Recommended is what the rack gives, one person can hold, and asks for fewest glue-ups; then what takes least
        wood. Longer joints take longer to spread, so fewer strips close in time.
      </p>
    </>
  );
}
