import { Button } from '@mantine/core';
import { IconFileInvoice, IconReceipt } from '@tabler/icons-react';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { boardSchema } from '#core/board/board.ts';
import { amountOf, type Amount } from '#core/money/amount.ts';
import { hourOf, pricesOf } from '#core/money/price.ts';
import { api } from '../../data/api.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { durationWords } from '../../quantities/duration.ts';
import { OptionalNumber } from '../../quantities/plainFields.tsx';
import { CostDrawing } from './CostDrawing.tsx';
import { moneyWords } from '../../quantities/moneyWords.ts';
import { PRICE_WORDS } from './moneyNames.ts';
import classes from './money.module.css';
import { useBatches, useCost } from './useCost.ts';

/** What the board costs, what to ask for it, and what that pays. */
export function BoardMoneyPlace() {
  const { board, plan, session } = useSettledBoard();
  const cost = useCost();
  const { currency, count } = cost;
  const earlier = useQuery({ queryKey: ['earlier prices'], queryFn: api.earlierPrices });
  const money = (amount: Amount) => moneyWords(amount, currency);
  const size = { length: plan.ladders.length.reached, width: plan.ladders.width.reached };
  const prices = pricesOf(cost, size, earlier.data?.prices ?? [], plan.shop.prices);
  const asked = board.price === null ? null : amountOf(board.price, currency);
  const pays = asked && hourOf(cost, asked);
  const batches = useBatches();
  return (
    <div className={classes.page}>
      <div>
        <h2>
          What {count > 1 ? `${count} boards cost` : 'it costs'}: {money(cost.total)}
        </h2>
        <CostDrawing cost={cost} />
        {count > 1 && <p>{money(amountOf(cost.total.div(count), currency))} a board, to the coin.</p>}
        <h2>One, or several at once</h2>
        <table className={classes.table}>
          <thead>
            <tr>
              <th>Boards</th>
              <th>Cost of one</th>
              <th>Work on one</th>
              <th>Rack gives them</th>
            </tr>
          </thead>
          <tbody>
            {batches.map(({ count: n, cost: own, given }) => (
              <tr key={n} data-own={n === board.count || undefined}>
                <td>{n}</td>
                <td>{money(amountOf(own.total.div(n), currency))}</td>
                <td>{durationWords((own.hours * 60) / n)}</td>
                <td>{given ? 'yes' : 'not all'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div>
        <h2>What to ask for one</h2>
        <table className={classes.table}>
          <thead>
            <tr>
              <th>By</th>
              <th>Price</th>
              <th>Pays an hour</th>
              <th>
                <span className={classes.hidden}>Take</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {prices.map(({ way, each, hour, why }) => (
              <tr key={way}>
                <td>
                  {PRICE_WORDS[way]}
                  <small>{why}</small>
                </td>
                <td className={classes.large}>{each ? money(each) : '–'}</td>
                <td>{hour ? money(hour) : '–'}</td>
                <td>
                  {each && (
                    <Button
                      size="xs"
                      variant="default"
                      aria-label={`Ask ${money(each)}`}
                      onClick={() => session.edit((b) => ({ ...b, price: Number(each) }))}
                    >
                      Ask this
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <div className={classes.asked}>
          <OptionalNumber
            field="Asked for one"
            suffix={` ${currency}`}
            value={board.price}
            schema={boardSchema.shape.price}
            onCommit={(price) => session.edit((b) => ({ ...b, price }))}
          />
          {pays && (
            <p>
              Pays <b>{money(pays)}</b> an hour
              {count > 1 && asked && `; ${money(asked.times(count))} for all ${count}`}.
            </p>
          )}
        </div>
        {pays?.lt(0) && <p className={classes.bad}>Less than it costs without any work.</p>}
        <div className={classes.row}>
          <Button
            component={Link}
            to="../paper/quotation"
            relative="path"
            variant="default"
            leftSection={<IconFileInvoice size={17} />}
          >
            Quotation
          </Button>
          <Button
            component={Link}
            to="../paper/bill"
            relative="path"
            variant="default"
            leftSection={<IconReceipt size={17} />}
          >
            Bill
          </Button>
          <Button component={Link} to="/shop/prices" variant="subtle">
            Prices of the shop
          </Button>
        </div>
      </div>
    </div>
  );
}
