import type { FinishPlan } from '#core/finish/finishPlan.ts';
import { amountOf } from '#core/money/amount.ts';
import { finishCost } from '#core/money/cost.ts';
import type { Materials } from '#core/money/materials.ts';
import { finishUses } from '#core/money/uses.ts';
import type { Shop } from '#core/shop/shop.ts';
import { Measured } from '../quantities/Measured.tsx';
import { moneyWords } from '../quantities/moneyWords.ts';
import classes from './MaterialFigures.module.css';

interface MaterialFiguresProps {
  materials: Materials;
  shop: Pick<Shop, 'finishes'>;
  coatings: FinishPlan['coatings'];
  count: number;
}

/** Wood, weight and cost of a board, with what is not known said. */
export function MaterialFigures({ materials, shop, coatings, count }: MaterialFiguresProps) {
  const { taken, finished, gramsEach, costEach, cost, currency, unpriced } = materials;
  const money = (amount: number) => moneyWords(amountOf(amount, currency), currency);
  const finish = finishCost(finishUses(coatings, count), shop, currency);
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
          {money(costEach)}
          {count > 1 && <small> each, {money(cost)} in all</small>}
        </dd>
        {finish.amount.gt(0) && (
          <dd>
            <small>
              and {moneyWords(finish.amount, currency)} of finish{count > 1 && ' in all'}
            </small>
          </dd>
        )}
        {finish.unpriced.length > 0 && (
          <dd>
            <small>and {finish.unpriced.join(', ').toLowerCase()}, whose price is not known</small>
          </dd>
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
