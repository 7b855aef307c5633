import { isInside, linesApart } from '../features/apart.ts';
import { edgeReach, isEnd, isSide, type Side } from '../features/edge.ts';
import { FEATURE_NAMES, type FeatureOf } from '../features/feature.ts';
import { outlinePoints } from '../features/outline.ts';
import { solidsOfFeature } from '../features/solids.ts';
import type { OperationKind } from '../steps/operation.ts';
import { flatOf, type WorkedBoard } from '../bodies/workedBoard.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';

/** Room between a mark on a side and what the edges above and below it, and the corners beside it, take, mm. */
function roomOnSide(
  { x, y, length: long, width }: FeatureOf<'mark'>,
  side: Side,
  { edges, size }: WorkedBoard,
  corner: number,
): number {
  const { top, bottom } = edges[side];
  const along = isEnd(side) ? size.width : size.length;
  return Math.min(
    y - width / 2 - edgeReach(top, size.thickness).drop,
    size.thickness - edgeReach(bottom, size.thickness).drop - y - width / 2,
    x - long / 2 - corner,
    along - corner - x - long / 2,
  );
}

/** The step at which each kind of feature is made. */
export const STEP_OF = {
  groove: 'groove',
  finger: 'holds',
  hole: 'holds',
  handle: 'handles',
  feet: 'feet',
  mark: 'engrave',
} as const satisfies Record<keyof typeof FEATURE_NAMES, OperationKind>;

/** Every feature lies on its board, clear of the edge and of what the edge treatment takes. */
export const featureRoom: Rule = (plan, { board, shop }) => {
  const { worked } = plan;
  const { leaveBeside } = shop.habits;
  return worked.features.flatMap((feature): Found[] => {
    const name = FEATURE_NAMES[feature.kind];
    const at = STEP_OF[feature.kind];
    const finding = (
      severity: Found['severity'],
      rule: string,
      what: Found['what'],
      waysOut: Found['waysOut'],
    ): Found => ({
      rule,
      severity,
      strips: [],
      part: feature.id,
      at,
      what,
      why: say`A bit that leaves the board tears its edge out; thin wood beside a cut breaks off.`,
      waysOut,
    });
    const solids = solidsOfFeature(feature, worked.size);
    if (solids.length === 0)
      return [
        finding('stop', 'feature-outside', say`${name}: the board has no room for it.`, [
          say`Bring it nearer to the edge, or make it smaller.`,
        ]),
      ];
    const outside = solids.some(
      (s) =>
        (s.kind === 'mark' && (s.from < -LENGTH_TOLERANCE_MM || s.to > worked.size.thickness + LENGTH_TOLERANCE_MM)) ||
        s.outlines.some((o) =>
          outlinePoints(o).some(
            (p) =>
              p.x < -LENGTH_TOLERANCE_MM ||
              p.y < -LENGTH_TOLERANCE_MM ||
              p.x > worked.size.length + LENGTH_TOLERANCE_MM ||
              p.y > worked.size.width + LENGTH_TOLERANCE_MM ||
              (!s.open && !isInside(p, [worked.outline])),
          ),
        ),
    );
    if (outside)
      return [
        finding('stop', 'feature-outside', say`${name}: over the edge of the board.`, [
          say`Move it inward.`,
          say`Make it smaller.`,
        ]),
      ];
    const nearest = solids
      .filter((s) => !s.open)
      .flatMap((s) => {
        const face = s.from <= LENGTH_TOLERANCE_MM ? 'top' : 'bottom';
        const flat = flatOf(worked, face, board.worked.corners);
        // Only what opens in a face has an edge of that face beside it.
        if (s.part === 'screw') return [];
        if (!flat || !s.outlines.every((o) => outlinePoints(o).every((p) => isInside(p, [flat])))) return [0];
        return [linesApart(s.outlines, [flat])];
      });
    const least = Math.max(
      0,
      Math.min(
        Infinity,
        ...nearest,
        ...(feature.kind === 'mark' && isSide(feature.face)
          ? [
              roomOnSide(
                feature,
                feature.face,
                worked,
                board.worked.corners.kind === 'square' ? 0 : board.worked.corners.size,
              ),
            ]
          : []),
      ),
    );
    if (least >= leaveBeside - LENGTH_TOLERANCE_MM) return [];
    return [
      finding(
        'caution',
        'feature-edge',
        say`${name}: only ${length(least)} to the treated edge; ${length(leaveBeside)} is to stay.`,
        [say`Move it inward.`, say`Choose a smaller edge.`],
      ),
    ];
  });
};
