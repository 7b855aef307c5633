import type { Board } from '#core/board/board.ts';
import { withOperation, withoutSlices } from '#core/board/looks.ts';
import { inPattern, reordered, rowLies, withRowLies, type RowLie, type RowPattern } from '#core/board/rowPatterns.ts';
import { withPanelInTurn } from '#core/board/panels.ts';
import { GREATEST_ANGLE, panelsOfRecipe, sliceSchema } from '#core/board/recipe.ts';
import { rowsOf } from '#core/board/again.ts';
import { recutRecipe } from '#core/board/recut.ts';
import { useOpenBoard } from '../../../data/openBoard.tsx';

/** What hands do with the recipe of a board that is cut again; each is one step of undo, those with the same key together. */
export function useRecut() {
  const { session, input } = useOpenBoard();
  const edit = (change: (board: Board) => Board, mergeKey?: string) => session.edit(change, mergeKey);
  const inSlice = (change: Parameters<typeof withOperation<Board, 'slice'>>[3], mergeKey?: string) =>
    edit((b) => {
      const recut = recutRecipe(b.recipe);
      return recut ? withOperation(b, 'slice', recut.slice.id, change) : b;
    }, mergeKey);
  const inPanel = (change: Parameters<typeof withOperation<Board, 'glue'>>[3]) =>
    edit((b) => {
      const recut = recutRecipe(b.recipe);
      // What rows come from in turn is alike.
      return recut ? panelsOfRecipe(b.recipe).reduce((so, panel) => withOperation(so, 'glue', panel.id, change), b) : b;
    });
  return {
    /** Kept to what a slice can be, so that a hand that goes too far stops there. */
    setPitch: (pitch: number | null, mergeKey?: string) => {
      if (pitch === null || sliceSchema.shape.pitch.safeParse(pitch).success) inSlice({ pitch }, mergeKey);
    },
    setFirst: (first: number, mergeKey?: string) => {
      if (sliceSchema.shape.first.safeParse(first).success) inSlice({ first }, mergeKey);
    },
    /** Strips that are staggered stay staggered by the angle of the cut. */
    setAngle: (degrees: number, mergeKey?: string) => {
      const angle = Math.max(-GREATEST_ANGLE, Math.min(GREATEST_ANGLE, degrees));
      edit((b) => {
        const recut = recutRecipe(b.recipe);
        if (!recut) return b;
        const { panel, slice } = recut;
        const turned = withOperation(b, 'slice', slice.id, { angle });
        return panel.stagger === slice.angle && slice.angle !== 0
          ? panelsOfRecipe(b.recipe).reduce((so, p) => withOperation(so, 'glue', p.id, { stagger: angle }), turned)
          : turned;
      }, mergeKey);
    },
    panelInTurn: () => edit(withPanelInTurn),
    takeOut: () => edit(withoutSlices),
    setCount: (count: number | null) => inSlice({ count }),
    setPanels: (panels: number) => inSlice({ panels }),
    setThickness: (thickness: number | null) => inPanel({ thickness }),
    setStagger: (stagger: number) => inPanel({ stagger }),
    /** Lays some of the rows otherwise than they lie now, from 0. */
    layRows: (rows: readonly number[], how: (lie: RowLie) => Partial<RowLie>, mergeKey?: string) =>
      edit((b) => {
        const recut = rowsOf(b, input.shop);
        if (!recut) return b;
        const lies = rowLies(recut);
        return withRowLies(
          b,
          lies.map((lie, i) => (rows.includes(i) ? { ...lie, ...how(lie) } : lie)),
        );
      }, mergeKey),
    /** Rows that change places, from 0. */
    reorder: (rows: readonly number[], order: readonly number[]) =>
      edit((b) => {
        const recut = rowsOf(b, input.shop);
        return recut ? withRowLies(b, reordered(rowLies(recut), rows, order)) : b;
      }),
    lay: (pattern: RowPattern) =>
      edit((b) => {
        const recut = rowsOf(b, input.shop);
        return recut ? inPattern(b, pattern, recut) : b;
      }),
  };
}
