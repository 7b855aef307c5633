import { artPlace } from '#core/features/artPlace.ts';
import { mapOutline, svgPath, type Outline } from '#core/features/outline.ts';
import type { Solid } from '#core/features/solids.ts';
import { edgeReach, isSide, SIDES, type Corners, type Edges } from '#core/features/edge.ts';
import { flatOf, type WorkedBoard } from '#core/bodies/workedBoard.ts';
import classes from './WorkedFace.module.css';

interface WorkedFaceProps {
  worked: Pick<WorkedBoard, 'size' | 'edges' | 'features' | 'solids'>;
  corners: Corners;
  /** The face that is looked at; the underside is turned over about its length. */
  face: 'top' | 'bottom';
  /** Pixels per mm. */
  scale: number;
  /** Id of the feature that is in hand. */
  chosen?: string;
  /** What lies on the other side is shown too, dashed. */
  through?: boolean;
}

/** What is worked into a board, drawn over one of its faces: edges and cuts of this face, and dashed what lies beneath. */
export function WorkedFace({ worked, corners, face, scale, chosen, through = true }: WorkedFaceProps) {
  const { size, edges, solids } = worked;
  const place = (o: Outline): string =>
    svgPath(
      mapOutline(
        o,
        ({ x, y }) => ({ x: x * scale, y: (face === 'top' ? y : size.width - y) * scale }),
        face === 'bottom',
      ),
    );
  const other = face === 'top' ? 'bottom' : 'top';
  const [flat, beneath] = [flatOf(worked, face, corners), flatOf(worked, other, corners)];
  const opens = (s: Solid) => (face === 'top' ? s.from <= 0 : s.to >= size.thickness);
  const mitres =
    corners.kind === 'square' && flat
      ? cornerLines(edges, size, face)
          .map(([a, b]) =>
            place({
              closed: false,
              vertices: [
                { ...a, bulge: 0 },
                { ...b, bulge: 0 },
              ],
            }),
          )
          .join('')
      : '';
  return (
    <g className={classes.face}>
      {flat && shaped(edges, face, size.thickness) && <path className={classes.flat} d={place(flat) + mitres} />}
      {through && beneath && shaped(edges, other, size.thickness) && (
        <path className={classes.beneath} d={place(beneath)} />
      )}
      {solids
        .filter((s) => through || opens(s))
        .map((s, i) => (
          <path
            key={i}
            className={opens(s) ? classes.cut : classes.hidden}
            data-part={s.part}
            data-through={(opens(s) && s.from <= 0 && s.to >= size.thickness) || undefined}
            data-frame={
              (s.part === 'mark' &&
                worked.features.some((f) => f.id === s.feature && f.kind === 'mark' && f.art !== null)) ||
              undefined
            }
            data-chosen={s.feature === chosen || undefined}
            data-feature={s.feature}
            fillRule="evenodd"
            d={s.outlines.map(place).join('')}
          />
        ))}
      {worked.features.map((f) => {
        if (f.kind !== 'mark' || !f.art || isSide(f.face) || (!through && f.face !== face)) return null;
        const { along, across, x, y } = artPlace(f, f.art);
        const down = face === 'top' ? across : -across;
        return (
          <path
            key={f.id}
            className={f.face === face ? classes.art : classes.artBeneath}
            data-lines={(!f.filled && (f.method === 'router' || f.method === 'laser')) || undefined}
            fillRule="evenodd"
            d={f.art.d}
            transform={`translate(${x * scale} ${(face === 'top' ? y : size.width - y) * scale}) scale(${along * scale} ${down * scale}) translate(${-f.art.length / 2} ${-f.art.width / 2})`}
          />
        );
      })}
    </g>
  );
}

const shaped = (edges: Edges, face: 'top' | 'bottom', thickness: number): boolean =>
  SIDES.some((side) => edgeReach(edges[side][face], thickness).reach > 0);

/** Where the cuts of two neighbouring edges meet: from each corner of the board to the corner of its flat. */
function cornerLines(edges: Edges, { length, width, thickness }: WorkedBoard['size'], face: 'top' | 'bottom') {
  const reach = Object.fromEntries(
    SIDES.map((side) => [side, edgeReach(edges[side][face], thickness).reach]),
  ) as Record<(typeof SIDES)[number], number>;
  return [
    [
      { x: 0, y: 0 },
      { x: reach.left, y: reach.far },
    ],
    [
      { x: length, y: 0 },
      { x: length - reach.right, y: reach.far },
    ],
    [
      { x: length, y: width },
      { x: length - reach.right, y: width - reach.near },
    ],
    [
      { x: 0, y: width },
      { x: reach.left, y: width - reach.near },
    ],
  ] as const;
}
