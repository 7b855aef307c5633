import { edgeReach, isEnd, type Side } from '#core/features/edge.ts';
import { boundsOf } from '#core/features/outline.ts';
import type { WorkedBoard } from '#core/bodies/workedBoard.ts';
import classes from './WorkedFace.module.css';

interface WorkedSideProps {
  worked: Pick<WorkedBoard, 'size' | 'edges' | 'solids'>;
  side: Side;
  /** Length of the side and pixels per mm. */
  run: number;
  scale: number;
}

/**
 * What is worked into one side of a board as it is seen in the round: where its edges begin, and hollows that open in it. Long edges lie along the drawing with
 * the show side up, ends stand upright with the show side towards their own end's right or left.
 */
export function WorkedSide({ worked: { size, edges, solids }, side, run, scale }: WorkedSideProps) {
  const t = size.thickness;
  const { top, bottom } = edges[side];
  const ends = isEnd(side);
  // Depth below the show side as a place on the drawing: of the far edge and the left end it runs up, as the faces are folded.
  const place = (depth: number) => (side === 'near' || side === 'right' ? depth : t - depth) * scale;
  const line = (depth: number) => (ends ? `M${place(depth)} 0V${run}` : `M0 ${place(depth)}H${run}`);
  const depths = [edgeReach(top, t).drop, t - edgeReach(bottom, t).drop].filter((d) => d > 0 && d < t);
  const hollows = solids
    .filter((s) => s.open && s.part !== 'spout')
    .flatMap((s) => {
      const { left, right, far, near } = boundsOf(s.outlines);
      const touches = {
        left: left <= 1e-6,
        right: right >= size.length - 1e-6,
        far: far <= 1e-6,
        near: near >= size.width - 1e-6,
      }[side];
      if (!touches) return [];
      const [from, to] = ends ? [far, near] : [left, right];
      const [a, b] = [place(Math.max(0, s.from)), place(Math.min(t, s.to))].sort((p, q) => p - q) as [number, number];
      return ends
        ? [{ x: a, y: from * scale, width: b - a, height: (to - from) * scale }]
        : [{ x: from * scale, y: a, width: (to - from) * scale, height: b - a }];
    });
  return (
    <g>
      {depths.map((d) => (
        <path key={d} className={classes.flat} d={line(d)} />
      ))}
      {hollows.map((h) => (
        <rect key={`${h.x} ${h.y}`} className={classes.cut} {...h} rx={ends ? h.width / 2 : h.height / 2} />
      ))}
    </g>
  );
}
