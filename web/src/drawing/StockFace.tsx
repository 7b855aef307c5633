import { useId, useMemo } from 'react';
import { stockBody } from '#core/bodies/stripBody.ts';
import type { Defect } from '#core/stock/defect.ts';
import type { Piece } from '#core/stock/piece.ts';
import { widthAt } from '#core/stock/shape.ts';
import type { Species } from '#core/wood/species.ts';
import classes from './drawing.module.css';
import { Wood } from './Wood.tsx';

interface StockFaceProps {
  piece: Piece;
  species: Species | undefined;
  /** Pixels per mm. */
  scale: number;
  /** Which broad face is seen. */
  face: 'up' | 'down';
  /** Leave the defects to somebody else's drawing. */
  plain?: boolean;
}

/** Outline of a broad face as SVG path data in pixels: the near edge straight along the top, the far edge tapering. */
export function faceOutline(piece: Piece, scale: number): string {
  return `M0 0H${piece.length * scale}V${widthAt(piece, piece.length) * scale}L0 ${piece.width * scale}Z`;
}

/** A broad face of a piece of stock to scale, marked end at the left, near edge on top, with what lies on it. */
export function StockFace({ piece, species, scale, face, plain = false }: StockFaceProps) {
  const clip = useId();
  const body = useMemo(() => stockBody(piece), [piece]);
  return (
    <g>
      <clipPath id={clip}>
        <path d={faceOutline(piece, scale)} />
      </clipPath>
      <g clipPath={`url(#${clip})`}>
        <Wood x={0} y={0} scale={scale} species={species} body={body} side={face === 'up' ? 'top' : 'below'} />
      </g>
      {!plain &&
        piece.defects
          .filter((d) => d.face === 'through' || d.face === face)
          .map((d) => <DefectMark key={d.id} defect={d} scale={scale} />)}
      <path
        d={faceOutline(piece, scale)}
        className={classes.stockEdge}
        data-rough={piece.surface === 'rough' || undefined}
      />
    </g>
  );
}

/** A place on a face: hatched when it must be cut out, dashed when it may go underneath, dotted when it does no harm. */
export function DefectMark({ defect, scale }: { defect: Defect; scale: number }) {
  const [x, y, w, h] = [
    defect.from * scale,
    defect.across * scale,
    Math.max(2, defect.length * scale),
    Math.max(2, defect.width * scale),
  ];
  return (
    <g className={classes.defect} data-treatment={defect.treatment} data-kind={defect.kind}>
      <rect x={x} y={y} width={w} height={h} />
      {defect.treatment === 'cut' && <path d={`M${x} ${y}l${w} ${h}M${x} ${y + h}l${w} ${-h}`} />}
    </g>
  );
}
