import { useMemo } from 'react';
import { sampleBody } from '#core/bodies/stripBody.ts';
import type { Species } from '#core/wood/species.ts';
import { Wood } from '../../drawing/Wood.tsx';

/** A small piece of the wood itself, lying flat. Sizes in mm and pixels. */
export function WoodSwatch({
  species,
  width = 72,
  height = 20,
  scale = 0.5,
}: {
  species: Species;
  width?: number;
  height?: number;
  scale?: number;
}) {
  const body = useMemo(() => sampleBody(null, 'face', [width / scale, height / scale, 20]), [width, height, scale]);
  return (
    <svg width={width} height={height} aria-hidden="true">
      <Wood x={0} y={0} scale={scale} species={species} body={body} stripId={species.code} side="top" />
      <rect x={0.5} y={0.5} width={width - 1} height={height - 1} fill="none" stroke="rgb(30 25 20 / 45%)" />
    </svg>
  );
}
