import { firstOf } from '../lists/there.ts';
import type { Again } from '../board/again.ts';
import type { Back } from '../board/back.ts';
import type { Frame } from '../board/frame.ts';
import { backedInCells } from '../bodies/backWood.ts';
import { bodiesOfPanel, boardInCells, panelInCells } from '../bodies/cells.ts';
import { framedInCells } from '../bodies/frameWood.ts';
import { insetInCells } from '../bodies/insetWood.ts';
import { blockInCells } from '../bodies/recutWood.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { Workpiece } from '../recipe/workpiece.ts';
import type { TrimLayout } from '../trim/trimLayout.ts';

/** What is cut out of something: where, and how thick it is flat, mm. */
interface CutOut {
  trim: TrimLayout;
  thickness: number;
}

/** What boards are made of on the way, as far as it tells where their wood lies. */
export interface Insides {
  contexts: readonly PlanContext[];
  again: Again | null;
  frame: (Frame & { fields: CutOut }) | null;
  back: (Back & { tops: CutOut }) | null;
}

/** One board on its way, in cells: each is null where there is none, or no strips yet. */
export interface BoardCells {
  /** Of rows or parts. */
  block: Workpiece | null;
  /** What its frame goes round, and that with the frame on. */
  field: Workpiece | null;
  framed: Workpiece | null;
  /** What its back is glued under. */
  top: Workpiece | null;
  /** What it is trimmed from at the end, where that is more than a panel of strips. */
  whole: Workpiece | null;
}

/** What one board is made of on the way. @param board from 1 @param panel the first panel, where it is known already */
export function cellsOfBoard(known: Insides, board: number, panel?: Workpiece): BoardCells {
  const { contexts, again, frame, back } = known;
  const first = firstOf(contexts);
  const block = again && blockOfBoard(contexts, again, board);
  const outOf = (how: CutOut, whole: Workpiece | null | undefined) => cutOut(first, how, board, whole, panel);
  // Nothing is known of what is cut from panels of strips: one of them may hold several boards.
  const inside = again ? block : undefined;
  const field = frame && outOf(frame.fields, inside);
  const framed = frame && field && framedInCells(first, frame, field, board);
  const top = back && outOf(back.tops, frame ? framed : inside);
  const whole = back ? top && backedInCells(first, back, top, board) : frame ? framed : block;
  return { block, field, framed, top, whole };
}

/** What is cut out of its panel, or of what it is otherwise, for one board, flat. @param whole undefined for a panel of strips @param panel the first of those, where it is known */
function cutOut(
  first: PlanContext,
  { trim, thickness }: CutOut,
  board: number,
  whole: Workpiece | null | undefined,
  panel?: Workpiece,
): Workpiece | null {
  const place = trim.panels.flatMap((rects, k) => rects.map((rect) => ({ rect, copy: k + 1 })))[board - 1];
  if (!place) return null;
  const { copy, rect } = place;
  const from =
    whole !== undefined ? whole : copy === 1 && panel ? panel : panelInCells(first, bodiesOfPanel(first, copy), copy);
  return from && boardInCells(from, rect, thickness);
}

/** The block of one board; null while there are no strips. */
function blockOfBoard(contexts: readonly PlanContext[], again: Again, board: number): Workpiece | null {
  return again.how === 'rows'
    ? blockInCells(
        contexts,
        again,
        again.all.filter((r) => r.board === board),
      )
    : insetInCells(firstOf(contexts), again, board);
}
