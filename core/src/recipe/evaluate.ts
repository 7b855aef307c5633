import type { Recipe, StripOperation } from '../board/recipe.ts';
import { glueBackward, glueWorkpiece } from './glueOperation.ts';
import type { Triple } from './motion.ts';
import { stripBackward } from './stripOperation.ts';
import type { Workpiece } from './workpiece.ts';

/**
 * What each strip of a flat recipe must measure for the panel that is wanted, read backward from the last operation. What is cut again is read in `board/recut` and its rows in `recipe/rows`.
 * @param panel how long and how high it is wanted, mm
 * @returns sizes along, across and up by the strip's id, mm
 */
export function readBackward(recipe: Recipe, panel: { length: number; height: number }): Map<string, Triple> {
  const wanted = new Map([[recipe.at(-1)?.id, panel]]);
  const strips = new Map<string, Triple>();
  for (const operation of [...recipe].reverse()) {
    const own = wanted.get(operation.id);
    if (!own) continue;
    if (operation.kind === 'strip') strips.set(operation.id, stripBackward(operation, own));
    else if (operation.kind === 'glue') for (const id of operation.takes) wanted.set(id, glueBackward(own));
  }
  return strips;
}

/**
 * The panel that a flat recipe gives, with all the wood in it: read forward, each operation from what it takes.
 * @param leaf each strip as it was milled, with where its wood lies in the rack
 * @returns null while there are no strips
 */
export function readForward(recipe: Recipe, leaf: (strip: StripOperation) => Workpiece): Workpiece | null {
  const made = new Map<string, Workpiece>();
  for (const operation of recipe) {
    if (operation.kind === 'strip') made.set(operation.id, leaf(operation));
    else if (operation.kind === 'glue')
      made.set(operation.id, glueWorkpiece(operation.takes.flatMap((id) => made.get(id) ?? [])));
  }
  const last = recipe.at(-1);
  return (last && made.get(last.id)) ?? null;
}
