import { cutStripsOf } from '../board/recipe.ts';
import type { Dimension, Ladder } from '../ladders/ladder.ts';
import { entryOf } from '../lists/there.ts';
import { plus, type Triple } from '../recipe/motion.ts';
import { volume } from '../recipe/solid.ts';
import type { Cell, Workpiece } from '../recipe/workpiece.ts';
import type { PlanInput } from '../saw/planInput.ts';
import type { Shop } from '../shop/shop.ts';
import { equilibriumMoisture, MOVEMENT_HOLDS } from '../wood/moisture.ts';
import { changeCoefficient, movementOf, strainAngles } from '../wood/movement.ts';
import type { Species } from '../wood/species.ts';
import type { SeasonMovement } from './seasonMovement.ts';

/** What cells gain along the board, across it and up, each as a sum over their wood of mm3 times a share per percent of moisture; and how much wood that is. */
interface Strain {
  gained: Triple;
  wood: number;
}

/** What cells gain: nothing along their grain; no wood counts of a species without coefficients. */
function strainOf(
  cells: readonly Cell[],
  speciesOf: ReadonlyMap<string, Pick<Species, 'radial' | 'tangential'> | undefined>,
): Strain {
  let [along, across, up, wood] = [0, 0, 0, 0];
  for (const { strip, inPiece, piece, solid } of cells) {
    const species = entryOf(speciesOf, strip);
    // Rings are told of the piece as it lies on its face.
    const rings = strainAngles(piece?.rings ?? 'flat', 'face');
    const byWidth = species && changeCoefficient(species, rings.across);
    const byThickness = species && changeCoefficient(species, rings.up);
    if (typeof byWidth !== 'number' || typeof byThickness !== 'number') continue;
    const share = volume(solid);
    const strain = ([, y, z]: Triple) => share * (y ** 2 * byWidth + z ** 2 * byThickness);
    // The board's axes as they lie in the piece.
    along += strain(inPiece.along);
    across += strain(inPiece.across);
    up += strain(inPiece.up);
    wood += share;
  }
  return { gained: [along, across, up], wood };
}

const NO_STRAIN: Strain = { gained: [0, 0, 0], wood: 0 };

const both = (a: Strain, b: Strain): Strain => ({ gained: plus(a.gained, b.gained), wood: a.wood + b.wood });

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
  const speciesOf = new Map(cutStripsOf(board).map((s) => [s.id, known.get(s.species)]));
  const ofStrip = new Map([...grouped(wood?.cells ?? [])].map(([id, cells]) => [id, strainOf(cells, speciesOf)]));
  const all = [...ofStrip.values()].reduce(both, NO_STRAIN);
  const grows = (axis: 0 | 1 | 2, size: number, strain = NO_STRAIN): number | null =>
    strain.wood === 0 ? null : movementOf(size, strain.gained[axis] / strain.wood, dry, damp);
  return {
    seasons,
    own: board.seasons !== null,
    dryMoisture: dry,
    dampMoisture: damp,
    holds: [dry, damp].every((m) => m >= MOVEMENT_HOLDS.least && m <= MOVEMENT_HOLDS.greatest),
    strips: cutStripsOf(board).map((strip, i) => ({
      number: i + 1,
      across: grows(1, strip.width, ofStrip.get(strip.id)),
      up: grows(2, ladders.thickness.reached, ofStrip.get(strip.id)),
      otherWay: null,
    })),
    along: grows(0, ladders.length.reached, all) ?? 0,
    across: grows(1, ladders.width.reached, all) ?? 0,
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

/** Cells by the accent or the strip that they are in: the bits of an accent may be of several species. */
function grouped(cells: readonly Cell[]): Map<string, Cell[]> {
  const groups = new Map<string, Cell[]>();
  for (const cell of cells) {
    const own = cell.accent ?? cell.strip;
    const group = groups.get(own);
    if (group) group.push(cell);
    else groups.set(own, [cell]);
  }
  return groups;
}
