import type { CostKind } from '#core/money/cost.ts';
import type { PriceWay } from '#core/money/price.ts';

export const COST_WORDS: Readonly<Record<CostKind, string>> = {
  wood: 'Wood',
  glue: 'Glue',
  finish: 'Finish',
  paper: 'Paper',
  parts: 'Bought parts',
  work: 'Work',
  machines: 'Machines',
  fixed: 'Rent and power',
};

export const PRICE_WORDS: Readonly<Record<PriceWay, string>> = {
  markup: 'Costs and what is put on them',
  wage: 'What the work shall be paid',
  area: 'As before, by the area',
};
