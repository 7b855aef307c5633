import { firstOf } from '../lists/there.ts';
import { pricePerMm3, volumeBetween } from '../stock/shape.ts';
import { boardFeet, cubicMetres, MM3_PER_M3 } from '../units/volume.ts';
import { volume } from '../recipe/solid.ts';
import type { Workpiece } from '../recipe/workpiece.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { PlannedStrip } from '../bodies/strips.ts';

export interface Volume {
  boardFeet: number;
  cubicMetres: number;
}

/** What all copies of the board take and weigh. */
export interface Materials {
  /** Wood in one finished board. */
  finished: Volume;
  /** Wood crosscut from the rack for all copies: blanks at full stock width and thickness, with their kerfs. */
  taken: Volume;
  /** Share of the wood taken that ends up in the boards, 0 to 1; null when nothing is taken. */
  yield: number | null;
  /** Grams of one board; null when a species has no density. */
  gramsEach: number | null;
  /** Wood used up for all copies, in the shop's currency: pieces less what goes back to the rack, as Cuts tells it; wood without a price as the shop counts it. */
  cost: number;
  costEach: number;
  currency: string;
  /** Marks of pieces in use that have no price. */
  unpriced: string[];
}

function volumeOf(mm3: number): Volume {
  return { boardFeet: boardFeet(mm3), cubicMetres: cubicMetres(mm3) };
}

/** @param wood of the first board in cells where it is not strips from end to end; left out: as its strips say */
export function materialsOf(context: PlanContext, strips: readonly PlannedStrip[], wood?: Workpiece): Materials {
  const { board, cutting, pieces, shop } = context;
  const densities = new Map(context.species.map((s) => [s.code, s.density]));
  const ownPlan = cutting.score.total > 0;
  let taken = 0;
  let cost = ownPlan ? cutting.score.wood : 0;
  const unpriced = new Set<string>();
  for (const blank of cutting.blanks) {
    const piece = pieces.get(blank.pieceId);
    if (!piece) continue;
    const volume = volumeBetween(
      piece,
      blank.from,
      Math.min(piece.length, blank.from + blank.length + shop.crosscutSaw.kerf),
    );
    taken += volume;
    const price = pricePerMm3(piece, densities.get(piece.species) ?? null);
    if (price === null) unpriced.add(piece.mark);
    // What is still to be cut costs what the cut plan says, unless that plan is shared with other boards.
    if (blank.done || !ownPlan) cost += volume * (price ?? shop.cutting.unpricedPerM3 / MM3_PER_M3);
  }
  const recut = wood !== undefined;
  const inBoard = wood?.cells.reduce((sum, cell) => sum + volume(cell.solid), 0) ?? 0;
  const each = recut ? inBoard : strips.reduce((sum, { finished: f }) => sum + f.length * f.width * f.thickness, 0);
  const grams = strips.map((s) => s.grams);
  // Copies that the rack cannot give in full are not in the wood taken; the yield counts only strips that have a source.
  const { panels, loose } = context.allowances;
  const inBoardOf = new Map<string, number>();
  for (const { strip, solid } of wood?.cells ?? []) inBoardOf.set(strip, (inBoardOf.get(strip) ?? 0) + volume(solid));
  const given = strips.reduce(
    (sum, s) =>
      sum +
      (inBoardOf.get(s.id) ?? 0) *
        Math.min(1, s.sources.length / Math.max(1, loose[s.id]?.own?.count ?? panels.length)),
    0,
  );
  const cutVolume = recut ? given * board.count : stripVolume(strips, context);
  const cut = strips.filter((s) => s.stack === null && loose[s.id]?.own?.count !== 0);
  const whole = cut.every((s) => s.sources.some((source) => source.copy === 1));
  const others =
    whole && board.worked.others.length > 0 && strips.length > 0
      ? context.trim.others.reduce((sum, o) => sum + o.length * o.width, 0) * firstOf(strips).finished.thickness
      : 0;
  return {
    finished: volumeOf(each),
    taken: volumeOf(taken),
    yield: taken > 0 ? (cutVolume + others) / taken : null,
    gramsEach: grams.some((g) => g === null) ? null : grams.reduce<number>((sum, g) => sum + (g ?? 0), 0),
    cost,
    costEach: cost / board.count,
    currency: shop.currency,
    unpriced: [...unpriced].sort(),
  };
}

/** Wood of the strips that the rack gives, in all boards they are for, mm3. */
function stripVolume(strips: readonly PlannedStrip[], { allowances }: Pick<PlanContext, 'allowances'>): number {
  return strips.reduce(
    (sum, { finished: f, sources }) =>
      sum +
      sources.reduce((boards, source) => boards + (allowances.panels[source.copy - 1]?.boards ?? 0), 0) *
        f.length *
        f.width *
        f.thickness,
    0,
  );
}
