import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { checkPlan } from '../../checks/checkPlan.ts';
import { workshopArbitrary } from '../../follow/workshopArbitrary.ts';
import { readBoardFile } from '../../format/boardFile.ts';
import type { PlanInput } from '../context.ts';
import { makePlan } from '../plan.ts';
import { planText, type Section } from './planText.ts';

/** Boards out of the seeded ones that together show every kind of step and nearly every finding; chosen once, by a search for the fewest that do. */
export const TELLING: readonly number[] = [7, 16, 19, 22, 26, 36, 65, 88, 91, 100, 122, 144, 198, 237, 249, 273, 290];
const SEEDED = 300;
const SEED = 20261126;
const EXAMPLES = ['bread-boards-edge-grain', 'carving-board-edge-grain', 'dough-board-face-grain'] as const;

/** Every board of the net: the three examples and seeded ones, by name. */
export function goldenBoards(): Map<string, PlanInput> {
  const examples = EXAMPLES.map((name): [string, PlanInput] => {
    const read = readBoardFile(readFileSync(join(import.meta.dirname, '../../../../examples', `${name}.cadenza.json`), 'utf8'));
    if (!read.ok) throw new Error(`${name}: ${JSON.stringify(read.problems)}`);
    return [name, read.file];
  });
  const seeded = fc.sample(workshopArbitrary, { seed: SEED, numRuns: SEEDED }).map((input, i): [string, PlanInput] => [`seeded-${String(i).padStart(3, '0')}`, input]);
  return new Map([...examples, ...seeded]);
}

export function goldenText(input: PlanInput): Record<Section, string> {
  const plan = makePlan(input);
  return planText(plan, checkPlan(plan, input));
}
