import { certain, firstOf } from '#core/lists/there.ts';
import type { SideEdges } from '#core/features/edge.ts';
import { NOTHING_WORKED, UNDRAWN } from '#core/features/feature.ts';
import { UNDECIDED, type Board, type Construction } from '#core/board/board.ts';
import { NO_PRICES } from '#core/shop/prices.ts';
import { DEFAULT_SHOP, type Shop } from '#core/shop/shop.ts';
import { USUAL_TREATMENT, type Defect } from '#core/stock/defect.ts';
import { PLAIN_CONDITION, type Piece } from '#core/stock/piece.ts';
import { ringOf, withFrame } from '#core/board/frames.ts';
import { withInsert } from '#core/board/inserts.ts';
import { asLook } from '#core/board/looks.ts';
import { AS_IT_LIES, flatRecipe } from '#core/board/recipe.ts';

/**
 * The demo: the Tram Shed, a members' workshop in a disused tram depot, equips the kitchens of three mountain huts. All invented.
 */
export const tramShedShop: Shop = {
  ...DEFAULT_SHOP,
  name: 'The Tram Shed',
  saw: { kind: 'table', kerf: 3, cutDepth: 78 },
  planer: {
    width: 260,
    passDepth: 1.5,
    leastLength: 250,
    leastWidth: 20,
    leastThickness: 6,
    snipe: 10,
    head: 'straight',
  },
  clamps: [
    { id: 'pipe', kind: 'pipe', opening: 900, reach: 45, force: 5, count: 5 },
    { id: 'f', kind: 'f', opening: 300, reach: 80, force: 2.5, count: 3 },
  ],
  glue: 'waterproof',
  hours: [
    null,
    { from: '16:00', to: '21:00' },
    { from: '16:00', to: '21:00' },
    { from: '16:00', to: '21:00' },
    { from: '16:00', to: '21:00' },
    { from: '09:00', to: '18:00' },
    { from: '10:00', to: '16:00' },
  ],
  room: { temperature: 17, humidity: 55 },
  people: [{ id: 'hands', name: 'Whoever has the evening', hours: null }],
  glues: DEFAULT_SHOP.glues.map((glue, i) => ({
    ...glue,
    shelfGrams: [200, 60, 0][i] ?? null,
    pricePerKg: [11.5, 14.8, 19.5][i] ?? null,
  })),
  finishes: DEFAULT_SHOP.finishes.map((finish, i) => ({
    ...finish,
    shelfMl: [600, 150, 0, 40, 0][i] ?? null,
    pricePerLitre: [18, 42, 64, 31, 24][i] ?? null,
  })),
  space: { glueUps: null, drying: 8 },
  prices: {
    ...NO_PRICES,
    paperSheet: 0.55,
    paperShelf: 20,
    foot: 0.9,
    footShelf: 4,
    fitting: 3.4,
    wage: 22,
    machines: [
      { tool: 'planer', hour: 4 },
      { tool: 'tableSaw', hour: 3 },
    ],
    fixedMonth: 80,
    boardsMonth: 5,
    markup: 0.4,
    wished: [{ tool: 'drumSander', price: 950 }],
  },
};

type Row = [
  mark: string,
  species: string,
  length: number,
  width: number,
  thickness: number,
  surface: Piece['surface'],
  rings: Piece['rings'],
  pricePerM3: number | null,
  note: string,
  more?: Partial<Piece>,
];

type Spot = [
  kind: Defect['kind'],
  face: Defect['face'],
  from: number,
  across: number,
  length: number,
  width: number,
  treatment?: Defect['treatment'],
];

/** Places on a piece: kind, face, then a rectangle along and across. */
function marks(...spots: Spot[]): Defect[] {
  return spots.map(([kind, face, from, across, length, width, treatment = USUAL_TREATMENT[kind]], i) => ({
    id: `d${i + 1}`,
    kind,
    face,
    from,
    across,
    length,
    width,
    treatment,
  }));
}

