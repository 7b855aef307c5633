import { memo, useEffect, useRef } from 'react';
import type { Construction, Strip } from '#core/board/board.ts';
import { formatLength } from '#core/units/formatLength.ts';
import type { RingOrientation } from '#core/wood/rings.ts';
import type { Species } from '#core/wood/species.ts';
import { GrainArrow } from '../../drawing/GrainArrow.tsx';
import { WoodEnd, WoodFace } from '../../drawing/Wood.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { LengthTspans } from '../../quantities/Length.tsx';
import classes from './StripRow.module.css';

interface StripRowProps {
  strip: Strip;
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
  /** Of the part as glued, mm. */
  length: number;
  thickness: number;
  species: Species | undefined;
  rings: RingOrientation;
  construction: Construction;
  seed: string;
  selected: boolean;
  flag: 'stop' | 'caution' | undefined;
  onSelect(index: number): void;
}

/** Rows lower than this, in pixels, have no room for their figures; the one in hand shows them all the same. */
const LEAST_LABEL_PX = 12;

/** One strip across both views: its face, its end, its number, width and grain arrow. Moving it down the drawing only moves its group. */
export const StripRow = memo(function StripRow({ y, ...body }: StripRowProps) {
  const { strip, number, species, selected, flag, onSelect } = body;
  const { display } = useDisplay();
  const row = useRef<SVGGElement>(null);
  const direction = strip.endForEnd ? 'left' : 'right';

  // Keys move the choice; the focus follows when it was on a strip before.
  useEffect(() => {
    if (selected && document.activeElement?.closest('[role="listbox"]') === row.current?.parentElement) row.current?.focus();
  }, [selected]);

  return (
    <g ref={row} transform={`translate(0 ${y})`} data-strip={number - 1} className={classes.row} role="option" aria-selected={selected} tabIndex={selected ? 0 : -1}
      onFocus={() => onSelect(number - 1)} data-selected={selected || undefined}
      aria-label={`Strip ${number}, ${species?.name ?? strip.species}, ${formatLength(strip.width, display)}, grain to the ${direction}${flag ? `, ${flag}` : ''}`}>
      <StripBody {...body} />
    </g>
  );
});

type StripBodyProps = Omit<StripRowProps, 'y'>;

const StripBody = memo(function StripBody(props: StripBodyProps) {
  const { strip, number, x, endX, labelX, chainX, scale, length, thickness, species, rings, construction, seed, selected, flag } = props;
  const height = strip.width * scale;
  const middle = height / 2;
  const labelled = height >= LEAST_LABEL_PX || selected;
  return (
    <>
      <WoodFace x={x} y={0} scale={scale} species={species} rings={rings} seed={`${seed}${strip.id}`} length={length} width={strip.width} face={construction === 'edge' ? 'edge' : 'broad'} />
      <WoodEnd x={endX} y={0} scale={scale} species={species} rings={rings} seed={`${seed}${strip.id}`} across={thickness} up={strip.width} turned={construction === 'face'} />
      <rect data-strip-face className={classes.edge} x={x} y={0} width={length * scale} height={height} />
      <rect className={classes.edge} x={endX} y={0} width={thickness * scale} height={height} />
      {labelled && height >= 9 && <GrainArrow x={x + length * scale - (labelX - x) - 24} y={middle} size={30} reversed={strip.endForEnd} />}
      {labelled && (
        <>
          <g className={classes.number} transform={`translate(${labelX + 18} ${middle})`}>
            <circle r={Math.min(11, Math.max(7, height / 2 - 1))} />
            <text dominantBaseline="central" textAnchor="middle" dy={0.5}>{number}</text>
          </g>
          <text className={classes.width} x={chainX - 7} y={middle} dominantBaseline="central" textAnchor="end"><LengthTspans mm={strip.width} /></text>
        </>
      )}
      <path className={classes.chain} d={`M${chainX - 4} 0h8M${chainX - 4} ${height}h8M${chainX} 0v${height}`} />
      {flag && <path className={classes.flag} data-flag={flag} d={`M${x + length * scale + 8} ${middle + 8}v-16h13l-4 4.5 4 4.5h-13`} />}
    </>
  );
});
