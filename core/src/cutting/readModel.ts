import { certain, firstOf, nth } from '../lists/there.ts';
import type { StripDemand } from './cutPlan.ts';
import { makeLane } from './firstFit.ts';
import type { CutModel } from './cutProgramme.ts';
import type { PlacedBlank, UsedUnit } from './settle.ts';
import { blankSpace } from './unitGeometry.ts';

/** Reads pieces, blanks and strips off a solution of the programme. What it cuts beyond the demands is left out. */
export function readModel(model: CutModel, values: Float64Array): { used: UsedUnit[]; unmet: StripDemand[] } {
  const left = Array.from(values);
  const waiting = model.types.map((type) => [...type.members]);
  const take = <T extends { column: number }>(options: readonly T[]): T | undefined => {
    const option = options.find((o) => nth(left, o.column) > 0);
    if (option) left[option.column] = nth(left, option.column) - 1;
    return option;
  };

  const used: UsedUnit[] = [];
  model.classes.forEach(({ units, geometry }, c) => {
    const routes = model.routes.filter((r) => r.unitClass === c && nth(left, r.column) > 0);
    for (const unit of units) {
      const route = take(routes);
      if (!route) break;
      const blanks = route.blanks.map(({ x, profile: p }): PlacedBlank => {
        const profile = nth(model.profiles, p);
        const blank = {
          x,
          length: profile.space.length,
          space: certain(blankSpace(geometry, x, profile.space.length)),
        };
        const lanes = (take(profile.splits)?.lanes ?? []).map(({ kind, y, pool }) => {
          const rips = fillStack(model, take(nth(model.pools, pool).stacks)?.types ?? [], waiting);
          return makeLane(unit, blank, nth(model.kinds, kind), y, rips);
        });
        return { x, length: blank.length, lanes };
      });
      used.push({ unit, blanks });
    }
  });
  return { used, unmet: waiting.flat(2) };
}

/** Takes the next strips of each type in a stack; a group fills the rips of its lane side by side, other stacks lie in layers on one rip. */
function fillStack(model: CutModel, stack: readonly { type: number; way: number }[], waiting: StripDemand[][][]) {
  const layers = stack.flatMap(({ type, way }) => {
    const members = nth(waiting, type).shift();
    return members ? [{ members, ways: nth(nth(model.types, type).ways, way) }] : [];
  });
  const [first] = layers;
  if (!first) return [];
  if (first.members.length > 1) return first.members.map((demand, k) => [{ demand, way: nth(first.ways, k) }]);
  return [layers.map(({ members, ways }) => ({ demand: firstOf(members), way: firstOf(ways) }))];
}
