import type { Shop } from './shop.ts';

/** Every tool that a step may take up. Those of the shop's record are asked of it; a drill, a jigsaw and the like are in every shop. */
export const toolIds = [
  'tableSaw',
  'circularSaw',
  'handSaw',
  'bandSaw',
  'mitreSaw',
  'sled',
  'trackSaw',
  'jointer',
  'carrierSled',
  'batten',
  'planer',
  'drumSander',
  'routerSled',
  'handPlanes',
  'beltSander',
  'orbitalSander',
  'sandingBlock',
  'scraper',
  'router',
  'gouge',
  'drill',
  'jigsaw',
  'engraver',
  'brandingIron',
  'hands',
] as const;
export type ToolId = (typeof toolIds)[number];

export const TOOL_NAMES: Readonly<Record<ToolId, string>> = {
  tableSaw: 'Table saw',
  circularSaw: 'Circular saw on a guide',
  handSaw: 'Hand saw',
  bandSaw: 'Band saw',
  mitreSaw: 'Mitre saw',
  sled: 'Sled on the table saw',
  trackSaw: 'Track saw',
  jointer: 'Jointer',
  carrierSled: 'Carrier sled on the saw',
  batten: 'A straight edge stuck on',
  planer: 'Planer',
  drumSander: 'Drum sander',
  routerSled: 'Router sled',
  handPlanes: 'Hand planes',
  beltSander: 'Belt sander',
  orbitalSander: 'Orbital sander',
  sandingBlock: 'Sanding block',
  scraper: 'Scraper',
  router: 'Router',
  gouge: 'Gouge and scraper',
  drill: 'Drill',
  jigsaw: 'Jigsaw',
  engraver: 'Engraver',
  brandingIron: 'Branding iron',
  hands: 'Hands',
};

const RIP_TOOLS = { table: 'tableSaw', circular: 'circularSaw', hand: 'handSaw' } as const satisfies Record<
  Shop['saw']['kind'],
  ToolId
>;
const CROSSCUT_TOOLS = {
  mitre: 'mitreSaw',
  sled: 'sled',
  track: 'trackSaw',
  circular: 'circularSaw',
  hand: 'handSaw',
} as const satisfies Record<Shop['crosscutSaw']['kind'], ToolId>;

export function ripTool({ saw }: Pick<Shop, 'saw'>): ToolId {
  return RIP_TOOLS[saw.kind];
}
export function crosscutTool({ crosscutSaw }: Pick<Shop, 'crosscutSaw'>): ToolId {
  return CROSSCUT_TOOLS[crosscutSaw.kind];
}

/** Whether the shop has a tool. A batten, a block, a scraper and hand-held small tools are in every shop. */
export function shopHas(shop: Shop, tool: ToolId): boolean {
  switch (tool) {
    case 'tableSaw':
    case 'circularSaw':
      return ripTool(shop) === tool || crosscutTool(shop) === tool;
    case 'carrierSled':
      return shop.saw.kind === 'table';
    case 'sled':
      return crosscutTool(shop) === tool || shop.saw.kind === 'table';
    case 'handSaw':
      return ripTool(shop) === tool || crosscutTool(shop) === tool;
    case 'mitreSaw':
    case 'trackSaw':
      return crosscutTool(shop) === tool;
    case 'bandSaw':
    case 'jointer':
    case 'planer':
    case 'drumSander':
    case 'routerSled':
    case 'router':
      return shop[tool] !== null;
    case 'handPlanes':
      return shop.handTools.planes;
    case 'beltSander':
    case 'orbitalSander':
      return shop.handTools[tool];
    default:
      return true;
  }
}

/** Narrower than this nothing runs between a blade and a fence, or over a jointer on its edge, mm: no push stick fits (common practice: 3/4 in; the machine's manual decides). */
export const SAFE_WIDTH_MM = 19;
/** Shorter than this a piece is not ripped at a saw fence, mm (common practice: 12 in; the saw's manual decides). */
export const SAFE_RIP_LENGTH_MM = 300;
/** Less of a piece than that is not held by hand beside a blade, nor steady along a fence, mm (common practice: 6 in). */
export const SAFE_HOLD_MM = 150;
/** Widest panel under a mitre saw's blade, mm (common practice: 12 in with a sliding head). */
export const MITRE_REACH_MM = 305;

/** A saw with what it takes. */
export interface Saw {
  tool: ToolId;
  kerf: number;
}

/** The saw that squares the ends of a panel of a width and cuts boards apart: the shop's, or where that is a mitre saw too small for it, what else there is. */
export function panelSaw(shop: Shop, width: number): Saw {
  const own = { tool: crosscutTool(shop), kerf: shop.crosscutSaw.kerf };
  if (own.tool !== 'mitreSaw' || width <= MITRE_REACH_MM) return own;
  return shop.saw.kind === 'table'
    ? { tool: 'sled', kerf: shop.saw.kerf }
    : { tool: ripTool(shop), kerf: shop.saw.kerf };
}

/** Whether a saw is set by a stop that the wood is pushed against; at others a line is marked. */
export function hasStop({ tool }: Pick<Saw, 'tool'>): boolean {
  return tool === 'sled' || tool === 'mitreSaw';
}

/** The saw for rough cuts along wood that is not flat yet: nothing of it runs along a table saw's fence. */
export function roughSaw(shop: Shop): Saw {
  if (shop.bandSaw) return { tool: 'bandSaw', kerf: shop.bandSaw.kerf };
  return shop.saw.kind === 'table'
    ? { tool: 'carrierSled', kerf: shop.saw.kerf }
    : { tool: ripTool(shop), kerf: shop.saw.kerf };
}

/** How a strip too narrow for fence and jointer is ripped where its edges are glued: with which saw, and what is cleaned off each sawn edge by hand. */
export interface ThinRip extends Saw {
  guide: 'stop' | 'fence' | 'guide' | 'line';
  clean: number;
}

/** A blade's face off a table saw or a guided circular saw is glued as it is; a band saw's and a hand saw's is cleaned by hand (common practice). */
export function thinRipOf(shop: Pick<Shop, 'saw' | 'bandSaw' | 'schools' | 'habits'>): ThinRip {
  const { saw, bandSaw, schools, habits } = shop;
  const table: ThinRip | null =
    saw.kind === 'table' ? { tool: 'tableSaw', kerf: saw.kerf, guide: 'stop', clean: 0 } : null;
  const band: ThinRip | null = bandSaw && { tool: 'bandSaw', kerf: bandSaw.kerf, guide: 'fence', clean: bandSaw.clean };
  const first = schools.thin === 'thinRip' ? (table ?? band) : (band ?? table);
  if (first) return first;
  return saw.kind === 'circular'
    ? { tool: 'circularSaw', kerf: saw.kerf, guide: 'guide', clean: 0 }
    : { tool: 'handSaw', kerf: saw.kerf, guide: 'line', clean: habits.glueEdgeJoint };
}
