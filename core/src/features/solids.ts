import { isEnd, isSide } from './edge.ts';
import type { Feature, FeatureKind, FeatureOf, Worked } from './feature.ts';
import { grooveBands, halfOpening, type BoardSize } from './groove.ts';
import { circle, mapOutline, rectangle, type Outline } from './outline.ts';

/** Wood that a feature takes out of a board, as seen from above. */
export interface Solid {
  feature: string;
  kind: FeatureKind;
  /** What of the feature: a bore, a counterbore, a screw … */
  part: string;
  /** The first holds the others, which are left standing in it. */
  outlines: Outline[];
  /** Depths below the top face, mm. */
  from: number;
  to: number;
  /** It opens in an edge and so may touch it. */
  open: boolean;
}

/** What every feature of a board takes out of it; nothing for a feature that the board has no room for. */
export function solidsOf({ features }: Pick<Worked, 'features'>, size: BoardSize): Solid[] {
  return features.flatMap((f) => solidsOfFeature(f, size));
}

export function solidsOfFeature(feature: Feature, size: BoardSize): Solid[] {
  const { thickness } = size;
  const solid = (part: string, outlines: Outline[], from: number, to: number, open = false): Solid => ({
    feature: feature.id,
    kind: feature.kind,
    part,
    outlines,
    from,
    to,
    open,
  });
  const onFace = (side: 'top' | 'bottom', part: string, outlines: Outline[], depth: number, open = false) =>
    side === 'top' ? solid(part, outlines, 0, depth, open) : solid(part, outlines, thickness - depth, thickness, open);
  switch (feature.kind) {
    case 'groove': {
      const bands = grooveBands(feature, size);
      return bands.map((outlines, i) =>
        feature.spout && i === bands.length - 1
          ? onFace(feature.face, 'spout', outlines, feature.depth, true)
          : onFace(feature.face, 'groove', outlines, feature.depth),
      );
    }
    case 'finger': {
      const middle = thickness - feature.up;
      const [from, to] =
        feature.shape === 'cove' ? [middle - feature.bit / 2, middle + feature.bit / 2] : [middle, thickness];
      return onBoth(feature.on, size, (_long, across) =>
        rectangle(0, (across - feature.length) / 2, feature.depth, feature.length),
      ).map((o) => solid('hold', [o], from, to, true));
    }
    case 'hole':
      return onBoth(feature.on, size, (_long, across) =>
        rectangle(feature.inset, (across - feature.length) / 2, feature.width, feature.length, feature.width / 2),
      ).map((o) => solid('slot', [o], 0, thickness));
    case 'handle':
      return boreMiddles(feature).flatMap((shift) => {
        const bores = (diameter: number) =>
          onBoth(feature.on, size, (_long, across) => circle(feature.inset, across / 2 + shift, diameter));
        return [
          ...bores(feature.bore).map((o) => solid('bore', [o], 0, thickness)),
          ...(feature.sinkTop > 0
            ? bores(feature.counterbore).map((o) => onFace('top', 'counterbore', [o], feature.sinkTop))
            : []),
          ...(feature.sinkBottom > 0
            ? bores(feature.counterbore).map((o) => onFace('bottom', 'counterbore', [o], feature.sinkBottom))
            : []),
        ];
      });
    case 'feet':
      return footMiddles(feature, size).flatMap(([x, y]) => [
        ...(feature.boreDepth > 0 ? [onFace('bottom', 'bore', [circle(x, y, feature.bore)], feature.boreDepth)] : []),
        onFace('bottom', 'screw', [circle(x, y, feature.screw)], feature.boreDepth + feature.screwDepth),
      ]);
    case 'mark':
      if (isSide(feature.face)) {
        const { x, y, length, width, depth } = feature;
        const plan = isEnd(feature.face)
          ? rectangle(feature.face === 'left' ? 0 : size.length - depth, x - length / 2, depth, length)
          : rectangle(x - length / 2, feature.face === 'far' ? 0 : size.width - depth, length, depth);
        return [solid('mark', [plan], y - width / 2, y + width / 2, true)];
      }
      return [
        onFace(
          feature.face,
          'mark',
          [rectangle(feature.x - feature.length / 2, feature.y - feature.width / 2, feature.length, feature.width)],
          feature.depth,
        ),
      ];
  }
}

const boreMiddles = ({ bores, spacing }: FeatureOf<'handle'>): number[] =>
  bores === 1 ? [0] : [-spacing / 2, spacing / 2];

/** Where feet stand, from the left end and the far edge, mm. */
export function footMiddles({ count, inset }: FeatureOf<'feet'>, { length, width }: BoardSize): [number, number][] {
  const xs = count === 4 ? [inset, length - inset] : [inset, length / 2, length - inset];
  return xs.flatMap((x): [number, number][] => [
    [x, inset],
    [x, width - inset],
  ]);
}

/** The same at both ends or both long edges: drawn as at the left end, x away from the edge and y along it. */
function onBoth(
  on: 'ends' | 'sides',
  { length, width }: BoardSize,
  draw: (long: number, across: number) => Outline,
): Outline[] {
  if (on === 'ends') {
    const left = draw(length, width);
    return [left, mapOutline(left, ({ x, y }) => ({ x: length - x, y }), true)];
  }
  const atEnd = draw(width, length);
  const far = mapOutline(atEnd, ({ x, y }) => ({ x: y, y: x }), true);
  return [far, mapOutline(far, ({ x, y }) => ({ x, y: width - y }), true)];
}

/** Marks on a fence for a hollow that begins and ends before the corners: half of what the bit opens at the edge is beyond its middle at either end. As far from the middle of the bit as the board's leading end is past it at the beginning, and its trailing end before it at the end, mm. */
export function fenceMark({ on, length, bit, depth }: FeatureOf<'finger'>, size: BoardSize): number {
  return ((on === 'ends' ? size.width : size.length) - length) / 2 + halfOpening(bit, depth);
}
