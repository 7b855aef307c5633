import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { CutSheet } from '#core/cutting/cutSheet.ts';
import type { RippedStrip } from '#core/cutting/cutPlan.ts';
import { demandKey } from '#core/saw/demandKey.ts';
import type { Species } from '#core/wood/species.ts';
import { formatLength } from '#core/units/formatLength.ts';
import { Ruler } from '../../drawing/Ruler.tsx';
import { StockFace } from '../../drawing/StockFace.tsx';
import { LengthTspans } from '../../quantities/Length.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import classes from './cuts.module.css';
import { copyLetter, isLit } from './words.ts';

interface CutPieceDrawingProps {
  sheet: CutSheet;
  species: Species | undefined;
  scale: number;
  ripKerf: number;
  /** Strips of other boards are named by their board's number. */
  boardNumber(key: string): number | null;
  /** Several equal boards are made: a strip's letter says which one it is for. */
  lettered: boolean;
  lit: string | null;
  onLight?(key: string | null): void;
  /** A strip was dropped on another strip or piece. */
  onDrop?(strip: RippedStrip, target: { pieceId: string; strip: string | null }): void;
  /** Keys: the strip wants another piece. */
  onMove?(strip: RippedStrip): void;
}

const RULE = 20;
/** A pointer must move this far before it drags rather than points, pixels. */
const DRAG_FROM = 5;

/** One chosen piece to scale: crosscuts, rips, kerfs, strip numbers, what stays and what is waste. */
export function CutPieceDrawing(props: CutPieceDrawingProps) {
  const { sheet, species, scale, ripKerf } = props;
  const { piece, crosscuts, blanks, leftovers } = sheet;
  const height = Math.max(piece.width, piece.farEnd?.width ?? 0) * scale;
  const { display } = useDisplay();
  return (
    <svg
      className={classes.piece}
      width={piece.length * scale + 2}
      height={height + RULE + 20}
      data-piece={piece.id}
      role="group"
      aria-label={`Cuts of piece ${piece.mark}`}
    >
      <g transform={`translate(1 ${RULE})`}>
        <Ruler x={0} y={0} length={piece.length} scale={scale} direction="across" />
        <StockFace piece={piece} species={species} scale={scale} face="up" />
        {leftovers
          .filter((l) => l.kept)
          .map((l) => (
            <g key={`${l.from}/${l.across}`} className={classes.stays}>
              <rect x={l.from * scale} y={l.across * scale} width={l.length * scale} height={l.width * scale} />
              {l.width * scale > 13 && l.length * scale > 60 && (
                <text
                  x={(l.from + l.length / 2) * scale}
                  y={(l.across + l.width / 2) * scale}
                  textAnchor="middle"
                  dominantBaseline="central"
                >
                  stays {l.side ? formatLength(l.width, display) : formatLength(l.length, display)}
                </text>
              )}
            </g>
          ))}
        {leftovers
          .filter((l) => !l.kept)
          .map((l) => (
            <path
              key={`${l.from}/${l.across}`}
              className={classes.waste}
              d={hatch(l.from * scale, l.across * scale, l.length * scale, l.width * scale)}
            >
              <title>waste</title>
            </path>
          ))}
        {blanks.map(({ blank, rips }) => (
          <g key={blank.number}>
            <rect className={classes.blank} x={blank.from * scale} y={0} width={blank.length * scale} height={height} />
            {rips.map((rip) => (
              <g key={rip.from}>
                <rect
                  className={classes.kerf}
                  x={blank.from * scale}
                  y={(rip.from - ripKerf) * scale}
                  width={blank.length * scale}
                  height={Math.max(1, ripKerf * scale)}
                />
                <rect
                  className={classes.kerf}
                  x={blank.from * scale}
                  y={rip.to * scale}
                  width={blank.length * scale}
                  height={Math.max(1, ripKerf * scale)}
                />
                {rip.strips.map((strip, layer) => (
                  <StripBox
                    key={demandKey(strip.demand)}
                    {...props}
                    strip={strip}
                    x={(blank.from + (blank.length * layer) / rip.strips.length) * scale}
                    y={rip.from * scale}
                    width={(blank.length / rip.strips.length) * scale}
                    height={(rip.to - rip.from) * scale}
                  />
                ))}
              </g>
            ))}
            <text
              className={classes.blankLabel}
              x={(blank.from + blank.length / 2) * scale}
              y={height + 14}
              textAnchor="middle"
            >
              <LengthTspans mm={blank.length} />
            </text>
          </g>
        ))}
        {crosscuts.map(({ at, kerf }, i) => (
          <g key={at} className={classes.crosscut}>
            <rect x={at * scale} y={-4} width={Math.max(1.2, kerf * scale)} height={height + 8} />
            <text x={at * scale} y={height + 14} textAnchor="middle">
              {i + 1}
            </text>
          </g>
        ))}
      </g>
    </svg>
  );
}

