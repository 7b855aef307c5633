import { z } from 'zod';
import { lengthBetween, storedLength } from '../units/lengthSchema.ts';
import { idSchema, lineOfText } from '../units/textSchema.ts';

/** More than happens to a board in a life. */
export const MOST_FACTS = 10_000;

/** A rectangle on a panel, from its left end and its far edge, mm. */
const placeShape = {
  x: lengthBetween(0, 8000),
  y: lengthBetween(0, 1500),
  length: lengthBetween(1, 8000),
  width: lengthBetween(1, 1500),
};

/** A bad place found on the glued panel when it was flat. `id` is the place's own: what is found later about the same place has the same. */
export const spotSchema = z.strictObject({ id: idSchema, ...placeShape, what: lineOfText(1, 60) });
export type Spot = z.infer<typeof spotSchema>;

const factShape = {
  /** Made where it was noted, so that it arrives once however often it is sent. */
  id: idSchema,
  /** When it happened, by the clock of the device that noted it. */
  at: z.iso.datetime({ precision: 3, error: 'must be a date and time such as 2026-11-26T18:30:00.000Z' }),
  /** The device that noted it, by an id of its own making. */
  device: idSchema.optional(),
};
/** What of the board it happened to: the operation of the recipe that made it, and which of its copies, counted from 1. */
const thingShape = {
  thing: idSchema,
  copy: z.int().min(1).max(50),
};

/** The step at which it was noted, by its lasting id. */
const stepShape = { step: lineOfText(1, 200).optional() };

/** How far a thing was when it was measured: glued means out of its clamps, as it lay there; what was measured before anybody asked was that. */
export const STAGES = ['glued', 'flat', 'trimmed', 'finished'] as const;
export type Stage = (typeof STAGES)[number];

/** What is measured, between which limits: lengths in mm, moisture in percent of dry weight, weight in g. Diagonals are those of a face, from corner to corner; creep is by how much strips end out of line, snipe how far from an end a planer dug in, end trim what had to come off one end until it was sound. */
export const MEASURES = {
  length: { least: 1, greatest: 8000 },
  width: { least: 1, greatest: 1500 },
  thickness: { least: 0.5, greatest: 400 },
  diagonal: { least: 1, greatest: 8200 },
  otherDiagonal: { least: 1, greatest: 8200 },
  creep: { least: 0, greatest: 200 },
  snipe: { least: 0, greatest: 1000 },
  endTrim: { least: 0, greatest: 1000 },
  moisture: { least: 1, greatest: 60 },
  weight: { least: 1, greatest: 200_000 },
} as const;
export type Measured = keyof typeof MEASURES;
/** Those that are lengths. */
export type MeasuredLength = Exclude<Measured, 'moisture' | 'weight'>;
/** Those that say how a shop works, and nothing of how large a thing is. */
export const isHabitMeasured = (dimension: Measured): dimension is 'creep' | 'snipe' | 'endTrim' =>
  dimension === 'creep' || dimension === 'snipe' || dimension === 'endTrim';
export const isMeasuredLength = (dimension: Measured): dimension is MeasuredLength =>
  dimension !== 'moisture' && dimension !== 'weight';

/** What gave a figure: a rule or a tape read by eye, or an instrument that sent it. */
export const INSTRUMENTS = ['caliper', 'moistureMeter', 'scale'] as const;

/** A thing that was made has this size. Measured again at the same stage, the last measurement counts. */
const measuredSchema = z
  .strictObject({
    kind: z.literal('measured', { error: 'must be measured' }),
    ...factShape,
    ...thingShape,
    ...stepShape,
    stage: z.enum(STAGES).optional(),
    dimension: z.enum(Object.keys(MEASURES) as [Measured, ...Measured[]], {
      error: `must be one of ${Object.keys(MEASURES).join(', ')}`,
    }),
    value: z.number(),
    instrument: z.enum(INSTRUMENTS).optional(),
  })
  .superRefine(({ dimension, value }, context) => {
    const { least, greatest } = MEASURES[dimension];
    const fits = isMeasuredLength(dimension)
      ? lengthBetween(least, greatest)
      : z
          .number()
          .min(least, { error: `must be at least ${least} ${UNIT_OF[dimension]}` })
          .max(greatest, { error: `must be at most ${greatest} ${UNIT_OF[dimension]}` });
    for (const issue of fits.safeParse(value).error?.issues ?? [])
      context.addIssue({ code: 'custom', path: ['value'], message: issue.message });
  })
  .overwrite((fact) => (isMeasuredLength(fact.dimension) ? { ...fact, value: storedLength(fact.value) } : fact));

