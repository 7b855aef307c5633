import type { RecipeOperation } from '../board/recipe.ts';
import { boardRungs } from './boardRungs.ts';
import type { PlanContext } from './context.ts';
import { glueRungs } from './glueRungs.ts';
import { buildLadder, type Dimension, type Ladder, type Rungs, type Stage } from './ladder.ts';
import { stripRungs } from './stripRungs.ts';

/** What each kind of operation takes: a new kind is one more line. */
const RUNGS_OF: { [K in RecipeOperation['kind']]: Rungs | null } = {
  strip: stripRungs,
  // Accents are as long, as wide and as high as any strip; what their bits take is in the steps.
  stack: null,
  glue: glueRungs,
  // What is cut again has its ladders from its first panel on.
  slice: null,
  turn: null,
  insert: null,
  frame: null,
  back: null,
};

/** The ladders of a board: what each operation of its recipe takes of each dimension, in order, and what the board takes of the panel. Strips are milled together, so they are one stage. */
export function readLadders(context: PlanContext): Record<Dimension, Ladder> {
  // Where nothing is laid out yet, it will be strips side by side.
  const { recipe } = context.board;
  const kinds = new Set(recipe.length > 0 ? recipe.map((o) => o.kind) : (['strip', 'glue'] as const));
  const stages = [...[...kinds].flatMap((kind) => RUNGS_OF[kind] ?? []), boardRungs];
  const read = (dimension: Dimension): Ladder => {
    const taken: Stage[] = stages.map((rungs) => rungs[dimension](context));
    const specs = taken.flatMap((stage) => stage.specs);
    const start = taken.find((stage) => stage.start !== undefined)?.start ?? 0;
    const limiting = taken.find((stage) => stage.limiting)?.limiting ?? null;
    return buildLadder(dimension, start, context.board[dimension], specs, limiting);
  };
  return { thickness: read('thickness'), width: read('width'), length: read('length') };
}
