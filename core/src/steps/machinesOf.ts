import type { Shop } from '../shop/shop.ts';
import { ripTool, type ToolId } from '../shop/tools.ts';

/** Tools that nobody waits for: every pair of hands has its own. */
const OWN_TOOLS: ReadonlySet<ToolId> = new Set([
  'hands',
  'handPlanes',
  'sandingBlock',
  'scraper',
  'gouge',
  'batten',
  'handSaw',
] satisfies ToolId[]);

/** The machines that a tool keeps busy: a sled runs on the table saw, and a router sled takes the router up. */
export function machinesOf(tools: readonly ToolId[], shop: Pick<Shop, 'saw'>): ToolId[] {
  const busy = tools.flatMap((tool): ToolId[] => {
    if (OWN_TOOLS.has(tool)) return [];
    if (tool === 'carrierSled' || (tool === 'sled' && shop.saw.kind === 'table')) return [ripTool(shop)];
    if (tool === 'routerSled') return ['routerSled', 'router'];
    return [tool];
  });
  return [...new Set(busy)];
}
