import { stripsOf } from '../board/recipe.ts';
import { WANTS_BARE_WOOD } from '../shop/finishes.ts';
import { length, say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';

/** Less than this is no difference, mm. */
const SAME_MM = 0.1;

/** Rags with oils that dry by themselves, finishes that do not hold on what is below them, faces that papers do not reach, and sanding that takes more than is planned. */
export const finishSafety: Rule = ({ finish, operations }, { board }) => {
  if (stripsOf(board).length === 0) return [];
  const { coatings, sides, takes, planned, habit, missing } = finish;
  const ignites = coatings.find((c) => c.finish.ignites);
  const over = coatings.findIndex(
    ({ finish: f }, i) => WANTS_BARE_WOOD.has(f.kind) && coatings.slice(0, i).some((c) => c.finish.kind !== f.kind),
  );
  const sand = operations.find((o) => o.kind === 'sand');
  const unreached = sides.filter((s) => s.run.stays > SAME_MM / 2);
  const onFaces = unreached.filter((s) => s.side === 'top' || s.side === 'bottom');
  const found: Found[] = [];
  if (ignites)
    found.push({
      rule: 'rags-ignite',
      severity: 'caution',
      strips: [],
      at: ignites.finish.kind === 'mineralOil' ? 'oil' : 'topCoat',
      what: say`Rags with ${ignites.finish.name.toLowerCase()} can ignite by themselves within hours.`,
      why: say`The oil warms as it dries; in a heap the warmth stays.`,
      waysOut: [say`Lay every rag flat outdoors until it is hard, or keep it under water in a closed tin.`],
      source: "Makers' sheets of drying oils, from memory",
    });
  if (sand && missing.length > 0)
    found.push({
      rule: 'finish-missing',
      severity: 'caution',
      strips: [],
      at: 'sand',
      what: say`A finish is not on the shop's shelf: ${missing.join(', ')}. Nothing goes on in its place.`,
      why: say`The board stays as bare there as it was sanded.`,
      waysOut: [say`Enter it in the shop, under Finishes and papers, or choose another on Finish.`],
    });
  const upper = coatings[over];
  const lower = coatings[over - 1];
  if (upper && lower)
    found.push({
      rule: 'finish-over-oil',
      severity: 'stop',
      strips: [],
      at: 'topCoat',
      what: say`${upper.finish.name} goes on over ${lower.finish.name.toLowerCase()}, where it does not hold.`,
      why: say`It wants bare wood: over oil or wax it stays soft, or peels.`,
      waysOut: [say`Leave ${lower.finish.name.toLowerCase()} out, or end with oil and wax.`],
      source: 'Common practice',
    });
  if (sand && onFaces.length > 0)
    found.push({
      rule: 'grit-too-fine',
      severity: 'caution',
      strips: [],
      at: 'sand',
      what: say`Sanding leaves ${length(Math.max(...onFaces.map((s) => s.run.stays)))} of the deepest place of the ${onFaces.map((s) => s.side).join(' and ')}.`,
      why: say`The coarse grit must reach the bottom of the deepest pit: finer paper never will.`,
      waysOut: [say`Begin with a coarser paper, plane it out, or fill it.`],
      source: 'Common practice',
    });
  if (sand && habit !== null)
    found.push({
      rule: 'sanding-takes-more',
      severity: 'note',
      strips: [],
      at: 'sand',
      what: say`Sanding both faces takes about ${length(takes - planned)} more than the ${length(planned)} that is planned.`,
      why: say`The first grit goes to the bottom of the marks, each finer one takes the scratches of the last.`,
      waysOut: [say`Plan with ${length(habit)}, on Finish, or make it flat with a tool that leaves less.`],
      source: 'Common practice',
    });
  return found;
};
