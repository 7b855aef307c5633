import { grouped } from '../lists/grouped.ts';
import { firstOf } from '../lists/there.ts';
import type { Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { ripsOf } from './auditCut.ts';
import type { Blank, CutPlan, Leftover, RippedStrip } from './cutPlan.ts';

/** A crosscut: the blade takes `kerf` from `at` onward, mm from the marked end. */
export interface Crosscut {
  at: number;
  kerf: number;
}

/** A rip: across the blank from the near edge, mm; more than one strip when it is resawn. */
export interface Rip {
  from: number;
  to: number;
  strips: RippedStrip[];
}

export interface CutBlank {
  blank: Blank;
  rips: Rip[];
}

/** Everything to do at the saw with one piece, in order. */
export interface CutSheet {
  piece: Piece;
  unit: number;
  crosscuts: Crosscut[];
  blanks: CutBlank[];
  leftovers: Leftover[];
  /** Already cut. */
  done: boolean;
}

/** The cut plan piece by piece, as it is taken to the saw. */
export function cutSheets(
  plan: Pick<CutPlan, 'blanks' | 'leftovers'>,
  pieces: ReadonlyMap<string, Piece>,
  shop: Shop,
): CutSheet[] {
  const byUnit = grouped(plan.blanks, (b) => `${b.done ? 'done' : 'open'}/${b.pieceId}/${b.unit}`);
  return [...byUnit.values()].flatMap((blanks) => {
    const first = firstOf(blanks);
    const piece = pieces.get(first.pieceId);
    if (!piece) return [];
    const sorted = [...blanks].sort((a, b) => a.number - b.number);
    return [
      {
        piece,
        unit: first.unit,
        done: first.done,
        crosscuts: crosscutsOf(sorted, piece, shop),
        blanks: sorted.map((blank) => ({
          blank,
          rips: ripsOf(blank).map((strips) => ({
            from: firstOf(strips).from,
            to: firstOf(strips).from + firstOf(strips).way.rip,
            strips,
          })),
        })),
        leftovers: first.done ? [] : plan.leftovers.filter((l) => l.pieceId === piece.id && l.unit === first.unit),
      },
    ];
  });
}

/** Both ends of every blank, each cut named once, in cutting order. */
function crosscutsOf(blanks: readonly Blank[], piece: Piece, shop: Shop): Crosscut[] {
  const { kerf } = shop.crosscutSaw;
  const cuts: Crosscut[] = [];
  for (const blank of blanks) {
    for (const at of [blank.from - kerf, blank.from + blank.length]) {
      const visible = at > -kerf + LENGTH_TOLERANCE_MM && at < piece.length - LENGTH_TOLERANCE_MM;
      if (visible && !cuts.some((c) => Math.abs(c.at - at) < kerf + LENGTH_TOLERANCE_MM)) cuts.push({ at, kerf });
    }
  }
  return cuts;
}
