import type { Board } from '../board/board.ts';
import type { WayTaken } from '../facts/fact.ts';
import type { HeldFact } from '../facts/factsThatHold.ts';
import type { Phrase } from '../units/phrase.ts';

/** Something that went otherwise than planned, in one sentence, and what can be done about it. */
export interface Mishap {
  fact: string;
  says: Phrase;
  ways: MishapWay[];
}

/** One way out, and what it costs. */
export interface MishapWay {
  way: WayTaken;
  title: Phrase;
  cost: Phrase;
  /** What it makes of the board; null where nothing is wished otherwise. */
  board: Board | null;
}

/** So much off is nobody's mistake, mm. */
export const NEAR_ENOUGH_MM = 0.3;

/** Facts of one kind that hold. */
export type FactOf<K extends HeldFact['kind']> = Extract<HeldFact, { kind: K }>;
