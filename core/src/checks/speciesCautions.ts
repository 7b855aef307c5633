import type { Species } from '../wood/species.ts';
import { say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';
import { cutStripsOf } from '../board/recipe.ts';

/** Softer than this dents and scores quickly under a knife (common practice: softer than soft maple). */
const SOFT_SIDE_HARDNESS = 3500;

/** What a species brings with it: open pores and soft wood where food is cut, oil, dust, other cautions. Named; the choice stays with the maker. */
export const speciesCautions: Rule = (_plan, { board, species }) =>
  species.flatMap((wood) => {
    const strips = cutStripsOf(board).flatMap((s, i) => (s.species === wood.code ? [i + 1] : []));
    return strips.length === 0 ? [] : cautionsOf(wood).map((caution): Found => ({ ...caution, strips }));
  });

function cautionsOf(wood: Species): Omit<Found, 'strips'>[] {
  const found: Omit<Found, 'strips'>[] = [];
  if (wood.pores === 'ring') {
    found.push({
      rule: 'open-pores',
      severity: 'caution',
      source: 'common practice: close-grained wood for food',
      what: say`${wood.name} has open pores.`,
      why: say`They hold dirt and moisture where food is cut.`,
      waysOut: [
        say`Use a close-grained wood such as maple or beech.`,
        say`Keep it, and tell the owner to dry the board well.`,
      ],
    });
  }
  if (wood.hardness !== null && wood.hardness < SOFT_SIDE_HARDNESS) {
    found.push({
      rule: 'soft-wood',
      severity: 'caution',
      source: wood.source,
      what: say`${wood.name} is soft: ${wood.hardness} N side hardness.`,
      why: say`Knives score it quickly, and hard neighbours stand proud in time.`,
      waysOut: [say`Use a harder wood for a cutting surface.`],
    });
  }
  if (wood.oily) {
    found.push({
      rule: 'oily-wood',
      severity: 'caution',
      source: 'common practice',
      what: say`${wood.name} is oily: glue does not hold on it as it comes from the planer.`,
      why: say`Its oil rises to a fresh face within hours and keeps the glue out.`,
      waysOut: [
        say`Wipe both faces with acetone, wait about 5 minutes, glue at once. Acetone burns and its vapour travels: gloves, fresh air, no flame.`,
      ],
    });
  }
  if (wood.dust !== 'usual') {
    found.push({
      rule: 'dust',
      severity: wood.dust === 'sensitiser' ? 'caution' : 'note',
      source: wood.cautionSource,
      what:
        wood.dust === 'sensitiser'
          ? say`Dust of ${wood.name} can make people allergic.`
          : say`Dust of ${wood.name} irritates eyes, skin and airways.`,
      why: say`All wood dust is harmful; this kind more than most.`,
      waysOut: [
        say`Collect dust at the machine and wear a mask made for fine dust, as local rules and the machine's manual ask.`,
      ],
    });
  }
  if (wood.foodNote !== '') {
    found.push({
      rule: 'food-contact',
      severity: 'note',
      source: wood.cautionSource,
      what: say`${wood.name}: ${wood.foodNote}`,
      why: say`People judge this species for food differently.`,
      waysOut: [say`Decide knowingly, or take hard maple or its equal.`],
    });
  }
  return found;
}
