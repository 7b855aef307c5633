import { entryOf, firstOf, nth } from '../lists/there.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Unit } from './cutProblem.ts';
import { isSpare, type DemandType } from './demandTypes.ts';
import type { Defect } from '../stock/defect.ts';
import { beginnings, MOST_PLACES } from './beginnings.ts';
import { routesOf, type RouteNetwork } from './routes.ts';
import {
  blankSpace,
  freeStretches,
  laneKind,
  ownVolume,
  stretchVolume,
  type LaneKind,
  type UnitGeometry,
} from './unitGeometry.ts';
import type { Groups } from './cutProgramme.ts';
import { makeProfile } from './cutProfiles.ts';
import { type CutModel, Programme, type UnitClass } from './cutProgramme.ts';

/**
 * States one species as a mixed-integer programme. A piece is cut along one of its routes, which gives blanks of some groups; each blank chooses one way
 * to be ripped into lanes; each lane holds one strip, or several when it is resawn. Every wish is met.
 *
 * A blank begins at an end trim, behind a defect or promised length or behind another blank, or it ends so on the other side: a maker turns a plank round, and
 * waste may lie in the middle. Any plan can be slid into such a one, run by run, without costing more, so the programme's optimum is the optimum; across a blank
 * every place counts, because pushing a lane toward the near edge never makes a plan worse.
 *
 * @param mayMiss whether strips may stay missing; their columns then cost nothing here
 */
export function cutModel(units: readonly Unit[], types: readonly DemandType[], mayMiss: boolean): CutModel {
  const programme = new Programme();
  const model: CutModel = {
    mip: programme.mip,
    classes: classesOf(units),
    kinds: [],
    routes: [],
    profiles: [],
    pools: [],
    types,
    missing: [],
    complete: true,
  };
  const demandRows = types.map((type) => programme.row(type.members.length, Infinity));
  const kindIndex = new Map<string, number>();
  const poolIndex = new Map<string, number>();
  const poolRows: number[] = [];
  const groups: Groups = { rows: [], known: new Map() };

  const kindsFor = new Map<number, { kind: number; members: { type: number; way: number }[] }[]>();
  types.forEach((type, t) =>
    type.ways.forEach((ways, w) => {
      const kind = laneKind(ways, units[0]?.geometry.shop.saw.kerf ?? 0);
      const key = `${kind.key}`;
      if (!kindIndex.has(key)) {
        kindIndex.set(key, model.kinds.length);
        model.kinds.push(kind);
      }
      const list = kindsFor.get(type.length) ?? [];
      const entry = list.find((e) => e.kind === kindIndex.get(key)) ?? { kind: entryOf(kindIndex, key), members: [] };
      if (!list.includes(entry)) list.push(entry);
      entry.members.push({ type: t, way: w });
      kindsFor.set(type.length, list);
    }),
  );

  model.classes.forEach(({ units: same, geometry }, c) => {
    const unit = firstOf(same);
    const { shop, piece } = geometry;
    const kerf = shop.crosscutSaw.kerf;
    const profileOf = new Map<string, number | null>();

    const known = new Map<number, Map<number, number | null>>();
    const profileAt = (x: number, length: number): number | null => {
      const there = known.get(x) ?? entryOf(known.set(x, new Map()), x);
      if (!there.has(length)) there.set(length, profileFor(x, length));
      return entryOf(there, length);
    };
    const profileFor = (x: number, length: number): number | null => {
      const space = blankSpace(geometry, x, length);
      if (!space) return null;
      const key = `${length}|${space.near}|${space.far}|${space.thickness}|${JSON.stringify([space.cut, space.under])}`;
      const found = profileOf.get(key);
      if (found !== undefined) return found;
      const profile = makeProfile(
        model,
        programme,
        unit,
        space,
        x,
        entryOf(kindsFor, length),
        poolIndex,
        poolRows,
        demandRows,
        groups,
      );
      profileOf.set(key, profile);
      return profile;
    };

    const stay = (from: number, to: number): number => {
      const kept = freeStretches(geometry, from, Math.max(from, to)).filter((s) => s.kept);
      return kept.reduce(
        (sum, s) => sum - Math.max(0, unit.rate * stretchVolume(geometry, s.from, s.to) - shop.cutting.leftoverEach),
        0,
      );
    };
    const worth = (from: number, to: number) =>
      from >= piece.length ? 0 : unit.rate * ownVolume(geometry, from, Math.min(to, piece.length));

    const lengths = [...kindsFor.keys()];
    // On a piece that is alike all along it is nothing but how much is left over that counts: blanks lie at the first end, and what is left is slid to where it is worth most.
    const alike = isAlike(geometry);
    const heads = alike
      ? [geometry.start]
      : beginnings(geometry, lengths, kindWidths(model, kindsFor), relevantDefects(geometry, model.kinds)).filter((x) =>
          lengths.some((l) => profileAt(x, l) !== null),
        );
    if (heads.length > MOST_PLACES) model.complete = false;

    const network: RouteNetwork = {
      geometry,
      heads: heads.slice(0, MOST_PLACES),
      keep: shop.habits.keepLength,
      carrying: shop.cutting.leftoverEach,
      rate: unit.rate,
      worth,
      first: (start) => worth(0, start) + stay(0, start - kerf) + unit.openPiece + unit.openPlank,
      last: (x) =>
        alike && x > geometry.start + LENGTH_TOLERANCE_MM
          ? slidTo(x)
          : { by: 0, cost: worth(x, piece.length) + stay(x, piece.length), last: false },
      blanksAt: (x) =>
        lengths.flatMap((length) => {
          const profile = profileAt(x, length);
          return profile === null
            ? []
            : [
                {
                  profile,
                  group: nth(model.profiles, profile).group,
                  to: x + length + kerf,
                  cost: worth(x, x + length + kerf),
                },
              ];
        }),
    };
    const { routes, complete } = routesOf(network);
    if (!complete) model.complete = false;
    const capacity = programme.row(-Infinity, same.length);
    for (const { cost, blanks, counts } of routes) {
      const entries = [...counts].map(([group, count]) => [nth(groups.rows, group), -count] as const);
      model.routes.push({
        unitClass: c,
        blanks,
        column: programme.column(cost, same.length, [[capacity, 1], ...entries]),
      });
    }

    /** Blanks that end at a place, slid to where what is left is worth most: to the far end, or away from both ends, or the last one alone to the far end. */
    function slidTo(x: number): { by: number; cost: number; last: boolean } {
      const { start, end, endLoss } = geometry;
      const at = (by: number) =>
        worth(0, start + by) +
        stay(0, start + by - kerf) +
        worth(x + by, piece.length) +
        stay(x + by, piece.length) -
        worth(0, start) -
        stay(0, start - kerf);
      // The last blank's kerf falls into the end trim, or beyond the end.
      const most = end - (x - kerf);
      const options: { by: number; cost: number; last?: boolean }[] = [{ by: 0, cost: at(0) }];
      if (most > LENGTH_TOLERANCE_MM) {
        options.push({ by: most, cost: at(most) });
        const middle = shop.habits.keepLength + endLoss.start + kerf - start;
        if (middle > 0 && middle < most) options.push({ by: middle, cost: at(middle) });
        // With two blanks or more the last one alone may go to the far end: what is left between has no checked end.
        const between = start + firstOf(lengths) / 2;
        const two = x - start > Math.max(...lengths) + kerf + LENGTH_TOLERANCE_MM;
        if (two)
          options.push({
            by: most,
            last: true,
            cost:
              worth(x + most, piece.length) +
              stay(x + most, piece.length) +
              worth(between, between + most) +
              stay(between, between + most - kerf),
          });
      }
      return { last: false, ...options.reduce((best, o) => (o.cost < best.cost - 1e-9 ? o : best)) };
    }
  });

  if (mayMiss) {
    types.forEach((type, t) => {
      for (const spare of [false, true]) {
        const most = type.members.filter((m) => isSpare(m) === spare).length;
        if (most > 0)
          model.missing.push({ column: programme.column(0, most, [[nth(demandRows, t), 1]]), type: t, spare });
      }
    });
  }
  return model;
}

