import { NativeSelect, Button } from '@mantine/core';
import { useState } from 'react';
import { z } from 'zod';
import { pricesSchema, type Prices } from '#core/shop/prices.ts';
import type { Shop } from '#core/shop/shop.ts';
import { TOOL_NAMES, type ToolId } from '#core/shop/tools.ts';
import { NumberField, OptionalNumber } from '../../quantities/plainFields.tsx';
import { RemoveButton } from '../../quantities/RemoveButton.tsx';
import type { EditShop } from './editShop.ts';
import { PRICE_FIGURES, RATED } from './priceFigures.ts';
import classes from './ShopPlace.module.css';

const percent = (share: z.ZodType<number>) =>
  z.number().superRefine((value, context) => {
    for (const issue of share.safeParse(value / 100).error?.issues ?? [])
      context.addIssue({ code: 'custom', message: issue.message });
  });

/** What things cost the shop, and what it wants for its work. */
export function PriceRoom({ shop, change }: { shop: Shop; change: EditShop }) {
  const { prices, currency } = shop;
  const set = (own: Partial<Prices>) => change((s) => ({ ...s, prices: { ...s.prices, ...own } }));
  return (
    <>
      <div className={classes.grid}>
        {PRICE_FIGURES.map(([key, label, of]) => (
          <OptionalNumber
            key={key}
            field={label}
            suffix={of === 'money' ? ` ${currency}` : ''}
            value={prices[key]}
            schema={pricesSchema.shape[key]}
            onCommit={(value) => set({ [key]: value })}
          />
        ))}
        <NumberField
          field="A sheet does"
          suffix=" m²"
          value={prices.paperSheetM2}
          schema={pricesSchema.shape.paperSheetM2}
          onCommit={(paperSheetM2) => set({ paperSheetM2 })}
        />
        <NumberField
          field="Boards made in a month"
          value={prices.boardsMonth}
          schema={pricesSchema.shape.boardsMonth}
          onCommit={(boardsMonth) => set({ boardsMonth })}
        />
        <NumberField
          field="Put on all costs"
          suffix=" %"
          value={Math.round(prices.markup * 1000) / 10}
          schema={percent(pricesSchema.shape.markup)}
          onCommit={(value) => set({ markup: value / 100 })}
        />
        <NumberField
          field="Tax on prices"
          suffix=" %"
          value={Math.round(prices.tax * 1000) / 10}
          schema={percent(pricesSchema.shape.tax)}
          onCommit={(value) => set({ tax: value / 100 })}
        />
      </div>
      <ToolPrices
        title="An hour of a machine"
        field="costs an hour"
        currency={currency}
        rows={prices.machines.map((m) => ({ tool: m.tool, amount: m.hour }))}
        onChange={(rows) => set({ machines: rows.map((r) => ({ tool: r.tool, hour: r.amount })) })}
      />
      <ToolPrices
        title="Machines that are thought of"
        field="would cost"
        currency={currency}
        rows={prices.wished.map((w) => ({ tool: w.tool, amount: w.price }))}
        onChange={(rows) => set({ wished: rows.map((r) => ({ tool: r.tool, price: r.amount })) })}
      />
    </>
  );
}

interface ToolPrice {
  tool: ToolId;
  amount: number;
}

function ToolPrices({
  title,
  field,
  currency,
  rows,
  onChange,
}: {
  title: string;
  field: string;
  currency: string;
  rows: readonly ToolPrice[];
  onChange(rows: ToolPrice[]): void;
}) {
  const others = RATED.filter((tool) => !rows.some((r) => r.tool === tool));
  const [chosen, setChosen] = useState<ToolId>('drumSander');
  const next = others.includes(chosen) ? chosen : others[0];
  return (
    <div className={classes.machine} role="group" aria-label={title}>
      <h3>{title}</h3>
      {rows.map(({ tool, amount }) => (
        <div key={tool} className={classes.line}>
          <span>{TOOL_NAMES[tool]}</span>
          <NumberField
            field={`${TOOL_NAMES[tool]} ${field}`}
            label=""
            suffix={` ${currency}`}
            value={amount}
            schema={pricesSchema.shape.machines.unwrap().shape.hour}
            onCommit={(value) => onChange(rows.map((r) => (r.tool === tool ? { ...r, amount: value } : r)))}
          />
          <RemoveButton
            label={`Remove ${TOOL_NAMES[tool]}: ${title}`}
            onClick={() => onChange(rows.filter((r) => r.tool !== tool))}
          />
        </div>
      ))}
      {next && (
        <div className={classes.line}>
          <NativeSelect
            size="sm"
            label={`Another: ${title.toLowerCase()}`}
            value={next}
            onChange={(e) => setChosen(e.currentTarget.value as ToolId)}
            data={others.map((value) => ({ value, label: TOOL_NAMES[value] }))}
          />
          <Button size="sm" variant="default" onClick={() => onChange([...rows, { tool: next, amount: 0 }])}>
            Add
          </Button>
        </div>
      )}
    </div>
  );
}
