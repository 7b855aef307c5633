import { SETTLED } from '#core/plan/stockMoisture.ts';
import { equilibriumMoisture } from '#core/wood/moisture.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { Length } from '../../quantities/Length.tsx';
import { Measured } from '../../quantities/Measured.tsx';
import classes from '../../planning/figureTable.module.css';

const percent = (value: number) => `${Math.round(value * 10) / 10} %`;

/** Stock against room: wait or go, with the figure. */
export function MoistureLines() {
  const { plan } = useSettledBoard();
  const { room } = plan.shop;
  return (
    <section>
      <h2>Moisture</h2>
      <p className={classes.note}>
        At <Measured quantity="temperature" value={room.temperature} /> and {room.humidity} % the room brings wood to{' '}
        {percent(equilibriumMoisture(room))}.
      </p>
      {plan.moisture.length === 0 ? (
        <p className={classes.note}>No piece in use was measured. With a meter, note it on the piece.</p>
      ) : (
        <table className={classes.table}>
          <thead>
            <tr>
              <th>Piece</th>
              <th>Measured</th>
              <th>Its widest strip will</th>
              <th>Wait or go</th>
            </tr>
          </thead>
          <tbody>
            {plan.moisture.map((m) => (
              <tr key={m.mark}>
                <th scope="row">{m.mark}</th>
                <td>{percent(m.measured)}</td>
                <td>
                  {m.change === null ? (
                    'not known'
                  ) : (
                    <>
                      {m.change < 0 ? 'shrink' : 'swell'} <Length mm={Math.abs(m.change)} />
                    </>
                  )}
                </td>
                <td>{Math.abs(m.measured - m.room) > SETTLED ? 'wait' : 'go'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
