import { z } from 'zod';
import { lengthBetween } from '../units/lengthSchema.ts';
import { idSchema, lineOfText } from '../units/textSchema.ts';
import { artSchema } from './art.ts';
import { cornersSchema, edgesSchema, SIDES } from './edge.ts';

const face = z.enum(['top', 'bottom'], { error: 'must be top or bottom' });
const pair = z.enum(['ends', 'sides'], { error: 'must be ends or sides' });
const diameter = lengthBetween(1, 60);

/** A groove round a face that catches juice, cut with a round-nose bit. */
export const grooveSchema = z.strictObject({
  kind: z.literal('groove'),
  id: idSchema,
  face,
  /** From the board's edge to the middle of the groove. */
  offset: lengthBetween(1, 500),
  /** Diameter of the bit. */
  bit: diameter,
  /** Where it is deepest. */
  depth: lengthBetween(0.5, 100),
  /** Radius of its corners, at the middle of the groove. */
  corner: lengthBetween(0, 300),
  /** Two leave a bridge of wood across the middle. */
  wells: z.union([z.literal(1), z.literal(2)], { error: 'must be 1 or 2' }),
  /** The end it is poured from; it falls that way by `fall` along the board. */
  spout: z.enum(['left', 'right'], { error: 'must be left or right' }).nullable(),
  fall: lengthBetween(0, 50),
});

/** Hollows under the hands, in the two ends or the two long edges. */
export const fingerHoldSchema = z.strictObject({
  kind: z.literal('finger'),
  id: idSchema,
  on: pair,
  shape: z.enum(['cove', 'bevel'], { error: 'must be cove or bevel' }),
  /** Diameter of the bit. */
  bit: diameter,
  /** Along the edge, from where it begins to where it ends. */
  length: lengthBetween(10, 1500),
  /** Into the edge. */
  depth: lengthBetween(1, 60),
  /** Middle of the hollow above the underside. */
  up: lengthBetween(0, 150),
});

/** Slots through the board to carry it by. */
export const handHoleSchema = z.strictObject({
  kind: z.literal('hole'),
  id: idSchema,
  on: pair,
  /** Along the edge it lies behind. */
  length: lengthBetween(10, 400),
  width: lengthBetween(5, 100),
  /** Wood between slot and edge. */
  inset: lengthBetween(1, 500),
});

/** Handles bolted through the board, with the heads sunk below and the feet of the handle let in above; or loops of rope through one bore each. */
export const handleSchema = z.strictObject({
  kind: z.literal('handle'),
  id: idSchema,
  on: pair,
  /** Bores of a handle: two of them, or one for a loop. */
  bores: z.union([z.literal(1), z.literal(2)], { error: 'must be 1 or 2' }),
  /** Between the middles of two bores. */
  spacing: lengthBetween(0, 600),
  bore: diameter,
  /** From the edge to the middle of the bores. */
  inset: lengthBetween(1, 500),
  /** Counterbores: their diameter, and how deep they are above and below; 0 where there is none. */
  counterbore: diameter,
  sinkTop: lengthBetween(0, 100),
  sinkBottom: lengthBetween(0, 100),
});

/** Screwed feet in shallow bores under the board. */
export const feetSchema = z.strictObject({
  kind: z.literal('feet'),
  id: idSchema,
  count: z.union([z.literal(4), z.literal(6)], { error: 'must be 4 or 6' }),
  /** From both edges to the middle of a corner foot. */
  inset: lengthBetween(1, 500),
  bore: diameter,
  boreDepth: lengthBetween(0, 60),
  screw: lengthBetween(1, 12),
  /** How far the screw goes in beyond the bottom of its bore. */
  screwDepth: lengthBetween(1, 100),
});

/** A mark on a face or a side: engraved, branded or cut for an inlay, inside a rectangle. */
export const markSchema = z.strictObject({
  kind: z.literal('mark'),
  id: idSchema,
  face: z.enum(['top', 'bottom', ...SIDES], { error: 'must be top, bottom, far, right, near or left' }),
  name: lineOfText(1, 60),
  method: z.enum(['laser', 'brand', 'router', 'inlay']),
  /** Middle of the rectangle. On a face from the left end and from the far edge; on a side along it, from the left end or the far edge, and down from the show side. */
  x: lengthBetween(0, 3000),
  y: lengthBetween(0, 1500),
  length: lengthBetween(2, 1000),
  width: lengthBetween(2, 1000),
  depth: lengthBetween(0.05, 20),
  /** What is drawn in it; null for a brand or a name that the machine knows. */
  art: artSchema.nullable(),
  /** Left for right, as for a stamp or the plug of an inlay. */
  mirror: z.boolean(),
  /** Closed shapes are cleared all over; otherwise every line is followed. */
  filled: z.boolean(),
  /** Angle of the V-bit of an inlay and its depths: of the pocket, and where the plug begins; for other methods the bit is `bit`. */
  bit: lengthBetween(0.05, 30),
  angle: z.number().min(10, { error: 'must be at least 10°' }).max(120, { error: 'must be at most 120°' }),
  plugStart: lengthBetween(0.1, 20),
  plugDepth: lengthBetween(0.2, 20),
});

export const featureSchema = z.discriminatedUnion(
  'kind',
  [grooveSchema, fingerHoldSchema, handHoleSchema, handleSchema, feetSchema, markSchema],
  { error: 'must be one of groove, finger, hole, handle, feet, mark' },
);
export type Feature = z.infer<typeof featureSchema>;
export type FeatureKind = Feature['kind'];
export type FeatureOf<K extends FeatureKind> = Extract<Feature, { kind: K }>;

/** More than a board has room for. */
export const GREATEST_FEATURE_COUNT = 20;

/** Another board that comes out of the same panel: only cut to size. */
export const otherSchema = z.strictObject({
  id: idSchema,
  name: lineOfText(1, 60),
  length: lengthBetween(30, 2000),
  width: lengthBetween(20, 1500),
});
export type OtherBoard = z.infer<typeof otherSchema>;

/** What is done to the flat panel beyond its size. */
export const workedSchema = z.strictObject({
  /** Null: every edge as the shop's habit has it. */
  edges: edgesSchema.nullable(),
  corners: cornersSchema,
  features: z
    .array(featureSchema)
    .max(GREATEST_FEATURE_COUNT)
    .refine((all) => new Set(all.map((f) => f.id)).size === all.length, { error: 'must each have an id of their own' }),
  /** Smaller boards from the first panel, which is glued longer for them. */
  others: z
    .array(otherSchema)
    .max(8)
    .refine((all) => new Set(all.map((o) => o.id)).size === all.length, { error: 'must each have an id of their own' }),
});
export type Worked = z.infer<typeof workedSchema>;

export const NOTHING_WORKED: Worked = {
  edges: null,
  corners: { kind: 'square', size: 0 },
  features: [],
  others: [],
};

export const FEATURE_NAMES: Readonly<Record<FeatureKind, string>> = {
  groove: 'Juice groove',
  finger: 'Finger holds',
  hole: 'Hand holes',
  handle: 'Handles',
  feet: 'Feet',
  mark: 'Mark',
};

/** A mark without a drawing; figures of an inlay as they are usually cut (common practice: 60 degrees, plug begun 1.5 mm down, 1 mm to spare for glue). */
export const UNDRAWN = {
  art: null,
  mirror: false,
  filled: false,
  bit: 1,
  angle: 60,
  plugStart: 1.5,
  plugDepth: 1.5,
} as const;
