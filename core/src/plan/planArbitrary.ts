import fc from 'fast-check';
import { UNDECIDED, type Board } from '../board/board.ts';
import type { Fact, Spot } from '../facts/fact.ts';
import { NOTHING_WORKED } from '../features/feature.ts';
import type { Schools } from '../shop/schools.ts';
import { DEFAULT_SHOP, type Shop } from '../shop/shop.ts';
import { defectKinds, treatments } from '../stock/defect.ts';
import { PLAIN_CONDITION, type Piece } from '../stock/piece.ts';
import { HANDBOOK_SPECIES } from '../wood/handbookSpecies.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { AS_IT_LIES, flatRecipe } from '../board/recipe.ts';

const CODES = ['maple-hard', 'beech-european', 'walnut-black'];

/** A piece with nothing special about it; tests change what they are about. */
export function plainPiece(change: Partial<Piece> = {}): Piece {
  return {
    id: 'p1',
    mark: 'P1',
    species: 'maple-hard',
    length: 2000,
    width: 150,
    thickness: 50,
    ...PLAIN_CONDITION,
    defects: [],
    ...change,
  };
}

/** A board of equal strips of one species. */
export function plainBoard(change: Partial<Board> = {}, widths: readonly number[] = [46, 46, 46, 46, 46, 46]): Board {
  return {
    name: 'Test board',
    use: '',
    construction: 'edge',
    length: 400,
    width: 260,
    thickness: 30,
    count: 1,
    recipe: flatRecipe(widths.map((width, i) => ({ id: `s${i + 1}`, species: 'maple-hard', width, ...AS_IT_LIES }))),
    ...UNDECIDED,
    ...change,
  };
}

/** Facts about the panel of a plain board: how long it was glued, and bad places found on it. */
export function panelFacts(panelLength: number | null, spots: readonly Spot[] = []): Fact[] {
  const about = { at: '2026-01-01T08:00:00.000Z', thing: 'panel', copy: 1 } as const;
  return [
    ...(panelLength === null
      ? []
      : [{ kind: 'measured' as const, id: 'glued', ...about, dimension: 'length' as const, value: panelLength }]),
    ...spots.map((spot, i) => ({ kind: 'badPlace' as const, id: `found-${i + 1}`, ...about, spot })),
  ];
}

export function planInput(board: Board, rack: readonly Piece[], shop: Shop = DEFAULT_SHOP): PlanInput {
  return { board, rack, shop, species: HANDBOOK_SPECIES };
}

const tenths = (least: number, greatest: number) =>
  fc.integer({ min: least * 10, max: greatest * 10 }).map((n) => n / 10);

const defectArbitrary = fc.record({
  kind: fc.constantFrom(...defectKinds),
  face: fc.constantFrom('up' as const, 'down' as const, 'through' as const),
  treatment: fc.constantFrom(...treatments),
  from: fc.integer({ min: 0, max: 90 }),
  across: fc.integer({ min: 0, max: 90 }),
  length: fc.integer({ min: 1, max: 10 }),
  width: fc.integer({ min: 1, max: 10 }),
});

const endArbitrary = fc.record({
  checked: fc.constantFrom(0, 0, 25),
  snipe: fc.constantFrom(0, 0, 40),
  sawn: fc.boolean(),
});

/** Places are drawn as hundredths of the piece, so that they always lie inside it. */
const conditionArbitrary = fc.record({
  defects: fc.array(defectArbitrary, { maxLength: 3 }),
  taper: fc.option(fc.tuple(fc.integer({ min: 70, max: 110 }), fc.integer({ min: 80, max: 115 })), {
    nil: null,
    freq: 3,
  }),
  form: fc.option(fc.record({ bow: tenths(0, 15), cup: tenths(0, 3), crook: tenths(0, 8), twist: tenths(0, 5) }), {
    nil: null,
  }),
  ends: fc.record({ mark: endArbitrary, far: endArbitrary }),
  straight: fc.constantFrom<Piece['straight']>('none', 'near', 'far', 'both'),
  count: fc.constantFrom(1, 1, 1, 3),
  origin: fc.constantFrom<Piece['origin']>({ kind: 'bought', of: '' }, { kind: 'offcut', of: 'P9' }),
});

const pieceArbitrary = fc.record({
  condition: conditionArbitrary,
  species: fc.constantFrom(...CODES),
  length: tenths(200, 2500),
  width: tenths(40, 260),
  thickness: tenths(8, 60),
  surface: fc.constantFrom<Piece['surface']>('rough', 'oneFace', 'twoFaces'),
  rings: fc.constantFrom<Piece['rings']>('flat', 'rift', 'quarter'),
});

/** Boards and racks of all kinds, good and hopeless, for the properties every plan must have. */
export const planInputArbitrary: fc.Arbitrary<PlanInput> = fc
  .record({
    construction: fc.constantFrom<Board['construction']>('edge', 'face'),
    length: tenths(150, 900),
    width: tenths(80, 500),
    thickness: tenths(10, 60),
    count: fc.integer({ min: 1, max: 3 }),
    strips: fc.array(
      fc.record({
        species: fc.constantFrom(...CODES),
        width: tenths(2, 90),
        endForEnd: fc.boolean(),
        turned: fc.boolean(),
        sideKept: fc.boolean(),
        rolled: fc.constantFrom(false, false, true),
        locked: fc.boolean(),
      }),
      { maxLength: 16 },
    ),
    rack: fc.array(pieceArbitrary, { maxLength: 12 }),
    kerf: tenths(1, 4),
    perPanel: fc.constantFrom(1, 1, 2, 3),
    rip: fc.constantFrom<Schools['rip']>('once', 'once', 'fat'),
    snipe: fc.constantFrom<Schools['snipe']>('trim', 'tuned'),
    thin: fc.constantFrom<Schools['thin']>('bandSaw', 'thinRip', 'fat'),
    panelFlatten: fc.constantFrom(undefined, 3),
    others: fc.array(fc.record({ length: tenths(30, 300), width: tenths(20, 200) }), { maxLength: 2 }),
  })
  .map(({ strips, rack, kerf, rip, snipe, thin, panelFlatten, others, ...size }) =>
    planInput(
      plainBoard({
        ...size,
        differs: {
          habits: panelFlatten === undefined ? {} : { panelFlatten },
          schools: { rip, snipe, thin },
          glue: null,
        },
        worked: { ...NOTHING_WORKED, others: others.map((o, i) => ({ id: `o${i}`, name: `Other ${i}`, ...o })) },
        recipe: flatRecipe(strips.map((s, i) => ({ ...AS_IT_LIES, id: `s${i}`, ...s }))),
      }),
      rack.map(({ condition: { defects, taper, ...condition }, ...piece }, i) =>
        plainPiece({
          ...piece,
          ...condition,
          id: `p${i}`,
          mark: `P${i}`,
          farEnd: taper && { width: (piece.width * taper[0]) / 100, thickness: (piece.thickness * taper[1]) / 100 },
          defects: defects.map((d, k) => ({
            ...d,
            id: `d${k}`,
            from: (d.from * piece.length) / 100,
            length: Math.max(1, (d.length * piece.length) / 100),
            across: (d.across * piece.width) / 100,
            width: Math.max(1, (d.width * piece.width) / 100),
          })),
        }),
      ),
      { ...DEFAULT_SHOP, saw: { ...DEFAULT_SHOP.saw, kerf } },
    ),
  );
