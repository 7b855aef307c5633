import type { z } from 'zod';
import {
  feetSchema,
  fingerHoldSchema,
  grooveSchema,
  handHoleSchema,
  handleSchema,
  markSchema,
  UNDRAWN,
  type Feature,
  type FeatureKind,
  type FeatureOf,
} from '#core/features/feature.ts';
import { isEnd, isSide } from '#core/features/edge.ts';
import type { BoardSize } from '#core/features/groove.ts';

/** A figure of a feature, or a choice between a few. */
type Field = { key: string; label: string; when?(f: Feature): boolean } & (
  | { schema: z.ZodType<number> }
  | { choices: readonly { value: string | number | boolean | null; label: string }[] }
  | { text: z.ZodType<string> }
  | { degrees: z.ZodType<number> }
);

const ENDS = [
  { value: 'ends', label: 'Both ends' },
  { value: 'sides', label: 'Both long edges' },
] as const;
const FACES = [
  { value: 'top', label: 'Show side' },
  { value: 'bottom', label: 'Underside' },
] as const;
const [g, f, h, b, t, m] = [
  grooveSchema.shape,
  fingerHoldSchema.shape,
  handHoleSchema.shape,
  handleSchema.shape,
  feetSchema.shape,
  markSchema.shape,
];
const is =
  <K extends FeatureKind>(test: (feature: FeatureOf<K>) => boolean) =>
  (feature: Feature) =>
    test(feature as FeatureOf<K>);

const onSide = is<'mark'>((mark) => isSide(mark.face));
const onFace = is<'mark'>((mark) => !isSide(mark.face));
const isInlay = is<'mark'>((mark) => mark.method === 'inlay');

/** What can be set on each kind of feature, in the order it is thought of. */
export const FEATURE_FIELDS: Readonly<Record<FeatureKind, readonly Field[]>> = {
  groove: [
    { key: 'face', label: 'Groove on', choices: FACES },
    { key: 'offset', label: 'In from the edge', schema: g.offset },
    { key: 'bit', label: 'Round-nose bit', schema: g.bit },
    { key: 'depth', label: 'Depth', schema: g.depth },
    { key: 'corner', label: 'Corner radius', schema: g.corner },
    {
      key: 'wells',
      label: 'Wells',
      choices: [
        { value: 1, label: 'One' },
        { value: 2, label: 'Two' },
      ],
    },
    {
      key: 'spout',
      label: 'Pours',
      choices: [
        { value: null, label: 'Nowhere' },
        { value: 'left', label: 'Over the left end' },
        { value: 'right', label: 'Over the right end' },
      ],
    },
    { key: 'fall', label: 'Falls by', schema: g.fall, when: is<'groove'>((groove) => groove.spout !== null) },
  ],
  finger: [
    { key: 'on', label: 'Hold in', choices: ENDS },
    {
      key: 'shape',
      label: 'Shape',
      choices: [
        { value: 'cove', label: 'Cove' },
        { value: 'bevel', label: 'Bevel' },
      ],
    },
    { key: 'length', label: 'Length', schema: f.length },
    { key: 'bit', label: 'Bit', schema: f.bit },
    { key: 'depth', label: 'Into the edge', schema: f.depth },
    { key: 'up', label: 'Above the underside', schema: f.up },
  ],
  hole: [
    { key: 'on', label: 'Behind', choices: ENDS },
    { key: 'length', label: 'Length', schema: h.length },
    { key: 'width', label: 'Width', schema: h.width },
    { key: 'inset', label: 'Wood to the edge', schema: h.inset },
  ],
  handle: [
    { key: 'on', label: 'At', choices: ENDS },
    {
      key: 'bores',
      label: 'For',
      choices: [
        { value: 2, label: 'Handles, two bores each' },
        { value: 1, label: 'Loops, one bore each' },
      ],
    },
    { key: 'spacing', label: 'Between bores', schema: b.spacing, when: is<'handle'>((handle) => handle.bores === 2) },
    { key: 'bore', label: 'Bore', schema: b.bore },
    { key: 'inset', label: 'In from the edge', schema: b.inset },
    { key: 'counterbore', label: 'Counterbore', schema: b.counterbore },
    { key: 'sinkTop', label: 'Sunk above', schema: b.sinkTop },
    { key: 'sinkBottom', label: 'Sunk below', schema: b.sinkBottom },
  ],
  feet: [
    {
      key: 'count',
      label: 'How many',
      choices: [
        { value: 4, label: '4' },
        { value: 6, label: '6' },
      ],
    },
    { key: 'inset', label: 'In from both edges', schema: t.inset },
    { key: 'bore', label: 'Bore', schema: t.bore },
    { key: 'boreDepth', label: 'Bore depth', schema: t.boreDepth },
    { key: 'screw', label: 'Screw', schema: t.screw },
    { key: 'screwDepth', label: 'Screw into the wood', schema: t.screwDepth },
  ],
  mark: [
    { key: 'name', label: 'What it says', text: m.name },
    {
      key: 'face',
      label: 'Mark on',
      choices: [
        ...FACES,
        { value: 'near', label: 'Near edge' },
        { value: 'far', label: 'Far edge' },
        { value: 'left', label: 'Left end' },
        { value: 'right', label: 'Right end' },
      ],
    },
    {
      key: 'method',
      label: 'Made by',
      choices: [
        { value: 'laser', label: 'Engraver' },
        { value: 'brand', label: 'Branding iron' },
        { value: 'router', label: 'Router' },
        { value: 'inlay', label: 'Inlay with a V-bit' },
      ],
    },
    { key: 'x', label: 'Middle from the left end', schema: m.x, when: onFace },
    { key: 'y', label: 'Middle from the far edge', schema: m.y, when: onFace },
    { key: 'x', label: 'Middle along the side', schema: m.x, when: onSide },
    { key: 'y', label: 'Middle below the show side', schema: m.y, when: onSide },
    { key: 'length', label: 'Length', schema: m.length },
    { key: 'width', label: 'Width', schema: m.width },
    { key: 'depth', label: 'Depth', schema: m.depth },
    {
      key: 'mirror',
      label: 'Lies',
      choices: [
        { value: false, label: 'As drawn' },
        { value: true, label: 'Mirrored' },
      ],
    },
    {
      key: 'filled',
      label: 'Cut',
      choices: [
        { value: false, label: 'Its lines' },
        { value: true, label: 'Its shapes, all over' },
      ],
      when: is<'mark'>((mark) => mark.art !== null && (mark.method === 'router' || mark.method === 'laser')),
    },
    { key: 'bit', label: 'Bit or line', schema: m.bit, when: is<'mark'>((mark) => mark.method !== 'brand') },
    { key: 'angle', label: 'V-bit angle', degrees: m.angle, when: isInlay },
    { key: 'plugStart', label: 'Plug begins', schema: m.plugStart, when: isInlay },
    { key: 'plugDepth', label: 'Plug cut further', schema: m.plugDepth, when: isInlay },
  ],
};

