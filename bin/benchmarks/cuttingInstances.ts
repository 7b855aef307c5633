import { nth } from '#core/lists/there.ts';
import { UNDECIDED, type Board } from '#core/board/board.ts';
import { cutProblemFor } from '#core/saw/cutForBoard.ts';
import type { CutProblem } from '#core/cutting/cutProblem.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import { defectKinds, USUAL_TREATMENT, type Defect } from '#core/stock/defect.ts';
import { PLAIN_CONDITION, type Piece } from '#core/stock/piece.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { AS_IT_LIES, flatRecipe } from '#core/board/recipe.ts';

const SPECIES = ['beech-european', 'maple-hard', 'cherry-wild', 'walnut-european', 'pear', 'birch-european'];

/** Mulberry32: small, even, the same everywhere. */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * A seeded cutting instance: two boards, one on edge and one lying flat, that together want a number of strips of 3 to 6 species in mixed
 * sections, from 15 to 80 pieces of which many have defects, a bow or a checked end. Invented.
 */
export function cuttingInstance(strips: number, seed: number): CutProblem {
  const random = seeded(seed * 7919 + strips);
  const between = (least: number, greatest: number, step: number) =>
    least + step * Math.floor(random() * ((greatest - least) / step + 1));
  const pick = <T>(list: readonly T[]): T => nth(list, Math.floor(random() * list.length));
  const species = SPECIES.slice(0, 3 + Math.floor(random() * 4));
  const widths = {
    edge: [16, 20, 24, 32, 42].map((w) => w + between(0, 2, 0.5)),
    face: [35, 48, 60, 75].map((w) => w + between(0, 4, 0.5)),
  };
  const boards = (['edge', 'face'] as const).map((construction, b): Board => {
    const count = b === 0 ? Math.ceil(strips * 0.6) : Math.floor(strips * 0.4);
    return {
      name: construction,
      use: '',
      construction,
      length: between(300, 520, 10),
      width: 300,
      thickness: construction === 'edge' ? between(28, 40, 2) : 20,
      count: 1,
      ...UNDECIDED,
      recipe: flatRecipe(
        Array.from({ length: count }, (_, i) => ({
          id: `${construction}${i}`,
          species: pick(species),
          width: pick(widths[construction]),
          ...AS_IT_LIES,
        })),
      ),
    };
  });
  const pieces = Math.max(15, Math.min(80, Math.round(strips * (0.5 + random() * 0.15) + 5)));
  const rack = Array.from({ length: pieces }, (_, i): Piece => {
    const length = between(500, 2800, 20);
    const width = between(70, 220, 5);
    const defects = Array.from({ length: random() < 0.5 ? Math.floor(random() * 5) : 0 }, (_, d): Defect => {
      const kind = pick(defectKinds);
      const size = { length: between(15, 160, 5), width: between(10, 60, 5) };
      return {
        id: `d${d}`,
        kind,
        face: pick(['up', 'down', 'through'] as const),
        from: between(0, length - size.length, 5),
        across: between(0, width - size.width, 5),
        ...size,
        treatment: USUAL_TREATMENT[kind],
      };
    });
    return {
      ...PLAIN_CONDITION,
      id: `p${i}`,
      mark: `P${i}`,
      species: nth(species, i % species.length),
      length,
      width,
      thickness: between(26, 55, 1),
      defects,
      surface: random() < 0.3 ? 'twoFaces' : 'rough',
      price: { amount: between(700, 2800, 50), per: 'cubicMetre' },
      form:
        random() < 0.3
          ? { bow: between(0, 12, 1), cup: between(0, 2, 0.5), crook: between(0, 6, 1), twist: between(0, 4, 1) }
          : null,
      origin: { kind: length < 900 ? 'offcut' : 'bought', of: '' },
      ends: {
        mark: { checked: random() < 0.2 ? between(20, 80, 5) : 0, snipe: 0, sawn: false },
        far: { checked: 0, snipe: random() < 0.2 ? 40 : 0, sawn: false },
      },
    };
  });
  return cutProblemFor(
    boards.map((board) => ({ key: board.name, board, done: [] })),
    { rack, shop: DEFAULT_SHOP, species: HANDBOOK_SPECIES, promised: [] },
  );
}
