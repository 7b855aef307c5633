import type { WayOfWork } from '#core/steps/ways.ts';
import { durationWords } from '../quantities/duration.ts';
import { Length, Say } from '../quantities/Length.tsx';
import { Scrolled } from '../shell/Scrolled.tsx';
import classes from './WaysTable.module.css';

interface WaysTableProps {
  ways: readonly WayOfWork[];
  /** Name of the one that is taken. */
  taken: string | null;
  /** Chooses one; left out where there is nothing to choose. */
  onChoose?(id: string): void;
}

/** Every way to do a step, whether the shop has it or not, with honest minutes. */
export function WaysTable({ ways, taken, onChoose }: WaysTableProps) {
  const now = ways.find((w) => w.name === taken);
  return (
    <Scrolled name="Ways">
      <table className={classes.ways}>
        <thead>
          <tr>
            <th>Way</th>
            <th>Hands-on</th>
            <th>Passes</th>
            <th>Takes more</th>
            <th>Here</th>
          </tr>
        </thead>
        <tbody>
          {ways.map((way) => (
            <tr key={way.id} data-taken={way.name === taken || undefined}>
              <th scope="row">{way.name}</th>
              <td>{durationWords(way.minutes)}</td>
              <td>{way.passes ?? '–'}</td>
              <td>{way.extra > 0 ? <Length mm={way.extra} /> : '–'}</td>
              <td>
                {way.name === taken ? (
                  'taken'
                ) : way.cannot ? (
                  <Say phrase={way.cannot} />
                ) : !way.owned ? (
                  <>
                    not in the shop
                    {now && way.minutes < now.minutes - 1 && `; would save ${durationWords(now.minutes - way.minutes)}`}
                  </>
                ) : onChoose ? (
                  <button type="button" onClick={() => onChoose(way.id)}>
                    Take this
                  </button>
                ) : (
                  'possible'
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Scrolled>
  );
}
