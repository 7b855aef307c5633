import { isSide, SIDE_NAMES, sideProfile, type Edges, type Side } from '#core/features/edge.ts';
import type { Feature } from '#core/features/feature.ts';
import { halfOpening, type BoardSize } from '#core/features/groove.ts';
import { MM_PER_INCH } from '#core/units/length.ts';
import { scaleWords } from '../../drawing/scale.ts';
import { LengthTspans } from '../../quantities/Length.tsx';
import classes from './SectionDrawing.module.css';

interface SectionDrawingProps {
  edges: Edges;
  features: readonly Feature[];
  size: BoardSize;
  side: Side;
}

/** So far above the surface an opening is cleared of the line of the wood, pixels. */
const OPEN_PX = 2;
const FULL_SCALE = 96 / MM_PER_INCH;
const ROOM = { left: 12, top: 20, bottom: 10, width: 250, height: 190 };

/** The board cut through at the middle of one side, at full scale where it fits: the shape of the edge and the features that lie behind it. */
export function SectionDrawing({ edges, features, size, side }: SectionDrawingProps) {
  const scale = Math.min(FULL_SCALE, ROOM.height / Math.max(1, size.thickness));
  const deep = (ROOM.width - ROOM.left) / scale;
  const ends = side === 'left' || side === 'right';
  const most = (ends ? size.length : size.width) / 2;
  const shown = Math.min(deep, most);
  const t = size.thickness;
  const [X, Y] = [(mm: number) => ROOM.left + mm * scale, (mm: number) => ROOM.top + mm * scale];
  const profile = sideProfile(edges[side], t);
  const path = `M${profile.map(([inset, depth]) => `${X(inset).toFixed(2)} ${Y(depth).toFixed(2)}`).join('L')}L${X(shown)} ${Y(t)}V${Y(0)}Z`;
  const cuts = features.flatMap((f) => cutAt(f, size, side));
  return (
    <figure className={classes.figure}>
      <svg
        width={ROOM.width + 8}
        height={ROOM.top + t * scale + ROOM.bottom}
        viewBox={`0 0 ${ROOM.width + 8} ${ROOM.top + t * scale + ROOM.bottom}`}
        role="img"
        aria-label={`Section through the ${SIDE_NAMES[side]}`}
      >
        <defs>
          <pattern id="section" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0V7" className={classes.hatch} />
          </pattern>
          <clipPath id="section-room">
            <rect x="0" y="0" width={X(shown)} height={Y(t) + 4} />
          </clipPath>
        </defs>
        <g clipPath="url(#section-room)">
          <path d={path} className={classes.wood} />
          <path d={path} fill="url(#section)" />
          {cuts.map(({ taken, line }, i) => (
            <g key={i}>
              <path d={taken(X, Y, scale)} className={classes.taken} />
              <path d={line(X, Y, scale)} className={classes.cut} />
            </g>
          ))}
        </g>
        <path
          className={classes.broken}
          d={`M${X(shown)} ${Y(0) - 6}l4 ${t * scale * 0.35 + 6}l-8 ${t * scale * 0.3}l4 ${t * scale * 0.35 + 6}`}
        />
        <text className={classes.figureText} x={X(shown) - 8} y={13} textAnchor="end">
          <LengthTspans mm={t} bare={false} /> thick
        </text>
      </svg>
      <figcaption>
        Section at the {SIDE_NAMES[side]}, {scaleWords(scale)}
      </figcaption>
    </figure>
  );
}

/** Wood that is taken, and the line that is left of its edge: where the cut opens to the air there is none. */
interface Cut {
  taken: Draw;
  line: Draw;
}

type Draw = (X: (mm: number) => number, Y: (mm: number) => number, scale: number) => string;

/** What of a feature a cut through the middle of a side meets. */
function cutAt(feature: Feature, { thickness: t, length, width }: BoardSize, side: Side): Cut[] {
  const ends = side === 'left' || side === 'right';
  const closed = (d: Draw): Cut => ({ taken: d, line: d });
  const box = (from: number, to: number, above: number, below: number) =>
    closed((X, Y) => `M${X(from)} ${Y(above)}H${X(to)}V${Y(below)}H${X(from)}Z`);
  if (feature.kind === 'groove') {
    const { offset, bit, depth, face } = feature;
    const half = halfOpening(bit, depth);
    const spout = feature.spout === side;
    const from =
      (above: number): Draw =>
      (X, Y, scale) => {
        const up = face === 'top' ? 1 : -1;
        const surface = face === 'top' ? 0 : t;
        const shoulder = Math.max(0, depth - bit / 2);
        return `M${X(offset - half)} ${Y(surface) - up * above}V${Y(surface + up * shoulder)}A${(bit / 2) * scale} ${(bit / 2) * scale} 0 0 ${face === 'top' ? 0 : 1} ${X(offset + half)} ${Y(surface + up * shoulder)}V${Y(surface) - up * above}`;
      };
    const nose: Cut = { taken: from(OPEN_PX), line: from(0) };
    return [
      ...(ends || feature.wells === 1 || side === 'far' || side === 'near' ? [nose] : []),
      ...(spout ? [box(-1, offset, face === 'top' ? 0 : t - depth, face === 'top' ? depth : t)] : []),
    ];
  }
  if ('on' in feature && (feature.on === 'ends') !== ends) return [];
  if (feature.kind === 'finger') {
    const middle = t - feature.up;
    if (feature.shape === 'bevel')
      return [
        closed(
          (X, Y) => `M${X(-1)} ${Y(middle)}L${X(0)} ${Y(middle)}L${X(feature.depth)} ${Y(t)}V${Y(t) + 1}H${X(-1)}Z`,
        ),
      ];
    const r = feature.bit / 2;
    const straight = Math.max(0, feature.depth - r);
    const half = halfOpening(feature.bit, feature.depth);
    return [
      closed(
        (X, Y, scale) =>
          `M${X(-1)} ${Y(middle - half)}H${X(straight)}A${r * scale} ${r * scale} 0 0 1 ${X(straight)} ${Y(middle + half)}H${X(-1)}Z`,
      ),
    ];
  }
  if (feature.kind === 'hole') return [box(feature.inset, feature.inset + feature.width, -1, t + 1)];
  if (feature.kind === 'handle' && feature.bores === 1)
    return [box(feature.inset - feature.bore / 2, feature.inset + feature.bore / 2, -1, t + 1)];
  if (feature.kind === 'mark') {
    if (isSide(feature.face))
      return feature.face === side
        ? [box(-1, feature.depth, feature.y - feature.width / 2, feature.y + feature.width / 2)]
        : [];
    const [at, half, off] = ends
      ? [
          side === 'left' ? feature.x : length - feature.x,
          feature.length / 2,
          Math.abs(feature.y - width / 2) - feature.width / 2,
        ]
      : [
          side === 'far' ? feature.y : width - feature.y,
          feature.width / 2,
          Math.abs(feature.x - length / 2) - feature.length / 2,
        ];
    return off > 0
      ? []
      : [
          box(
            at - half,
            at + half,
            feature.face === 'top' ? -1 : t - feature.depth,
            feature.face === 'top' ? feature.depth : t + 1,
          ),
        ];
  }
  return [];
}
