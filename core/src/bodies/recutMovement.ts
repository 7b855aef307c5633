import { cutStripsOf } from '../board/recipe.ts';
import type { Dimension, Ladder } from '../ladders/ladder.ts';
import { entryOf } from '../lists/there.ts';
import { turnedBy, type Triple } from '../recipe/motion.ts';
import { volume } from '../recipe/solid.ts';
import type { Cell, Workpiece } from '../recipe/workpiece.ts';
import type { PlanInput } from '../saw/planInput.ts';
import type { Shop } from '../shop/shop.ts';
import { equilibriumMoisture, MOVEMENT_HOLDS } from '../wood/moisture.ts';
import { changeCoefficient, movementOf, strainAngles } from '../wood/movement.ts';
import type { Species } from '../wood/species.ts';
import type { SeasonMovement } from './seasonMovement.ts';

/** What a cell gains in a direction of the board, a share per percent of moisture: nothing along its grain. Null for a species without coefficients. */
function strainOf(cell: Cell, species: Pick<Species, 'radial' | 'tangential'>, direction: Triple): number | null {
  const [, y, z] = turnedBy(cell.inPiece, direction);
  // Rings are told of the piece as it lies on its face.
  const { across, up } = strainAngles(cell.piece?.rings ?? 'flat', 'face');
  const [byWidth, byThickness] = [changeCoefficient(species, across), changeCoefficient(species, up)];
  return byWidth === null || byThickness === null ? null : y ** 2 * byWidth + z ** 2 * byThickness;
}

/**
 * A board that was cut again through the seasons: each cell moves by how its grain and rings lie, and glued to its neighbours it moves as they do on average, by volume.
 * Check: end grain moves across and along the board, long grain only across.
 */
export function recutMovement(
  { board, species }: Pick<PlanInput, 'board' | 'species'>,
  shop: Pick<Shop, 'seasons'>,
  wood: Workpiece | undefined,
  ladders: Record<Dimension, Ladder>,
): SeasonMovement {
  const seasons = board.seasons ?? shop.seasons;
  const [dry, damp] = [equilibriumMoisture(seasons.dry), equilibriumMoisture(seasons.damp)];
  const known = new Map(species.map((s) => [s.code, s]));
  const speciesOf = new Map(cutStripsOf(board).map((s) => [s.id, s.species]));
  const grows = (direction: Triple, size: number, cells: readonly Cell[]): number | null => {
    let [moved, all] = [0, 0];
    for (const cell of cells) {
      const wood = known.get(entryOf(speciesOf, cell.strip));
      const strain = wood ? strainOf(cell, wood, direction) : null;
      if (strain === null) continue;
      const share = volume(cell.solid);
      moved += share * strain;
      all += share;
    }
    return all === 0 ? null : movementOf(size, moved / all, dry, damp);
  };
  const cells = wood?.cells ?? [];
  const ofStrip = grouped(cells);
  return {
    seasons,
    own: board.seasons !== null,
    dryMoisture: dry,
    dampMoisture: damp,
    holds: [dry, damp].every((m) => m >= MOVEMENT_HOLDS.least && m <= MOVEMENT_HOLDS.greatest),
    strips: cutStripsOf(board).map((strip, i) => ({
      number: i + 1,
      across: grows([0, 1, 0], strip.width, ofStrip.get(strip.id) ?? []),
      up: grows([0, 0, 1], ladders.thickness.reached, ofStrip.get(strip.id) ?? []),
      otherWay: null,
    })),
    along: grows([1, 0, 0], ladders.length.reached, cells) ?? 0,
    across: grows([0, 1, 0], ladders.width.reached, cells) ?? 0,
    otherWay: 0,
    unknown: [
      ...new Set(
        cutStripsOf(board)
          .map((s) => s.species)
          .filter((code) => (known.get(code)?.radial ?? null) === null),
      ),
    ],
  };
}

function grouped(cells: readonly Cell[]): Map<string, Cell[]> {
  const groups = new Map<string, Cell[]>();
  for (const cell of cells) {
    const own = cell.accent ?? cell.strip;
    groups.set(own, [...(groups.get(own) ?? []), cell]);
  }
  return groups;
}
