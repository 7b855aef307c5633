import type { StripDemand } from './cutPlan.ts';
import { makeLane } from './firstFit.ts';
import type { CutModel, Place } from './cutModel.ts';
import type { PlacedBlank, UsedUnit } from './settle.ts';
import { blankSpace } from './unitGeometry.ts';

/** Reads pieces, blanks and strips off a solution of the programme. What it cuts beyond the demands is left out. */
export function readModel(model: CutModel, values: Float64Array): { used: UsedUnit[]; unmet: StripDemand[] } {
  const left = Array.from(values);
  const waiting = model.types.map((type) => [...type.members]);
  const take = <T extends { column: number }>(options: readonly T[]): T | undefined => {
    const option = options.find((o) => left[o.column]! > 0);
    if (option) left[option.column]! -= 1;
    return option;
  };
  const place = (x: number) => Math.round(x * 1e6) / 1e6;

  const used: UsedUnit[] = [];
  model.classes.forEach(({ units, geometry }, c) => {
    const gaps = model.gaps.filter((g) => g.unitClass === c && left[g.column]! > 0);
    const arcs = model.blanks.filter((b) => b.unitClass === c && left[b.column]! > 0);
    for (const unit of units) {
      const start = take(gaps.filter((g) => g.from === null));
      if (!start) break;
      const blanks: PlacedBlank[] = [];
      let at: Place | null = start.to;
      while (at !== null) {
        const here: Place = at;
        const arc = here.kept ? undefined : take(arcs.filter((a) => place(a.x) === place(here.x)));
        if (!arc) {
          const gap = take(gaps.filter((g) => g.from !== null && place(g.from.x) === place(here.x) && g.from.kept === here.kept));
          at = gap?.to ?? null;
          const slid = gap?.slid ?? 0;
          if (slid > 0) for (const blank of gap!.last ? blanks.slice(-1) : blanks) blank.x += slid;
          continue;
        }
        const profile = model.profiles[arc.profile]!;
        const space = blankSpace(geometry, arc.x, profile.space.length)!;
        const split = take(profile.splits);
        const blank = { x: arc.x, length: profile.space.length, space };
        const lanes = (split?.lanes ?? []).map(({ kind, y, pool }) => {
          const rips = fillStack(model, take(model.pools[pool]!.stacks)?.types ?? [], waiting);
          return makeLane(unit, blank, model.kinds[kind]!, y, rips);
        });
        blanks.push({ x: arc.x, length: profile.space.length, lanes });
        at = { x: place(arc.to), kept: false };
      }
      used.push({ unit, blanks });
    }
  });
  return { used, unmet: waiting.flat(2) };
}

/** Takes the next strips of each type in a stack; a group fills the rips of its lane side by side, other stacks lie in layers on one rip. */
function fillStack(model: CutModel, stack: readonly { type: number; way: number }[], waiting: StripDemand[][][]) {
  const layers = stack.flatMap(({ type, way }) => {
    const members = waiting[type]!.shift();
    return members ? [{ members, ways: model.types[type]!.ways[way]! }] : [];
  });
  const [first] = layers;
  if (!first) return [];
  if (first.members.length > 1) return first.members.map((demand, k) => [{ demand, way: first.ways[k]! }]);
  return [layers.map(({ members, ways }) => ({ demand: members[0]!, way: ways[0]! }))];
}
