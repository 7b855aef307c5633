import { memo, useId, useMemo } from 'react';
import type { RingOrientation } from '#core/wood/rings.ts';
import type { Species } from '#core/wood/species.ts';
import { endRings, faceFigure } from './woodFigure.ts';

/** Drawn for wood whose species is not known any more. */
const UNKNOWN = { colour: '#b9bec4', lineColour: '#8d949c' };

interface BoxProps {
  x: number;
  y: number;
  /** Pixels per mm. */
  scale: number;
  species: Species | undefined;
  rings: RingOrientation;
  seed: string;
}

interface FaceProps extends BoxProps {
  length: number;
  width: number;
  face: 'edge' | 'broad';
}

/** A strip or piece seen from above, lying along x, drawn from what it is. Sizes in mm, position in pixels. */
export const WoodFace = memo(function WoodFace({ x, y, scale, species, rings, seed, length, width, face }: FaceProps) {
  const clip = useId();
  const figure = useMemo(() => faceFigure(seed, length, width, face, rings), [seed, length, width, face, rings]);
  const { colour, lineColour } = species ?? UNKNOWN;
  return (
    <g transform={`translate(${x} ${y}) scale(${scale})`}>
      <clipPath id={clip}><rect width={length} height={width} /></clipPath>
      <rect width={length} height={width} fill={colour} />
      <path d={figure} clipPath={`url(#${clip})`} fill="none" stroke={lineColour} strokeWidth={0.55} strokeOpacity={0.75} />
    </g>
  );
});

interface EndProps extends BoxProps {
  /** Size along x and y, mm. */
  across: number;
  up: number;
  turned: boolean;
}

/** The end of a strip or piece with its growth rings. Sizes in mm, position in pixels. */
export const WoodEnd = memo(function WoodEnd({ x, y, scale, species, rings, seed, across, up, turned }: EndProps) {
  const clip = useId();
  const figure = useMemo(() => endRings(seed, across, up, rings, turned), [seed, across, up, rings, turned]);
  const { colour, lineColour } = species ?? UNKNOWN;
  return (
    <g transform={`translate(${x} ${y}) scale(${scale})`}>
      <clipPath id={clip}><rect width={across} height={up} /></clipPath>
      <rect width={across} height={up} fill={colour} />
      <path d={figure} clipPath={`url(#${clip})`} fill="none" stroke={lineColour} strokeWidth={0.6} />
    </g>
  );
});
