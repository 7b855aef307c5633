import { certain } from '../lists/there.ts';
import { firstFaceOnSled } from '../shop/flattener.ts';
import { passDepth, passesOf } from '../shop/machines.ts';
import type { ToolId } from '../shop/tools.ts';
import type { Schools } from '../shop/schools.ts';
import type { Shop } from '../shop/shop.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import type { Face } from './instruction.ts';

/** Every way to do some step, and the tool that it takes up: a new one is one more entry here, and one more in the list of its step. */
const WAY_TOOLS = {
  table: 'tableSaw',
  circular: 'circularSaw',
  hand: 'handSaw',
  mitre: 'mitreSaw',
  sled: 'sled',
  track: 'trackSaw',
  bandSaw: 'bandSaw',
  tableSaw: 'tableSaw',
  jointer: 'jointer',
  carrier: 'carrierSled',
  stuck: 'batten',
  handPlane: 'handPlanes',
  offSaw: 'hands',
  planer: 'planer',
  drum: 'drumSander',
  routerSled: 'routerSled',
  handPlanes: 'handPlanes',
  beltSander: 'beltSander',
  orbital: 'orbitalSander',
  router: 'router',
  saw: 'tableSaw',
  blockPlane: 'handPlanes',
  gouge: 'gouge',
  jigsaw: 'jigsaw',
  byHand: 'sandingBlock',
} as const satisfies Record<string, ToolId>;
export type WayId = keyof typeof WAY_TOOLS;

/** The tool that a way takes up. */
export function toolOf({ id }: Pick<WayOfWork, 'id'>): ToolId {
  return WAY_TOOLS[id];
}

/** One way of doing a step, with what it costs. */
export interface WayOfWork {
  id: WayId;
  name: string;
  /** Whether the shop has what it takes. */
  owned: boolean;
  /** Hands-on for all copies, with the person's pace. */
  minutes: number;
  passes: number | null;
  /** Thickness it takes beyond what the ladder has for the step, mm. */
  extra: number;
  /** Why it cannot be done so here; null when it can. */
  cannot: Phrase | null;
}

/** Feeds in mm a minute and other paces, all common practice; the person's pace corrects them. */
const FEED = { planer: 5000, jointer: 4000, drum: 2500, routerSled: 2500 } as const;
const HANDLING_MINUTES = 0.4;
const SET_UP = { planer: 3, jointer: 3, drum: 4, routerSled: 15, handPlanes: 10, beltSander: 4, orbital: 2 } as const;
/** Minutes that setting a machine takes of a step with a setting: saved where the step before left it so. */
export const SETTING_MINUTES = {
  planer: SET_UP.planer,
  drumSander: SET_UP.drum,
  routerSled: SET_UP.routerSled,
} as const;
/** Minutes for a square metre and a millimetre of hardwood. */
const BY_HAND = { handPlanes: 60, beltSander: 45, orbital: 240 } as const;
/** Share of a router bit's width that each lane moves on: lanes overlap (common practice). */
export const LANE_SHARE = 0.6;
/** Ridges that a router sled leaves to be sanded off, mm, both faces (common practice). */
const SLED_RIDGES = 0.3;
/** Wood harder than this is planed in shallower passes, N: about beech and hard maple (common practice). */
const HARD = 6000;
const HARD_SHARE = 0.8;

/** Greatest depth of a planer pass on wood of a width and hardness, mm. */
export function passDepthFor(
  planer: NonNullable<Shop['planer']>,
  { width, hardness }: Pick<Face, 'width' | 'hardness'>,
): number {
  return passDepth(planer, width) * (hardness !== null && hardness > HARD ? HARD_SHARE : 1);
}

/** Usual machines that a shop may lack, to say what owning one would save (common figures). */
const USUAL_PLANER = {
  width: 330,
  passDepth: 1.5,
  leastLength: 250,
  leastWidth: 20,
  leastThickness: 6,
  snipe: 10,
  head: 'straight',
} as const;
const USUAL_DRUM = { width: 400, passDepth: 0.3, leastLength: 60 } as const;
const USUAL_SLED = { width: 600, bit: 30, passDepth: 1 } as const;

export type FlatteningTool = Schools['flatten'];

/**
 * Every way to make faces flat and parallel, whether the shop has it or not, with passes and honest minutes.
 * @param faces all pieces the step is about
 * @param thickness that strips are planed to, mm
 */