/** Defects that decide anything for rips of these kinds: one that may go underneath decides nothing where strips lie flat and their other side is clean. */
function relevantDefects({ defects }: UnitGeometry, kinds: readonly LaneKind[]): Defect[] {
  const onEdge = kinds.some((k) => k.parts.some((p) => p.shows === 'edge'));
  return defects.filter(
    (d) =>
      d.treatment === 'cut' ||
      onEdge ||
      d.face === 'through' ||
      defects.some((o) => o !== d && o.treatment === 'under' && o.face !== d.face),
  );
}

/** Whether it makes no difference where along the piece a blank lies. */
function isAlike({ piece, defects, taken }: UnitGeometry): boolean {
  return (
    defects.length === 0 &&
    taken.length === 0 &&
    (piece.farEnd === null || (piece.farEnd.width === piece.width && piece.farEnd.thickness === piece.thickness))
  );
}

/** Widths of the rips of each length, mm. */
function kindWidths(model: CutModel, kindsFor: ReadonlyMap<number, { kind: number }[]>): Map<number, number[]> {
  return new Map(
    [...kindsFor].map(([length, kinds]) => [length, kinds.map(({ kind }) => nth(model.kinds, kind).width)]),
  );
}

function classesOf(units: readonly Unit[]): UnitClass[] {
  const classes = new Map<string, UnitClass>();
  for (const unit of units) {
    const key = unit.geometry.taken.length > 0 ? `${unit.piece.id}/${unit.unit}` : unit.piece.id;
    const known = classes.get(key);
    if (known) known.units.push(unit);
    else classes.set(key, { units: [unit], geometry: unit.geometry });
  }
  return [...classes.values()];
}
