import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { checkPlan } from '../checks/checkPlan.ts';
import { workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { readBoardFile } from '../format/boardFile.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { makePlan } from '../plan/plan.ts';
import { planText, SECTIONS, type Section } from './planText.ts';

/** Boards out of the seeded ones that together show every kind of step and nearly every finding; chosen once, by a search for the fewest that do. */
const TELLING: readonly number[] = [7, 16, 19, 22, 26, 36, 65, 88, 91, 100, 122, 144, 198, 237, 249, 273, 290];
const SEEDED = 300;
const SEED = 20261126;
const EXAMPLES = ['bread-boards-edge-grain', 'carving-board-edge-grain', 'dough-board-face-grain'] as const;

/** Every board of the net: the three examples and seeded ones, by name. */
function goldenBoards(): Map<string, PlanInput> {
  const examples = EXAMPLES.map((name): [string, PlanInput] => {
    const read = readBoardFile(
      readFileSync(join(import.meta.dirname, '../../../examples', `${name}.cadenza.json`), 'utf8'),
    );
    if (!read.ok) throw new Error(`${name}: ${JSON.stringify(read.problems)}`);
    return [name, read.file];
  });
  const seeded = fc
    .sample(workshopArbitrary, { seed: SEED, numRuns: SEEDED })
    .map((input, i): [string, PlanInput] => [`seeded-${String(i).padStart(3, '0')}`, input]);
  return new Map([...examples, ...seeded]);
}

function goldenText(input: PlanInput): Record<Section, string> {
  const plan = makePlan(input);
  return planText(plan, checkPlan(plan, input));
}

const boards = goldenBoards();
const whole = [...boards.keys()].filter(
  (name) => !name.startsWith('seeded') || TELLING.includes(Number(name.slice('seeded-'.length))),
);

it.each(whole)(
  '%s: ladders, cuts, steps in both units, glue-ups, findings, hands-on minutes and materials are as they were (vitest -u where they are meant to change)',
  async (name) => {
    const text = goldenText(boards.get(name)!);
    await expect(SECTIONS.map((s) => `== ${s}\n${text[s]}\n`).join('\n')).toMatchFileSnapshot(`./boards/${name}.txt`);
  },
);

it('so is every seeded board, section by section', async () => {
  const lines = [...boards].map(([name, input]) => {
    const text = goldenText(input);
    return `${name} ${SECTIONS.map((s) => `${s}:${createHash('sha256').update(text[s]).digest('hex').slice(0, 10)}`).join(' ')}`;
  });
  await expect(`${lines.join('\n')}\n`).toMatchFileSnapshot('./sections.txt');
}, 120_000);
