import { certain, nth } from '../lists/there.ts';
import { gapOf, SCORE_TOLERANCE, type CutPlan, type CutScore, type SpeciesProof, type StripDemand } from './cutPlan.ts';
import { cutModel } from './cutModel.ts';
import type { CutModel } from './cutProgramme.ts';
import { unitsOf, type CutProblem, type Unit } from './cutProblem.ts';
import { demandTypes, isSpare, type DemandType } from './demandTypes.ts';
import { firstFitUnits } from './firstFit.ts';
import type { MipSolver } from './mipSolver.ts';
import { readModel } from './readModel.ts';
import { addScores, NO_SCORE, settleUnit } from './settle.ts';
import { shortagesOf } from './shortages.ts';

export interface ImproveOptions {
  /** Time for all species together, seconds. */
  seconds: number;
  /** Seconds since any fixed moment; the core has no clock of its own. */
  now(): number;
  /** Called with every better plan and every better bound. */
  onProgress?(plan: CutPlan): void;
  stop?(): boolean;
}

/** A species' part of the plan so far. */
interface SpeciesPlan {
  species: string;
  units: Unit[];
  types: DemandType[];
  blanks: CutPlan['blanks'];
  leftovers: CutPlan['leftovers'];
  score: CutScore;
  unmet: StripDemand[];
  bound: number | null;
  proven: boolean;
  /** The programme and its best solution so far. */
  model: CutModel | null;
  values: Float64Array | undefined;
}

/** What a solver's bound may be above the plan by the rounding of its sums, as a share. */
const BOUND_TOLERANCE = 1e-6;

/** Nodes of the search for a species in each round, so that every species has a bound soon and the hardest get the time the others leave; counted in nodes, so that every machine finds the same. */
const ROUND_NODES = [100, 2000, Infinity];

/**
 * Improves a first-fit plan until it is proven the best or time runs out. Species do not compete for wood, so each is solved on its own; their bounds
 * add up. When strips must stay missing, first as few as possible stay missing, then the rest is cut for the least cost.
 */
export function improveCut(problem: CutProblem, solver: MipSolver, options: ImproveOptions): CutPlan {
  const deadline = options.now() + options.seconds;
  const start = firstFitUnits(problem);
  const units = unitsOf(problem);
  const species = [...new Set(problem.demands.map((d) => d.species))].sort();
  const parts = species.map((code) => startOf(code, start, units, problem));
  const together = () => assemble(parts, problem);
  options.onProgress?.(together());

  for (const nodes of ROUND_NODES) {
    // Small ones first: they are proven soon.
    const open = parts
      .filter((p) => !p.proven)
      .sort((a, b) => a.units.length * a.types.length - b.units.length * b.types.length);
    open.forEach((part, i) => {
      const left = deadline - options.now();
      if (left <= 0 || options.stop?.()) return;
      // Twice a fair share: some species are proven long before, and leave their time to the others.
      const fair = (2 * left) / (open.length - i + 1);
      solveSpecies(part, solver, { ...options, nodes, seconds: Math.min(left, fair) }, () =>
        options.onProgress?.(together()),
      );
      options.onProgress?.(together());
    });
  }
  return together();
}

function startOf(
  species: string,
  start: ReturnType<typeof firstFitUnits>,
  units: readonly Unit[],
  problem: CutProblem,
): SpeciesPlan {
  const settled = start.used.filter((u) => u.unit.piece.species === species).map(settleUnit);
  const mine = units.filter((u) => u.piece.species === species);
  return {
    species,
    units: mine,
    types: demandTypes(problem.demands.filter((d) => d.species === species)),
    blanks: settled.flatMap((s) => s.blanks),
    leftovers: settled.flatMap((s) => s.leftovers),
    score: settled.reduce((sum, s) => addScores(sum, s.score), NO_SCORE),
    unmet: start.unmet.filter((d) => d.species === species),
    bound: mine.length === 0 ? 0 : null,
    proven: mine.length === 0,
    model: null,
    values: undefined,
  };
}

