import type { Habits } from '../shop/shop.ts';
import type { QuestionId } from '../shop/schools.ts';
import type { Measure, Phrase } from '../units/phrase.ts';
import type { ToolId } from '../shop/tools.ts';
import type { ClampUse, Instruction } from './instruction.ts';
import type { WayOfWork } from './ways.ts';

/** Every kind of step and the station it belongs to: a new kind is one more line. */
const STATION_OF = {
  crosscut: 'mill',
  split: 'mill',
  flatten: 'mill',
  jointEdge: 'mill',
  rip: 'mill',
  resaw: 'mill',
  remill: 'mill',
  planeStrips: 'mill',
  jointStrips: 'mill',
  slice: 'mill',
  layRows: 'glue',
  sawApart: 'mill',
  layParts: 'glue',
  layFrame: 'glue',
  flushEnds: 'glue',
  flushFrame: 'glue',
  layBack: 'glue',
  cutBits: 'mill',
  layBits: 'glue',
  flattenStack: 'glue',
  cutStack: 'mill',
  layOut: 'glue',
  keys: 'glue',
  dryRun: 'glue',
  glue: 'glue',
  flattenSections: 'glue',
  join: 'glue',
  scrape: 'glue',
  flattenPanel: 'glue',
  cutApart: 'trim',
  trimEdges: 'trim',
  trimEnds: 'trim',
  inlay: 'trim',
  corners: 'trim',
  groove: 'trim',
  edges: 'trim',
  holds: 'trim',
  handles: 'trim',
  bores: 'trim',
  sand: 'finish',
  engrave: 'finish',
  raiseGrain: 'finish',
  oil: 'finish',
  topCoat: 'finish',
  feet: 'finish',
  fit: 'finish',
} as const;

export type OperationKind = keyof typeof STATION_OF;
export type StepStation = (typeof STATION_OF)[OperationKind];

/** The station that a step belongs to. */
export function stationOf(kind: OperationKind): StepStation {
  return STATION_OF[kind];
}

/** What to set on a machine. */
export interface Setting {
  label: string;
  value: Measure;
}

/** What a step does to one part: a size before and after, mm. */
export interface PartChange {
  part: string;
  dimension: 'thickness' | 'width' | 'length';
  before: number;
  after: number;
  passes: number | null;
}

/** What a step holds while it goes on, beside the hands of whoever does it. */
export interface Resources {
  /** Machines and tools of the shop. */
  tools: ToolId[];
  /** Clamps by their kind, of which a shop has only so many: held until the wait is over. */
  clamps: ClampUse[];
}

/** One step of the work, in order. */
export interface Operation {
  /** What it does to what, for good: the same step of another plan has the same id, wherever it stands. */
  id: string;
  /** Ids of the steps that must be done before it. */
  after: string[];
  resources: Resources;
  /** 1-based place in the order. */
  number: number;
  kind: OperationKind;
  title: Phrase;
  settings: Setting[];
  /** What is done, as a machine would have to be told it; everything else is read off these. */
  instructions: Instruction[];
  /** What to do, a line each. */
  lines: Phrase[];
  parts: PartChange[];
  /** The most passes any part needs, when the step works in passes. */
  passes: number | null;
  /** The tool that is taken up all the while; null when it is only hands. */
  machine: string | null;
  /** Hands-on minutes for one repeat, with the person's pace. */
  minutes: number;
  /** How often it is done, once for each panel; 1 when all copies go through together. */
  repeats: number;
  /** Minutes after the hands-on part for which somebody must still be there, inside the wait: squeezed-out glue is scraped then. */
  stayMinutes: number;
  /** Minutes before the next step, when there is a wait; and why. */
  waitMinutes: number | null;
  waitFor: string | null;
  /** Ids of glue-ups that must be out of their clamps; for all other steps the step before. */
  glueUp: string | null;
  joins: string[];
  why: Phrase;
  /** The habit that decided a figure of the step, and the question of the trade that decided how, if one did. */
  habit: keyof Habits | null;
  school: QuestionId | null;
  /** Other ways to do it and what they cost; empty where there is nothing to choose. */
  ways: WayOfWork[];
  cautions: Phrase[];
}

/** What the author of a step must say; everything else is as in most steps. `about` tells it from others of its kind: what of the board, which tool, which grit. Minutes and resources are read off the instructions, and off the way that is taken where there are several. */
export type StepDraft = Pick<Operation, 'kind' | 'title' | 'lines' | 'why' | 'instructions'> &
  Partial<Omit<Operation, 'id' | 'after' | 'resources' | 'number' | 'minutes'>> & {
    about?: string;
    taken?: WayOfWork | null;
  };
