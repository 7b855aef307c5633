/** A mixed-integer programme: minimise cost x with rowLower <= A x <= rowUpper, 0 <= x <= upper, x whole. Columns are sparse. */
export interface MipModel {
  cost: number[];
  upper: number[];
  columns: { rows: number[]; values: number[] }[];
  rowLower: number[];
  rowUpper: number[];
}

export interface MipResult {
  /** Best whole solution found; null when none was. */
  values: Float64Array | null;
  objective: number;
  /** No whole solution costs less than this. */
  bound: number;
  proven: boolean;
}

export interface MipLimits {
  seconds: number;
  /** Nodes of the search after which it stops; the same on every machine. */
  nodes?: number;
  /** Called with each better solution and the bound at that time. */
  onBetter?(values: Float64Array, bound: number): void;
  /** Called often with the bound so far. */
  onBound?(bound: number): void;
  /** A solution to start from. */
  start?: Float64Array;
  /** Asked often; true stops with what there is. */
  stop?(): boolean;
}

/** Whatever solves such a programme. */
export type MipSolver = (model: MipModel, limits: MipLimits) => MipResult;
