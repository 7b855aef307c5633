import { z } from 'zod';
import { lengthBetween } from '../units/lengthSchema.ts';
import { idSchema, speciesCodeSchema } from '../units/textSchema.ts';

/** More strips than any hand-made board holds; a longer list is a mistake. */
export const GREATEST_STRIP_COUNT = 200;

const yesOrNo = z.boolean({ error: 'must be true or false' });

/** A strip out of the rack: a leaf of the recipe. */
export const stripSchema = z.strictObject({
  kind: z.literal('strip', { error: 'must be strip' }),
  id: idSchema,
  species: speciesCodeSchema,
  /** Width in the glued panel, mm: what lies between its two glue lines. */
  width: lengthBetween(1, 1000),
  /** True when the strip was turned end for end, so its grain arrow points the other way. */
  endForEnd: yesOrNo,
  /** True when it was turned over: the other face shows. */
  turned: yesOrNo,
  /** True when the maker said which side shows; else a strip whose clean side is down is turned over by the plan. */
  sideKept: yesOrNo,
  /** True when it lies the other way than the construction says: face up in an edge-grain board, edge up in a face-grain one. */
  rolled: yesOrNo,
  /** True when it keeps its place and width while others are shuffled, evened out or proposed anew. */
  locked: yesOrNo,
});

/** Things glued side by side to a panel, first to last across it. */
export const glueSchema = z.strictObject({
  kind: z.literal('glue', { error: 'must be glue' }),
  id: idSchema,
  /** Ids of what is glued, in order; each was made before. */
  takes: z
    .array(idSchema)
    .min(1, { error: 'must name at least one thing' })
    .max(GREATEST_STRIP_COUNT, { error: `must be at most ${GREATEST_STRIP_COUNT} things` }),
});

/** One thing that is done on the way from the rack to the panel that the board is trimmed from. */
export const operationSchema = z.discriminatedUnion('kind', [stripSchema, glueSchema], {
  error: 'must be one of strip, glue',
});
export type RecipeOperation = z.infer<typeof operationSchema>;
export type StripOperation = z.infer<typeof stripSchema>;
export type GlueOperation = z.infer<typeof glueSchema>;

/** A strip of a board as it is laid out. */
export type Strip = Omit<StripOperation, 'kind'>;

/** How a strip lies that nobody has turned. */
export const AS_IT_LIES = {
  endForEnd: false,
  turned: false,
  sideKept: false,
  rolled: false,
  locked: false,
} as const satisfies Partial<Strip>;

/**
 * How a board is made: operations in order, each with an id of its own, each naming what it takes by id, only what was made before and only once. The last gives
 * the panel that is trimmed to the board. Nothing yet while there are no strips.
 */
export const recipeSchema = z
  .array(operationSchema)
  .max(GREATEST_STRIP_COUNT + 1, { error: `must be at most ${GREATEST_STRIP_COUNT} strips and their glue-up` })
  .superRefine((recipe, context) => {
    for (const { path, message } of recipeProblems(recipe)) context.addIssue({ code: 'custom', path, message });
  });
export type Recipe = z.infer<typeof recipeSchema>;

/** What is wrong with the references of a recipe, each with the field it stands in. */
export function recipeProblems(recipe: readonly RecipeOperation[]): { path: (string | number)[]; message: string }[] {
  const problems: { path: (string | number)[]; message: string }[] = [];
  const made = new Set<string>();
  const loose = new Set<string>();
  recipe.forEach((operation, i) => {
    if (operation.kind === 'glue') {
      operation.takes.forEach((id, k) => {
        if (!made.has(id))
          problems.push({
            path: [i, 'takes', k],
            message: `must name something made before; nothing is called ${id} there`,
          });
        else if (!loose.delete(id)) problems.push({ path: [i, 'takes', k], message: `must not take ${id} twice` });
      });
    }
    if (made.has(operation.id)) problems.push({ path: [i, 'id'], message: 'must be an id of its own' });
    made.add(operation.id);
    loose.add(operation.id);
  });
  const last = recipe.at(-1);
  if (!last || problems.length > 0) return problems;
  if (last.kind !== 'glue')
    problems.push({ path: [recipe.length - 1], message: 'must be a glue-up: the last operation gives the panel' });
  else if (loose.size > 1)
    problems.push({
      path: [recipe.length - 1, 'takes'],
      message: `must take every strip; ${[...loose].find((id) => id !== last.id)} is left over`,
    });
  recipe.slice(0, -1).forEach((operation, i) => {
    if (operation.kind === 'glue')
      problems.push({ path: [i], message: 'must be a strip: a board is glued in one panel' });
  });
  return problems;
}

/** Strips of recipes that were read before: the same recipe gives the same list. */
const STRIPS = new WeakMap<Recipe, readonly StripOperation[]>();

/** The strips of a board in the order they lie in, first to last across it; none while nothing is laid out. */
export function stripsOf({ recipe }: { readonly recipe: Recipe }): readonly StripOperation[] {
  const known = STRIPS.get(recipe);
  if (known) return known;
  const byId = new Map(recipe.flatMap((o) => (o.kind === 'strip' ? [[o.id, o] as const] : [])));
  const glue = recipe.at(-1);
  const strips = glue?.kind === 'glue' ? glue.takes.flatMap((id) => byId.get(id) ?? []) : [];
  STRIPS.set(recipe, strips);
  return strips;
}

/** The recipe of a flat panel: strips, glued side by side. @param glueId of the glue-up; one that a strip has is not taken */
export function flatRecipe(strips: readonly Strip[], glueId = 'panel'): Recipe {
  if (strips.length === 0) return [];
  let id = glueId;
  while (strips.some((s) => s.id === id)) id = `${id}-`;
  return [
    ...strips.map((s): StripOperation => ({ kind: 'strip', ...s })),
    { kind: 'glue', id, takes: strips.map((s) => s.id) },
  ];
}

/** The same board with other strips, glued by the same glue-up. */
export function withStrips<B extends { readonly recipe: Recipe }>(board: B, strips: readonly Strip[]): B {
  return { ...board, recipe: flatRecipe(strips, board.recipe.at(-1)?.id) };
}
