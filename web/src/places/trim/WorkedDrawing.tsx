import { certain, nth } from '#core/lists/there.ts';
import { endSpare } from '#core/board/allowances.ts';
import { useElementSize } from '@mantine/hooks';
import { useId, useMemo, useRef } from 'react';
import { stripTops } from '#core/board/board.ts';
import { isSide } from '#core/features/edge.ts';
import type { Feature } from '#core/features/feature.ts';
import { svgPath } from '#core/features/outline.ts';
import { formatLength } from '#core/units/formatLength.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { DimensionLine } from '../../drawing/DimensionLine.tsx';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { FaceWood } from '../../drawing/FaceWood.tsx';
import { useStripSpecies } from '../../drawing/useStripSpecies.ts';
import { Wood } from '../../drawing/Wood.tsx';
import { WorkedFace } from '../../drawing/WorkedFace.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { GripHandle } from './GripHandle.tsx';
import { gripOf } from './grips.ts';
import type { useWorked } from './useWorked.ts';
import classes from './WorkedDrawing.module.css';
import { stripsOf } from '#core/board/recipe.ts';

interface WorkedDrawingProps {
  work: ReturnType<typeof useWorked>;
  face: 'top' | 'bottom';
  chosen: string;
  onChoose(id: string): void;
}

const ROOM = { left: 56, right: 26, top: 46, bottom: 24, height: 300 };
const NARROWEST = 300;

/** The finished board from above or below, to scale, with all that is worked into it; each feature is taken hold of at its grip. */
export function WorkedDrawing({ work, face, chosen, onChoose }: WorkedDrawingProps) {
  const { now, worked, setFeature, endMerge } = work;
  const { display } = useDisplay();
  const { ref, width } = useElementSize();
  const svg = useRef<SVGSVGElement>(null);
  const { size } = now;
  const wide = Math.max(NARROWEST, Math.round(width));
  const scale = fitScale([size.length, size.width], [wide - ROOM.left - ROOM.right, ROOM.height], 2);
  const [w, h] = [size.length * scale, size.width * scale];
  // In the middle of the room there is.
  const left = Math.max(ROOM.left, (wide - w) / 2);
  const flip = (y: number) => (face === 'top' ? y : size.width - y);

  /** Where a pointer is on the board, mm. */
  function place(event: { clientX: number; clientY: number }) {
    const box = certain(svg.current).getBoundingClientRect();
    const shown = box.width / wide;
    return {
      x: ((event.clientX - box.left) / shown - left) / scale,
      y: flip(((event.clientY - box.top) / shown - ROOM.top) / scale),
    };
  }
  return (
    <figure ref={ref} className={classes.figure}>
      <svg
        ref={svg}
        viewBox={`0 0 ${wide} ${h + ROOM.top + ROOM.bottom}`}
        className={classes.drawing}
        role="group"
        aria-label={`Finished board, ${face === 'top' ? 'show side' : 'underside'}, with ${now.features.length} ${now.features.length === 1 ? 'feature' : 'features'}`}
      >
        <g transform={`translate(${left} ${ROOM.top})`}>
          <BoardWood face={face} scale={scale} />
          <path
            className={classes.outline}
            d={svgPath({
              ...now.outline,
              vertices: now.outline.vertices.map((v) => ({ x: v.x * scale, y: v.y * scale, bulge: v.bulge })),
            })}
          />
          <WorkedFace worked={now} corners={worked.corners} face={face} scale={scale} chosen={chosen} />
          {chosen === 'edges' && <FeedArrows w={w} h={h} />}
          {now.features
            .filter((f) => isSeenFrom(f, face))
            .map((feature) => {
              const grip = gripOf(feature, size);
              const across =
                feature.kind === 'mark' && !isSide(feature.face)
                  ? `, ${formatLength(feature.y, display)} from the far edge`
                  : '';
              return (
                <GripHandle
                  key={feature.id}
                  grip={grip}
                  at={[grip.x * scale, flip(grip.y) * scale]}
                  most={size.length}
                  valueText={`${formatLength(grip.value, display)}${across}`}
                  chosen={chosen === feature.id}
                  flipped={face === 'bottom'}
                  place={place}
                  onChoose={() => onChoose(feature.id)}
                  onMove={(x, y, mergeKey) => setFeature(grip.to(x, y), mergeKey)}
                  onEnd={endMerge}
                />
              );
            })}
        </g>
        <DimensionLine from={[left, 18]} to={[left + w, 18]} mm={size.length} />
        <DimensionLine from={[left - 32, ROOM.top]} to={[left - 32, ROOM.top + h]} mm={size.width} />
      </svg>
      <figcaption>
        {face === 'top' ? 'Show side' : 'Underside, turned over about its length'}, finished size, {scaleWords(scale)}.
        Dashed: what is on the other side.
        {chosen === 'edges' && ' Blue: how a router is led, in this order, ends first.'}
      </figcaption>
    </figure>
  );
}

