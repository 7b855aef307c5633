import { missingDepth } from '../board/accents.ts';
import { stripsOf } from '../board/recipe.ts';
import { stripList } from '../steps/numberList.ts';
import { capitalised, length, say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';

/** Shorter bits are not held by hand beside a blade, nor caught by a stop, mm (common practice: 2 in). */
const SHORT_BIT_MM = 50;

/** Accents that a stack does not give, that nothing saws, or whose bits nothing holds. */
export const stackRules: Rule = (plan, { board }) => {
  const order = stripsOf(board);
  return plan.stacks.flatMap(({ stack }): Found[] => {
    const { accents, sticks, operation, bits } = stack;
    const numbers = accents.map((a) => a.number);
    const about = { part: operation.id, strips: numbers };
    const found: Found[] = [];
    const missing = missingDepth(stack);
    if (missing > 0)
      found.push({
        ...about,
        rule: 'stack-shallow',
        severity: 'stop',
        at: 'resaw',
        what: say`${accents.length} accents want a stack ${length(stack.depth + missing)} deep; the strips that its bits are cut from are ${length(stack.depth)} wide.`,
        why: say`Each accent takes its width, a kerf of ${length(stack.layering.kerf)} and ${length(stack.layering.clean)} off each sawn face; flattening takes ${length(stack.flatten)} first.`,
        waysOut: [
          say`Make the bits ${length(stack.wantedDepth)} deep.`,
          say`Put in fewer accents, or thinner ones.`,
          say`Make a second stack.`,
        ],
      });
    if (stack.cannot)
      found.push({
        ...about,
        rule: 'stack-resaw',
        severity: 'stop',
        at: 'resaw',
        what: say`Nothing in the shop resaws a stack ${length(plan.allowances.glueThickness)} high.`,
        why: say`Accents are sawn off through the whole height of the board.`,
        waysOut: [
          say`Resaw on a band saw that reaches so high.`,
          say`Make the board thinner.`,
          say`Use plain strips instead.`,
        ],
      });
    const bare = accents.filter(({ strip }) => {
      const at = order.findIndex((s) => s.id === strip.id);
      return [order[at - 1], order[at + 1]].some((n) => n === undefined || n.stack !== null);
    });
    if (bare.length > 0)
      found.push({
        ...about,
        strips: bare.map((a) => a.number),
        rule: 'stack-bare',
        severity: 'stop',
        at: 'layOut',
        what: say`${capitalised(stripList(bare.map((a) => a.number)))} ${bare.length > 1 ? 'lie' : 'lies'} at an edge of the panel or beside another accent.`,
        why: say`Bits glued end to end are only held by a long strip on both sides: end grain on end grain opens.`,
        waysOut: [say`Lay a long strip on each side.`, say`Use a plain strip there.`],
        source: 'common practice',
      });
    const short = sticks.filter((s) => s.bit < SHORT_BIT_MM);
    if (short.length > 0)
      found.push({
        ...about,
        strips: short.map((s) => s.number),
        rule: 'short-bits',
        severity: 'caution',
        at: 'cutBits',
        what: say`The shortest bits are ${length(Math.min(...short.map((s) => s.bit)))} long.`,
        why: say`Nothing so short is held by hand: the strip is, and the bit must fall free.`,
        waysOut: [
          say`A stop block that ends well before the blade, the strip clamped to the fence.`,
          say`Make the bits at least ${length(SHORT_BIT_MM)} long.`,
        ],
        source: 'common practice',
      });
    const idle = sticks.filter((s) => s.count === 0);
    if (idle.length > 0)
      found.push({
        ...about,
        strips: idle.map((s) => s.number),
        rule: 'stack-idle',
        severity: 'caution',
        at: 'layBits',
        what: say`${capitalised(stripList(idle.map((s) => s.number)))} ${idle.length > 1 ? 'give' : 'gives'} no bits: one round of the pattern is longer than the panel, ${length(stack.length)}.`,
        why: say`Bits are laid in turn until the panel is filled.`,
        waysOut: [say`Make the bits shorter.`, say`Take it out of the stack.`],
      });
    found.push({
      ...about,
      rule: 'stack-breaks',
      severity: 'note',
      at: 'resaw',
      what: say`${capitalised(stripList(numbers))} ${numbers.length > 1 ? 'are' : 'is'} ${bits.length} bits long, held by end grain alone until the panel is glued.`,
      why: say`Thin and unburied, it breaks at a knock: a spare costs little, another stack a day.`,
      waysOut: [
        stack.spares > 0
          ? say`${stack.spares} ${stack.spares === 1 ? 'spare is' : 'spares are'} sawn with the others.`
          : say`Make the bits deeper, so that a spare comes with the others.`,
        say`Carry each on a board, tape along one face.`,
      ],
      source: 'common practice',
    });
    return found;
  });
};