const clean = { checked: 0, snipe: 0, sawn: false };
const sawn = { ...clean, sawn: true };
const offcut = (of: string, sawnEnds: Piece['ends'] = { mark: sawn, far: clean }): Partial<Piece> => ({
  origin: { kind: 'offcut', of },
  ends: sawnEnds,
});
const bench: Partial<Piece> = {
  origin: { kind: 'salvage', of: 'Waiting-room bench' },
  shelf: 'Salvage',
  straight: 'both',
};

/** Prices in euro per cubic metre, invented; salvage cost nothing and was never priced. */
const ROWS: Row[] = [
  [
    'B1',
    'beech-european',
    2400,
    180,
    52,
    'rough',
    'flat',
    980,
    'Plank, bark side waney at one end',
    {
      shelf: 'Wall, low',
      moisture: 9.5,
      grain: 'toFar',
      form: { bow: 5, cup: 0.8, crook: 3, twist: 1 },
      ends: { mark: { ...clean, checked: 45 }, far: clean },
      defects: marks(
        ['bark', 'through', 2140, 150, 260, 30],
        ['knot', 'through', 1180, 60, 55, 45],
        ['sapwood', 'up', 0, 165, 2140, 15],
      ),
    },
  ],
  [
    'B2',
    'beech-european',
    2000,
    150,
    35,
    'rough',
    'rift',
    980,
    '',
    {
      shelf: 'Wall, low',
      moisture: 10,
      defects: marks(['check', 'up', 1890, 70, 110, 8], ['knot', 'down', 640, 20, 35, 30, 'under']),
    },
  ],
  [
    'B3',
    'beech-european',
    1800,
    210,
    27,
    'rough',
    'flat',
    980,
    'Thinner than it looks; tapers',
    { shelf: 'Wall, low', farEnd: { width: 196, thickness: 26 }, form: { bow: 3, cup: 1.2, crook: 2, twist: 2 } },
  ],
  [
    'B4',
    'beech-european',
    1200,
    60,
    30,
    'fourSides',
    'quarter',
    null,
    'Slat; screw holes 60 mm from each end',
    { ...bench, defects: marks(['screw', 'through', 52, 22, 16, 16], ['screw', 'through', 1132, 22, 16, 16]) },
  ],
  [
    'B5',
    'beech-european',
    1180,
    60,
    30,
    'fourSides',
    'quarter',
    null,
    'Slat; screw and nail holes',
    {
      ...bench,
      defects: marks(
        ['screw', 'through', 52, 22, 16, 16],
        ['nail', 'up', 580, 26, 8, 8],
        ['screw', 'through', 1112, 22, 16, 16],
      ),
    },
  ],
  [
    'B6',
    'beech-european',
    1180,
    60,
    30,
    'fourSides',
    'rift',
    null,
    'Slat; one end charred, green paint below',
    {
      ...bench,
      ends: { mark: clean, far: { ...clean, checked: 90 } },
      defects: marks(
        ['screw', 'through', 52, 22, 16, 16],
        ['paint', 'down', 150, 0, 400, 60, 'harmless'],
        ['worm', 'up', 900, 8, 60, 20],
      ),
    },
  ],
  [
    'B7',
    'beech-european',
    640,
    120,
    27,
    'twoFaces',
    'flat',
    980,
    '',
    { ...offcut('A shelf'), shelf: 'Offcuts', defects: marks(['veneer', 'up', 0, 100, 640, 20, 'under']) },
  ],
  [
    'B8',
    'beech-european',
    310,
    45,
    28,
    'fourSides',
    'quarter',
    null,
    'Short slat ends, cut at the glue seams',
    { ...bench, count: 6 },
  ],
  [
    'C1',
    'cherry-wild',
    2100,
    160,
    40,
    'rough',
    'flat',
    1650,
    'Plank, sapwood along one edge',
    {
      shelf: 'Wall, high',
      grain: 'toMark',
      defects: marks(['sapwood', 'through', 0, 138, 2100, 22], ['knot', 'up', 1510, 40, 40, 30]),
    },
  ],
  ['C2', 'cherry-wild', 700, 95, 40, 'rough', 'rift', 1650, '', { ...offcut('C1'), shelf: 'Offcuts' }],
  [
    'C3',
    'cherry-wild',
    520,
    140,
    25,
    'twoFaces',
    'flat',
    1650,
    '',
    { ...offcut('A door panel'), shelf: 'Offcuts', defects: marks(['stain', 'down', 300, 40, 120, 60]) },
  ],
  [
    'P1',
    'pear',
    1400,
    140,
    34,
    'rough',
    'flat',
    1900,
    'Plank, steamed',
    { shelf: 'Wall, high', defects: marks(['check', 'through', 0, 62, 140, 6]) },
  ],
  [
    'P2',
    'pear',
    480,
    70,
    34,
    'rough',
    'quarter',
    1900,
    '',
    { ...offcut('P1', { mark: sawn, far: sawn }), shelf: 'Offcuts' },
  ],
  [
    'W1',
    'walnut-european',
    1900,
    170,
    40,
    'rough',
    'flat',
    2800,
    'Plank, the good one',
    {
      shelf: 'Wall, high',
      moisture: 8.5,
      defects: marks(['sapwood', 'up', 0, 0, 1900, 18], ['knot', 'through', 980, 90, 50, 40]),
    },
  ],
  ['W2', 'walnut-european', 900, 85, 40, 'rough', 'rift', 2800, '', { ...offcut('W1'), shelf: 'Offcuts' }],
  [
    'W3',
    'walnut-european',
    620,
    60,
    22,
    'twoFaces',
    'quarter',
    2800,
    '',
    { ...offcut('A drawer front'), shelf: 'Offcuts' },
  ],
  [
    'M1',
    'maple-hard',
    2440,
    150,
    52,
    'rough',
    'flat',
    2100,
    'Plank with a long bow: thick enough only when it is crosscut first',
    { shelf: 'Wall, low', form: { bow: 14, cup: 0.5, crook: 3, twist: 1 } },
  ],
  ['M2', 'maple-hard', 1500, 130, 30, 'rough', 'quarter', 2100, 'Plank', { shelf: 'Wall, high' }],
  [
    'M3',
    'maple-hard',
    560,
    110,
    44,
    'rough',
    'rift',
    2100,
    '',
    { ...offcut('A bench top'), shelf: 'Offcuts', ends: { mark: sawn, far: { ...clean, snipe: 30 } } },
  ],
  [
    'K1',
    'birch-european',
    2000,
    190,
    34,
    'rough',
    'flat',
    760,
    'Plank',
    {
      shelf: 'Wall, low',
      defects: marks(['knot', 'up', 420, 90, 30, 25, 'under'], ['stain', 'up', 1500, 20, 200, 50, 'harmless']),
    },
  ],
  ['K2', 'birch-european', 1000, 120, 34, 'rough', 'flat', 760, 'Plank, short', { shelf: 'Offcuts' }],
  ['K3', 'birch-european', 450, 150, 20, 'twoFaces', 'rift', 760, '', { ...offcut('A drawer side'), shelf: 'Offcuts' }],
];

