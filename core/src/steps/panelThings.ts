import type { PlanContext } from '../ladders/context.ts';
import { blockThing, panelThing } from './instruction.ts';

/** What comes out of the clamps, a thing each: panels of strips, or blocks of rows or parts. */
export const panelsOf = ({ allowances, again }: PlanContext) =>
  allowances.panels.map((_, k) => (again ? blockThing(k + 1, allowances.panels.length) : panelThing(k + 1)));

export const panelWords = (many: number, { again }: Pick<PlanContext, 'again'>): string => {
  const word = again ? 'block' : 'panel';
  return many > 1 ? `${many} ${word}s` : `the ${word}`;
};
