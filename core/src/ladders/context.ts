import type { Allowances } from '../board/allowances.ts';
import type { Board } from '../board/board.ts';
import type { Again } from '../board/again.ts';
import type { Back } from '../board/back.ts';
import type { Frame } from '../board/frame.ts';
import type { Stack } from '../board/stack.ts';
import type { CutPlan } from '../cutting/cutPlan.ts';
import type { Made } from '../facts/made.ts';
import type { PlanInput } from '../saw/planInput.ts';
import type { Piece } from '../stock/piece.ts';
import type { TrimLayout } from '../trim/trimLayout.ts';

/** What the parts of a plan share while it is made. */
export interface PlanContext extends PlanInput {
  /** What is there already, of what happened. */
  made: Made;
  allowances: Allowances;
  cutting: CutPlan;
  pieces: ReadonlyMap<string, Piece>;
  /** Where the boards lie on their panels. */
  trim: TrimLayout;
  panelWidth: number;
  /** Strips that are turned over so that their clean side shows, by id, panel by panel: their maker left that to the plan. */
  turnedOver: readonly ReadonlySet<string>[];
  /** Where what is glued is rows of slices or parts of a panel instead of strips: how they are made; null for panels of strips. */
  again: Again | null;
  /** The frame round what is glued, once it is on; null before, and for boards without. */
  frame: Frame | null;
  /** Panels, and strips on the board, that are numbered before these: of panels whose rows come in turn, what the ones before them have. */
  before: { panels: number; strips: number };
  /** The back under what is glued, once it is on; null before, and for boards without. */
  back: Back | null;
  /** What is done next with what is cut out of the panels, where it is not yet a board. */
  field: 'frame' | 'back' | null;
  /** What of the strips is accents resawn from bits glued end to end; none for most boards. */
  stacks: readonly Stack[];
  /** How much further along each strip lies than the one that lies least far, mm; null where they are flush. */
  ahead: readonly number[] | null;
  /** The size that the board is wished, mm; `board` may be smaller where rows leave it no more. */
  wished: Pick<Board, 'length' | 'width' | 'thickness'>;
}