export const tramShedRack: Piece[] = ROWS.map(
  ([mark, species, length, width, thickness, surface, rings, pricePerM3, note, more]) => ({
    ...PLAIN_CONDITION,
    defects: [],
    id: `shed-${mark.toLowerCase()}`,
    mark,
    species,
    length,
    width,
    thickness,
    surface,
    rings,
    price: pricePerM3 === null ? null : { amount: pricePerM3, per: 'cubicMetre' },
    note,
    ...more,
  }),
);

const SPECIES: Record<string, string> = {
  B: 'beech-european',
  C: 'cherry-wild',
  P: 'pear',
  W: 'walnut-european',
  M: 'maple-hard',
  K: 'birch-european',
};

/** A board from strips written as `M48.8`; a trailing `!` turns a strip end for end. */
function board(
  name: string,
  use: string,
  construction: Construction,
  size: [number, number, number],
  count: number,
  strips: string,
  worked: Partial<Board['worked']>,
): Board {
  const [length, width, thickness] = size;
  return {
    name,
    use,
    construction,
    length,
    width,
    thickness,
    count,
    ...UNDECIDED,
    worked: { ...NOTHING_WORKED, ...worked },
    recipe: flatRecipe(
      strips.split(' ').map((text, i) => ({
        id: `s${i + 1}`,
        species: certain(SPECIES[firstOf(text)]),
        width: Number(text.slice(1).replace('!', '')),
        ...AS_IT_LIES,
        endForEnd: text.endsWith('!'),
      })),
    ),
  };
}

