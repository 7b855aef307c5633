import { clampCount } from '../shop/gluing.ts';
import { ofKind, type Instruction, type InstructionOf, type WorkKind } from './instruction.ts';

/** Minutes to make ready what an instruction needs, once a step, at the usual pace (common practice). */
const SET_UP: Partial<Record<Instruction['do'], number>> = {
  layOut: 10,
  slice: 10,
  layRows: 10,
  sawApart: 10,
  layParts: 5,
  layFrame: 5,
  flushEnds: 3,
  guard: 5,
  layBits: 5,
  cutStack: 3,
  layBack: 5,
  keys: 5,
  rehearse: 6,
  split: 3,
  remill: 4,
};

/** Minutes at the usual pace (common practice). */
const MINUTES = {
  laidStrip: 1,
  slice: 1.5,
  turnedSlice: 0.2,
  key: 1.5,
  rehearsedClamp: 0.5,
  rehearsedGlueUp: 2,
  splitPart: 2,
  laidBit: 0.3,
  milledStrip: 2,
  wipedSet: 2,
  spread: 4,
  scrapedWet: 3,
  scrapedSkinned: 5,
  scrapedHard: 6,
  flushedStrip: 2,
  trimmedEdge: 3,
  panelCut: 3,
  sneak: 3,
  corner: 4,
  drill: 1.5,
  drillSetUp: 3,
  handleSetUp: 5,
  mark: 10,
  inlay: 40,
  wettedBoard: 4,
  coat: 12,
  foot: 2,
  fitted: 4,
} as const;

const SCRAPED = { wet: MINUTES.scrapedWet, skinned: MINUTES.scrapedSkinned, hard: MINUTES.scrapedHard } as const;
/** A board has four corners. */
const CORNERS = 4;

/** What is worked into one board by hand; what a router, a saw or its stand-in does is told by the way that is taken. */
const WORKED: Readonly<Record<WorkKind, (figures: Record<string, number>) => number>> = {
  corners: () => CORNERS * MINUTES.corner,
  edge: () => 0,
  groove: () => 0,
  finger: () => 0,
  hole: ({ bores = 0 }) => bores * MINUTES.drill,
  handle: ({ bores = 0 }) => MINUTES.handleSetUp + bores * MINUTES.drill,
  footBores: ({ bores = 0 }) => MINUTES.drillSetUp + bores * MINUTES.drill,
  mark: ({ times = 1 }) => times * MINUTES.mark,
};

/** Minutes of each kind of instruction at the usual pace; 0 where the way that is taken tells them, or where nobody has to do anything. */
const BY_KIND: { [K in Instruction['do']]: (i: InstructionOf<K>) => number } = {
  crosscut: () => 0,
  flatten: () => 0,
  straighten: () => 0,
  rip: () => 0,
  resaw: () => 0,
  thickness: () => 0,
  joint: () => 0,
  cutBits: () => 0,
  sand: () => 0,
  resand: () => 0,
  wait: () => 0,
  fat: () => 0,
  lanes: () => 0,
  split: (i) => i.parts.length * MINUTES.splitPart,
  remill: (i) => i.parts.length * MINUTES.milledStrip,
  layOut: (i) => i.strips.length * MINUTES.laidStrip,
  slice: (i) => i.slices.length * MINUTES.slice,
  turn: (i) => i.parts.length * MINUTES.turnedSlice,
  layRows: (i) => i.rows.length * MINUTES.laidStrip,
  sawApart: () => MINUTES.panelCut,
  layParts: (i) => i.pieces.length * MINUTES.laidStrip,
  layFrame: (i) => i.strips.length * MINUTES.laidStrip,
  layBack: () => MINUTES.laidStrip,
  layBits: (i) => i.bits.length * MINUTES.laidBit,
  // Both ends, where anything comes off.
  cutStack: (i) => (i.off > 0 ? 2 * MINUTES.splitPart : 0),
  // Both ends of each.
  flushEnds: (i) => 2 * i.strips.length * MINUTES.splitPart,
  keys: (i) => i.joints * i.each * i.copies * MINUTES.key,
  rehearse: (i) => clampCount(i.clamps) * MINUTES.rehearsedClamp + i.glueUps * MINUTES.rehearsedGlueUp,
  wipe: () => MINUTES.wipedSet,
  glue: () => MINUTES.spread,
  scrape: (i) => i.parts.length * SCRAPED[i.when],
  // Four sides, glued hot, and sawn off again.
  guard: (i) => 4 * i.parts.length * MINUTES.flushedStrip,
  flush: (i) => i.strips.length * MINUTES.flushedStrip,
  trimEdge: (i) => i.parts.length * MINUTES.trimmedEdge,
  crosscutPanel: (i) => i.cuts.length * MINUTES.panelCut,
  sneak: (i) => i.parts.length * MINUTES.sneak,
  work: (i) => i.parts.length * WORKED[i.what](i.figures),
  inlay: (i) => i.parts.length * MINUTES.inlay,
  wet: (i) => i.parts.length * MINUTES.wettedBoard,
  coat: (i) => i.parts.length * i.coats * MINUTES.coat,
  fit: (i) => i.parts.length * i.count * MINUTES.fitted,
  feet: (i) => i.parts.length * i.count * MINUTES.foot,
};

/** Minutes that are the same however fast somebody works: oil drying off, and a glue-up, whose minutes have the person's pace in them already. */
function fixedMinutes(instructions: readonly Instruction[]): number {
  const drying = ofKind(instructions, 'wipe').reduce((sum, i) => sum + i.minutes, 0);
  return drying + ofKind(instructions, 'glue').reduce((sum, i) => sum + i.assemblyMinutes, 0);
}

/**
 * Hands-on minutes of a step, read off its instructions, beside those of the way that is taken.
 * @param pace the person's, 1 as usual
 */
export function handMinutes(instructions: readonly Instruction[], pace: number): number {
  const kinds = new Set(instructions.map((i) => i.do));
  const setUp = [...kinds].reduce((sum, kind) => sum + (SET_UP[kind] ?? 0), 0);
  // One table, one kind an entry: the compiler cannot see that an instruction meets its own.
  const worked = instructions.reduce((sum, i) => sum + (BY_KIND[i.do] as (one: Instruction) => number)(i), 0);
  return fixedMinutes(instructions) + (setUp + worked) * pace;
}
