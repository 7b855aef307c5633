import type { Phrase } from '../units/phrase.ts';
import type { MillingOrder } from './millingOrder.ts';

/** One way a strip's section may lie in the stock. */
export interface Way {
  /** Which side of the stock shows on the board: the ripped edge, or the broad face. */
  shows: 'edge' | 'face';
  /** Off the saw, across the stock's width, mm. */
  rip: number;
  /** Planed thickness the stock must still have, mm. */
  thickness: number;
}

/** One strip to be got out of the rack: strip number (1-based) of one copy (1-based) of a board. */
export interface StripDemand {
  /** Which board, when several are cut from one rack; the caller's own key. */
  board: string;
  strip: number;
  stripId: string;
  copy: number;
  /** 0 for a strip of the board, 1 and up for its spares. */
  spare: number;
  species: string;
  /** Length at rough crosscut, mm. */
  length: number;
  /** Ways its section may come from the stock, the usual one first; at least one. */
  ways: readonly Way[];
  /** Pieces it may come from; null when any will do. */
  from: readonly string[] | null;
  /** Strips of one copy that share this key are ripped side by side from one blank, in the order of their numbers. */
  together: string | null;
}

/** A strip's place in its blank. */
export interface RippedStrip {
  demand: StripDemand;
  way: Way;
  /** Across the blank from the near edge of the piece, mm. */
  from: number;
  /** Thickness the ripping has once flat on both faces, before it is resawn or planed further, mm. */
  planed: number;
  order: MillingOrder;
  /** Which of how many layers, when the ripping is resawn: 1 of 1 is not resawn. */
  layer: number;
  layers: number;
}

/** A length crosscut from a piece and ripped into strips. Offsets along the piece, mm, from its marked end. */
export interface Blank {
  /** Number within its piece, 1-based, in cutting order. */
  number: number;
  pieceId: string;
  /** Which of identical pieces, 0-based. */
  unit: number;
  from: number;
  length: number;
  strips: RippedStrip[];
  /** Width left beside the last rip, its kerf taken off, mm. */
  leftoverWidth: number;
  /** Already cut: its strips lie on the bench. */
  done: boolean;
}

/** What is left of a piece: a full-width length of it, or an offcut beside the rips of a blank. A rectangle on the piece, mm. */
export interface Leftover {
  pieceId: string;
  unit: number;
  from: number;
  length: number;
  across: number;
  width: number;
  /** Beside the rips of a blank rather than a length of the piece. */
  side: boolean;
  /** Large enough by the shop's habits to go back to the rack. */
  kept: boolean;
}

export type ShortageReason = 'noSpecies' | 'tooThin' | 'tooNarrow' | 'tooShort' | 'defects' | 'usedUp';

/** Stock to buy, in sizes yards sell. Rough sizes, mm. */
export interface Purchase {
  species: string;
  thickness: number;
  /** Thickness as yards name it, in quarters of an inch, e.g. `8/4`. */
  quarters: string;
  width: number;
  length: number;
  pieces: number;
}

/** Strips of one kind that the rack cannot give. */
export interface Shortage {
  species: string;
  /** What each of them asks of the stock, mm. */
  length: number;
  rip: number;
  thickness: number;
  /** Strip numbers on the board, each once. */
  strips: number[];
  /** How many parts in all copies together. */
  parts: number;
  reason: ShortageReason;
  /** By how much the best piece of the species falls short, mm; 0 when the reason is not a size. */
  shortBy: number;
  say: Phrase;
  buy: Purchase;
}

/** What a plan costs, in the shop's currency. `total` is what is minimised. */
export interface CutScore {
  /** Value of the wood used up: pieces taken less what goes back to the rack. */
  wood: number;
  /** The shop's dislike of more pieces, opened planks and many leftovers. */
  pieces: number;
  planks: number;
  leftovers: number;
  total: number;
}

export interface SpeciesProof {
  species: string;
  total: number;
  /** Nothing below this is possible; null while nothing is known. */
  bound: number | null;
}

export interface CutPlan {
  /** First fit: the first piece that gives a strip is taken. Improved: searched, with a bound. Kept: decided and promised to the board. */
  method: 'first-fit' | 'improved' | 'kept';
  blanks: Blank[];
  leftovers: Leftover[];
  shortages: Shortage[];
  score: CutScore;
  /** No plan can cost less than this in all; null while nothing is known. */
  bound: number | null;
  /** (total - bound) / total; null without a bound, 0 when this is proven the best. */
  gap: number | null;
  proofs: SpeciesProof[];
}

/** A length of a piece that is promised to a board, without the kerfs beside it, mm from the marked end. */
export interface PromisedRange {
  pieceId: string;
  unit: number;
  from: number;
  to: number;
}

/** Two totals closer than this, in currency, are the same: a hundredth of a cent. */
export const SCORE_TOLERANCE = 1e-4;

export function gapOf(total: number, bound: number | null): number | null {
  if (bound === null) return null;
  return total - bound <= SCORE_TOLERANCE ? 0 : (total - bound) / total;
}
