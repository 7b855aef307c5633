import { memo, useEffect, useRef } from 'react';
import { grainArrow, isTurnedOver, type StripBody } from '#core/bodies/stripBody.ts';
import { formatLength } from '#core/units/formatLength.ts';
import type { Species } from '#core/wood/species.ts';
import { GrainArrow } from '../../drawing/GrainArrow.tsx';
import { Wood } from '../../drawing/Wood.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { LengthTspans } from '../../quantities/Length.tsx';
import type { PickUp } from './hand.ts';
import { hatchFill } from './Hatches.tsx';
import { chainOf } from './moveRows.ts';
import type { OverlayMark } from './overlay.ts';
import classes from './StripRow.module.css';
import type { Strip } from '#core/board/recipe.ts';

interface StripRowProps {
  strip: Strip;
  /** Place in its panel, from 0, and number on the board. */
  index: number;
  number: number;
  /** Top left of the strip in the top view, and left of its end in the end view, pixels. */
  x: number;
  y: number;
  endX: number;
  /** Where the finished board begins: the number stands inside it. */
  labelX: number;
  /** Where the chain of widths runs. */
  chainX: number;
  scale: number;
  body: StripBody;
  species: Species | undefined;
  mark: OverlayMark | undefined;
  oiled: boolean;
  flipped: boolean;
  inHand: boolean;
  held: boolean;
  flag: 'stop' | 'caution' | undefined;
  onPick(index: number, how: PickUp): void;
}

/** Rows lower than this, in pixels, have no room for their figures; the one in hand shows them all the same. */
const LEAST_LABEL_PX = 12;
const LEAST_MARK_PX = 14;

/** One strip across both views: its face, its end, its number, width and grain arrow. Moving it down the drawing only moves its group. */
export const StripRow = memo(function StripRow({ y, ...body }: StripRowProps) {
  const { strip, index, number, species, inHand, held, flag, mark, onPick } = body;
  const { display } = useDisplay();
  const row = useRef<SVGGElement>(null);
  const direction = grainArrow(strip, body.body).forward ? 'right' : 'left';
  // The plan turns strips over by itself where only their other side is clean.
  const lies = [
    (body.body.piece ? isTurnedOver(body.body) : strip.turned) && 'turned over',
    strip.rolled && 'rolled',
    strip.locked && 'locked',
    flag,
    mark?.label,
  ].filter(Boolean);

  // Keys move the choice; the focus follows when it was on a strip before.
  useEffect(() => {
    if (inHand && document.activeElement?.closest('[role="listbox"]') === row.current?.parentElement)
      row.current?.focus();
  }, [inHand]);

  return (
    <g
      ref={row}
      transform={`translate(0 ${y})`}
      data-strip={index}
      className={classes.row}
      role="option"
      aria-selected={held}
      tabIndex={inHand ? 0 : -1}
      onFocus={() => !held && onPick(index, 'only')}
      data-selected={inHand || undefined}
      aria-label={`Strip ${number}, ${species?.name ?? strip.species}, ${formatLength(strip.width, display)}, grain to the ${direction}${lies.length > 0 ? `, ${lies.join(', ')}` : ''}`}
    >
      <StripBodyDrawing {...body} />
    </g>
  );
});

type StripBodyProps = Omit<StripRowProps, 'y'>;

const StripBodyDrawing = memo(function StripBodyDrawing(props: StripBodyProps) {
  const { strip, number, x, endX, labelX, chainX, scale, body, species, mark, oiled, flipped, inHand, flag } = props;
  const [length, , thickness] = body.size;
  const height = strip.width * scale;
  const middle = height / 2;
  const labelled = height >= LEAST_LABEL_PX || inHand;
  const shared = {
    scale,
    species,
    body,
    stripId: strip.id,
    oiled,
    y: 0,
    first: true,
    ...(Math.abs(body.size[1] - strip.width) > 0.05 ? { shownWidth: strip.width } : {}),
  };
  return (
    <>
      {/* Under the wood, for what a dragged joint lays bare. */}
      <rect data-tall x={x} y={0} width={length * scale} height={height} fill={species?.colour ?? '#b9bec4'} />
      <rect data-tall x={endX} y={0} width={thickness * scale} height={height} fill={species?.colour ?? '#b9bec4'} />
      <Wood {...shared} x={x} side={flipped ? 'under' : 'top'} />
      <Wood {...shared} x={endX} side={flipped ? 'farEndTurned' : 'farEnd'} />
      {mark && mark.hatch > 0 && (
        <rect x={x} y={0} width={length * scale} height={height} fill={hatchFill(mark.hatch)} />
      )}
      <rect data-strip-face data-tall className={classes.edge} x={x} y={0} width={length * scale} height={height} />
      <rect data-tall className={classes.edge} x={endX} y={0} width={thickness * scale} height={height} />
      {labelled && height >= 9 && (
        <GrainArrow
          x={x + length * scale - (labelX - x) - 24}
          y={middle}
          size={30}
          reversed={!grainArrow(strip, body).forward}
        />
      )}
      {labelled && (
        <>
          <g className={classes.number} transform={`translate(${labelX + 18} ${middle})`}>
            <circle r={Math.min(11, Math.max(7, height / 2 - 1))} />
            <text dominantBaseline="central" textAnchor="middle" dy={0.5}>
              {number}
            </text>
          </g>
          <text
            data-width
            className={classes.width}
            x={chainX - 7}
            y={middle}
            dominantBaseline="central"
            textAnchor="end"
          >
            <LengthTspans mm={strip.width} />
          </text>
          <StripSigns
            turned={body.piece ? isTurnedOver(body) : strip.turned}
            strip={strip}
            x={labelX + 36}
            y={middle}
          />
        </>
      )}
      {mark && height >= LEAST_MARK_PX && (
        <text
          className={classes.mark}
          x={x + (length * scale) / 2}
          y={middle}
          dominantBaseline="central"
          textAnchor="middle"
        >
          {mark.label}
        </text>
      )}
      <path data-chain={chainX} className={classes.chain} d={chainOf(chainX, height)} />
      {flag && (
        <path
          className={classes.flag}
          data-flag={flag}
          d={`M${x + length * scale + 8} ${middle + 8}v-16h13l-4 4.5 4 4.5h-13`}
        />
      )}
    </>
  );
});

/** Pencilled signs behind the number: a padlock, a bent arrow for turned over, a quarter circle for rolled. */
function StripSigns({ strip, turned, x, y }: { strip: Strip; turned: boolean; x: number; y: number }) {
  const signs = [
    strip.locked && 'M-4.5 0h9v6h-9zM-2.8 0v-2.4a2.8 2.8 0 0 1 5.6 0V0',
    turned && 'M-5 -3h7a3.4 3.4 0 0 1 0 6.8h-6M-1 1l-3 2.8 3 2.8',
    strip.rolled && 'M-4.5 4.5a9 9 0 0 1 9-9M1.5 -5.2l3 .7-.7 3',
  ].filter((d): d is string => Boolean(d));
  return signs.map((d, i) => (
    <g key={d} transform={`translate(${x + i * 18} ${y})`} className={classes.sign}>
      <circle r="8.5" />
      <path d={d} />
    </g>
  ));
}
