import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { machineSavings, payBackOf } from '#core/money/machineSaving.ts';
import { amountOf } from '#core/money/amount.ts';
import { api } from '../../data/api.ts';
import { durationWords } from '../../quantities/duration.ts';
import { Length } from '../../quantities/Length.tsx';
import { moneyWords } from '../../quantities/moneyWords.ts';
import { useShopPlans } from './useShopPlans.ts';
import classes from './money.module.css';

/** What each machine that the shop has not got would save over the boards that are planned, and when it would be paid for. */
export function MachineSavings() {
  const earlier = useQuery({ queryKey: ['earlier prices'], queryFn: api.earlierPrices });
  const { plans, shop, problem } = useShopPlans(null);
  const rows = useMemo(() => {
    if (!plans || !shop) return null;
    const each = plans.map(({ plan, count }) => ({
      count,
      savings: machineSavings(plan.operations).map((s) => ({
        ...s,
        minutes: s.minutes / count,
      })),
    }));
    const { prices } = shop.shop;
    const made = earlier.data?.boardsYear ?? 0;
    const boardsYear = made > 0 ? made : prices.boardsMonth * 12;
    const tools = [
      ...new Set([...each.flatMap((e) => e.savings.map((s) => s.tool)), ...prices.wished.map((w) => w.tool)]),
    ];
    return {
      boardsYear,
      fromLog: made > 0,
      tools: tools
        .map((tool) =>
          payBackOf(
            tool,
            // A batch counts for as many boards as are in it.
            each.flatMap(({ count, savings }) =>
              Array.from({ length: count }, () => savings.find((s) => s.tool === tool) ?? { minutes: 0, thickness: 0 }),
            ),
            boardsYear,
            prices,
          ),
        )
        .sort((a, b) => b.minutesYear - a.minutesYear),
    };
  }, [plans, shop, earlier.data]);
  if (problem) return <p role="alert">{problem.message} Cadenza keeps trying.</p>;
  if (!rows || !shop) return <p role="status">Planning every board both ways …</p>;
  const { currency, prices } = shop.shop;
  return (
    <>
      <p>
        Over the boards in work, at {Math.round(rows.boardsYear)} boards a year{' '}
        {rows.fromLog ? '(as the log has them)' : '(as the shop says)'}
        {prices.wage !== null && ` and ${moneyWords(amountOf(prices.wage, currency), currency)} an hour`}. Prices are
        said in <Link to="/shop/prices">the shop</Link>.
      </p>
      {rows.tools.length === 0 && <p>No machine would be quicker than what the shop does now.</p>}
      <table className={classes.table}>
        <thead>
          <tr>
            <th>Machine</th>
            <th>Saves on a board</th>
            <th>In a year</th>
            <th>Thickness kept</th>
            <th>Costs</th>
            <th>Paid for after</th>
          </tr>
        </thead>
        <tbody>
          {rows.tools.map((t) => (
            <tr key={t.tool}>
              <td>{t.name}</td>
              <td>{durationWords(t.minutesEach)}</td>
              <td>{durationWords(t.minutesYear)}</td>
              <td>
                <Length mm={t.thicknessEach} />
              </td>
              <td>{t.price === null ? '–' : moneyWords(amountOf(t.price, currency), currency)}</td>
              <td>
                {t.boards === null
                  ? t.price === null
                    ? 'say what it costs'
                    : prices.wage === null
                      ? 'say what an hour is paid'
                      : 'never'
                  : `${t.boards} boards${t.years === null ? '' : `, ${t.years.toFixed(1)} years`}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