export function flatteningWays(
  faces: readonly Face[],
  shop: Shop,
  what: 'panel' | 'stock' | 'strip',
  thickness = Infinity,
): WayOfWork[] {
  const planer = shop.planer ?? USUAL_PLANER;
  const drum = shop.drumSander ?? USUAL_DRUM;
  const sled = shop.routerSled ?? USUAL_SLED;
  const each = (f: (face: Face) => number) => faces.reduce((sum, face) => sum + f(face), 0) * shop.pace.work;
  const most = (f: (face: Face) => number) => Math.max(0, ...faces.map(f));
  const widest = most((f) => f.width);
  const shortest = Math.min(Infinity, ...faces.map((f) => f.length));
  const tooWide = (limit: number) =>
    widest > limit + 1e-6 ? say`${length(widest)} wide, and it takes ${length(limit)}` : null;
  const tooShort = (limit: number) =>
    shortest < limit - 1e-6 ? say`${length(shortest)} long, and it wants at least ${length(limit)}` : null;
  const planes = (f: Face) => passesOf(passDepthFor(planer, f), f.removal);
  const sands = (f: Face) => passesOf(drum.passDepth, f.removal);
  const lanes = (f: Face) => Math.ceil(f.width / (sled.bit * LANE_SHARE)) * passesOf(sled.passDepth, f.removal / 2) * 2;
  const area = (f: Face) => (f.length * f.width * f.removal) / 1e6;
  // Stock is flattened on the jointer first, if all of it fits; a panel goes straight through the planer.
  const jointer =
    what === 'stock' && !faces.some((f) => firstFaceOnSled({ planer, jointer: shop.jointer }, f)) ? shop.jointer : null;
  const narrowest = Math.min(Infinity, ...faces.map((f) => f.width));
  const tooNarrow =
    what === 'strip' && narrowest < planer.leastWidth - 1e-6
      ? say`${length(narrowest)} wide, and it wants at least ${length(planer.leastWidth)}`
      : null;
  const onCarrier = thickness < planer.leastThickness - 1e-6;
  const jointing = jointer
    ? each((f) => passesOf(jointer.passDepth, f.removal / 2) * (f.length / FEED.jointer + HANDLING_MINUTES)) +
      SET_UP.jointer
    : 0;
  const way = (
    id: FlatteningTool,
    name: string,
    owned: boolean,
    minutes: number,
    passes: number | null,
    extra: number,
    cannot: Phrase | null,
  ): WayOfWork => ({ id, name, owned, minutes, passes, extra, cannot });
  return [
    way(
      'planer',
      what === 'stock'
        ? jointer
          ? 'Jointer and planer'
          : 'Planer, first face on a shimmed sled'
        : onCarrier
          ? 'Planer, on a carrier board'
          : 'Planer',
      shop.planer !== null,
      SET_UP.planer + jointing + each((f) => planes(f) * (f.length / FEED.planer + HANDLING_MINUTES)),
      most(planes),
      0,
      tooWide(planer.width) ?? tooShort(planer.leastLength) ?? tooNarrow,
    ),
    way(
      'drum',
      'Drum sander',
      shop.drumSander !== null,
      SET_UP.drum + each((f) => sands(f) * (f.length / FEED.drum + HANDLING_MINUTES)),
      most(sands),
      0,
      tooWide(drum.width) ?? tooShort(drum.leastLength),
    ),
    way(
      'routerSled',
      'Router sled',
      shop.routerSled !== null,
      SET_UP.routerSled + each((f) => lanes(f) * (f.length / FEED.routerSled + 0.1)),
      most(lanes),
      SLED_RIDGES,
      tooWide(sled.width),
    ),
    way(
      'handPlanes',
      'Hand planes',
      shop.handTools.planes,
      SET_UP.handPlanes + each((f) => area(f) * BY_HAND.handPlanes),
      null,
      0,
      null,
    ),
    way(
      'beltSander',
      'Belt sander',
      shop.handTools.beltSander,
      SET_UP.beltSander + each((f) => area(f) * BY_HAND.beltSander),
      null,
      0,
      null,
    ),
    way(
      'orbital',
      'Orbital sander',
      shop.handTools.orbitalSander,
      SET_UP.orbital + each((f) => area(f) * BY_HAND.orbital),
      null,
      0,
      null,
    ),
  ];
}

/** The way that is taken: the shop's school where it can be, else the quickest that the shop has; when it has none, the first that anybody could borrow. */
export function wayTaken(ways: readonly WayOfWork[], school: string): WayOfWork {
  const possible = ways.filter((w) => w.owned && w.cannot === null);
  return (
    possible.find((w) => w.id === school) ??
    [...possible].sort((a, b) => a.minutes - b.minutes)[0] ??
    certain(ways.find((w) => w.cannot === null))
  );
}

/** How an edge is made straight: as the habit has it, or where that asks for a jointer and the shop has none, with what there is. */
export function straightEdgeOf({
  schools,
  jointer,
  handTools,
}: Pick<Shop, 'schools' | 'jointer' | 'handTools'>): Schools['straightEdge'] {
  if (schools.straightEdge !== 'jointer' || jointer) return schools.straightEdge;
  return handTools.planes ? 'handPlane' : 'stuck';
}

/** How edges of parts of a length are made straight here: as the shop does it, or where they are too short for its jointer, or a tool is not there, with what there is. @param shortest mm */
export function straightEdgeTool(
  shop: Pick<Shop, 'schools' | 'jointer' | 'handTools' | 'saw'>,
  shortest: number,
  rough = false,
): { id: Schools['straightEdge']; tool: ToolId } {
  const { jointer, handTools, saw } = shop;
  const otherwise: Schools['straightEdge'] = handTools.planes
    ? 'handPlane'
    : saw.kind === 'table'
      ? 'carrier'
      : 'stuck';
  let id = straightEdgeOf(shop);
  if (id === 'jointer' && jointer && shortest < jointer.leastLength - 1e-6) id = otherwise;
  // Straight off the saw is no answer where the edge comes off a rough cut.
  if (id === 'offSaw' && rough) id = otherwise;
  if ((id === 'handPlane' && !handTools.planes) || (id === 'carrier' && saw.kind !== 'table')) id = otherwise;
  return { id, tool: toolOf({ id }) };
}
