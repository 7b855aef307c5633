import type { Inset } from '#core/board/inset.ts';
import { AS_IT_LIES, cutStripsOf, flatRecipe, panelRecipe, stripsOf, type Strip } from '#core/board/recipe.ts';
import type { Recut } from '#core/board/recut.ts';
import { glueOrder } from '#core/plan/blocks.ts';
import type { OpenBoard } from '../../data/openBoard.tsx';

/** The first panel of a board that is cut again, as a board of its own: what is said of a panel of strips holds for it. */
export function panelView(open: OpenBoard): OpenBoard {
  const { again } = open.plan;
  if (!again) return open;
  // What is put in later is none of the panel's.
  const board = { ...again.board, recipe: panelRecipe(again.board.recipe) };
  return { ...open, board, plan: { ...open.plan, trim: again.trim, ladders: again.ladders } };
}

/** The rows or parts of one board as if they were strips of a panel: glued alike, in time and under clamps. */
export function blockView(open: OpenBoard): OpenBoard {
  const { board, plan } = open;
  const { again } = plan;
  if (!again) return open;
  const { pieces, length } = again.how === 'rows' ? rowsAsStrips(open, again) : partsAsStrips(open, again);
  return {
    ...open,
    board: { ...board, recipe: flatRecipe(pieces) },
    plan: {
      ...plan,
      gluing: again.gluing,
      panelWidth: pieces.reduce((sum, p) => sum + p.width, 0),
      allowances: {
        ...again.lastly.allowances,
        panels: again.lastly.allowances.panels.map((p) => ({ ...p, length })),
      },
    },
  };
}

/** What is glued, each with the wood that decides about it, and how long the joints are, mm. */
interface Pieces {
  pieces: Strip[];
  length: number;
}

/** What holds every strip of a panel: one that is oily makes all of it so. */
function speciesOfPanel({ board, input }: OpenBoard): string {
  const strips = stripsOf(board);
  const oily = new Set(input.species.filter((s) => s.oily).map((s) => s.code));
  return (strips.find((s) => oily.has(s.species)) ?? strips[0])?.species ?? '';
}

function rowsAsStrips(open: OpenBoard, recut: Recut): Pieces {
  const species = speciesOfPanel(open);
  return {
    pieces: recut.all
      .filter((r) => r.board === 1)
      .map((r) => ({ ...AS_IT_LIES, id: `row-${r.number}`, species, width: recut.row })),
    length: recut.trueWidth / Math.cos((recut.angle * Math.PI) / 180),
  };
}

function partsAsStrips(open: OpenBoard, inset: Inset): Pieces {
  const species = speciesOfPanel(open);
  const known = new Map(cutStripsOf(open.board).map((s) => [s.id, s.species]));
  return {
    pieces: glueOrder(inset).map(({ id, along }) => ({
      ...AS_IT_LIES,
      id: `piece-${id}`,
      species: known.get(id) ?? species,
      width: along,
    })),
    length: Math.max(...inset.inserts.map((i) => i.length)),
  };
}
