import type { ToolId } from '../shop/tools.ts';
import { ofKind, type Instruction } from './instruction.ts';
import type { Resources } from './operation.ts';

/** What a step holds, read off its instructions: each tool that one of them takes up, and the clamps of one panel. */
export function resourcesOf(instructions: readonly Instruction[]): Resources {
  const tools = instructions.flatMap((i): ToolId[] => [
    ...('tool' in i ? [i.tool] : []),
    ...('saw' in i ? [i.saw.tool] : []),
    ...(i.do === 'inlay' ? ['router' as const] : []),
  ]);
  return {
    tools: [...new Set(tools)].filter((tool) => tool !== 'hands'),
    clamps: ofKind(instructions, 'glue')[0]?.clamps ?? [],
  };
}
