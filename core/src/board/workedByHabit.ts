import type { EdgeCut, Edges, SideEdges } from '../features/edge.ts';
import type { Feature } from '../features/feature.ts';
import type { Shop } from '../shop/shop.ts';
import type { Board } from './board.ts';

/** A few strokes of a block plane take this much at most, mm (common practice). */
const STROKES = 1;

/** The edges of a board: as it says itself, or all alike as the shop's school and habit have them. @param shop as the board is made in it */
export function edgesFor(board: Pick<Board, 'worked' | 'thickness'>, { schools, habits: { edgeTreatment } }: Pick<Shop, 'schools' | 'habits'>): Edges {
  if (board.worked.edges) return board.worked.edges;
  const straight: EdgeCut = { kind: 'straight' };
  const both = (cut: EdgeCut): SideEdges => ({ top: cut, bottom: cut });
  const habit = (): SideEdges => {
    // A reach of nothing leaves the edge as it is sawn.
    if (edgeTreatment < 0.2) return both(straight);
    switch (schools.edge) {
      case 'roundOver': return both({ kind: 'roundOver', radius: Math.min(edgeTreatment, 40) });
      case 'chamfer': return both({ kind: 'chamfer', reach: edgeTreatment, angle: 45 });
      case 'blockPlane': return both({ kind: 'chamfer', reach: Math.min(edgeTreatment, STROKES), angle: 45 });
      case 'underBevel': return { top: straight, bottom: { kind: 'underBevel', angle: 45, reveal: Math.max(0, board.thickness - edgeTreatment) } };
    }
  };
  const side = habit();
  return { far: side, right: side, near: side, left: side };
}

/** Feet as they are usually screwed on: 30 mm in from both edges, in bores 20 wide and 2 deep, the screw to the middle of the board (common practice). */
const USUAL_FEET = { kind: 'feet', id: 'habit-feet', count: 4, inset: 30, bore: 20, boreDepth: 2, screw: 4 } as const;

/** What is worked into a board: what it says itself, and feet where the shop puts them on and the board has none of its own. @param shop as the board is made in it */
export function featuresFor(board: Pick<Board, 'worked' | 'thickness'>, { schools }: Pick<Shop, 'schools'>): Feature[] {
  const { features } = board.worked;
  if (schools.feet === 'none' || features.some((f) => f.kind === 'feet')) return features;
  return [...features, { ...USUAL_FEET, screwDepth: Math.max(1, Math.min(15, board.thickness / 2 - USUAL_FEET.boreDepth)) }];
}
