import type { Cut } from '../features/edgeCuts.ts';
import type { Defect } from '../stock/defect.ts';
import type { FrameSide } from '../board/frame.ts';
import type { Turn } from '../board/recipe.ts';
import type { Piece } from '../stock/piece.ts';
import type { FinishKind } from '../shop/finishes.ts';
import type { Thing } from '../steps/instruction.ts';

/** What is known of one edge or face, because it was made so. */
export type Edge = 'raw' | 'rough' | 'straight' | 'jointed';

/** Wood on the bench: a box in the piece it was cut from, and what has been done to it. Lengths in mm. */
export interface Wood {
  thing: Thing;
  piece: Piece;
  unit: number;
  /** Along the piece from its marked end, and across from its near edge. */
  x: { from: number; to: number };
  y: { from: number; to: number };
  /** As thick as it is now at its thinnest, and at its thickest while it is not flat. */
  thickness: number;
  thickest: number;
  flat: boolean;
  near: Edge;
  far: Edge;
  /** Its glue faces were wiped clean of oil for the next glue-up. */
  wiped: boolean;
  /** Of what was glued of bits end to end, or resawn from that: each bit with where it lies from the first end. */
  bits?: { wood: Wood; from: number; to: number }[];
  /** A bit that lies with the far end of its piece first. */
  farFirst?: boolean;
  /** Dry glue stands on its faces. */
  hardGlue?: boolean;
}

/** A slice of a panel, or a row: where it was sawn from it, and how it was turned since. */
export interface Slice {
  thing: Thing;
  /** As it was when it was sliced. */
  panel: Panel;
  /** Degrees. */
  angle: number;
  /** Square to the cuts from the panel's corner at strip 1 to the first cut face, and between the cut faces, mm. */
  from: number;
  pitch: number;
  turns: Turn[];
  shift: number;
  wiped: boolean;
}

/** What was glued together: strips side by side, in order. */
export interface Panel {
  thing: Thing;
  /** The strips as they lie, each with how it is turned. */
  strips: Laid[];
  length: number;
  width: number;
  /** Off the far side of what the strips measured together. */
  trimmedFar: number;
  trimmedNear: number;
  thickness: number;
  /** How far strips stand over the thinnest. */
  proud: number;
  flat: boolean;
  hardGlue: boolean;
  /** Of a block: its rows in order, and which way they run in the board. */
  rows?: { slices: Slice[]; runs: 'along' | 'across' };
  /** Of a block: the panel that was sawn through, and what lies in its joints, from the left. */
  parts?: { panel: Panel; joints: Joint[] };
  /** Of a thing with strips round it: what they go round and where that lies in it. */
  frame?: { inside: Made | Panel; x: number; y: number; strips: Around[] };
  /** Of a backed board: what the back was glued under, and the back as it was. */
  back?: { top: Made; panel: Panel; runs: 'along' | 'across' };
  /** How wide the scrap is that was glued round it for the knives. */
  guarded?: number;
  /** How far ends of strips still reach over what they are glued to. */
  over?: number;
}

/** A strip glued along a side of a thing, and how far it reached over both ends of its joint, mm. */
export interface Around {
  side: FrameSide;
  over: number;
  laid: Laid;
}

/** A cut through a panel: from where it begins along both edges, and what was put into it. */
export interface SawnThrough {
  far: number;
  near: number;
  kerf: number;
}

/** A strip between two parts of a panel, and how much nearer the part behind it lies than the one before, mm. */
export interface Joint extends SawnThrough {
  strip: Laid;
  step: number;
}

/** A part of a panel that was sawn through: which, from the left, and the cut behind it. */
export interface Part {
  panel: Panel;
  number: number;
  behind: SawnThrough | null;
  wiped: boolean;
}

export interface Laid {
  wood: Wood;
  up: 'edge' | 'face';
  turned: boolean;
  endForEnd: boolean;
  /** Across the panel, mm: what it takes between its glue lines. */
  width: number;
  height: number;
  /** Further along than the strip that lies least far. */
  ahead?: number;
}

/** What one instruction took out of a board. */
export interface WorkedPlace {
  feature: string;
  cuts: readonly Cut[];
  /** It is there to be looked at: what cuts into it, or was cut away where it is made, spoils it. */
  mark: boolean;
  /** How deep it still goes into a face: sanding wears it away; null where sanding does not reach it. */
  depth: number | null;
}

/** A board cut from a panel. */
export interface Made {
  thing: Thing;
  panel: Panel;
  /** Where it begins on its panel, along and across. */
  x: number;
  y: number;
  length: number;
  width: number;
  thickness: number;
  features: string[];
  /** What was taken out of it, in order. */
  worked: WorkedPlace[];
  sanded: boolean;
  wetted: boolean;
  coats: FinishKind[];
  /** Handles and loops that are on. */
  fitted: string[];
  feet: number;
}

/** Where the blind maker had to stop, or would have come to harm. */
export interface Failure {
  /** What kind of harm; a plan that warns of it has a finding of one of the rules in `WARNED_BY`. */
  code: FailureCode;
  step: number;
  /** What he was told to do. */
  instruction: string;
  /** The thing it happened to, and figures that say so. */
  thing: string;
  strips: number[];
  mm: { is: number; limit: number } | null;
}

export const failureCodes = [
  'metalUnderBlade',
  'badPlaceInPart',
  'partTooShort',
  'tooNarrowForMachine',
  'tooThinForMachine',
  'tooWideForMachine',
  'tooThick',
  'trapped',
  'noStraightEdge',
  'notFlat',
  'notEnoughThickness',
  'notEnoughWidth',
  'notEnoughLength',
  'nothingToPlane',
  'noTool',
  'fewerClamps',
  'glueTime',
  'lowPressure',
  'missingPart',
  'unusedPart',
  'markLost',
  'finishOverFinish',
  'oilyFace',
  'stillWet',
  'sizes',
  'wrongWood',
  'endGrainKnives',
] as const;
export type FailureCode = (typeof failureCodes)[number];

export const overlaps = (a: { from: number; to: number }, b: { from: number; to: number }, tolerance = 1e-4): boolean =>
  a.from < b.to - tolerance && a.to > b.from + tolerance;

export function placeOf(defect: Defect): { x: { from: number; to: number }; y: { from: number; to: number } } {
  return {
    x: { from: defect.from, to: defect.from + defect.length },
    y: { from: defect.across, to: defect.across + defect.width },
  };
}
