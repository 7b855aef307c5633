import { nth } from '#core/lists/there.ts';
import { UNDECIDED } from '#core/board/board.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import { PLAIN_CONDITION, type Piece } from '#core/stock/piece.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { asLook, withOperation } from '#core/board/looks.ts';
import { AS_IT_LIES, flatRecipe } from '#core/board/recipe.ts';

const SPECIES = ['beech-european', 'maple-hard', 'cherry-wild', 'walnut-european'];

/** A board of `strips` strips from a rack of `pieces` pieces, the same every time. */
export function benchInstance(strips: number, pieces: number): PlanInput {
  const rack = Array.from({ length: pieces }, (_, i): Piece => ({
    ...PLAIN_CONDITION,
    defects: [],
    id: `p${i}`,
    mark: `P${i}`,
    species: nth(SPECIES, i % 4),
    length: 600 + ((i * 137) % 1800),
    width: 60 + ((i * 53) % 160),
    thickness: 24 + ((i * 7) % 32),
    surface: i % 3 === 0 ? 'twoFaces' : 'rough',
    price: { amount: 1000, per: 'cubicMetre' },
  }));
  const list = Array.from({ length: strips }, (_, i) => ({
    id: `s${i}`,
    species: nth(SPECIES, i % 4),
    width: 18 + (i % 3) * 2,
    ...AS_IT_LIES,
  }));
  const width = list.reduce((sum, s) => sum + s.width, 0) - 6;
  return {
    board: {
      name: 'Bench',
      use: '',
      construction: 'edge',
      length: 450,
      width,
      thickness: 35,
      count: 1,
      recipe: flatRecipe(list),
      ...UNDECIDED,
    },
    rack,
    shop: DEFAULT_SHOP,
    species: HANDBOOK_SPECIES,
  };
}

/** How wide its strips and rows are, mm. */
const ROW_MM = 20;

/** A board of end grain of so many strips and rows, from plenty of wood. */
export function cells(strips: number, rows: number): PlanInput {
  const { board, rack, ...rest } = benchInstance(strips, 60);
  const list = Array.from({ length: strips }, (_, i) => ({
    ...AS_IT_LIES,
    id: `s${i}`,
    species: i % 2 === 0 ? 'beech-european' : 'maple-hard',
    width: ROW_MM,
  }));
  const flat = { ...board, length: rows * ROW_MM, width: strips * ROW_MM - 16, recipe: flatRecipe(list) };
  return {
    ...rest,
    rack: rack.map((p) => ({ ...p, length: 2600, width: 220, thickness: 30, count: 4 })),
    board: withOperation(asLook(flat, 'endGrain'), 'glue', 'panel', { thickness: ROW_MM }),
  };
}
