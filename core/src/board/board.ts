import { z } from 'zod';
import { NOTHING_WORKED, workedSchema } from '../features/feature.ts';
import { MM_PER_INCH, type UnitSystem } from '../units/length.ts';
import { timeOfDaySchema } from '../shop/hours.ts';
import { lengthBetween } from '../units/lengthSchema.ts';
import { idSchema, lineOfText } from '../units/textSchema.ts';
import { seasonsSchema } from '../wood/moisture.ts';
import { boardHabitsSchema, NO_DIFFERENCES } from './differences.ts';
import { GREATEST_STRIP_COUNT, recipeSchema, stripsOf, type Strip } from './recipe.ts';

export const constructions = ['edge', 'face'] as const;

/**
 * Edge grain: strips stand on edge, their faces glued, so stock thickness shows and the rip decides board thickness.
 * Face grain: strips lie flat, their edges glued, so the rip shows and stock decides board thickness.
 */
export type Construction = (typeof constructions)[number];

const yesOrNo = z.boolean();

/** What the maker has decided about where strips come from. Ids of strips or pieces that are gone decide nothing. */
const cuttingWishesSchema = z.strictObject({
  /** This strip from that piece. */
  pins: z
    .array(z.strictObject({ strip: idSchema, piece: idSchema }))
    .max(2 * GREATEST_STRIP_COUNT, { error: 'must be fewer' }),
  /** Pieces that this board leaves alone. */
  bans: z.array(idSchema).max(5000, { error: 'must be fewer' }),
  /** Neighbouring strips that are ripped side by side from one blank, so that grain lines run on across the joint. */
  together: z
    .array(
      z
        .array(idSchema)
        .min(2, { error: 'must name at least two strips' })
        .max(GREATEST_STRIP_COUNT, { error: 'must be fewer' }),
    )
    .max(100, { error: 'must be fewer' }),
  /** Sections may come from the stock either way round: its thickness or the rip gives the width. */
  eitherWay: z.boolean(),
  /** Spares of every kind of strip, on top of the shop's habit for thin ones. */
  spares: z.int().min(0).max(10),
});

/** Nothing decided yet. */
export const NO_CUTTING_WISHES: z.infer<typeof cuttingWishesSchema> = {
  pins: [],
  bans: [],
  together: [],
  eitherWay: false,
  spares: 0,
};

/** How the board is glued, as far as the maker decided it. */
const gluingWishesSchema = z.strictObject({
  /** Sizes of the first groups, first strip to last; null lets Cadenza choose. Groups that do not add up to the strips decide nothing. */
  groups: z
    .array(z.int().min(1).max(GREATEST_STRIP_COUNT, { error: 'must be fewer' }))
    .max(GREATEST_STRIP_COUNT, { error: 'must be fewer' })
    .nullable(),
  /** A second pair of hands at the glue-up. */
  helper: yesOrNo,
});

/** A stop that the maker goes on with, knowing it; the note stays on the record. `strips` are those it was about, by id, none for the whole board; null is a stop that was gone on with wherever it stood. `part` is what else it was about, empty for nothing; null is whatever it was. */
const acceptedSchema = z.strictObject({
  rule: z.string().regex(/^[a-z-]{1,60}$/, { error: 'must be the id of a rule' }),
  strips: z.array(idSchema).max(GREATEST_STRIP_COUNT, { error: 'must be fewer' }).nullable(),
  part: z.string().max(200).nullable(),
  note: lineOfText(1, 300),
});
export type AcceptedStop = z.infer<typeof acceptedSchema>;

/** What a version of a board may differ in. Lengths in millimetres, finished sizes. */
const layoutShape = {
  construction: z.enum(constructions),
  length: lengthBetween(50, 3000),
  width: lengthBetween(30, 1500),
  thickness: lengthBetween(5, 150),
  /** Strips, and how they become the panel. */
  recipe: recipeSchema,
};

/** Another layout for the same board, set aside to be compared. */
const versionSchema = z.strictObject({ id: idSchema, name: lineOfText(1, 60), ...layoutShape });
export type BoardVersion = z.infer<typeof versionSchema>;

/** More versions than this nobody compares side by side. */
export const GREATEST_VERSION_COUNT = 11;

/** When a board is wanted, by the shop's calendar. */
const dueSchema = z.strictObject({
  day: z.iso.date({ error: 'must be a day such as 2026-12-24' }),
  /** Null for any time of that day. */
  time: timeOfDaySchema.nullable(),
  /** It shall be hardened by then and may be used; else it is dry to the touch, and what is to be known goes along on a note. */
  cured: yesOrNo,
});
export type DueDay = z.infer<typeof dueSchema>;

