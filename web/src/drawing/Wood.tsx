import { memo, useCallback, useMemo, useState, useSyncExternalStore } from 'react';
import type { StripBody } from '#core/bodies/stripBody.ts';
import type { Species } from '#core/wood/species.ts';
import { woodPictures } from './wood/woodPictures.ts';
import { cutOf, logSource, paintRequest, type Side } from './wood/woodSide.ts';

interface WoodProps {
  /** Place of the upper left corner, pixels. */
  x: number;
  y: number;
  /** Pixels per mm. */
  scale: number;
  body: StripBody;
  /** Names the wood of a strip that has no piece yet. */
  stripId?: string;
  species: Species | undefined;
  side: Side;
  oiled?: boolean;
  /** Height shown, mm, where it differs from the body's, as while a joint is dragged. */
  shownWidth?: number;
  /** Painted before other wood on the page. */
  first?: boolean;
  /** Pixels of the picture for one of the drawing: printed sheets want more. */
  density?: number;
}

const UNKNOWN_COLOUR = '#b9bec4';
const MOST_DENSITY = 2;

/**
 * One side of a strip or piece, painted from what it is. Its picture comes a moment later; until then its colour, or while it changes the picture it had.
 */
export const Wood = memo(function Wood({
  x,
  y,
  scale,
  body,
  stripId = '',
  species,
  side,
  oiled = false,
  shownWidth,
  first = false,
  density,
}: WoodProps) {
  const pixels = density ?? Math.min(MOST_DENSITY, window.devicePixelRatio);
  const request = useMemo(() => {
    const made = paintRequest(logSource(body, stripId), species, cutOf(body, side), scale * pixels, oiled, first);
    woodPictures.ask(made);
    return made;
  }, [body, stripId, species, side, scale, pixels, oiled, first]);
  const subscribe = useCallback((told: () => void) => woodPictures.use(request, told), [request]);
  const url = useSyncExternalStore(subscribe, () => woodPictures.url(request.key));
  const [last, setLast] = useState<{ url: string; size: readonly [number, number] } | null>(null);
  if (url !== null && last?.url !== url) setLast({ url, size: request.cut.size });
  const width = request.cut.size[0];
  const height = shownWidth ?? request.cut.size[1];
  // Most of the time the picture is just what is shown: then it needs no frame of its own, which a drag over many strips can tell.
  if (last && shownWidth === undefined && last.size[0] === width && last.size[1] === height) {
    return (
      <image
        x={x}
        y={y}
        href={last.url}
        width={width * scale}
        height={height * scale}
        preserveAspectRatio="none"
        data-wood={request.key}
      />
    );
  }
  return (
    <svg
      x={x}
      y={y}
      width={Math.max(0, width * scale)}
      height={Math.max(0, height * scale)}
      overflow="hidden"
      aria-hidden="true"
    >
      <rect width="100%" height="100%" fill={species?.colour ?? UNKNOWN_COLOUR} />
      {last && (
        <image
          href={last.url}
          width={last.size[0] * scale}
          height={last.size[1] * scale}
          preserveAspectRatio="none"
          data-wood={request.key}
        />
      )}
    </svg>
  );
});
