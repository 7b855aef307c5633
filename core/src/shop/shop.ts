import { firstOf, nth } from '../lists/there.ts';
import { z } from 'zod';
import { lengthBetween } from '../units/lengthSchema.ts';
import { lineOfText, textOfLines } from '../units/textSchema.ts';
import { airSchema, CLIMATES, seasonsSchema } from '../wood/moisture.ts';
import { clampSchema, glueSchema, USUAL_GLUES, type Glue } from './gluing.ts';
import {
  bandSawSchema,
  crosscutSawSchema,
  drumSanderSchema,
  handToolsSchema,
  jointerSchema,
  planerSchema,
  routerSchema,
  routerSledSchema,
  sawSchema,
} from './machines.ts';
import { bathSchema, finishSchema, USUAL_FINISHES } from './finishes.ts';
import { awaySchema, openTooSchema, weekSchema, type DayHours } from './hours.ts';
import { ONE_PERSON, peopleSchema, spaceSchema, zoneSchema } from './people.ts';
import { NO_PRICES, pricesSchema } from './prices.ts';
import { amountUpTo, minutesBetween, wholeUpTo } from './quantity.ts';
import { schoolsSchema, USUAL_SCHOOLS } from './schools.ts';

/**
 * Habits that decide allowances. Each is a school with a reason; a step that a habit decided says so. Defaults are common
 * practice unless said otherwise.
 */
const habitsSchema = z.strictObject({
  /** Off each end of a stock piece first: checks and the last owner's snipe. */
  stockEndTrim: lengthBetween(0, 200),
  /** Off each end of the glued panel, at least; snipe may ask for more. */
  panelEndTrim: lengthBetween(0, 100),
  /** Strips creep in the clamps; the panel is this much shorter where all of them lie. */
  creep: lengthBetween(0, 20),
  /** Off each long edge of the panel. */
  panelEdgeTrim: lengthBetween(0, 50),
  /** One edge of stock straightened before the first rip. */
  stockEdgeJoint: lengthBetween(0, 30),
  /** Off each ripped edge that will be glued (face grain). */
  glueEdgeJoint: lengthBetween(0, 5),
  /** How much fatter strips are ripped that will rest and be milled again. */
  ripFat: lengthBetween(0, 20),
  /** Bow, cup and twist taken out of rough stock, all together, until a piece is measured. */
  flattenRough: lengthBetween(0, 20),
  /** The same for stock that was surfaced before. */
  flattenSurfaced: lengthBetween(0, 20),
  /** Skimmed off each face of rough stock to clean it. */
  skimRough: lengthBetween(0, 5),
  skimSurfaced: lengthBetween(0, 5),
  /** Taken off the glued panel, both faces together, to make it flat: 1 to 3 mm usual. */
  panelFlatten: lengthBetween(0, 10),
  /** The same off a board of end grain, whose rows never lie level and which is worked slower: 2 to 3 mm usual. */
  endGrainFlatten: lengthBetween(0, 10),
  /** Taken off by sanding, both faces together. */
  sanding: lengthBetween(0, 6),
  /** Offcuts at least this long go back to the rack. */
  keepLength: lengthBetween(20, 2000),
  /** How far the treatment of the board's long edges (chamfer, round-over) reaches in. */
  edgeTreatment: lengthBetween(0, 60),
  /** Wood left beneath a groove, a bore or a mark, at least. */
  leaveBeneath: lengthBetween(0, 50),
  /** Wood left between two features, and between a feature and the treated edge, at least. */
  leaveBeside: lengthBetween(0, 50),
});

/** How the cut plan weighs one choice against another. Amounts in the shop's currency: what a maker would pay to avoid it. */
const cuttingSchema = z.strictObject({
  /** Taking one more piece to the saw. */
  openPiece: amountUpTo(1000),
  /** Cutting into a bought plank rather than an offcut or salvage, on top of that. */
  openPlank: amountUpTo(1000),
  /** Carrying one more leftover back to the rack: one long one is better than two short ones. */
  leftoverEach: amountUpTo(1000),
  /** What wood without a price counts as, a cubic metre. */
  unpricedPerM3: amountUpTo(100_000),
  /** Narrowest offcut beside the rips that goes back to the rack; it must be at least the keep length long. */
  keepWidth: lengthBetween(10, 1000),
  /** Share of its wood's value that such an offcut still counts for. */
  sideShare: amountUpTo(1),
  /** Strips up to this thin get spares: a blade wanders. */
  spareBelow: lengthBetween(0, 50),
  /** How many spares each kind of thin strip gets. */
  spares: wholeUpTo(5),
});

