import type { Materials } from '#core/money/materials.ts';
import { Measured } from '../quantities/Measured.tsx';
import classes from './MaterialFigures.module.css';

interface MaterialFiguresProps {
  materials: Materials;
  /** What goes on one board costs; null without a price. */
  finish: number | null;
  count: number;
}

/** Wood, weight and cost of a board, with what is not known said. */
export function MaterialFigures({ materials, finish, count }: MaterialFiguresProps) {
  const { taken, finished, gramsEach, costEach, cost, currency, unpriced } = materials;
  const money = new Intl.NumberFormat(undefined, { style: 'currency', currency });
  return (
    <dl className={classes.figures} aria-label="Wood, weight and cost">
      <div>
        <dt>Wood from the rack{count > 1 && `, ${count} boards`}</dt>
        <dd>
          {taken.boardFeet.toFixed(2)} bf <small>{taken.cubicMetres.toFixed(5)} m³</small>
        </dd>
      </div>
      <div>
        <dt>{count > 1 ? 'In one board' : 'In the board'}</dt>
        <dd>
          {finished.boardFeet.toFixed(2)} bf <small>{finished.cubicMetres.toFixed(5)} m³</small>
        </dd>
      </div>
      <div>
        <dt>Weight{count > 1 && ' of one'}</dt>
        <dd>
          {gramsEach === null ? 'unknown' : <Measured quantity="weight" value={gramsEach / 1000} />}{' '}
          <small>at 12 % moisture</small>
        </dd>
      </div>
      <div>
        <dt>Wood used up</dt>
        <dd>
          {money.format(costEach)}
          {count > 1 && <small> each, {money.format(cost)} in all</small>}
        </dd>
        {finish === null ? (
          <dd>
            <small>and the finish, whose price is not known</small>
          </dd>
        ) : (
          finish > 0 && (
            <dd>
              <small>
                and {money.format(finish)} of finish{count > 1 && ' each'}
              </small>
            </dd>
          )
        )}
        {unpriced.length > 0 && (
          <dd>
            <small>{unpriced.join(', ')} without a price, counted as the shop counts unpriced wood</small>
          </dd>
        )}
      </div>
    </dl>
  );
}