const UNIT_OF = { moisture: '%', weight: 'g' } as const;

/** The sides of a board. */
export const BOARD_SIDES = ['top', 'bottom', 'far', 'near', 'left', 'right'] as const;
export type BoardSide = (typeof BOARD_SIDES)[number];

const badPlaceSchema = z.strictObject({
  kind: z.literal('badPlace', { error: 'must be badPlace' }),
  ...factShape,
  ...thingShape,
  ...stepShape,
  spot: spotSchema,
  /** Of a place on a side of the board that is sanded out or filled: which side, and how deep it goes, mm. */
  side: z.enum(BOARD_SIDES).optional(),
  depth: lengthBetween(0.01, 50).optional(),
});

/** A step was done: of one that is done panel by panel, for this one. */
const doneSchema = z.strictObject({
  kind: z.literal('done', { error: 'must be done' }),
  ...factShape,
  step: stepShape.step.unwrap(),
  copy: thingShape.copy,
  /** Hands-on minutes that it took, where a clock ran. */
  minutes: z
    .number({ error: 'must be a number of minutes' })
    .min(0, { error: 'must not be negative' })
    .max(6000, { error: 'must be at most 6000 minutes' })
    .nullable(),
  /** What begins then and takes its time by itself, as the plan of then said: glue, oil, a rest. */
  wait: z
    .strictObject({
      minutes: z
        .number({ error: 'must be a number of minutes' })
        .min(0, { error: 'must not be negative' })
        .max(100_000, { error: 'must be at most 100000 minutes' }),
      for: lineOfText(1, 80),
    })
    .nullable()
    .optional(),
  /** Whose waits are over with it: the steps it came after, one panel of them or all. */
  ends: z
    .array(z.strictObject({ step: lineOfText(1, 200), copy: thingShape.copy.nullable() }))
    .max(200, { error: 'must be at most 200 steps' })
    .optional(),
});

/** Something that was made is no good: a strip, a row, a joint. */
const failedSchema = z.strictObject({
  kind: z.literal('failed', { error: 'must be failed' }),
  ...factShape,
  ...thingShape,
  ...stepShape,
  what: z.enum(['strip', 'slice', 'glueLine']),
  why: lineOfText(1, 120),
});

/** There is no more of something. */
const usedUpSchema = z.strictObject({
  kind: z.literal('usedUp', { error: 'must be usedUp' }),
  ...factShape,
  ...stepShape,
  what: z.enum(['glue', 'oil', 'wax', 'paper']),
});

/** Words. */
const noteSchema = z.strictObject({
  kind: z.literal('note', { error: 'must be note' }),
  ...factShape,
  ...stepShape,
  text: lineOfText(1, 500),
});

/** A picture was taken; it is kept beside the facts under its id. */
const pictureSchema = z.strictObject({
  kind: z.literal('picture', { error: 'must be picture' }),
  ...factShape,
  ...stepShape,
  picture: idSchema,
});

/** What was done about something that went wrong. */
export const WAYS_TAKEN = ['goOn', 'again', 'turnOver', 'shift', 'shorten', 'shallower', 'fill'] as const;
export type WayTaken = (typeof WAYS_TAKEN)[number];
const decidedSchema = z.strictObject({
  kind: z.literal('decided', { error: 'must be decided' }),
  ...factShape,
  about: idSchema,
  way: z.enum(WAYS_TAKEN),
});

/** An earlier fact was none. Taking back what takes back decides nothing: what is so after all is noted anew. */
const takenBackSchema = z.strictObject({
  kind: z.literal('takenBack', { error: 'must be takenBack' }),
  ...factShape,
  fact: idSchema,
});

const KINDS = [
  measuredSchema,
  badPlaceSchema,
  doneSchema,
  failedSchema,
  usedUpSchema,
  noteSchema,
  pictureSchema,
  decidedSchema,
  takenBackSchema,
] as const;

/** Something that happened at the bench: noted once, never edited, at most taken back by another one. */
export const factSchema = z.discriminatedUnion('kind', KINDS, {
  error: `must be one of ${KINDS.map((k) => k.shape.kind.value).join(', ')}`,
});
export type Fact = z.infer<typeof factSchema>;

/** All that happened to a board. */
export const factsSchema = z
  .array(factSchema)
  .max(MOST_FACTS, { error: `must be at most ${MOST_FACTS} facts` })
  .refine((all) => new Set(all.map((f) => f.id)).size === all.length, { error: 'must each have an id of their own' });