function solveSpecies(
  part: SpeciesPlan,
  solver: MipSolver,
  limits: ImproveOptions & { nodes: number },
  changed: () => void,
): void {
  const until = limits.now() + limits.seconds;
  const left = () => Math.max(0.05, until - limits.now());
  if (!part.model) part.model = modelOf(part, solver, left(), limits);
  const { model } = part;
  const accept = (values: Float64Array): boolean => {
    const { used, unmet } = readModel(model, values);
    const settled = used.map(settleUnit);
    const score = settled.reduce((sum, s) => addScores(sum, s.score), NO_SCORE);
    const more = missingWeight(part, unmet) - missingWeight(part, part.unmet);
    if (more > 0 || (more === 0 && score.total > part.score.total - SCORE_TOLERANCE)) return false;
    Object.assign(part, {
      blanks: settled.flatMap((s) => s.blanks),
      leftovers: settled.flatMap((s) => s.leftovers),
      score,
      unmet,
      values,
    });
    if (part.bound !== null && score.total < part.bound - SCORE_TOLERANCE) giveUpBound();
    return true;
  };
  // A plan that costs less than its programme held possible would show that a list was cut short; then only the wood in the strips is a bound.
  const giveUpBound = () => {
    model.complete = false;
    part.bound = woodInStrips(part);
  };
  // A plan never costs less than nothing.
  const raiseBound = (bound: number) => {
    if (bound > part.score.total + BOUND_TOLERANCE * Math.max(1, part.score.total)) giveUpBound();
    else part.bound = Math.max(part.bound ?? 0, Math.min(bound, part.score.total));
  };
  const result = solver(model.mip, {
    seconds: left(),
    ...(Number.isFinite(limits.nodes) ? { nodes: limits.nodes } : {}),
    stop: limits.stop,
    start: part.values,
    onBound: (bound) => {
      if (model.complete) raiseBound(bound);
    },
    onBetter: (values, bound) => {
      const better = accept(values);
      if (model.complete) raiseBound(bound);
      if (better) changed();
    },
  });
  if (result.values) accept(result.values);
  raiseBound(model.complete ? result.bound : woodInStrips(part));
  part.proven = model.complete && result.proven;
}

/**
 * The programme of a species. When first fit could not place every strip, the fewest that must stay missing are found first; the programme then
 * holds that many.
 */
function modelOf(part: SpeciesPlan, solver: MipSolver, seconds: number, limits: ImproveOptions): CutModel {
  if (part.unmet.length === 0) return cutModel(part.units, part.types, false);
  const model = cutModel(part.units, part.types, true);
  const { cost } = model.mip;
  const sizes = model.missing.map(({ column, type, spare }) => ({
    column,
    size: nth(part.types, type).size * (spare ? 1 : needWeight(part)),
  }));
  model.mip.cost = cost.map(() => 0);
  for (const { column, size } of sizes) model.mip.cost[column] = size;
  const fewest = solver(model.mip, { seconds, stop: limits.stop });
  model.mip.cost = cost;
  model.mip.rowLower.push(-Infinity);
  model.mip.rowUpper.push(fewest.values ? Math.round(fewest.objective) : missingWeight(part, part.unmet));
  for (const { column, size } of sizes) {
    nth(model.mip.columns, column).rows.push(model.mip.rowLower.length - 1);
    nth(model.mip.columns, column).values.push(size);
  }
  // Unless that number is proven the least, a bound on the cost would not be one.
  if (!fewest.proven) model.complete = false;
  return model;
}

/** One strip of a board weighs more than all spares together: spares are wishes after needs. */
function needWeight({ types }: SpeciesPlan): number {
  return 1 + types.reduce((sum, t) => sum + t.members.filter(isSpare).length * t.size, 0);
}

function missingWeight(part: SpeciesPlan, unmet: readonly StripDemand[]): number {
  return unmet.reduce((sum, d) => sum + (d.spare > 0 ? 1 : needWeight(part)), 0);
}

/**
 * The wood in the strips themselves at the price of the cheapest piece, without as many of the dearest as are missing: a bound that always holds, whichever
 * strips another plan leaves out.
 */
function woodInStrips(part: SpeciesPlan): number {
  const cheapest = Math.min(...part.units.map((u) => u.rate));
  const woods = part.types
    .flatMap((t) => t.members.flat())
    .map((d) => cheapest * d.length * Math.min(...d.ways.map((w) => w.rip * w.thickness)));
  return woods
    .sort((a, b) => b - a)
    .slice(part.unmet.length)
    .reduce((sum, wood) => sum + wood, 0);
}

function assemble(parts: readonly SpeciesPlan[], problem: CutProblem): CutPlan {
  const score = parts.reduce((sum, p) => addScores(sum, p.score), NO_SCORE);
  const proofs: SpeciesProof[] = parts.map((p) => ({ species: p.species, total: p.score.total, bound: p.bound }));
  const bound = proofs.some((p) => p.bound === null) ? null : proofs.reduce((sum, p) => sum + certain(p.bound), 0);
  return {
    method: 'improved',
    blanks: parts.flatMap((p) => p.blanks),
    leftovers: parts.flatMap((p) => p.leftovers),
    shortages: shortagesOf(
      parts.flatMap((p) => p.unmet),
      problem,
    ),
    score,
    bound,
    gap: gapOf(score.total, bound),
    proofs,
  };
}
