import { backOf } from '#core/board/back.ts';
import { withBackChanged, withBackFilled, withoutBack, type BackWood } from '#core/board/backs.ts';
import type { BackOperation } from '#core/board/recipe.ts';
import { useOpenBoard } from '../../../data/openBoard.tsx';
import { useDisplay } from '../../../quantities/display.tsx';

/** What hands do with the back under a board; each is one step of undo. */
export function useBack() {
  const { board, input, session } = useOpenBoard();
  const { display } = useDisplay();
  const back = backOf(board, input.shop);
  const woods = (back?.strips ?? []).map(({ strip: { species, width } }): BackWood => ({ species, width }));
  const lay = (strips: readonly BackWood[]) => session.edit((b) => withBackChanged(b, { strips }));
  return {
    back,
    changeStrip: (at: number, change: Partial<BackWood>) =>
      lay(woods.map((wood, i) => (i === at ? { ...wood, ...change } : wood))),
    /** All of them of one wood. */
    allOf: (species: string) => lay(woods.map((wood) => ({ ...wood, species }))),
    /** One more like the one in hand, behind it. */
    add: (at: number) => {
      const like = woods[at];
      if (like) lay([...woods.slice(0, at + 1), like, ...woods.slice(at + 1)]);
    },
    /** The last one stays: a back has at least one. */
    removeStrip: (at: number) => {
      if (woods.length > 1) lay(woods.filter((_, i) => i !== at));
    },
    /** As many equal strips as cover the board. */
    fill: () => session.edit((b) => withBackFilled(b, input.shop, display.system)),
    run: (runs: BackOperation['runs']) =>
      session.edit((b) => withBackFilled(withBackChanged(b, { runs }), input.shop, display.system)),
    setThickness: (thickness: number) => session.edit((b) => withBackChanged(b, { thickness })),
    remove: () => session.edit((b) => withoutBack(b)),
  };
}
