import { certain } from '../lists/there.ts';
import type { EdgeCut } from '../features/edge.ts';
import { LAYERING_NAMES, layeringOf, type Layering } from '../shop/layering.ts';
import { QUESTIONS, type Schools } from '../shop/schools.ts';
import type { Shop } from '../shop/shop.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import type { InstructionOf, SandedArea } from './instruction.ts';
import { wayTaken, type WayId, type WayOfWork } from './ways.ts';

/** The ways of one step and the one that is taken. */
export interface ChosenWay {
  ways: WayOfWork[];
  taken: WayOfWork;
}

type RipKind = Shop['saw']['kind'];
type CrosscutKind = Shop['crosscutSaw']['kind'];

export const RIP_NAMES: Readonly<Record<RipKind, string>> = {
  table: 'Table saw',
  circular: 'Circular saw on a guide',
  hand: 'Hand saw',
};
export const CROSSCUT_NAMES: Readonly<Record<CrosscutKind, string>> = {
  mitre: 'Mitre saw',
  sled: 'Sled on the table saw',
  track: 'Track saw',
  circular: 'Circular saw on a guide',
  hand: 'Hand saw',
};
/** Minutes to set up and rip one strip, for one crosscut and to straighten one edge (common practice). */
const RIP_MINUTES: Readonly<Record<RipKind, number>> = { table: 0.8, circular: 3, hand: 8 };
const CROSSCUT_MINUTES: Readonly<Record<CrosscutKind, number>> = {
  mitre: 1,
  sled: 1.2,
  track: 3,
  circular: 3,
  hand: 4,
};
const EDGE_MINUTES: Readonly<Record<Schools['straightEdge'], number>> = {
  jointer: 1.5,
  carrier: 3,
  stuck: 5,
  handPlane: 6,
  offSaw: 0.5,
};
/** Minutes for one layer of a ripping, to saw it and to clean it (common practice). */
const LAYER_MINUTES: Readonly<Record<Layering['by'], number>> = { bandSaw: 2, tableSaw: 3 };
/** Minutes for the edges of one board (common practice). */
const BOARD_EDGE_MINUTES = { router: 8, blockPlane: 14, saw: 15, byHand: 30 } as const;
/** Minutes to route a metre in one pass, and to carve as much (common practice). */
const ROUTED_MINUTES_PER_M = 1;
const CARVED_MINUTES_PER_M = 15;
/** Minutes to sand a square metre of face with one grit (common practice). */
const SAND_MINUTES_PER_M2 = { drum: 8, orbital: 25, byHand: 120 } as const;

/** @param id of the way @param owned whether the shop has it */
function way(
  id: WayId,
  name: string,
  owned: boolean,
  minutes: number,
  cannot: Phrase | null = null,
  extra = 0,
): WayOfWork {
  return { id, name, owned, minutes, passes: null, extra, cannot };
}

function chosen(ways: WayOfWork[], id: WayId): ChosenWay {
  return { ways, taken: wayTaken(ways, id) };
}

/** Ripping strips. */
export function ripWays({ saw, pace }: Shop, rips: readonly Pick<InstructionOf<'rip'>, 'cuts'>[]): ChosenWay {
  const cuts = rips.reduce((sum, i) => sum + i.cuts.length, 0);
  const kinds = Object.keys(RIP_NAMES) as RipKind[];
  return chosen(
    kinds.map((kind) => way(kind, RIP_NAMES[kind], saw.kind === kind, 3 + cuts * RIP_MINUTES[kind] * pace.work)),
    saw.kind,
  );
}

/** Cutting to length: each piece is squared once, then cut for each part. */
export function crosscutWays(
  { crosscutSaw, pace }: Shop,
  crosscuts: readonly Pick<InstructionOf<'crosscut'>, 'cuts'>[],
): ChosenWay {
  const cuts = crosscuts.reduce((sum, i) => sum + i.cuts.length + 1, 0);
  const kinds = Object.keys(CROSSCUT_NAMES) as CrosscutKind[];
  return chosen(
    kinds.map((kind) =>
      way(kind, CROSSCUT_NAMES[kind], crosscutSaw.kind === kind, 2 + cuts * CROSSCUT_MINUTES[kind] * pace.work),
    ),
    crosscutSaw.kind,
  );
}

/** Making edges straight, by the schools of that question. @param id of the way that is taken */
export function straightEdgeWays(
  shop: Shop,
  edged: readonly Pick<InstructionOf<'straighten' | 'joint'>, 'do' | 'parts'>[],
  id: Schools['straightEdge'],
): ChosenWay {
  const edges = edged.reduce((sum, i) => sum + i.parts.length * (i.do === 'joint' ? 2 : 1), 0);
  const owned: Record<Schools['straightEdge'], boolean> = {
    jointer: shop.jointer !== null,
    carrier: shop.saw.kind === 'table',
    stuck: true,
    handPlane: shop.handTools.planes,
    offSaw: shop.saw.kind !== 'hand',
  };
  const ways = QUESTIONS.straightEdge.schools.map(({ id, name }) =>
    way(id, name, owned[id], 2 + edges * EDGE_MINUTES[id] * shop.pace.work),
  );
  // A habit that asks for a tool which is not there was planned round already; any other is the maker's word.
  return { ways, taken: certain(ways.find((w) => w.id === id)) };
}

