import { certain, firstOf, nth } from '#core/lists/there.ts';
import { useElementSize } from '@mantine/hooks';
import { useRef } from 'react';
import { stripTops } from '#core/board/board.ts';
import { formatLength } from '#core/units/formatLength.ts';
import { trimAgain } from '#core/plan/trimAgain.ts';
import { useOpenBoard, useSettledBoard } from '../../data/openBoard.tsx';
import { DimensionLine } from '../../drawing/DimensionLine.tsx';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { useDisplay } from '../../quantities/display.tsx';
import { Length } from '../../quantities/Length.tsx';
import { FaceCells } from '../../drawing/FaceWood.tsx';
import { useStripSpecies } from '../../drawing/useStripSpecies.ts';
import { GripHandle, within } from './GripHandle.tsx';
import classes from './TrimDrawing.module.css';
import { SpotMarking } from './SpotMarking.tsx';
import { useMade } from './useMade.ts';
import { stripsOf } from '#core/board/recipe.ts';

/** Drawn at the width there is, up to this, so that its figures stay readable on a phone. */
const WIDEST = 660;
const NARROWEST = 320;
const ROOM = { left: 58, right: 30, top: 44, bottom: 30, height: 330 };
const MARK = 9;

interface TrimDrawingProps {
  /** Id of the bad place that is in hand. */
  chosen: string | null;
  onChoose(id: string): void;
  /** A bad place was drawn on the panel, mm from its left end and far edge. */
  onMark(place: { x: number; y: number; length: number; width: number }): void;
}