/** A band of 12 mm is left of the sides, so that fingers get beneath. */
const UNDER_BEVEL: SideEdges = {
  top: { kind: 'roundOver', radius: 1.6 },
  bottom: { kind: 'underBevel', angle: 45, reveal: 12 },
};

/** Boards cut and glued again, each with something to be solved: an onion block whose last strip is not like its first, so that corners do not meet, a chevron whose strips are a little short of its length, a split board whose accents the seasons pull at, and a framed sink cover whose frame holds beech that wants to move. */
const recutBoards: Board[] = [
  asLook(
    board('Onion block', 'Onions', 'edge', [330, 220, 35], 1, 'M30 W24 M30 W24 M30 W24 M30 W24 M28.5', {}),
    'endGrain',
  ),
  asLook(
    board(
      'Chevron serving board',
      'Serving',
      'edge',
      [340, 170, 22],
      1,
      'W22 M24 W22 M24 W22 M24 W22 M24 W22 M24 W22 M24 W22 M24',
      {},
    ),
    'chevron',
  ),
  [
    { at: 165, angle: 30, jog: 8 },
    { at: 270, angle: 20, jog: 0 },
  ].reduce(
    (so, place) => withInsert(so, { species: certain(SPECIES.W), width: 6, ...place }),
    board('Split cheese board', 'Cheese', 'edge', [420, 260, 20], 1, 'M36 C36 M36 C36 M36 C36 M36 C36', {}),
  ),
  withFrame(
    board('Sink cover', 'Sink', 'edge', [480, 336, 24], 1, 'B48.8 C36.8 B48.8 C36.8 B48.8 C36.8 B48.8', {}),
    ringOf(certain(SPECIES.W), 21.4),
  ),
];

/** Three flat boards: one that comes out thinner than wished, a batch of three that works, one a little too narrow with a strip turned round. */
export const tramShedBoards: Board[] = [
  ...recutBoards,
  board(
    'Upper Hut carving board',
    'Carving',
    'edge',
    [450, 320, 38],
    1,
    'W21.4 M48.8 C36.8 P30.8 B48.8 P30.8! C36.8 M48.8 W21.4',
    {
      features: [
        {
          kind: 'groove',
          id: 'groove',
          face: 'top',
          offset: 25,
          bit: 12.7,
          depth: 8,
          corner: 20,
          wells: 1,
          spout: null,
          fall: 0,
        },
        { kind: 'feet', id: 'feet', count: 4, inset: 38, bore: 20, boreDepth: 2, screw: 4, screwDepth: 16 },
        {
          kind: 'mark',
          id: 'mark',
          face: 'bottom',
          name: 'Upper Hut',
          method: 'brand',
          x: 225,
          y: 160,
          length: 90,
          width: 24,
          depth: 1,
          ...UNDRAWN,
        },
      ],
    },
  ),
  board('Middle Hut bread boards', 'Bread', 'edge', [400, 250, 30], 3, 'B48.8 C36.8 M26.8 W36.8 M26.8 C36.8 B48.8', {
    corners: { kind: 'round', size: 12 },
    features: [{ kind: 'finger', id: 'finger', on: 'ends', shape: 'cove', bit: 12.7, length: 90, depth: 8, up: 13 }],
  }),
  board('Lower Hut dough board', 'Dough', 'face', [600, 400, 30], 1, 'K90 B68 K90 B68 K90', {
    edges: { far: UNDER_BEVEL, right: UNDER_BEVEL, near: UNDER_BEVEL, left: UNDER_BEVEL },
  }),
];

/** One that lies half done on the bench. */
export const tramShedHalfDone: Board = board(
  'Lower Hut ham board',
  'Ham',
  'edge',
  [380, 210, 30],
  1,
  'B48.8 C36.8 B48.8 C36.8 B48.8',
  {},
);