/** Sawing thick rippings into thin strips; null where no saw of the shop does it. */
export function layeringWays(
  shop: Shop,
  resaws: readonly Pick<InstructionOf<'resaw'>, 'layers' | 'height'>[],
): ChosenWay | null {
  const layers = resaws.reduce((sum, i) => sum + i.layers.length, 0);
  const height = Math.max(0, ...resaws.map((i) => i.height));
  const taken = layeringOf(shop);
  if (!taken) return null;
  const one = (by: Layering['by'], layering: Layering | null) =>
    way(
      by,
      LAYERING_NAMES[by],
      layering !== null,
      5 + layers * LAYER_MINUTES[by] * shop.pace.work,
      layering && height > layering.reach
        ? say`${length(height)} high, and it reaches ${length(layering.reach)}`
        : null,
      layering ? Math.max(0, layering.kerf + 2 * layering.clean - taken.kerf - 2 * taken.clean) : 0,
    );
  const only = (own: Partial<Shop>) => layeringOf({ ...shop, ...own });
  const onBandSaw = shop.bandSaw ? only({ schools: { ...shop.schools, thin: 'bandSaw' } }) : null;
  const onTableSaw = shop.saw.kind === 'table' ? only({ bandSaw: null }) : null;
  const ways = [one('bandSaw', onBandSaw), one('tableSaw', onTableSaw)];
  return { ways, taken: certain(ways.find((w) => w.id === taken.by)) };
}

/** What is shaped of the edges of each board, `run` out of what runs `round` it once above and once below, mm. */
type EdgeRun = Pick<InstructionOf<'work'>, 'parts'> & { figures: { run: number; round: number } };

/** One shape of edge. @param byHand the school of a few strokes by hand */
export function edgeWays(
  { router, handTools, saw, pace }: Shop,
  kind: EdgeCut['kind'],
  { parts, figures: { run, round } }: EdgeRun,
  byHand: boolean,
): ChosenWay {
  const minutes = (id: keyof typeof BOARD_EDGE_MINUTES) =>
    BOARD_EDGE_MINUTES[id] * parts.length * (run / round) * pace.work;
  const curved = kind === 'roundOver' || kind === 'thumbnail';
  const under = kind === 'underBevel';
  const ways = [
    way(
      'router',
      'Router',
      router !== null,
      minutes('router'),
      under ? say`An under-bevel is wider than its bits` : null,
    ),
    way(
      'saw',
      'Table saw, blade tilted',
      saw.kind === 'table',
      minutes('saw'),
      under ? null : say`Too coarse for so small an edge`,
    ),
    way(
      'blockPlane',
      'Block plane',
      handTools.planes,
      minutes('blockPlane'),
      curved ? say`It cuts flats; a curve wants many, and sanding` : null,
    ),
    way('byHand', 'Sanding block', true, minutes('byHand') * (under ? 3 : 1)),
  ];
  return chosen(ways, under ? 'saw' : byHand ? 'blockPlane' : 'router');
}

/** A groove or a hollow that a router cuts: `travel` of the bit in each board, passes counted, mm. @param setUp minutes @param byHand what stands in for a router, and what that is called */
export function routedWays(
  { router, pace }: Shop,
  { parts, figures: { travel } }: Pick<InstructionOf<'work'>, 'parts'> & { figures: { travel: number } },
  setUp: number,
  byHand: 'gouge' | 'jigsaw',
  byHandName: string,
): ChosenWay {
  const metres = (travel * parts.length) / 1000;
  return chosen(
    [
      way('router', 'Router', router !== null, setUp + metres * ROUTED_MINUTES_PER_M * pace.work),
      way(byHand, byHandName, true, setUp / 2 + metres * CARVED_MINUTES_PER_M * pace.work),
    ],
    'router',
  );
}

/** Sanding faces and edges. @param grits how many are used, a half where the last is used once more and lightly */
export function sandingWays(
  { drumSander, handTools, pace }: Shop,
  { squareMetres, width }: SandedArea,
  grits: number,
): ChosenWay {
  const minutes = (id: keyof typeof SAND_MINUTES_PER_M2) =>
    (4 + grits * squareMetres * SAND_MINUTES_PER_M2[id]) * pace.work;
  return chosen(
    [
      way('orbital', 'Orbital sander', handTools.orbitalSander, minutes('orbital')),
      way(
        'drum',
        'Drum sander, edges by hand',
        drumSander !== null,
        minutes('drum'),
        drumSander && width > drumSander.width
          ? say`${length(width)} wide, and it takes ${length(drumSander.width)}`
          : null,
      ),
      way('byHand', 'Sanding block', true, minutes('byHand')),
    ],
    'orbital',
  );
}