const paceSchema = z.strictObject({
  /** Spreading glue, minutes for a square metre of joint. */
  spreadMinutesPerM2: z.number().min(1).max(600),
  /** Setting one strip against its neighbour. */
  placeMinutes: minutesBetween(0, 30),
  /** Closing one clamp. */
  clampMinutes: minutesBetween(0, 30),
  /** One clamp for every so much panel length. */
  clampSpacing: lengthBetween(30, 1000),
  /** Where the outermost clamps stand from the ends of the panel. */
  clampInset: lengthBetween(0, 200),
  /** Share of the time that spreading and placing take with a second pair of hands. */
  helperShare: z.number().min(0.3).max(1),
  /** Minutes of one's own for one of the usual pace. */
  work: z.number().min(0.2).max(10),
  /** Share of the glue's time that is planned with; the rest is for surprises. */
  reserve: z.number().min(0.1).max(1),
});

/** Coarser and finer paper than these is for floors and for lacquer. */
const gritListSchema = z
  .array(z.int().min(24).max(3000))
  .min(1, { error: 'must name at least one grit' })
  .max(12, { error: 'must be at most 12 grits' })
  .refine((grits) => grits.every((g, i) => i === 0 || g > nth(grits, i - 1)), {
    error: 'must go from coarse to fine, each grit once',
  });

/** The workshop: what its machines allow, which glues and clamps it has, its hours and its habits. Lengths in millimetres. */
export const shopSchema = z
  .strictObject({
    name: lineOfText(1, 80),
    /** ISO 4217 code of the currency prices are in. */
    currency: z.string().regex(/^[A-Z]{3}$/, { error: 'must be a three-letter currency code such as EUR' }),
    /** The saw that rips. */
    saw: sawSchema,
    crosscutSaw: crosscutSawSchema,
    /** Null in a shop without one, like every machine below: then nothing is resawn. */
    bandSaw: bandSawSchema.nullable(),
    jointer: jointerSchema.nullable(),
    planer: planerSchema.nullable(),
    drumSander: drumSanderSchema.nullable(),
    routerSled: routerSledSchema.nullable(),
    router: routerSchema.nullable(),
    handTools: handToolsSchema,
    clamps: z.array(clampSchema).max(40, { error: 'must be at most 40 kinds' }),
    glues: z.array(glueSchema).min(1, { error: 'must name at least one glue' }).max(20),
    /** Id of the glue that boards are glued with unless they say otherwise. */
    glue: z.string({ error: 'must be chosen' }),
    /** Monday to Sunday. */
    hours: weekSchema,
    zone: zoneSchema,
    people: peopleSchema,
    away: awaySchema,
    /** Evenings more; everybody comes then. */
    openToo: openTooSchema,
    space: spaceSchema,
    prices: pricesSchema,
    /** The room as it is now. */
    room: airSchema,
    habits: habitsSchema,
    schools: schoolsSchema,
    /** Grits that panels are sanded with, first to last; null lets Cadenza choose from how they were made flat to the last grit. */
    grits: gritListSchema.nullable(),
    /** Papers in the drawer, coarse to fine; null for any. */
    papers: gritListSchema.nullable(),
    finishes: z.array(finishSchema).min(1, { error: 'must name at least one finish' }).max(20),
    /** The tray that boards are soaked in; null in a shop without one. */
    bath: bathSchema.nullable(),
    /** What the shop tells owners beside what follows from wood and finish; empty for nothing. */
    careWords: textOfLines(2000),
    cutting: cuttingSchema,
    pace: paceSchema,
    /** The air boards are made for when nothing else is said. */
    seasons: seasonsSchema,
  })
  .superRefine((shop, context) => {
    if (!shop.glues.some((g) => g.id === shop.glue))
      context.addIssue({ code: 'custom', path: ['glue'], message: "must be one of the shop's glues" });
    for (const list of ['glues', 'clamps', 'finishes', 'people'] as const) {
      if (new Set(shop[list].map((one) => one.id)).size < shop[list].length)
        context.addIssue({ code: 'custom', path: [list], message: 'must each have an id of their own' });
    }
    if (shop.hours.every((day) => day === null))
      context.addIssue({
        code: 'custom',
        path: ['hours'],
        message: 'must have at least one day on which the shop is open: nothing could ever be finished',
      });
    if (shop.people.every((p) => p.hours?.every((day) => day === null)))
      context.addIssue({
        code: 'custom',
        path: ['people'],
        message: 'must have somebody who comes on at least one day: nothing could ever be finished',
      });
    shop.away.forEach(({ person }, i) => {
      if (person !== null && !shop.people.some((p) => p.id === person))
        context.addIssue({
          code: 'custom',
          path: ['away', i, 'person'],
          message: 'must be one of those who work here',
        });
    });
  });
