import { finishPlanOf } from '#core/finish/finishPlan.ts';
import { surfacesOf } from '#core/finish/surfaces.ts';
import { NOTHING_MADE } from '#core/facts/made.ts';
import { nth } from '#core/lists/there.ts';
import { makePlan } from '#core/plan/plan.ts';
import { UNDRAWN, type Feature } from '#core/features/feature.ts';
import type { Figure } from './figure.ts';
import { benchInstance } from './instances.ts';

const FEATURES = 10;
const ROUNDS = 401;

/** Every figure that the issue of the finish asks for. */
export function finishFigures(): Figure[] {
  const instance = benchInstance(40, 60);
  const marks = Array.from({ length: FEATURES - 1 }, (_, i): Feature => ({
    ...UNDRAWN,
    kind: 'mark',
    id: `m${i}`,
    face: 'top',
    name: `Mark ${i}`,
    method: 'laser',
    x: 60 + i * 35,
    y: 80,
    length: 20,
    width: 20,
    depth: 0.5,
  }));
  const groove: Feature = {
    kind: 'groove',
    id: 'g',
    face: 'top',
    offset: 20,
    bit: 12,
    depth: 6,
    corner: 10,
    wells: 1,
    spout: null,
    fall: 0,
  };
  const board = { ...instance.board, worked: { ...instance.board.worked, features: [groove, ...marks] } };
  const plan = makePlan({ ...instance, board });
  const times: number[] = [];
  for (let i = 0; i < ROUNDS; i += 1) {
    const start = performance.now();
    const surfaces = surfacesOf(plan.worked, plan.wood?.board ?? null);
    finishPlanOf({ board, shop: plan.shop, made: NOTHING_MADE }, plan.worked, surfaces, 'planer');
    times.push(performance.now() - start);
  }
  const value = nth(
    times.sort((a, b) => a - b),
    Math.floor(ROUNDS / 2),
  );
  return [
    {
      name: `what Finish adds to a plan of 40 strips and ${FEATURES} features, median`,
      value,
      unit: 'ms',
      goal: '< 1',
      ok: value < 1,
    },
  ];
}
