import { showsOf } from '../board/board.ts';
import { equilibriumMoisture } from '../wood/moisture.ts';
import { changeCoefficient, movementOf, strainAngles } from '../wood/movement.ts';
import type { PlanContext } from '../ladders/context.ts';
import { cutStripsOf } from '../board/recipe.ts';

/** A piece in use whose moisture was measured, against what wood comes to in the room. */
export interface StockMoisture {
  mark: string;
  /** Percent. */
  measured: number;
  room: number;
  /** How much a strip of it, as wide as its widest in the board, changes until it has come to the room, mm; positive when it swells. Null without figures of the species. */
  change: number | null;
}

/** Closer than this to the room, percent of moisture, wood is as good as settled (common practice). */
export const SETTLED = 1.5;

export function moistureOf({ board, cutting, pieces, species, shop }: PlanContext): StockMoisture[] {
  const room = equilibriumMoisture(shop.room);
  const used = new Map<string, number>();
  for (const blank of cutting.blanks) {
    for (const { demand } of blank.strips) {
      const strip = cutStripsOf(board)[demand.strip - 1];
      if (strip && strip.width > (cutStripsOf(board)[(used.get(blank.pieceId) ?? 0) - 1]?.width ?? 0))
        used.set(blank.pieceId, demand.strip);
    }
  }
  return [...used].flatMap(([id, number]): StockMoisture[] => {
    const piece = pieces.get(id);
    const strip = cutStripsOf(board)[number - 1];
    if (!piece || !strip || piece.moisture === null) return [];
    const wood = species.find((s) => s.code === piece.species);
    const coefficient = wood
      ? changeCoefficient(wood, strainAngles(piece.rings, showsOf(board.construction, strip)).across)
      : null;
    return [
      {
        mark: piece.mark,
        measured: piece.moisture,
        room,
        change: coefficient === null ? null : movementOf(strip.width, coefficient, piece.moisture, room),
      },
    ];
  });
}
