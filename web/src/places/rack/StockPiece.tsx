import { memo, useMemo } from 'react';
import type { PromisedRange } from '#core/cutting/cutPlan.ts';
import type { Piece } from '#core/stock/piece.ts';
import type { Species } from '#core/wood/species.ts';
import { formatLength } from '#core/units/formatLength.ts';
import { StockFace } from '../../drawing/StockFace.tsx';
import { stockBody } from '#core/bodies/stripBody.ts';
import { Wood } from '../../drawing/Wood.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { Length } from '../../quantities/Length.tsx';
import { SURFACE_WORDS } from '../piece/words.ts';
import classes from './StockPiece.module.css';

interface StockPieceProps {
  piece: Piece;
  species: Species;
  scale: number;
  chosen: boolean;
  promised: readonly PromisedRange[];
  onChoose(id: string): void;
  onOpen(id: string): void;
}

/** Gap between a piece's end and its face, pixels. */
const GAP = 5;

/** A piece as it lies on the shelf: its end, its broad face with what lies on it, promised lengths, its mark and sizes. */
export const StockPiece = memo(function StockPiece({
  piece,
  species,
  scale,
  chosen,
  promised,
  onChoose,
  onOpen,
}: StockPieceProps) {
  const { display } = useDisplay();
  const { length, width, thickness } = piece;
  const end = Math.max(2, thickness * scale);
  const widest = Math.max(width, piece.farEnd?.width ?? 0);
  const size = (mm: number) => formatLength(mm, display);
  const body = useMemo(() => stockBody(piece), [piece]);
  const first = promised.filter((r) => r.unit === 0);
  const condition = [
    piece.defects.length > 0 && `${piece.defects.length} ${piece.defects.length === 1 ? 'defect' : 'defects'}`,
    promised.length > 0 && 'partly promised',
  ]
    .filter(Boolean)
    .join(', ');
  return (
    <button
      id={`piece-${piece.id}`}
      type="button"
      className={classes.piece}
      aria-pressed={chosen}
      onClick={() => onChoose(piece.id)}
      onFocus={() => onChoose(piece.id)}
      onDoubleClick={() => onOpen(piece.id)}
      onKeyDown={(event) => {
        if (event.key !== 'Enter') return;
        event.preventDefault();
        onOpen(piece.id);
      }}
      aria-label={`${piece.mark}, ${species.name}, ${size(length)} by ${size(width)} by ${size(thickness)}, ${SURFACE_WORDS[piece.surface]}${piece.count > 1 ? `, ${piece.count} of them` : ''}${condition && `, ${condition}`}${piece.note ? `, ${piece.note}` : ''}`}
      title={piece.note}
    >
      <svg width={end + GAP + length * scale + 2} height={Math.max(3, widest * scale) + 2} aria-hidden="true">
        <g transform="translate(1 1)">
          <Wood x={0} y={0} scale={scale} species={species} body={body} side="farEnd" />
          <rect width={end} height={width * scale} className={classes.edge} />
        </g>
        <g transform={`translate(${end + GAP} 1)`}>
          <StockFace piece={piece} species={species} scale={scale} face="up" />
          {first.map((r) => (
            <g key={r.from} className={classes.promised}>
              <rect x={r.from * scale} y={0} width={(r.to - r.from) * scale} height={widest * scale} />
              <path d={`M${r.from * scale} ${widest * scale}L${r.to * scale} 0`} />
            </g>
          ))}
        </g>
      </svg>
      <span className={classes.label}>
        <b>{piece.mark}</b>
        {piece.count > 1 && <> ({piece.count} pieces)</>} <Length mm={length} bare /> × <Length mm={width} bare /> ×{' '}
        <Length mm={thickness} bare /> <em>{SURFACE_WORDS[piece.surface]}</em>
      </span>
    </button>
  );
});
