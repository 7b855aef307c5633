import { grouped } from '../lists/grouped.ts';
import { firstOf, nth } from '../lists/there.ts';
import { auditCut, type CutFault } from '../cutting/auditCut.ts';
import { gapOf, SCORE_TOLERANCE, type Blank, type CutPlan } from '../cutting/cutPlan.ts';
import type { BareCut } from '../cutting/cutPlanSchema.ts';
import { unitsOf, type CutProblem } from '../cutting/cutProblem.ts';
import { makeLane } from '../cutting/firstFit.ts';
import { addScores, NO_SCORE, settleUnit, type PlacedBlank } from '../cutting/settle.ts';
import { shortagesOf } from '../cutting/shortages.ts';
import { blankSpace } from '../cutting/unitGeometry.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { demandKey } from './demandKey.ts';

export type RebuiltCut =
  | { ok: true; plan: CutPlan }
  | { ok: false; faults: (CutFault | { pieceId: string; unit: number; fault: 'strip' })[] };

/** The decisions in a cut plan, without anything that follows from them. */
export function bareCut(plan: Pick<CutPlan, 'blanks' | 'bound' | 'proofs'>): BareCut {
  return {
    bound: plan.bound,
    proofs: plan.proofs,
    blanks: plan.blanks
      .filter((b) => !b.done)
      .map((b) => ({
        pieceId: b.pieceId,
        unit: b.unit,
        from: b.from,
        length: b.length,
        strips: b.strips.map(({ demand: { board, stripId, copy, spare }, way, from, layer, layers }) => ({
          board,
          stripId,
          copy,
          spare,
          way,
          from,
          layer,
          layers,
        })),
      })),
  };
}

/**
 * Works a cut plan out again from its decisions: thickness, leftovers and cost follow from the pieces as they are now. Says what is wrong when a
 * strip is not asked for, or lies where it cannot.
 */
export function rebuildCut(problem: CutProblem, bare: BareCut): RebuiltCut {
  const wanted = new Map(problem.demands.map((d) => [demandKey(d), d]));
  const units = new Map(unitsOf(problem).map((u) => [`${u.piece.id}/${u.unit}`, u]));
  const byUnit = grouped(bare.blanks, (blank) => `${blank.pieceId}/${blank.unit}`);
  const faults: (CutFault | { pieceId: string; unit: number; fault: 'strip' })[] = [];
  const met = new Set<string>();
  const used = [...byUnit]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([key, blanks]) => {
      const unit = units.get(key);
      const { pieceId, unit: number } = firstOf(blanks);
      if (!unit) {
        faults.push({ pieceId, unit: number, fault: 'noPiece' });
        return [];
      }
      const { geometry } = unit;
      const placed = blanks.flatMap((blank): PlacedBlank[] => {
        const x = geometry.mirrored ? unit.piece.length - blank.from - blank.length : blank.from;
        const space = blankSpace(geometry, x, blank.length);
        if (!space) {
          faults.push({ pieceId, unit: number, fault: geometry.taken.length > 0 ? 'promised' : 'outside' });
          return [];
        }
        const lanes = [...grouped(blank.strips, (s) => s.from)].map(([y, of]) => {
          const layers = [...of].sort((a, b) => a.layer - b.layer);
          const { rip, shows } = firstOf(layers).way;
          const strips = layers.flatMap((strip) => {
            const demand = wanted.get(demandKey(strip));
            const fits = demand?.ways.some(
              (w) =>
                w.shows === strip.way.shows &&
                w.rip <= strip.way.rip + LENGTH_TOLERANCE_MM &&
                w.thickness <= strip.way.thickness + LENGTH_TOLERANCE_MM,
            );
            if (
              !demand ||
              !fits ||
              met.has(demandKey(demand)) ||
              Math.abs(demand.length - blank.length) > LENGTH_TOLERANCE_MM ||
              (demand.from && !demand.from.includes(pieceId))
            ) {
              faults.push({ pieceId, unit: number, fault: 'strip' });
              return [];
            }
            met.add(demandKey(demand));
            return [{ demand, way: strip.way }];
          });
          return makeLane(
            unit,
            { length: blank.length, space },
            { key: '', width: rip, parts: [{ offset: 0, rip, shows }] },
            y,
            [strips],
          );
        });
        return [{ x, length: blank.length, lanes }];
      });
      return [{ unit, blanks: placed }];
    });
  const settled = used.map(settleUnit);
  const blanks: Blank[] = settled.flatMap((s) => s.blanks);
  faults.push(...auditCut(blanks, problem.rack, problem.promised, problem.shop));
  if (faults.length > 0) return { ok: false, faults };
  const score = settled.reduce((sum, s) => addScores(sum, s.score), NO_SCORE);
  const totals = new Map<string, number>();
  settled.forEach((s, i) => {
    const { species } = nth(used, i).unit.piece;
    totals.set(species, (totals.get(species) ?? 0) + s.score.total);
  });
  return {
    ok: true,
    plan: {
      method: 'kept',
      blanks,
      leftovers: settled.flatMap((s) => s.leftovers),
      score,
      ...believable(bare, score.total, totals),
      shortages: shortagesOf(
        problem.demands.filter((d) => !met.has(demandKey(d))),
        problem,
      ),
    },
  };
}

/** What was proven of the plan, as far as it fits what the plan costs: a bound above the cost, or the proof of another cost, proves nothing here. */
function believable(
  { bound, proofs }: BareCut,
  total: number,
  totals: ReadonlyMap<string, number>,
): Pick<CutPlan, 'bound' | 'gap' | 'proofs'> {
  const below = (claimed: number | null, cost: number) =>
    claimed !== null && claimed <= cost + SCORE_TOLERANCE ? claimed : null;
  const own = below(bound, total);
  return {
    bound: own,
    gap: gapOf(total, own),
    proofs: proofs
      .filter((p) => Math.abs(p.total - (totals.get(p.species) ?? 0)) <= SCORE_TOLERANCE)
      .map((p) => ({ ...p, bound: below(p.bound, p.total) })),
  };
}
