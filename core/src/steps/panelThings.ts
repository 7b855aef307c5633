import type { PlanContext } from '../ladders/context.ts';
import { blockThing, panelThing } from './instruction.ts';

/** What comes out of the clamps, a thing each: panels of strips, or blocks of rows. */
export const panelsOf = ({ allowances, rows }: PlanContext) =>
  allowances.panels.map((_, k) => (rows ? blockThing(k + 1, allowances.panels.length) : panelThing(k + 1)));

export const panelWords = (many: number, { rows }: Pick<PlanContext, 'rows'>): string => {
  const word = rows ? 'block' : 'panel';
  return many > 1 ? `${many} ${word}s` : `the ${word}`;
};
