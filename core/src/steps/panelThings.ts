import type { PlanContext } from '../ladders/context.ts';
import { panelThing } from './instruction.ts';

export const panelsOf = ({ allowances }: PlanContext) => allowances.panels.map((_, k) => panelThing(k + 1));

export const panelWords = (many: number): string => (many > 1 ? `${many} panels` : 'the panel');
