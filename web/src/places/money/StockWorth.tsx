import { useMemo } from 'react';
import { Link } from 'react-router';
import { stockValue } from '#core/money/stockValue.ts';
import { trouble, useRack, useShop, useSpecies } from '../../data/queries.ts';
import { moneyWords } from '../../quantities/moneyWords.ts';
import classes from './money.module.css';

const DAY = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' });

/** What the rack is worth, what lies longest, and what leftovers have come to. */
export function StockWorth() {
  const rack = useRack();
  const shop = useShop();
  const species = useSpecies();
  const currency = shop.data?.shop.currency ?? 'EUR';
  const value = useMemo(
    () =>
      rack.data && species.data && shop.data
        ? stockValue(
            rack.data.map(({ piece, since }) => ({ piece, since: since === undefined ? Infinity : Date.parse(since) })),
            species.data,
            shop.data.shop.currency,
          )
        : null,
    [rack.data, species.data, shop.data],
  );
  const problem = trouble(rack, shop, species);
  if (problem) return <p role="alert">{problem.message} Cadenza keeps trying.</p>;
  if (!value) return <p role="status">Counting …</p>;
  return (
    <>
      <h2>
        The rack is worth {moneyWords(value.total, currency)}
        {value.unpriced > 0 && `, and ${value.unpriced} pieces without a price`}
      </h2>
      <table className={classes.table}>
        <thead>
          <tr>
            <th>Species</th>
            <th>Pieces</th>
            <th>Cubic metres</th>
            <th>Without a price</th>
            <th>Worth</th>
          </tr>
        </thead>
        <tbody>
          {value.species.map((s) => (
            <tr key={s.code}>
              <td>{s.name}</td>
              <td>{s.pieces}</td>
              <td>{s.cubicMetres.toFixed(4)}</td>
              <td>{s.unpriced > 0 ? s.unpriced : ''}</td>
              <td>{moneyWords(s.value, currency)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2>Leftovers and salvage</h2>
      <p>
        {value.leftovers.pieces} pieces, {value.leftovers.cubicMetres.toFixed(4)} m³: they have come to{' '}
        <b>{moneyWords(value.leftovers.value, currency)}</b>.
      </p>
      <h2>What lies longest</h2>
      <table className={classes.table}>
        <thead>
          <tr>
            <th>Piece</th>
            <th>Since</th>
            <th>Worth</th>
          </tr>
        </thead>
        <tbody>
          {value.oldest.map(({ piece, since, value: worth }) => (
            <tr key={piece.id}>
              <td>
                <Link to={`/rack/${piece.id}`}>{piece.mark}</Link>
              </td>
              <td>{Number.isFinite(since) ? DAY.format(new Date(since)) : ''}</td>
              <td>{worth ? moneyWords(worth, currency) : 'no price'}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
