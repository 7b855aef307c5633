import type { ToolId } from '../shop/tools.ts';
import { say, type Phrase } from '../units/phrase.ts';
import type { Instruction } from './instruction.ts';
import type { OperationKind } from './operation.ts';

/** The line that ends every sheet: Cadenza plans, the machine's manual and training decide. */
export const DEFER_TO_MANUAL: Phrase = say`These cautions remind; they do not teach. The machine's manual, local rules and trained practice come first.`;

const PROTECTION = say`Eye, ear and dust protection; wood dust is harmful and some species sensitise.`;
const PLANING = say`Mind the machine's least length, width and thickness. A piece that rocks goes flat side down; never hands over the cutter.`;

const ROUTING = [
  say`Router: slow for large bits, shallow passes, feed against the turn of the bit, clamp the work, never linger.`,
  PROTECTION,
];

const ACETONE = say`Acetone burns, and its vapour creeps along the floor: gloves, open door, no flame, no spark.`;

/** The usual cautions of each kind of step (common practice). */
const CAUTIONS: Partial<Record<OperationKind, Phrase[]>> = {
  crosscut: [PROTECTION],
  flatten: [PLANING, say`Keep the grain of each piece running the same way, or it tears out.`, PROTECTION],
  jointEdge: [PLANING],
  split: [
    say`A rough piece rocks: never along a table saw's fence. Hold it flat, and keep hands out of the line of the blade.`,
    PROTECTION,
  ],
  planeStrips: [say`Thin strips can shatter: carry them on a flat board, light passes.`, PLANING],
  remill: [PLANING],
  jointStrips: [PLANING],
  resaw: [PROTECTION],
  keys: [say`Clamp the strip, not the hand beside it; the cutter stands still before it is lifted.`, PROTECTION],
  inlay: ROUTING,
  join: [say`Clamps are heavy and fall: take them off with one hand on the panel.`],
  glue: [say`Clamps are heavy and fall: take them off with one hand on the panel.`],
  flattenSections: [say`Scrape off every bead of dry glue before the knives meet it.`, PLANING, PROTECTION],
  flattenPanel: [say`Scrape off every bead of dry glue before the knives meet it.`, PROTECTION],
  slice: [
    say`Stop block so that the slice falls free: never caught between blade and stop. The last slices have little to hold: clamp the rest down, or leave them.`,
    PROTECTION,
  ],
  cutBits: [
    say`Short bits: never held by hand, never between blade and stop. The strip is held, the bit falls free; clear the table with a stick, the blade standing still.`,
    PROTECTION,
  ],
  flattenStack: [
    say`A joint that opens in the machine throws bits: sound joints only, light passes, on a carrier board where it is thin.`,
    PLANING,
  ],
  cutStack: [PROTECTION],
  sawApart: [
    say`Support both sides of the cut: the part that falls must neither drop nor pinch the blade. At a slant the panel is held down, or clamped to its sled.`,
    PROTECTION,
  ],
  flushEnds: [say`What falls off is short: never held by hand beside the blade, never caught at a stop.`, PROTECTION],
  flushFrame: [PROTECTION],
  trimEnds: [say`Support the end of the cut so that the last corner does not tear out.`],
  cutApart: [say`Support both sides of a long panel.`, PROTECTION],
  edges: ROUTING,
  groove: ROUTING,
  holds: ROUTING,
  corners: [say`Jigsaw or band saw: the board clamped, fingers out of the line of the blade.`, PROTECTION],
  handles: [say`Drill from both faces, on a scrap: the bit must not break out.`],
  bores: [say`A stop on the bit; clamp the board.`],
  engrave: [
    say`A laser or a brand makes smoke: air and an extinguisher at hand, eyes as the machine's manual says; never leave it alone.`,
    PROTECTION,
  ],
  sand: [PROTECTION],
  raiseGrain: [PROTECTION],
};

/** What each saw asks for, however it is used (common practice). */
const SAW_CAUTIONS: Partial<Record<ToolId, Phrase>> = {
  tableSaw: say`Riving knife and guard on, push stick or block in hand. No rough edge against the fence, nothing thin between blade and fence.`,
  carrierSled: say`Riving knife and guard on; the piece held down on its carrier, both hands behind the blade.`,
  sled: say`Stop block well short of the blade: an offcut must never be trapped. Hands outside the marked lane of the sled.`,
  mitreSaw: say`The piece against fence and table; wait until the blade stands still before it comes up; an offcut must never be trapped at a stop.`,
  circularSaw: say`Work and guide clamped, the cable out of the way; the blade as deep as the wood and little more; let it stop before it is lifted.`,
  trackSaw: say`Work and track clamped or held fast; the blade as deep as the wood and little more; both hands on the saw.`,
  bandSaw: say`Guides just above the wood, push block or stick in hand; fingers never in line with the blade.`,
  handSaw: say`Work clamped; start with short strokes, the thumb well above the teeth.`,
};

const RAGS = say`Rags with drying or hard-wax oils can ignite by themselves: lay them flat outdoors to dry, or keep them under water.`;

/** The cautions of a step: those of its kind, and of the saws it is done with. */
export function cautionsFor(kind: OperationKind, instructions: readonly Instruction[]): Phrase[] {
  const saws = [...new Set(instructions.flatMap((i) => ('saw' in i ? [i.saw.tool] : [])))]
    .map((tool) => SAW_CAUTIONS[tool])
    .filter((c) => c !== undefined);
  return [
    ...(instructions.some((i) => i.do === 'wipe') ? [ACETONE] : []),
    ...(instructions.some((i) => i.do === 'coat' && i.ignites) ? [RAGS] : []),
    ...saws,
    ...(CAUTIONS[kind] ?? []),
  ];
}
