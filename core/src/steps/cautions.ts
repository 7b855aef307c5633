import { say, type Phrase } from '../units/phrase.ts';
import type { OperationKind } from './operation.ts';

/** The line that ends every sheet: Cadenza plans, the machine's manual and training decide. */
export const DEFER_TO_MANUAL: Phrase =
  say`These cautions remind; they do not teach. The machine's manual, local rules and trained practice come first.`;

const PROTECTION = say`Eye, ear and dust protection; wood dust is harmful and some species sensitise.`;
const PLANING = say`Mind the machine's least length, width and thickness. A piece that rocks goes flat side down; never hands over the cutter.`;

const ROUTING = [say`Router: slow for large bits, shallow passes, feed against the turn of the bit, clamp the work, never linger.`, PROTECTION];

/** The usual cautions of each kind of step (common practice). */
const CAUTIONS: Partial<Record<OperationKind, Phrase[]>> = {
  crosscut: [say`Stop block well short of the blade: an offcut must never be trapped between blade and fence.`, PROTECTION],
  flatten: [PLANING, say`Keep the grain of each piece running the same way, or it tears out.`, PROTECTION],
  jointEdge: [PLANING],
  rip: [
    say`Riving knife and guard on, push stick or block in hand. No rough edge against the fence.`,
    say`Narrow or short strips: band saw, carrier, or a stop outside the blade; not freehand at the fence.`,
  ],
  planeStrips: [say`Thin strips can shatter: carry them on a flat board, light passes.`, PLANING],
  remill: [PLANING],
  jointStrips: [PLANING],
  resaw: [say`Push block and a tall fence; fingers never in line with the blade. A push stick finishes the cut.`, PROTECTION],
  glue: [say`Acetone, where it is used, burns and its vapour creeps along the floor: gloves, open door, no flame, no spark.`, say`Clamps are heavy and fall: take them off with one hand on the panel.`],
  flattenSections: [say`Scrape off every bead of dry glue before the knives meet it.`, PLANING, PROTECTION],
  flattenPanel: [say`Scrape off every bead of dry glue before the knives meet it.`, PROTECTION],
  trimEdges: [say`Riving knife and guard on; let no trimmed sliver be trapped between blade and fence.`],
  trimEnds: [say`Support the end of the cut so that the last corner does not tear out; stop block short of the blade.`],
  cutApart: [say`Support both sides of a long panel; stop block short of the blade.`, PROTECTION],
  edges: ROUTING,
  groove: ROUTING,
  holds: ROUTING,
  corners: [say`Jigsaw or band saw: the board clamped, fingers out of the line of the blade.`, PROTECTION],
  handles: [say`Drill from both faces, on a scrap: the bit must not break out.`],
  bores: [say`A stop on the bit; clamp the board.`],
  engrave: [say`A laser or a brand makes smoke: air and an extinguisher at hand, eyes as the machine's manual says; never leave it alone.`, PROTECTION],
  sand: [PROTECTION],
  raiseGrain: [PROTECTION],
  topCoat: [say`Rags with drying or hard-wax oils can ignite by themselves: lay them flat outdoors to dry, or keep them under water.`],
};

export function cautionsFor(kind: OperationKind): Phrase[] {
  return CAUTIONS[kind] ?? [];
}
