import type { Habits } from '../shop/shop.ts';
import type { Measure, Phrase } from '../units/phrase.ts';

export type OperationKind =
  | 'crosscut' | 'flatten' | 'jointEdge' | 'rip' | 'resaw' | 'planeStrips' | 'jointStrips' | 'layOut' | 'dryRun' | 'glue' | 'join'
  | 'flattenPanel' | 'trimEdges' | 'trimEnds' | 'sand';

/** What to set on a machine. */
export interface Setting {
  label: string;
  value: Measure;
}

/** One step of the work, in order. */
export interface Operation {
  /** 1-based place in the order. */
  number: number;
  kind: OperationKind;
  title: Phrase;
  settings: Setting[];
  /** What to do, a line each. */
  lines: Phrase[];
  /** The most passes any part needs, when the step works in passes. */
  passes: number | null;
  /** Minutes the glue wants before the next step, when there is a wait. */
  waitMinutes: number | null;
  why: Phrase;
  /** The habit that decided a figure of the step, if one did. */
  habit: keyof Habits | null;
  cautions: Phrase[];
}
