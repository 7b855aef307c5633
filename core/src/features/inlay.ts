import type { FeatureOf } from './feature.ts';

/**
 * How the plug of a V-cut inlay sits in its pocket. Walls of both lean by half of the bit's angle; the plug's wall begins as wide as the pocket's mouth where it is `plugStart`
 * below its face, so it goes in by that much and then both walls touch all along.
 * @returns what is left for glue between the plug's face and the bottom of the pocket, what stands between the faces of board and plug, and how much smaller the pocket's bottom is on every side than its mouth; mm, negative where it cannot go in
 */
export function inlayFit({
  depth,
  angle,
  plugStart,
  plugDepth,
}: Pick<FeatureOf<'mark'>, 'depth' | 'angle' | 'plugStart' | 'plugDepth'>): {
  glueGap: number;
  faceGap: number;
  lean: number;
} {
  return { glueGap: depth - plugStart, faceGap: plugDepth, lean: depth * Math.tan((angle / 2) * (Math.PI / 180)) };
}
