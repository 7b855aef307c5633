import type { Board, Construction } from '#core/board/board.ts';
import { DEFAULT_SHOP, type Shop } from '#core/shop/shop.ts';
import type { Piece } from '#core/stock/piece.ts';

/**
 * The demo: the Tram Shed, a members' workshop in a disused tram depot, equips the kitchens of three mountain huts. All invented.
 */
export const tramShedShop: Shop = {
  ...DEFAULT_SHOP,
  name: 'The Tram Shed',
  saw: { kerf: 3, cutDepth: 78 },
  planer: { width: 260, passDepth: 1.5, leastLength: 250, snipe: 10 },
  glue: { name: 'Waterproof wood glue (Type I)', assemblyMinutes: 10, clampMinutes: 180 },
};

type Row = [mark: string, species: string, length: number, width: number, thickness: number, surface: Piece['surface'],
  rings: Piece['rings'], pricePerM3: number | null, note: string];

/** Prices in euro per cubic metre, invented; salvage cost nothing but was never priced. */
const ROWS: Row[] = [
  ['B1', 'beech-european', 2400, 180, 52, 'rough', 'flat', 980, 'Plank, bark side waney at one end'],
  ['B2', 'beech-european', 2000, 150, 35, 'rough', 'rift', 980, ''],
  ['B3', 'beech-european', 1800, 210, 27, 'rough', 'flat', 980, 'Thinner than it looks'],
  ['B4', 'beech-european', 1200, 60, 30, 'surfaced', 'quarter', null, 'Slat of the waiting-room bench; screw holes 60 mm from each end'],
  ['B5', 'beech-european', 1180, 60, 30, 'surfaced', 'quarter', null, 'Slat of the waiting-room bench; screw holes'],
  ['B6', 'beech-european', 1180, 60, 30, 'surfaced', 'rift', null, 'Slat of the waiting-room bench; one end charred'],
  ['B7', 'beech-european', 640, 120, 27, 'surfaced', 'flat', 980, 'Offcut of a shelf'],
  ['C1', 'cherry-wild', 2100, 160, 40, 'rough', 'flat', 1650, 'Plank, sapwood along one edge'],
  ['C2', 'cherry-wild', 700, 95, 40, 'rough', 'rift', 1650, 'Offcut of C1'],
  ['C3', 'cherry-wild', 520, 140, 25, 'surfaced', 'flat', 1650, 'Offcut of a door panel'],
  ['P1', 'pear', 1400, 140, 34, 'rough', 'flat', 1900, 'Plank, steamed'],
  ['P2', 'pear', 480, 70, 34, 'rough', 'quarter', 1900, 'Offcut of P1'],
  ['W1', 'walnut-european', 1900, 170, 40, 'rough', 'flat', 2800, 'Plank, the good one'],
  ['W2', 'walnut-european', 900, 85, 40, 'rough', 'rift', 2800, 'Offcut of W1'],
  ['W3', 'walnut-european', 620, 60, 22, 'surfaced', 'quarter', 2800, 'Offcut of a drawer front'],
  ['M1', 'maple-hard', 2440, 150, 52, 'rough', 'flat', 2100, 'Plank'],
  ['M2', 'maple-hard', 1500, 130, 30, 'rough', 'quarter', 2100, 'Plank'],
  ['M3', 'maple-hard', 560, 110, 44, 'rough', 'rift', 2100, 'Offcut of a bench top'],
  ['K1', 'birch-european', 2000, 190, 34, 'rough', 'flat', 760, 'Plank'],
  ['K2', 'birch-european', 1000, 120, 34, 'rough', 'flat', 760, 'Plank, short'],
  ['K3', 'birch-european', 450, 150, 20, 'surfaced', 'rift', 760, 'Offcut of a drawer side'],
];

export const tramShedRack: Piece[] = ROWS.map(([mark, species, length, width, thickness, surface, rings, pricePerM3, note]) => ({
  id: `shed-${mark.toLowerCase()}`, mark, species, length, width, thickness, surface, rings,
  price: pricePerM3 === null ? null : { amount: pricePerM3, per: 'cubicMetre' }, note,
}));

const SPECIES: Record<string, string> = {
  B: 'beech-european', C: 'cherry-wild', P: 'pear', W: 'walnut-european', M: 'maple-hard', K: 'birch-european',
};

/** A board from strips written as `M48.8`; a trailing `!` turns a strip end for end. */
function board(name: string, use: string, construction: Construction, size: [number, number, number], count: number, strips: string): Board {
  const [length, width, thickness] = size;
  return {
    name, use, construction, length, width, thickness, count,
    strips: strips.split(' ').map((text, i) => ({
      id: `s${i + 1}`, species: SPECIES[text[0]!]!, width: Number(text.slice(1).replace('!', '')), endForEnd: text.endsWith('!'),
    })),
  };
}

/** Three boards: one that comes out thinner than wished, a batch of three that works, one a little too narrow with a strip turned round. */
export const tramShedBoards: Board[] = [
  board('Upper Hut carving board', 'Carving', 'edge', [450, 320, 38], 1, 'W21.4 M48.8 C36.8 P30.8 B48.8 P30.8! C36.8 M48.8 W21.4'),
  board('Middle Hut bread boards', 'Bread', 'edge', [400, 250, 30], 3, 'B48.8 C36.8 M26.8 W36.8 M26.8 C36.8 B48.8'),
  board('Lower Hut dough board', 'Dough', 'face', [600, 400, 30], 1, 'K90 B68 K90 B68 K90'),
];
