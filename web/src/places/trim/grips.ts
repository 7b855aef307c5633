import { isEnd, isSide } from '#core/features/edge.ts';
import type { Feature } from '#core/features/feature.ts';
import type { BoardSize } from '#core/features/groove.ts';
import { GRIP_STEP, type Grip } from './GripHandle.tsx';

/** A grip of a feature. */
export interface FeatureGrip extends Grip {
  /** The feature with its grip at another place, as far as it can go there. */
  to(x: number, y: number): Feature;
}

const onGrid = (mm: number) => Math.round(mm / GRIP_STEP) * GRIP_STEP;
const atLeast = (mm: number, least: number) => Math.max(least, onGrid(mm));

/** Where a feature is taken hold of on the drawing of its board. */
export function gripOf(feature: Feature, { length, width }: BoardSize): FeatureGrip {
  const [middleX, middleY] = [length / 2, width / 2];
  switch (feature.kind) {
    case 'groove': {
      const most = Math.min(length, width) / 2 - 1;
      return {
        x: middleX,
        y: width - feature.offset,
        axis: 'y',
        label: 'Groove, in from the edge',
        value: feature.offset,
        to: (_x, y) => ({ ...feature, offset: Math.min(most, atLeast(width - y, 1)) }),
      };
    }
    case 'finger':
      return feature.on === 'ends'
        ? {
            x: feature.depth,
            y: middleY + feature.length / 2,
            axis: 'y',
            label: 'Finger holds, length',
            value: feature.length,
            to: (_x, y) => ({ ...feature, length: Math.min(width, atLeast(2 * (y - middleY), 10)) }),
          }
        : {
            x: middleX + feature.length / 2,
            y: width - feature.depth,
            axis: 'x',
            label: 'Finger holds, length',
            value: feature.length,
            to: (x) => ({ ...feature, length: Math.min(length, 1500, atLeast(2 * (x - middleX), 10)) }),
          };
    case 'hole':
      return feature.on === 'ends'
        ? {
            x: feature.inset + feature.width / 2,
            y: middleY,
            axis: 'x',
            label: 'Hand holes, wood to the edge',
            value: feature.inset,
            to: (x) => ({ ...feature, inset: Math.min(middleX, atLeast(x - feature.width / 2, 1)) }),
          }
        : {
            x: middleX,
            y: width - feature.inset - feature.width / 2,
            axis: 'y',
            label: 'Hand holes, wood to the edge',
            value: feature.inset,
            to: (_x, y) => ({ ...feature, inset: Math.min(middleY, atLeast(width - y - feature.width / 2, 1)) }),
          };
    case 'handle':
      return feature.on === 'ends'
        ? {
            x: feature.inset,
            y: middleY,
            axis: 'x',
            label: 'Handles, in from the edge',
            value: feature.inset,
            to: (x) => ({ ...feature, inset: Math.min(middleX, atLeast(x, 1)) }),
          }
        : {
            x: middleX,
            y: width - feature.inset,
            axis: 'y',
            label: 'Handles, in from the edge',
            value: feature.inset,
            to: (_x, y) => ({ ...feature, inset: Math.min(middleY, atLeast(width - y, 1)) }),
          };
    case 'feet':
      return {
        x: feature.inset,
        y: width - feature.inset,
        axis: 'x',
        label: 'Feet, in from both edges',
        value: feature.inset,
        to: (x) => ({ ...feature, inset: Math.min(middleX, middleY, atLeast(x, 1)) }),
      };
    case 'mark':
      if (isSide(feature.face)) {
        const [ends, run] = isEnd(feature.face) ? [true, width] : [false, length];
        const across = feature.face === 'right' ? length : feature.face === 'near' ? width : 0;
        return {
          x: ends ? across : feature.x,
          y: ends ? feature.x : across,
          axis: ends ? 'y' : 'x',
          label: `${feature.name}, middle along the side`,
          value: feature.x,
          to: (x, y) => ({
            ...feature,
            x: Math.min(run - feature.length / 2, atLeast(ends ? y : x, feature.length / 2)),
          }),
        };
      }
      return {
        x: feature.x,
        y: feature.y,
        axis: 'both',
        label: `${feature.name}, middle from the left end`,
        value: feature.x,
        to: (x, y) => ({
          ...feature,
          x: Math.min(length - feature.length / 2, atLeast(x, feature.length / 2)),
          y: Math.min(width - feature.width / 2, atLeast(y, feature.width / 2)),
        }),
      };
  }
}