const inHalves = (mm: number) => Math.round(mm * 2) / 2;

/** A new feature of a kind, of usual size (common practice: groove about 1 in in, finger cove 1/2 in, feet in shallow bores), smaller where the board is small. */
export function newFeature(kind: FeatureKind, id: string, { length, width, thickness }: BoardSize): Feature {
  const short = Math.min(length, width);
  switch (kind) {
    case 'groove':
      return {
        kind,
        id,
        face: 'top',
        offset: inHalves(Math.min(25.4, short / 5)),
        bit: 12.7,
        depth: inHalves(Math.min(8, thickness / 4)),
        corner: 20,
        wells: 1,
        spout: null,
        fall: 0,
      };
    case 'finger':
      return {
        kind,
        id,
        on: 'ends',
        shape: 'cove',
        bit: 12.7,
        length: inHalves(Math.min(90, width / 2)),
        depth: 8,
        up: inHalves(thickness / 2),
      };
    case 'hole':
      return { kind, id, on: 'ends', length: inHalves(Math.min(95, width / 2)), width: 28, inset: 25 };
    case 'handle':
      return {
        kind,
        id,
        on: 'ends',
        bores: 2,
        spacing: inHalves(Math.min(128, width / 2)),
        bore: 5,
        inset: 30,
        counterbore: 12,
        sinkTop: 0,
        sinkBottom: inHalves(Math.min(8, thickness / 4)),
      };
    case 'feet':
      return {
        kind,
        id,
        count: 4,
        inset: inHalves(Math.min(40, short / 4)),
        bore: 20,
        boreDepth: 2,
        screw: 4,
        screwDepth: inHalves(Math.max(1, Math.min(15, thickness / 2))),
      };
    case 'mark':
      return {
        kind,
        id,
        face: 'bottom',
        name: 'Mark',
        method: 'brand',
        x: inHalves(length / 2),
        y: inHalves(width / 2),
        length: inHalves(Math.min(80, length / 3)),
        width: inHalves(Math.min(25, width / 5)),
        depth: 1,
        ...UNDRAWN,
      };
  }
}

/** A mark moved to the middle of another face or side, no larger than it. */
export function markOnto(
  mark: FeatureOf<'mark'>,
  face: FeatureOf<'mark'>['face'],
  { length, width, thickness }: BoardSize,
): FeatureOf<'mark'> {
  const [run, across] = isSide(face) ? [isEnd(face) ? width : length, thickness] : [length, width];
  const scale = Math.min(1, (run * 0.9) / mark.length, (across * 0.8) / mark.width);
  return {
    ...mark,
    face,
    x: inHalves(run / 2),
    y: inHalves(across / 2),
    length: Math.max(2, inHalves(mark.length * scale)),
    width: Math.max(2, inHalves(mark.width * scale)),
  };
}
