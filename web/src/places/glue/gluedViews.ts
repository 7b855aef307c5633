import { AS_IT_LIES, flatRecipe, stripsOf } from '#core/board/recipe.ts';
import type { OpenBoard } from '../../data/openBoard.tsx';

/** The first panel of a board that is cut again, as a board of its own: what is said of a panel of strips holds for it. */
export function panelView(open: OpenBoard): OpenBoard {
  const { recut } = open.plan;
  if (!recut) return open;
  return { ...open, board: recut.board, plan: { ...open.plan, trim: recut.trim, ladders: recut.ladders } };
}

/** The rows of one board as if they were strips of a panel: glued alike, in time and under clamps. */
export function rowsView(open: OpenBoard): OpenBoard {
  const { board, plan } = open;
  const { recut } = plan;
  if (!recut) return open;
  // Each row holds every strip: one that is oily makes all of them so.
  const strips = stripsOf(board);
  const oily = new Set(open.input.species.filter((s) => s.oily).map((s) => s.code));
  const species = (strips.find((s) => oily.has(s.species)) ?? strips[0])?.species ?? '';
  const rows = recut.all
    .filter((r) => r.board === 1)
    .map((r) => ({ ...AS_IT_LIES, id: `row-${r.number}`, species, width: recut.row }));
  const length = recut.trueWidth / Math.cos((recut.angle * Math.PI) / 180);
  return {
    ...open,
    board: { ...board, recipe: flatRecipe(rows) },
    plan: {
      ...plan,
      gluing: recut.gluing,
      panelWidth: recut.rows * recut.row,
      allowances: {
        ...recut.lastly.allowances,
        panels: recut.lastly.allowances.panels.map((p) => ({ ...p, length })),
      },
    },
  };
}
