import { stripsOf } from '../board/recipe.ts';
import { cornersMissBy, SEEN_MM } from '../board/corners.ts';
import type { Recut } from '../board/recut.ts';
import { ofKind } from '../steps/instruction.ts';
import { slicesHardToHold } from '../steps/sliceSteps.ts';
import { length, say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';

/** Cut flatter than this the faces that are glued are nearly all end grain, degrees (common practice). */
export const WEAK_ANGLE = 25;
/** Rows thinner than this break along the grain when they are clamped or dropped, mm (common practice: 3/8 in). */
const THIN_ROW_MM = 10;

/** What holds rows together, and whether their corners meet. */
export const recutJoints: Rule = (plan, { board, species }) => {
  const { recut } = plan;
  if (!recut) return [];
  const found: Found[] = [];
  if (!recut.up && Math.abs(recut.angle) < WEAK_ANGLE)
    found.push({
      rule: 'end-grain-joint',
      severity: 'stop',
      strips: [],
      at: 'layRows',
      what: say`Cut at ${Math.abs(recut.angle)}° and not turned up, slices are glued end grain to end grain.`,
      why: say`Such a joint has a fraction of the strength of long grain: the board breaks at it.`,
      waysOut: [say`Turn the slices up.`, say`Cut at ${WEAK_ANGLE}° or more.`],
      source: 'common practice',
    });
  if (recut.row < THIN_ROW_MM)
    found.push({
      rule: 'thin-rows',
      severity: 'caution',
      strips: [],
      at: 'slice',
      what: say`Rows of ${length(recut.row)} are thin.`,
      why: recut.up
        ? say`Standing on end a thin row splits along its grain under a clamp.`
        : say`A slice as thin as that has short grain and breaks in the hand.`,
      waysOut: [
        recut.up
          ? say`Glue the first panel at least ${length(THIN_ROW_MM)} thick.`
          : say`Saw slices of at least ${length(THIN_ROW_MM)}.`,
      ],
      source: 'common practice',
    });
  const off = cornersOff(recut);
  if (off !== null)
    found.push({
      rule: 'corners',
      severity: 'caution',
      strips: [],
      at: 'layRows',
      what: say`Turned rows meet their neighbours ${length(off)} beside the corner.`,
      why: say`The strips are not alike from both edges; an eye sees ${length(SEEN_MM)}, and strips that are off by ${length(SEEN_MM / Math.max(1, recut.widths.length - 1))} each add up to that at the last corner.`,
      waysOut: [
        say`Make the strips alike from both edges.`,
        say`Measure a stack of all strips at once before gluing: it must be ${length(recut.panelWidth)}.`,
      ],
      source: 'common practice',
    });
  const open = stripsOf(board).flatMap((s, i) =>
    recut.up && species.find((w) => w.code === s.species)?.pores === 'ring' ? [i + 1] : [],
  );
  if (open.length > 0)
    found.push({
      rule: 'open-end-grain',
      severity: 'caution',
      strips: open,
      what: say`Open pores stand upright in an end-grain board: ${open.length === 1 ? 'strip' : 'strips'} ${open.join(', ')}.`,
      why: say`They run through the board like straws; water and food go into them.`,
      waysOut: [say`Take a species with closed pores for these strips.`],
      source: 'common practice',
    });
  return found;
};

/** How far joints of rows that are turned end for end lie beside those of their neighbours, mm; null where an eye does not see it, or they are meant to lie apart. */
function cornersOff(recut: Recut): number | null {
  const by = cornersMissBy(recut);
  return by !== null && by > SEEN_MM ? by : null;
}

/** Panels so short that most of their slices are sawn with too little left to hold; for the last few of any panel the step says how. */
export const lastSlices: Rule = (plan) => {
  const step = plan.operations.find((o) => o.kind === 'slice');
  const short = ofKind(step?.instructions ?? [], 'slice').find((i) => 2 * slicesHardToHold(i) > i.slices.length);
  if (!plan.recut || !short) return [];
  return [
    {
      rule: 'last-slices',
      severity: 'note',
      strips: [],
      at: 'slice',
      what: say`Of ${short.slices.length} slices of ${short.part.label} ${slicesHardToHold(short)} are sawn with less than ${length(short.leastLeft)} left to hold.`,
      why: say`What is short along the fence tips into the blade.`,
      waysOut: [
        say`Slices from fewer, longer panels.`,
        say`Clamp the rest to the sled for each of them.`,
        say`Screw a batten to the waste.`,
      ],
      source: 'common practice',
    },
  ];
};
