import type { Phrase } from '../units/phrase.ts';

/** One strip to be got out of the rack: strip number (1-based) of one copy (1-based) of the board. */
export interface StripDemand {
  strip: number;
  copy: number;
  species: string;
  /** Length at rough crosscut, mm. */
  length: number;
  /** Off the saw, across the stock's width, mm. */
  rip: number;
  /** Planed thickness the stock must still have, mm. */
  thickness: number;
}

/** A strip's place in its blank: `from` is measured across the blank from its straight edge, mm. */
export interface RippedStrip {
  demand: StripDemand;
  from: number;
}

/** A length crosscut from a piece and ripped into strips. Offsets along the piece, mm, from its marked end. */
export interface Blank {
  /** Number within its piece, 1-based. */
  number: number;
  pieceId: string;
  from: number;
  length: number;
  strips: RippedStrip[];
  /** Width left beside the last rip, its kerf taken off, mm. */
  leftoverWidth: number;
}

/** What is left of the length of a piece after its blanks, mm. */
export interface Leftover {
  pieceId: string;
  length: number;
  /** Long enough by the shop's habit to go back to the rack. */
  kept: boolean;
}

export type ShortageReason = 'noSpecies' | 'tooThin' | 'tooNarrow' | 'tooShort' | 'usedUp';

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
}

export interface CutPlan {
  /** First fit: the first piece that gives a strip is taken, best match in thickness first. Feasible, not proven the best. */
  method: 'first-fit';
  blanks: Blank[];
  leftovers: Leftover[];
  shortages: Shortage[];
}