/** A step, one panel of it, that is done at a certain time or by somebody, because its maker wants it so. */
const pinSchema = z
  .strictObject({
    step: lineOfText(1, 200),
    copy: z.int().min(1).max(50),
    at: z.iso.datetime({ error: 'must be a date and time such as 2026-11-26T18:30:00Z' }).nullable(),
    person: idSchema.nullable(),
  })
  .refine((pin) => pin.at !== null || pin.person !== null, { path: ['at'], error: 'must be given, or a person' });
export type Pin = z.infer<typeof pinSchema>;

/** What the maker wants. Lengths in millimetres, finished sizes. */
export const boardSchema = z.strictObject({
  name: lineOfText(1, 120),
  use: lineOfText(0, 120),
  ...layoutShape,
  /** Equal boards to make. */
  count: z.int().min(1).max(50),
  cutting: cuttingWishesSchema,
  /** Air where the board will live; null is the shop's. */
  seasons: seasonsSchema.nullable(),
  /** Where this board is made in another way than the shop's. */
  differs: boardHabitsSchema,
  gluing: gluingWishesSchema,
  /** Boards of the batch that come out of one panel, end to end. */
  perPanel: z.int().min(1).max(50),
  /** Edges, corners, features and marks of each board, and what else comes from its panel. */
  worked: workedSchema,
  /** Ids of the shop's finishes, in the order they go on; null for those its schools say, none for bare wood. */
  finish: z
    .array(idSchema)
    .max(4, { error: 'must be at most 4 finishes' })
    .refine((ids) => new Set(ids).size === ids.length, { error: 'must name each finish once' })
    .nullable(),
  /** When it is given away or used; null for whenever. */
  due: dueSchema.nullable(),
  /** Steps that are to be done at a certain time, or by somebody. A step that is no longer there decides nothing. */
  pins: z.array(pinSchema).max(200),
  /** What is asked for one of them, in the shop's currency, without tax; null until somebody says. */
  price: z.number().min(0).max(10_000_000).nullable(),
  /** What is packed with it. */
  pack: z.array(lineOfText(1, 60)).max(12, { error: 'must be at most 12 things' }),
  accepted: z.array(acceptedSchema).max(50),
  /** Versions set aside beside the one that is worked on. */
  versions: z
    .array(versionSchema)
    .max(GREATEST_VERSION_COUNT, { error: `must be at most ${GREATEST_VERSION_COUNT} versions` })
    .refine((versions) => new Set(versions.map((v) => v.id)).size === versions.length, {
      error: 'must each have an id of their own',
    }),
});
export type Board = z.infer<typeof boardSchema>;

/** What nobody has decided yet about a new board. */
export const UNDECIDED = {
  cutting: NO_CUTTING_WISHES,
  seasons: null,
  differs: NO_DIFFERENCES,
  gluing: { groups: null, helper: false } as z.infer<typeof gluingWishesSchema>,
  perPanel: 1,
  worked: NOTHING_WORKED,
  finish: null as string[] | null,
  due: null as DueDay | null,
  pins: [] as Pin[],
  price: null as number | null,
  pack: [] as string[],
  accepted: [] as AcceptedStop[],
  versions: [] as BoardVersion[],
};

/** What a board is called until somebody says. */
export const NEW_BOARD_NAME = 'New board';

/** Common sizes to begin with (common practice), in round figures of each unit, mm. */
const NEW_SIZES: Readonly<Record<UnitSystem, Pick<Board, 'length' | 'width' | 'thickness'>>> = {
  metric: { length: 400, width: 250, thickness: 30 },
  inch: { length: 18 * MM_PER_INCH, width: 12 * MM_PER_INCH, thickness: 1.25 * MM_PER_INCH },
};

/** A new board of a common size, nothing laid out yet. @param system the units its maker reads */
export function newBoard(system: UnitSystem): Board {
  return {
    name: NEW_BOARD_NAME,
    use: '',
    construction: 'edge',
    ...NEW_SIZES[system],
    count: 1,
    recipe: [],
    ...UNDECIDED,
  };
}

/** Which side of the stock a strip shows. */
export function showsOf(construction: Construction, strip: Pick<Strip, 'rolled' | 'stack'>): 'edge' | 'face' {
  // What is resawn stands on edge: its sawn faces meet its neighbours.
  if (strip.stack !== null) return 'edge';
  return strip.rolled ? (construction === 'edge' ? 'face' : 'edge') : construction;
}

/** Width of the glued panel: the sum of its strips, mm. */
export function panelWidth(board: Pick<Board, 'recipe'>): number {
  return stripsOf(board).reduce((sum, strip) => sum + strip.width, 0);
}

/** Where each strip begins across the panel, mm from the first edge. */
export function stripTops(strips: readonly Pick<Strip, 'width'>[]): number[] {
  let top = 0;
  return strips.map((strip) => {
    const begins = top;
    top += strip.width;
    return begins;
  });
}
