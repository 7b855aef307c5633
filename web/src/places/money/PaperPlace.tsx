import { Button, TextInput } from '@mantine/core';
import { IconPrinter } from '@tabler/icons-react';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { cutStripsOf } from '#core/board/recipe.ts';
import { amountOf } from '#core/money/amount.ts';
import { withTax } from '#core/money/price.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { BoardSizeLine } from '../../drawing/BoardSizeLine.tsx';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import { useDay } from '../../shell/useTime.ts';
import { moneyWords } from '../../quantities/moneyWords.ts';
import classes from './money.module.css';

const DAY = new Intl.DateTimeFormat(undefined, { dateStyle: 'long' });

/** A quotation or a bill on paper, as plain as a maker's. */
export function PaperPlace() {
  const { kind } = useParams();
  const isBill = kind === 'bill';
  const { board, plan, input } = useSettledBoard();
  const today = useDay();
  const [whom, setWhom] = useState('');
  const [number, setNumber] = useState('');
  const { shop } = plan;
  useShortcuts('Paper', [{ keys: 'mod+p', does: 'Print', run: () => window.print() }]);
  const woods = [...new Set(cutStripsOf(board).map((s) => s.species))]
    .map((code) => input.species.find((s) => s.code === code)?.name ?? code)
    .join(', ');
  const finishes = plan.finish.coatings.map((c) => c.finish.name.toLowerCase()).join(', then ');
  const each = board.price === null ? null : amountOf(board.price, shop.currency);
  const sums = each && withTax(each.times(board.count), shop.prices.tax, shop.currency);
  const money = (amount: NonNullable<typeof each>) => moneyWords(amount, shop.currency);
  return (
    <div className={classes.paperPage}>
      <div className={classes.paperTools}>
        <TextInput size="sm" label="For whom" value={whom} onChange={(e) => setWhom(e.currentTarget.value)} />
        <TextInput size="sm" label="Number" value={number} onChange={(e) => setNumber(e.currentTarget.value)} />
        <Button leftSection={<IconPrinter size={17} />} disabled={!sums} onClick={() => window.print()}>
          Print
        </Button>
        <Button component={Link} to="../../money" relative="path" variant="default">
          Back to the money
        </Button>
      </div>
      <article className={classes.paper}>
        <header>
          <b>{shop.name}</b>
          <span>{DAY.format(today)}</span>
        </header>
        <h2>
          {isBill ? 'Bill' : 'Quotation'}
          {number !== '' && ` ${number}`}
        </h2>
        {whom !== '' && <p>For {whom}</p>}
        <table>
          <thead>
            <tr>
              <th>What</th>
              <th>Number</th>
              <th>Each</th>
              <th>Together</th>
            </tr>
          </thead>
          <tbody>
            <tr>
              <td>
                <b>{board.name}</b>
                <br />
                <BoardSizeLine board={board} />
                <br />
                {woods}
                {finishes !== '' && `; ${finishes}`}
              </td>
              <td>{board.count}</td>
              <td>{each ? money(each) : ''}</td>
              <td>{sums ? money(sums.net) : ''}</td>
            </tr>
          </tbody>
          {sums && (
            <tfoot>
              {sums.tax.gt(0) && (
                <tr>
                  <td colSpan={3}>Tax, {Math.round(shop.prices.tax * 1000) / 10} %</td>
                  <td>{money(sums.tax)}</td>
                </tr>
              )}
              <tr>
                <td colSpan={3}>{isBill ? 'To be paid' : 'In all'}</td>
                <td>
                  <b>{money(sums.gross)}</b>
                </td>
              </tr>
            </tfoot>
          )}
        </table>
        {!sums && <p role="alert">Say first what is asked for one: on the page Money of this board.</p>}
        {board.due && !isBill && <p>To be had by {DAY.format(new Date(`${board.due.day}T12:00:00`))}.</p>}
        {!isBill && <p>Wood is wood: colours and figure are as it grew.</p>}
      </article>
    </div>
  );
}