export type Shop = z.infer<typeof shopSchema>;
export type Habits = Shop['habits'];

/** The glue that the shop glues with. */
export function glueOf(shop: Pick<Shop, 'glue' | 'glues'>): Glue {
  return shop.glues.find((g) => g.id === shop.glue) ?? firstOf(shop.glues);
}

const WEEKDAY: DayHours = { from: '09:00', to: '18:00' };

/**
 * A shop nobody has described yet: common-practice figures. With them 4/4 rough stock planes to 7/8 in (common practice), five
 * strips of a 16 to 18 in board fit one glue-up, and a 400 mm board gets 29 mm of length to spare (20 to 40 usual). Edges get a 1/8 in
 * round-over. A pipe clamp turned by a firm hand gives about 4.5 kN (1000 lbf, common practice).
 */
export const DEFAULT_SHOP: Shop = {
  name: 'My shop',
  currency: 'EUR',
  saw: { kind: 'table', kerf: 3, cutDepth: 80 },
  crosscutSaw: { kind: 'sled', kerf: 3 },
  bandSaw: { kerf: 1, resawHeight: 150, clean: 0.8 },
  jointer: { width: 260, passDepth: 1.5, leastLength: 250 },
  planer: {
    width: 260,
    passDepth: 1.5,
    leastLength: 250,
    leastWidth: 20,
    leastThickness: 6,
    snipe: 10,
    head: 'straight',
  },
  drumSander: null,
  routerSled: null,
  router: { base: 150 },
  handTools: { planes: true, beltSander: false, orbitalSander: true },
  clamps: [{ id: 'pipe', kind: 'pipe', opening: 900, reach: 45, force: 4.5, count: 8 }],
  glues: [...USUAL_GLUES],
  glue: 'water-resistant',
  hours: [WEEKDAY, WEEKDAY, WEEKDAY, WEEKDAY, WEEKDAY, { from: '10:00', to: '16:00' }, null],
  zone: null,
  people: [...ONE_PERSON],
  away: [],
  openToo: [],
  space: { glueUps: null, drying: null },
  prices: NO_PRICES,
  room: { temperature: 20, humidity: 50 },
  habits: {
    stockEndTrim: 10,
    panelEndTrim: 8,
    creep: 3,
    panelEdgeTrim: 3,
    stockEdgeJoint: 2,
    glueEdgeJoint: 0.5,
    ripFat: 6,
    flattenRough: 1.6,
    flattenSurfaced: 0,
    skimRough: 0.8,
    skimSurfaced: 0.3,
    panelFlatten: 1.5,
    endGrainFlatten: 2.5,
    sanding: 0.5,
    keepLength: 250,
    edgeTreatment: 3.2,
    leaveBeneath: 10,
    leaveBeside: 6,
  },
  schools: USUAL_SCHOOLS,
  grits: null,
  papers: null,
  finishes: [...USUAL_FINISHES],
  bath: null,
  careWords: '',
  cutting: {
    openPiece: 0.2,
    openPlank: 0.5,
    leftoverEach: 0.1,
    unpricedPerM3: 400,
    keepWidth: 40,
    sideShare: 0.5,
    spareBelow: 7,
    spares: 1,
  },
  pace: {
    spreadMinutesPerM2: 45,
    placeMinutes: 0.2,
    clampMinutes: 0.4,
    clampSpacing: 100,
    clampInset: 40,
    reserve: 0.7,
    helperShare: 0.6,
    work: 1,
  },
  seasons: firstOf(CLIMATES).seasons,
};

/** A kitchen table: a circular saw on a guide, an orbital sander, four clamps. A plan for it must be as honest as any other. */
export const BARE_SHOP: Shop = {
  ...DEFAULT_SHOP,
  name: 'Kitchen table',
  saw: { kind: 'circular', kerf: 2.4, cutDepth: 60 },
  crosscutSaw: { kind: 'circular', kerf: 2.4 },
  bandSaw: null,
  jointer: null,
  planer: null,
  router: null,
  handTools: { planes: false, beltSander: false, orbitalSander: true },
  clamps: [{ id: 'f', kind: 'f', opening: 600, reach: 80, force: 2.5, count: 4 }],
  schools: { ...USUAL_SCHOOLS, straightEdge: 'stuck', flatten: 'orbital', thin: 'fat' },
};
