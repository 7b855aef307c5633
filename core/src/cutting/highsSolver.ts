import type { Highs } from 'highs';
import type { MipLimits, MipModel, MipResult, MipSolver } from './mipSolver.ts';

/** Values this close to a whole number are that number. */
const WHOLE = 0.5;

/**
 * The HiGHS solver behind the interface of this room. The caller loads it, because Node and the browser find its WebAssembly in different
 * places. Solving blocks: call it in a worker or on the command line.
 */
export function highsSolver(highs: Highs): MipSolver {
  return (model: MipModel, limits: MipLimits): MipResult => {
    const starts: number[] = [0];
    const indices: number[] = [];
    const values: number[] = [];
    for (const column of model.columns) {
      indices.push(...column.rows);
      values.push(...column.values);
      starts.push(indices.length);
    }
    const numCols = model.cost.length;
    const numRows = model.rowLower.length;
    const { variableType, modelStatus, callbackType } = highs.constants;
    const solver = highs.createModel({
      numCols,
      numRows,
      colCost: model.cost,
      colLower: new Float64Array(numCols),
      colUpper: model.upper.map((u) => Math.min(u, highs.infinity)),
      rowLower: model.rowLower.map((v) => Math.max(v, -highs.infinity)),
      rowUpper: model.rowUpper.map((v) => Math.min(v, highs.infinity)),
      matrix: { format: 'csc', numRows, numCols, starts, indices, values },
      integrality: new Int32Array(numCols).fill(variableType.integer),
    });
    try {
      solver.options.set({
        output_flag: false,
        time_limit: Math.max(0.01, limits.seconds),
        mip_rel_gap: 0,
        mip_abs_gap: 1e-7,
        random_seed: 1,
        // Starting over, hoarding cuts and guessing solutions before the first node cost more than they find on programmes of this size (tried on the bench's instances).
        mip_allow_restart: false,
        mip_pool_soft_limit: 200,
        mip_heuristic_run_feasibility_jump: false,
        mip_heuristic_run_root_reduced_cost: false,
        ...(limits.nodes === undefined ? {} : { mip_max_nodes: limits.nodes }),
      });
      if (limits.start) solver.setSolution({ colValue: limits.start });
      const result = solver.run({
        [callbackType.mipImprovingSolution](event) {
          if (event.data.mip_solution)
            limits.onBetter?.(rounded(event.data.mip_solution), event.data.mip_dual_bound ?? -Infinity);
          return undefined;
        },
        [callbackType.mipInterrupt](event) {
          if (event.data.mip_dual_bound !== undefined && Number.isFinite(event.data.mip_dual_bound))
            limits.onBound?.(event.data.mip_dual_bound);
          if (limits.stop?.()) event.interrupt();
          return undefined;
        },
      });
      const found = Number(solver.info.get('primal_solution_status')) === 2;
      const proven = result.modelStatus === modelStatus.optimal;
      const bound = Number(solver.info.get('mip_dual_bound'));
      return {
        values: found ? rounded(solver.getSolution().colValue) : null,
        objective: found ? solver.getObjectiveValue() : Infinity,
        bound: proven ? solver.getObjectiveValue() : Number.isFinite(bound) ? bound : -Infinity,
        proven,
      };
    } finally {
      solver.dispose();
    }
  };
}

function rounded(values: Float64Array): Float64Array {
  return values.map((v) => Math.floor(v + WHOLE));
}
