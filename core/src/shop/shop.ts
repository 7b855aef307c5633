import { z } from 'zod';
import { lengthBetween, lineOfText } from '../units/lengthSchema.ts';
import { CLIMATES, seasonsSchema } from '../wood/moisture.ts';

function minutesBetween(least: number, greatest: number) {
  return z.number({ error: 'must be a number of minutes' })
    .min(least, { error: `must be at least ${least} min` }).max(greatest, { error: `must be at most ${greatest} min` });
}

const sawSchema = z.strictObject({
  /** Width of wood the blade turns to dust. */
  kerf: lengthBetween(0.5, 8),
  /** Thickest wood the raised blade cuts through. */
  cutDepth: lengthBetween(20, 200),
});

const crosscutSawSchema = z.strictObject({
  /** Of the saw that cuts planks to length: mitre saw, sled or track. */
  kerf: lengthBetween(0, 8),
});

const bandSawSchema = z.strictObject({
  kerf: lengthBetween(0.3, 5),
  /** Tallest piece under the guides, which is the widest strip that can be resawn. */
  resawHeight: lengthBetween(20, 600),
  /** Planed off each sawn face: the blade wanders. */
  clean: lengthBetween(0, 5),
});

const planerSchema = z.strictObject({
  /** Widest piece through jointer and planer. */
  width: lengthBetween(80, 1500),
  /** Greatest depth of one pass at half width or less; wider pieces get less (`passDepth`). */
  passDepth: lengthBetween(0.2, 6),
  /** Shortest piece the machine's manual allows. */
  leastLength: lengthBetween(50, 1000),
  /** Narrowest piece that is flattened on its own. */
  leastWidth: lengthBetween(5, 300),
  /** Thinnest it planes without a carrier board. */
  leastThickness: lengthBetween(1, 50),
  /** How far from each end of a panel the planer digs in. */
  snipe: lengthBetween(0, 200),
});

const glueSchema = z.strictObject({
  name: lineOfText(1, 60),
  /** From first spreading until everything must be under pressure, at 20 degrees C: open plus closed assembly. */
  assemblyMinutes: minutesBetween(1, 240),
  /** In clamps before the panel may be handled. */
  clampMinutes: minutesBetween(1, 2880),
});

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
  /** Bow, cup and twist taken out of rough stock, all together, until a piece is measured. */
  flattenRough: lengthBetween(0, 20),
  /** The same for stock that was surfaced before. */
  flattenSurfaced: lengthBetween(0, 20),
  /** Skimmed off each face of rough stock to clean it. */
  skimRough: lengthBetween(0, 5),
  skimSurfaced: lengthBetween(0, 5),
  /** Taken off the glued panel, both faces together, to make it flat: 1 to 3 mm usual. */
  panelFlatten: lengthBetween(0, 10),
  /** Taken off by sanding, both faces together. */
  sanding: lengthBetween(0, 6),
  /** Offcuts at least this long go back to the rack. */
  keepLength: lengthBetween(20, 2000),
  /** How far the treatment of the board's long edges (chamfer, round-over) reaches in. */
  edgeTreatment: lengthBetween(0, 60),
});

function amountUpTo(greatest: number) {
  return z.number({ error: 'must be a number' }).min(0, { error: 'must not be negative' }).max(greatest, { error: `must be at most ${greatest}` });
}

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
  spares: z.int({ error: 'must be a whole number' }).min(0, { error: 'must not be negative' }).max(5, { error: 'must be at most 5' }),
});

const paceSchema = z.strictObject({
  /** Spreading glue, minutes for a square metre of joint. */
  spreadMinutesPerM2: z.number({ error: 'must be a number' }).min(1, { error: 'must be at least 1' }).max(600, { error: 'must be at most 600' }),
  /** Setting one strip against its neighbour. */
  placeMinutes: minutesBetween(0, 30),
  /** Closing one clamp. */
  clampMinutes: minutesBetween(0, 30),
  /** One clamp for every so much panel length. */
  clampSpacing: lengthBetween(30, 1000),
  /** Share of the glue's time that is planned with; the rest is for surprises. */
  reserve: z.number({ error: 'must be a number' }).min(0.1, { error: 'must be at least 0.1' }).max(1, { error: 'must be at most 1' }),
});

