import type { Instruction } from '../steps/instruction.ts';
import { shopHas, TOOL_NAMES, type ToolId } from '../shop/tools.ts';
import { say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';

/** Flattening has a rule of its own, with what each tool would cost. */
const toolsOf = (i: Instruction): ToolId[] =>
  i.do === 'flatten' ? [] : 'tool' in i ? [i.tool] : 'saw' in i ? [i.saw.tool] : i.do === 'inlay' ? ['router'] : [];

/** Steps that are planned with what the shop does not have. */
export const toolMissing: Rule = ({ operations }, { shop }) =>
  operations.flatMap((step): Found[] => {
    const missing = [...new Set(step.instructions.flatMap(toolsOf))].filter((tool) => !shopHas(shop, tool));
    return missing.map((tool) => ({
      rule: 'tool-missing',
      severity: 'caution',
      strips: [],
      at: step.kind,
      what: say`Step ${step.number} takes a tool that the shop has not: ${TOOL_NAMES[tool].toLowerCase()}.`,
      why: say`No other tool of the shop does this.`,
      waysOut: [
        say`Borrow it, or enter it in Shop.`,
        say`Leave this out of the board, or choose another way to do it.`,
      ],
    }));
  });