/** Slanting lines over a rectangle, as SVG path data: wood that is thrown away. */
function hatch(x: number, y: number, width: number, height: number): string {
  const lines: string[] = [];
  for (let at = 6; at < width + height; at += 8) {
    const [x1, y1] = at <= height ? [0, at] : [at - height, height];
    const [x2, y2] = at <= width ? [at, 0] : [width, at - width];
    lines.push(`M${(x + x1).toFixed(1)} ${(y + y1).toFixed(1)}L${(x + x2).toFixed(1)} ${(y + y2).toFixed(1)}`);
  }
  return lines.join('');
}

type StripBoxProps = CutPieceDrawingProps & { strip: RippedStrip; x: number; y: number; width: number; height: number };

function StripBox({
  sheet,
  strip,
  x,
  y,
  width,
  height,
  boardNumber,
  lettered,
  lit,
  onLight,
  onDrop,
  onMove,
}: StripBoxProps) {
  const { demand } = strip;
  const key = demandKey(demand);
  const { display } = useDisplay();
  const [drag, setDrag] = useState<{ dx: number; dy: number } | null>(null);
  const start = useRef<{ x: number; y: number } | null>(null);
  const other = boardNumber(demand.board);
  const label = `${other === null ? '' : `${other}·`}${demand.strip}${demand.spare > 0 ? ' spare' : lettered ? copyLetter(demand.copy) : ''}`;

  // Cut already, or only to be looked at.
  const still = sheet.done || !onMove;

  const down = (event: PointerEvent<SVGGElement>) => {
    if (still || event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    start.current = { x: event.clientX, y: event.clientY };
  };
  const move = (event: PointerEvent<SVGGElement>) => {
    if (!start.current) return;
    const [dx, dy] = [event.clientX - start.current.x, event.clientY - start.current.y];
    if (drag || Math.hypot(dx, dy) > DRAG_FROM) setDrag({ dx, dy });
  };
  const up = (event: PointerEvent<SVGGElement>) => {
    const from = start.current;
    start.current = null;
    setDrag(null);
    // Its last moves may not be drawn yet.
    if (!from || (!drag && Math.hypot(event.clientX - from.x, event.clientY - from.y) <= DRAG_FROM)) return;
    const under = document.elementsFromPoint(event.clientX, event.clientY);
    const target =
      under.map((e) => e.closest<SVGElement>('[data-strip-key]')?.dataset.stripKey).find((k) => k && k !== key) ?? null;
    const piece = under.map((e) => e.closest<SVGElement>('[data-piece]')?.dataset.piece).find(Boolean);
    if (piece) onDrop?.(strip, { pieceId: piece, strip: target });
  };
  const keys = (event: KeyboardEvent) => {
    if (still || (event.key !== 'Enter' && event.key !== ' ')) return;
    event.preventDefault();
    onMove?.(strip);
  };
  return (
    <g
      className={classes.strip}
      data-strip-key={key}
      data-lit={isLit(lit, key) || undefined}
      data-dragged={drag ? true : undefined}
      data-done={sheet.done || undefined}
      transform={drag ? `translate(${drag.dx} ${drag.dy})` : undefined}
      tabIndex={onMove && 0}
      role={onMove ? 'button' : 'img'}
      aria-label={`Strip ${label} from ${sheet.piece.mark}, rip ${formatLength(strip.way.rip, display)}${strip.layers > 1 ? `, layer ${strip.layer} of ${strip.layers}` : ''}${onMove ? '. Enter: take it from another piece' : ''}`}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={() => {
        start.current = null;
        setDrag(null);
      }}
      onPointerEnter={() => onLight?.(key)}
      onPointerLeave={() => onLight?.(null)}
      onFocus={() => onLight?.(key)}
      onBlur={() => onLight?.(null)}
      onKeyDown={keys}
    >
      <rect x={x} y={y} width={width} height={height} />
      {height >= 8 && (
        <text
          x={x + width / 2}
          y={y + height / 2}
          textAnchor="middle"
          dominantBaseline="central"
          style={{ fontSize: Math.min(13, Math.max(9, height - 1)) }}
        >
          {label}
        </text>
      )}
    </g>
  );
}
