import { expect, it } from 'vitest';
import { measured, measuresIn } from '../core/src/bench/measuredForTests.ts';
import { framedBoard } from '../core/src/board/recutForTests.ts';
import { followPlan } from '../core/src/follow/followPlan.ts';
import { unwarned } from '../core/src/follow/unwarnedForTests.ts';
import { makePlan } from '../core/src/plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../core/src/plan/planArbitrary.ts';
const PLENTY = [
  plainPiece({ mark: 'A1', length: 2400, width: 220, thickness: 56, count: 8 }),
  plainPiece({ id: 'w', mark: 'A2', species: 'walnut-black', length: 2400, width: 220, thickness: 56, count: 8 }),
];
const accent = (width: number) => ({ species: 'walnut-black', width });
it('x', () => {
  const board = framedBoard(plainBoard({ length: 300, width: 180, thickness: 30 }, [45, 45, 45, 45, 45]), [{ ...accent(20), widths: [20, 20, 20, 20], first: 'ends' }]);
  const input = planInput(board, PLENTY);
  const plan = makePlan(input);
  const lengths = measuresIn(plan, input).filter((m) => m.expected !== null && m.expected > 5);
  for (const [i, m] of lengths.entries()) if (m.label.startsWith('strip')) for (const off of [0.04, 0.051, 0.2, 0.5, -0.06, -1]) {
    const given = { ...input, facts: [measured('m', m, m.expected! + off)] };
    const next = makePlan(given);
    const made = followPlan(next, given);
    const un = unwarned(next, given, made);
    console.log(i, m.label, m.thing, m.dimension, m.stage, m.expected, off, un.length ? JSON.stringify(un) : 'ok');
  }
  console.log(plan.operations.map((o) => `${o.number} ${o.id}`).join('\n'));
});
