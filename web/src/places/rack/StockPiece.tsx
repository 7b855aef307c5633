import type { Piece } from '#core/stock/piece.ts';
import type { Species } from '#core/wood/species.ts';
import { formatLength } from '#core/units/formatLength.ts';
import { WoodEnd, WoodFace } from '../../drawing/Wood.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { Length } from '../../quantities/Length.tsx';
import classes from './StockPiece.module.css';

interface StockPieceProps {
  piece: Piece;
  species: Species;
  scale: number;
  chosen: boolean;
  onChoose(): void;
  onOpen(): void;
}

/** Gap between a piece's end and its face, pixels. */
const GAP = 5;

/** A piece as it lies on the shelf: its end, its broad face, its mark and sizes. */
export function StockPiece({ piece, species, scale, chosen, onChoose, onOpen }: StockPieceProps) {
  const { display } = useDisplay();
  const { length, width, thickness } = piece;
  const end = Math.max(2, thickness * scale);
  const size = (mm: number) => formatLength(mm, display);
  return (
    <button id={`piece-${piece.id}`} type="button" className={classes.piece} aria-pressed={chosen} onClick={onChoose} onFocus={onChoose} onDoubleClick={onOpen}
      onKeyDown={(event) => {
        if (event.key !== 'Enter') return;
        event.preventDefault();
        onOpen();
      }}
      aria-label={`${piece.mark}, ${species.name}, ${size(length)} by ${size(width)} by ${size(thickness)}, ${piece.surface}${piece.note ? `, ${piece.note}` : ''}`} title={piece.note}>
      <svg width={end + GAP + length * scale + 2} height={Math.max(3, width * scale) + 2} aria-hidden="true">
        <WoodEnd x={1} y={1} scale={scale} species={species} rings={piece.rings} seed={piece.id} across={end / scale} up={width} turned />
        <WoodFace x={end + GAP} y={1} scale={scale} species={species} rings={piece.rings} seed={piece.id} length={length} width={width} face="broad" />
        <rect x={1} y={1} width={end} height={width * scale} className={classes.edge} />
        <rect x={end + GAP} y={1} width={length * scale} height={width * scale} className={classes.edge} strokeDasharray={piece.surface === 'rough' ? '3 2' : undefined} />
      </svg>
      <span className={classes.label}>
        <b>{piece.mark}</b>{' '}
        <Length mm={length} bare /> × <Length mm={width} bare /> × <Length mm={thickness} bare /> <em>{piece.surface}</em>
      </span>
    </button>
  );
}
