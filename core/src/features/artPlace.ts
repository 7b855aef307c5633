import type { FeatureOf } from './feature.ts';
import type { Outline } from './outline.ts';
import { type Art, artLines } from './art.ts';

type Mark = Pick<FeatureOf<'mark'>, 'x' | 'y' | 'length' | 'width' | 'mirror' | 'face'>;

/**
 * How a drawing lies in its mark: as large as fits its rectangle, in its middle. On the underside it reads right for who looks at the underside, so that seen through the board from above it is turned over.
 * @returns mm for one unit of the drawing along and across (negative where it is turned over), and where the drawing's middle lies
 */
export function artPlace(
  { x, y, length, width, mirror, face }: Mark,
  art: Pick<Art, 'length' | 'width'>,
): { along: number; across: number; x: number; y: number } {
  const scale = Math.min(length / art.length, width / art.width);
  // Who looks at the far edge or the right end from outside has what comes first on the right.
  const turned = mirror !== (face === 'far' || face === 'right');
  return { along: turned ? -scale : scale, across: face === 'bottom' ? -scale : scale, x, y };
}

/** The lines of a mark's drawing on its face, or on its side: along it and down from the show side; mm. */
export function artOutlines(mark: Mark, art: Art): Outline[] {
  const { along, across, x, y } = artPlace(mark, art);
  return artLines(art).map(({ points, closed }) => ({
    closed,
    vertices: points.map((p) => ({
      x: x + (p.x - art.length / 2) * along,
      y: y + (p.y - art.width / 2) * across,
      bulge: 0,
    })),
  }));
}