/** The glued panel from above, to scale: what creep and snipe spoil, the boards inside, and the cuts numbered as they are made. */
export function TrimDrawing({ chosen, onChoose, onMark }: TrimDrawingProps) {
  const { board, plan, input } = useSettledBoard();
  const { display } = useDisplay();
  const { ref, width } = useElementSize();
  const wide = width === 0 ? WIDEST : Math.max(NARROWEST, Math.min(WIDEST, Math.round(width)));
  const { board: now } = useOpenBoard();
  const svg = useRef<SVGSVGElement>(null);
  const { made, noteSpot, endMerge } = useMade();
  // Bad places move at once, and the boards make way for them.
  const layout = trimAgain(plan, { ...board, worked: now.worked }, made);
  const scale = fitScale([layout.length, layout.width], [wide - ROOM.left - ROOM.right, ROOM.height], 1.6);
  const [x0, y0] = [ROOM.left, ROOM.top];
  const [w, h] = [layout.length * scale, layout.width * scale];
  const tops = stripTops(stripsOf(board));
  // A block of rows is drawn as far as all of them reach: nothing in it is spoiled.
  const spoiled = plan.lastly ? 0 : Math.max(layout.creep, layout.snipe) * scale;
  const edge = plan.lastly ? 0 : Math.min(plan.shop.habits.panelEdgeTrim, layout.width / 2) * scale;
  const all = [...layout.boards, ...layout.others].sort((a, b) => a.x - b.x);
  const [first, last] = [layout.boards[0], all.at(-1)];
  // Of a block the kerf lies in what falls off.
  const kerf = plan.lastly ? 0 : layout.kerf;
  const species = useStripSpecies(board, input.species);
  const place = (event: { clientX: number; clientY: number }) => {
    const box = certain(svg.current).getBoundingClientRect();
    const shown = box.width / wide;
    return {
      x: ((event.clientX - box.left) / shown - x0) / scale,
      y: ((event.clientY - box.top) / shown - y0) / scale,
    };
  };
  return (
    <figure ref={ref} className={classes.figure}>
      <svg
        ref={svg}
        viewBox={`0 0 ${wide} ${y0 + h + ROOM.bottom}`}
        role="group"
        className={classes.drawing}
        aria-label={`Panel with ${layout.boards.length} ${layout.boards.length === 1 ? 'board' : 'boards'} on it and ${layout.cuts.length} cuts`}
      >
        <defs>
          <pattern id="spoiled" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0V6" stroke="#1b2026" strokeWidth="1.2" />
          </pattern>
        </defs>
        {plan.lastly && plan.wood && (
          <g transform={`translate(${x0} ${y0})`}>
            <FaceCells thing={plan.wood.panel} scale={scale} species={species} />
          </g>
        )}
        {(plan.lastly ? [] : stripsOf(board)).map((strip, i) => (
          <rect
            key={strip.id}
            x={x0}
            y={y0 + nth(tops, i) * scale}
            width={w}
            height={strip.width * scale}
            fill={input.species.find((s) => s.code === strip.species)?.colour ?? 'var(--line)'}
            className={classes.strip}
          />
        ))}
        <path
          className={classes.waste}
          fillRule="evenodd"
          d={`M${x0} ${y0}h${w}v${h}h${-w}z${all.map((b) => `M${x0 + b.x * scale} ${y0 + b.y * scale}v${b.width * scale}h${b.length * scale}v${-b.width * scale}z`).join('')}`}
        />
        {spoiled > 0 &&
          [x0, x0 + w - spoiled].map((x) => (
            <rect key={x} x={x} y={y0} width={spoiled} height={h} fill="url(#spoiled)" className={classes.spoiled} />
          ))}
        {edge > 0 &&
          [y0, y0 + h - edge].map((y) => (
            <rect key={y} x={x0} y={y} width={w} height={edge} fill="url(#spoiled)" className={classes.spoiled} />
          ))}
        {layout.instead?.at.map((b) => (
          <rect
            key={b.x}
            className={classes.instead}
            x={x0 + b.x * scale}
            y={y0 + b.y * scale}
            width={b.length * scale}
            height={b.width * scale}
          />
        ))}
        {layout.boards.map((b, i) => (
          <g key={b.x}>
            <rect
              className={classes.board}
              x={x0 + b.x * scale}
              y={y0 + b.y * scale}
              width={b.length * scale}
              height={b.width * scale}
            />
            {layout.boards.length > 1 && (
              <text
                className={classes.name}
                x={x0 + (b.x + b.length / 2) * scale}
                y={y0 + (b.y + b.width / 2) * scale}
                textAnchor="middle"
                dominantBaseline="central"
              >
                {i + 1}
              </text>
            )}
          </g>
        ))}
        {layout.others.map((o) => (
          <g key={o.x}>
            <rect
              className={classes.board}
              x={x0 + o.x * scale}
              y={y0 + o.y * scale}
              width={o.length * scale}
              height={o.width * scale}
            />
            <text
              className={classes.other}
              x={x0 + (o.x + o.length / 2) * scale}
              y={y0 + (o.y + o.width / 2) * scale}
              textAnchor="middle"
              dominantBaseline="central"
            >
              {o.name}
            </text>
          </g>
        ))}
        {layout.cuts.map((cut) => {
          const at = cut.at * scale;
          const [x, y] =
            cut.along === 'edge'
              ? [cut.to === undefined ? x0 + w + 15 : x0 + cut.to * scale - 2 * MARK, y0 + at]
              : [x0 + at, y0 + h + 15];
          return (
            <g key={cut.number} className={classes.cut}>
              <path
                d={
                  cut.along === 'edge'
                    ? `M${x0 + (cut.from === undefined ? -6 : cut.from * scale)} ${y0 + at}H${cut.to === undefined ? x0 + w + 6 : x0 + cut.to * scale}`
                    : `M${x0 + at} ${y0 - 6}V${y0 + h + 6}`
                }
              />
              <circle cx={x} cy={y} r={MARK} />
              <text x={x} y={y} textAnchor="middle" dominantBaseline="central">
                {cut.number}
              </text>
            </g>
          );
        })}
        <g transform={`translate(${x0} ${y0})`}>
          <SpotMarking panel={layout} scale={scale} place={place} onMark={onMark} />
        </g>
        {made.spots.map((spot) => (
          <g key={spot.id} className={classes.spot} transform={`translate(${x0} ${y0})`}>
            <rect x={spot.x * scale} y={spot.y * scale} width={spot.length * scale} height={spot.width * scale} />
            <GripHandle
              grip={{
                x: spot.x + spot.length / 2,
                y: spot.y + spot.width / 2,
                axis: 'both',
                label: `${spot.what}, from the left end`,
                value: spot.x,
              }}
              at={[(spot.x + spot.length / 2) * scale, (spot.y + spot.width / 2) * scale]}
              most={layout.length}
              valueText={`${formatLength(spot.x, display)}, ${formatLength(spot.y, display)} from the far edge`}
              chosen={chosen === spot.id}
              place={place}
              onChoose={() => onChoose(spot.id)}
              onEnd={endMerge}
              onMove={(x, y, mergeKey) =>
                noteSpot(
                  {
                    ...spot,
                    x: within(x - spot.length / 2, layout.length - spot.length),
                    y: within(y - spot.width / 2, layout.width - spot.width),
                  },
                  mergeKey,
                )
              }
            />
          </g>
        ))}
        <DimensionLine from={[x0, 16]} to={[x0 + w, 16]} mm={layout.length} />
        {first && (
          <DimensionLine
            from={[x0 + first.x * scale, 36]}
            to={[x0 + (first.x + first.length) * scale, 36]}
            mm={first.length}
          />
        )}
        <DimensionLine from={[14, y0]} to={[14, y0 + h]} mm={layout.width} />
        {first && (
          <DimensionLine
            from={[38, y0 + first.y * scale]}
            to={[38, y0 + (first.y + first.width) * scale]}
            mm={first.width}
          />
        )}
      </svg>
      <figcaption>
        {scaleWords(scale)}.
        {first && last && (
          <>
            {' '}
            Cuts in the order of their numbers, the blade on the waste side; edge {layout.cuts[0]?.number ?? 1} is the
            reference for all that follow. Off the ends <Length mm={Math.max(0, firstOf(all).x - kerf)} /> and{' '}
            <Length mm={Math.max(0, layout.length - last.x - last.length - kerf)} />, off each edge{' '}
            <Length mm={first.y} /> and <Length mm={layout.width - first.y - first.width} />.
          </>
        )}
        {(spoiled > 0 || edge > 0) && (
          <>
            {' '}
            Hatched:{' '}
            {[
              ...(spoiled > 0 ? [`where strips crept${layout.snipe > 0 ? ' or the planer sniped' : ''}`] : []),
              ...(edge > 0 ? ['edges with dried glue and clamp marks'] : []),
            ].join('; ')}
            .
          </>
        )}
      </figcaption>
    </figure>
  );
}
