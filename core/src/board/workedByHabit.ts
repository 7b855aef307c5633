import type { EdgeCut, Edges, SideEdges } from '../features/edge.ts';
import type { Feature } from '../features/feature.ts';
import type { Shop } from '../shop/shop.ts';
import { widthReached } from './allowances.ts';
import { stripTops, type Board } from './board.ts';
import { stripsOf } from './recipe.ts';

/** A few strokes of a block plane take this much at most, mm (common practice). */
const STROKES = 1;

/** The edges of a board: as it says itself, or all alike as the shop's school and habit have them. @param shop as the board is made in it */
export function edgesFor(
  board: Pick<Board, 'worked' | 'thickness'>,
  { schools, habits: { edgeTreatment } }: Pick<Shop, 'schools' | 'habits'>,
): Edges {
  if (board.worked.edges) return board.worked.edges;
  const straight: EdgeCut = { kind: 'straight' };
  const both = (cut: EdgeCut): SideEdges => ({ top: cut, bottom: cut });
  const habit = (): SideEdges => {
    // A reach of nothing leaves the edge as it is sawn.
    if (edgeTreatment < 0.2) return both(straight);
    switch (schools.edge) {
      case 'roundOver':
        return both({ kind: 'roundOver', radius: Math.min(edgeTreatment, 40) });
      case 'chamfer':
        return both({ kind: 'chamfer', reach: edgeTreatment, angle: 45 });
      case 'blockPlane':
        return both({ kind: 'chamfer', reach: Math.min(edgeTreatment, STROKES), angle: 45 });
      case 'underBevel':
        return {
          top: straight,
          bottom: { kind: 'underBevel', angle: 45, reveal: Math.max(0, board.thickness - edgeTreatment) },
        };
    }
  };
  const side = habit();
  return { far: side, right: side, near: side, left: side };
}

/** Feet as they are usually screwed on: about 30 mm in from both edges, in bores 20 wide and 2 deep, the screw to the middle of the board (common practice). */
const USUAL_FEET = { kind: 'feet', id: 'habit-feet', count: 4, bore: 20, boreDepth: 2, screw: 4 } as const;
const USUAL_INSET = { wanted: 30, least: 14, greatest: 60 } as const;

/** What is worked into a board: what it says itself, and feet where the shop puts them on and the board has none of its own. @param shop as the board is made in it */
export function featuresFor(
  board: Pick<Board, 'worked' | 'thickness' | 'width' | 'recipe'>,
  shop: Pick<Shop, 'schools' | 'habits'>,
): Feature[] {
  const { features } = board.worked;
  if (shop.schools.feet === 'none' || features.some((f) => f.kind === 'feet')) return features;
  return [
    ...features,
    {
      ...USUAL_FEET,
      inset: insetOffJoints(board, shop),
      screwDepth: Math.max(1, Math.min(15, board.thickness / 2 - USUAL_FEET.boreDepth)),
    },
  ];
}

/** How far in feet stand so that no screw comes into a glue line, mm: as near to the usual as can be; the usual where every place is a joint. */
function insetOffJoints(
  { recipe, width }: Pick<Board, 'width' | 'recipe'>,
  shop: Pick<Shop, 'schools' | 'habits'>,
): number {
  const strips = stripsOf({ recipe });
  const panel = strips.reduce((sum, s) => sum + s.width, 0);
  const reached = widthReached({ width }, panel, shop);
  const joints = stripTops(strips)
    .slice(1)
    .map((top) => top - (panel - reached) / 2);
  const clear = (inset: number) =>
    joints.every((y) => Math.abs(y - inset) > USUAL_FEET.screw && Math.abs(y - (reached - inset)) > USUAL_FEET.screw);
  const { wanted, least, greatest } = USUAL_INSET;
  for (let away = 0; away <= greatest - wanted; away += 1) {
    for (const inset of [wanted + away, wanted - away]) if (inset >= least && clear(inset)) return inset;
  }
  return wanted;
}