/** Whether a feature opens in a face, so that it is taken hold of there. */
function isSeenFrom(feature: Feature, face: 'top' | 'bottom'): boolean {
  if (feature.kind === 'mark' && isSide(feature.face)) return true;
  return 'face' in feature ? feature.face === face : feature.kind !== 'feet' || face === 'bottom';
}

/** How a router is led round the outside, and in which order: ends first, each to its own corner, then the long edges, always against the turn of the bit. */
function FeedArrows({ w, h }: { w: number; h: number }) {
  const off = 9;
  const arrow = (x: number, y: number, turn: number, number: number) => (
    <g key={number} transform={`translate(${x} ${y})`} className={classes.feed}>
      <path d="M-22 0H18M11 -5L20 0L11 5" transform={`rotate(${turn})`} />
      <circle r="7.5" />
      <text textAnchor="middle" dominantBaseline="central">
        {number}
      </text>
    </g>
  );
  return (
    <g aria-label="Feed of the router: left to right along the edge before you">
      {[
        arrow(-off, h / 2, 90, 1),
        arrow(w + off, h / 2, -90, 2),
        arrow(w / 2, -off, 180, 3),
        arrow(w / 2, h + off, 0, 4),
      ]}
    </g>
  );
}

/** The strips of the board inside its outline, from the wood they are cut from. */
function BoardWood({ face, scale }: { face: 'top' | 'bottom'; scale: number }) {
  const { board, plan, input } = useSettledBoard();
  const clip = useId();
  const { size, shift, outline } = plan.worked;
  const strips = stripsOf(board);
  const tops = useMemo(() => stripTops(strips), [strips]);
  const endTrim = endSpare(board.length, plan.allowances);
  const species = useStripSpecies(board, input.species);
  return (
    <>
      <clipPath id={clip}>
        <path
          d={svgPath({
            ...outline,
            vertices: outline.vertices.map((v) => ({ x: v.x * scale, y: v.y * scale, bulge: v.bulge })),
          })}
        />
      </clipPath>
      <g clipPath={`url(#${clip})`}>
        {plan.lastly && plan.wood && (
          <FaceWood
            thing={plan.wood.board}
            side={face === 'top' ? 'top' : 'under'}
            scale={scale}
            species={species}
            oiled={false}
          />
        )}
        {(plan.lastly ? [] : strips).map((strip, i) => {
          const y = face === 'top' ? nth(tops, i) - shift : size.width - (nth(tops, i) - shift) - strip.width;
          return (
            <Wood
              key={strip.id}
              x={-endTrim * scale}
              y={y * scale}
              scale={scale}
              body={nth(plan.bodies, i)}
              stripId={strip.id}
              species={input.species.find((s) => s.code === strip.species)}
              side={face === 'top' ? 'top' : 'under'}
            />
          );
        })}
        {(plan.lastly ? [] : tops.slice(1)).map((top) => (
          <path key={top} className={classes.joint} d={`M0 ${flipped(top - shift) * scale}H${size.length * scale}`} />
        ))}
      </g>
    </>
  );

  function flipped(y: number): number {
    return face === 'top' ? y : size.width - y;
  }
}
