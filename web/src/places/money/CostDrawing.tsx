import { useState } from 'react';
import type { Cost, CostKind } from '#core/money/cost.ts';
import { moneyWords } from '../../quantities/moneyWords.ts';
import { COST_WORDS } from './moneyNames.ts';
import classes from './money.module.css';

const WIDTH = 640;
const HEIGHT = 46;

/** A board's cost as a rule to scale: each part as long as it costs, opened to its sums. */
export function CostDrawing({ cost: { parts, total, currency } }: { cost: Cost }) {
  const [open, setOpen] = useState<CostKind | null>(null);
  const all = Number(total);
  const shown = parts.filter((p) => p.amount.gt(0) || p.unpriced.length > 0);
  const wide = shown.map((p) => (all > 0 ? (Number(p.amount) / all) * WIDTH : 0));
  const places = new Map(
    shown.map((p, i) => {
      const from = wide.slice(0, i).reduce((sum, w) => sum + w, 0);
      return [p.kind, [from, from + (wide[i] ?? 0)] as const];
    }),
  );
  return (
    <>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className={classes.cost}
        role="img"
        aria-label={`Cost: ${shown.map((p) => `${COST_WORDS[p.kind]} ${moneyWords(p.amount, currency)}`).join(', ')}`}
      >
        {shown.map((p, i) => {
          const [from, to] = places.get(p.kind) ?? [0, 0];
          return (
            <g key={p.kind} data-tint={i % 6} data-open={open === p.kind || undefined}>
              <rect x={from} y={4} width={Math.max(0, to - from)} height={HEIGHT - 8} />
              {to - from > COST_WORDS[p.kind].length * 8 + 8 && (
                <text x={from + 6} y={HEIGHT / 2 + 5}>
                  {COST_WORDS[p.kind]}
                </text>
              )}
            </g>
          );
        })}
      </svg>
      <ul className={classes.parts}>
        {shown.map((p) => (
          <li key={p.kind}>
            <button
              type="button"
              aria-expanded={open === p.kind}
              onClick={() => setOpen(open === p.kind ? null : p.kind)}
            >
              <span>{COST_WORDS[p.kind]}</span>
              {p.unpriced.length > 0 && <em>without a price: {p.unpriced.join(', ')}</em>}
              <b>{moneyWords(p.amount, currency)}</b>
            </button>
            {open === p.kind && (
              <table className={classes.sums}>
                <tbody>
                  {p.rows.map((row) => (
                    <tr key={row.what}>
                      <td>{row.what}</td>
                      <td>{row.quantity}</td>
                      <td>{row.price}</td>
                      <td>{moneyWords(row.amount, currency)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
