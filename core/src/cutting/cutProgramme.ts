import type { Unit } from './cutProblem.ts';
import type { DemandType } from './demandTypes.ts';
import type { MipModel } from './mipSolver.ts';
import type { LaneKind, UnitGeometry } from './unitGeometry.ts';
import type { BlankSpace } from './unitGeometry.ts';

/** Identical pieces with nothing promised: one column of flow carries all of them. */
export interface UnitClass {
  units: Unit[];
  geometry: UnitGeometry;
}

/** A blank at a place of a piece. */
export interface RouteBlank {
  x: number;
  profile: number;
}

/** One way to cut a piece of a class along its length, and what that costs: of all ways that give the same blanks, the cheapest. */
export interface Route {
  column: number;
  unitClass: number;
  blanks: RouteBlank[];
}

/** The programme for one species, with what its columns mean. */
export interface CutModel {
  mip: MipModel;
  classes: UnitClass[];
  kinds: LaneKind[];
  routes: Route[];
  profiles: Profile[];
  pools: Pool[];
  types: readonly DemandType[];
  /** Columns of what stays missing of each type, strips of boards and spares apart; empty when nothing may. */
  missing: { column: number; type: number; spare: boolean }[];
  /** False when a list was cut short, so that the programme's bound is not a bound. */
  complete: boolean;
}

/** Rows and columns of a growing programme. */
export class Programme {
  readonly mip: MipModel = { cost: [], upper: [], columns: [], rowLower: [], rowUpper: [] };

  row(lower: number, upper: number): number {
    this.mip.rowLower.push(lower);
    this.mip.rowUpper.push(upper);
    return this.mip.rowLower.length - 1;
  }

  column(cost: number, upper: number, entries: readonly (readonly [row: number, value: number])[]): number {
    const byRow = new Map<number, number>();
    for (const [row, value] of entries) byRow.set(row, (byRow.get(row) ?? 0) + value);
    this.mip.cost.push(cost);
    this.mip.upper.push(upper);
    this.mip.columns.push({ rows: [...byRow.keys()], values: [...byRow.values()] });
    return this.mip.cost.length - 1;
  }
}

/** Blanks of a class that look the same across: same length, same obstacles, same thickness. */
export interface Profile {
  space: BlankSpace;
  /** Blanks that can be ripped alike are one group, wherever their lanes lie: its row allows as many splits as there are blanks. */
  group: number;
  splits: Split[];
}

/** One way to rip a blank: which lanes lie where. */
export interface Split {
  column: number;
  lanes: { kind: number; y: number; pool: number }[];
}

/** Lanes that can hold the same things, wherever they are. */
export interface Pool {
  kind: number;
  stacks: Stack[];
}

/** What one lane may hold: demand types, one under the other when it is resawn. */
export interface Stack {
  column: number;
  types: { type: number; way: number }[];
}

/** Groups of blanks that can be ripped alike: their rows, and the columns of their splits by what these hold. */
export interface Groups {
  rows: number[];
  known: Map<string, { group: number; columns: number[] }>;
}