/** The workshop: what its machines allow, which glue it uses, and its habits. Lengths in millimetres. */
export const shopSchema = z.strictObject({
  name: lineOfText(1, 80),
  /** ISO 4217 code of the currency prices are in. */
  currency: z.string().regex(/^[A-Z]{3}$/, { error: 'must be a three-letter currency code such as EUR' }),
  /** The table saw: it rips. */
  saw: sawSchema,
  crosscutSaw: crosscutSawSchema,
  /** Null in a shop without one: then nothing is resawn. */
  bandSaw: bandSawSchema.nullable(),
  planer: planerSchema,
  glue: glueSchema,
  habits: habitsSchema,
  cutting: cuttingSchema,
  pace: paceSchema,
  /** The air boards are made for when nothing else is said. */
  seasons: seasonsSchema,
});
export type Shop = z.infer<typeof shopSchema>;
export type Habits = Shop['habits'];

/**
 * A shop nobody has described yet: common-practice figures. With them 4/4 rough stock planes to 7/8 in (common practice), five
 * strips of a 16 to 18 in board fit one glue-up, and a 400 mm board gets 29 mm of length to spare (20 to 40 usual). Edges get a 1/8 in
 * round-over.
 */
export const DEFAULT_SHOP: Shop = {
  name: 'My shop',
  currency: 'EUR',
  saw: { kerf: 3, cutDepth: 80 },
  crosscutSaw: { kerf: 3 },
  bandSaw: { kerf: 1, resawHeight: 150, clean: 0.8 },
  planer: { width: 260, passDepth: 1.5, leastLength: 250, leastWidth: 20, leastThickness: 6, snipe: 10 },
  glue: { name: 'Type II wood glue', assemblyMinutes: 10, clampMinutes: 120 },
  habits: {
    stockEndTrim: 10, panelEndTrim: 8, creep: 3, panelEdgeTrim: 3, stockEdgeJoint: 2, glueEdgeJoint: 0.5,
    flattenRough: 1.6, flattenSurfaced: 0, skimRough: 0.8, skimSurfaced: 0.3, panelFlatten: 1.5, sanding: 0.5, keepLength: 250, edgeTreatment: 3.2,
  },
  cutting: { openPiece: 0.2, openPlank: 0.5, leftoverEach: 0.1, unpricedPerM3: 400, keepWidth: 40, sideShare: 0.5, spareBelow: 7, spares: 1 },
  pace: { spreadMinutesPerM2: 45, placeMinutes: 0.2, clampMinutes: 0.4, clampSpacing: 100, reserve: 0.7 },
  seasons: CLIMATES[0]!.seasons,
};

/** The pass at full planer width is this share of the pass at half width or less (common practice: halve it). */
const FULL_WIDTH_SHARE = 0.5;

/**
 * Greatest depth of one planer pass on a piece of a given width.
 * @param width of the piece, mm; above the planer's width the full-width figure is returned
 * @returns mm
 */
export function passDepth(planer: Shop['planer'], width: number): number {
  const share = Math.min(1, Math.max(0, (width / planer.width - 0.5) * 2));
  return planer.passDepth * (1 - share * (1 - FULL_WIDTH_SHARE));
}

/**
 * Number of planer passes for a removal, the last one light when there is more than one.
 * @returns a whole number; 0 when there is nothing to take off
 */
export function passCount(planer: Shop['planer'], width: number, removal: number): number {
  return removal <= 1e-6 ? 0 : Math.ceil(removal / passDepth(planer, width) - 1e-9);
}
