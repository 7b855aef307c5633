import { z } from 'zod';
import { lengthBetween } from '../units/lengthSchema.ts';
import { certain } from '../lists/there.ts';
import { idSchema, speciesCodeSchema } from '../units/textSchema.ts';

/** More strips than any hand-made board holds; a longer list is a mistake. */
export const GREATEST_STRIP_COUNT = 200;

/** Sharper than this a slice is mostly point, degrees. */
export const GREATEST_ANGLE = 60;
/** More rows than any hand-made board holds. */
export const GREATEST_ROW_COUNT = 200;
/** Turns after another beyond which nobody follows them. */
const GREATEST_TURN_COUNT = 8;

const yesOrNo = z.boolean();
const angleOf = (least: number) =>
  z
    .number({ error: 'must be a number of degrees' })
    .min(least, { error: `must be at least ${least}°` })
    .max(GREATEST_ANGLE, { error: `must be at most ${GREATEST_ANGLE}°` });
const wholeBetween = (least: number, most: number) => z.int().min(least).max(most);

/** A strip out of the rack, or one of those that a stack of bits is resawn into: a leaf of the recipe. */
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
  /** Id of the stack that it is resawn from, an accent then, of the species of the stack's first bit; null for a strip out of the rack. */
  stack: idSchema.nullable(),
});

/** More kinds of bits than this nobody stacks in turn, and more stacks nobody puts into one board. */
export const GREATEST_STICK_COUNT = 12;
const GREATEST_STACK_COUNT = 4;

/** Bits glued end to end, in turn from each of some sticks, as often as the panel is long: resawn lengthwise into accents. */
export const stackSchema = z.strictObject({
  kind: z.literal('stack', { error: 'must be stack' }),
  id: idSchema,
  /** Ids of the strips that the bits are crosscut from; all are as wide, and all of their width is resawn. */
  takes: z
    .array(idSchema)
    .min(1, { error: 'must be at least one strip' })
    .max(GREATEST_STICK_COUNT, { error: `must be at most ${GREATEST_STICK_COUNT} strips` }),
  /** How long the bits of each are along the accent, mm. */
  bits: z.array(lengthBetween(5, 500)),
});

/** A pattern that begins again when it has been gone through; empty for the same everywhere. */
const GREATEST_PATTERN = 400;

/** Things glued side by side to a panel, first to last. */
export const glueSchema = z.strictObject({
  kind: z.literal('glue', { error: 'must be glue' }),
  id: idSchema,
  /** Ids of what is glued, in order; each was made before. What gives several things, such as slices, is taken whole. */
  takes: z.array(idSchema).max(GREATEST_STRIP_COUNT, { error: `must be at most ${GREATEST_STRIP_COUNT} things` }),
  /** Each part lies so much further along that the ends follow a cut of this angle, degrees; 0 for ends that are flush. */
  stagger: angleOf(-GREATEST_ANGLE),
  /** So much further along each part lies, a pattern that repeats, mm; empty for none. */
  shifts: z.array(lengthBetween(-500, 500)).max(GREATEST_PATTERN),
  /** Whether the parts lie along the board or across it. */
  runs: z.enum(['along', 'across'], { error: 'must be along or across' }),
  /** How thick the panel is once flat, mm; null for as thick as the board asks. */
  thickness: lengthBetween(3, 150).nullable(),
});

/** Rows come from no more panels than this in turn. */
export const GREATEST_PANEL_COUNT = 3;

/** Panels sawn into slices. */
export const sliceSchema = z.strictObject({
  kind: z.literal('slice', { error: 'must be slice' }),
  id: idSchema,
  /** Ids of the panels; of several the rows come in turn: one of the first, one of the second, and so on. */
  takes: z
    .array(idSchema)
    .min(1, { error: 'must be at least one panel' })
    .max(GREATEST_PANEL_COUNT, { error: `must be at most ${GREATEST_PANEL_COUNT} panels` }),
  /** Between the cut and a square crosscut, degrees. */
  angle: angleOf(-GREATEST_ANGLE),
  /** So much further in than what is trimmed of any panel lies the first cut, along the strips, mm: wood that shall not be in the board. */
  first: lengthBetween(0, 500),
  /** Thickness of a slice between its cut faces as it comes from the saw, mm; null for what the board asks. */
  pitch: lengthBetween(3, 500).nullable(),
  /** Slices for one board; null for as many as it asks. */
  count: wholeBetween(1, GREATEST_ROW_COUNT).nullable(),
  /** Panels alike, of each of those, that the slices of the whole batch come from. */
  panels: wholeBetween(1, 50),
});

/** How a slice is turned before it is glued again: its cut face up, its underside up, or its far end first. */
export const TURNS = ['up', 'over', 'endForEnd'] as const;
export type Turn = (typeof TURNS)[number];

/** Slices turned, all of them or some. */
export const turnSchema = z.strictObject({
  kind: z.literal('turn', { error: 'must be turn' }),
  id: idSchema,
  /** Id of the slices. */
  takes: idSchema,
  turn: z.enum(TURNS),
  /** Which of them, a pattern that repeats: [false, true] is every second. */
  pattern: z
    .array(yesOrNo)
    .min(1, { error: 'must say at least for one slice whether it is turned' })
    .max(GREATEST_PATTERN),
});

/** More than this nobody puts into one board. */
const GREATEST_INSERT_COUNT = 12;

/** A panel sawn through along a line, and a strip glued in between: a band across the board, or a slanted accent. */
export const insertSchema = z.strictObject({
  kind: z.literal('insert', { error: 'must be insert' }),
  id: idSchema,
  /** Ids of the panel and of the strip that is glued in. */
  takes: z.array(idSchema).length(2, { error: 'must be a panel and a strip' }),
  /** Where the middle of the strip crosses the middle of the finished board, from its left end, mm. */
  at: lengthBetween(0, 3000),
  /** Between the cut and a square crosscut, degrees. */
  angle: angleOf(-GREATEST_ANGLE),
  /** So much nearer what lies behind is glued than what lies before, mm; 0 where their edges and strips run on in line. */
  jog: lengthBetween(-200, 200),
});

/** More rings than this nobody puts round a board. */
const GREATEST_FRAME_COUNT = 4;

/** What comes first round a board: what is glued on then is as long as the board, what comes after covers its ends. */
export const FRAME_FIRST = ['sides', 'ends'] as const;
export type FrameFirst = (typeof FRAME_FIRST)[number];

/** A panel cut to size, and four strips glued round it, corners butted. */
export const frameSchema = z.strictObject({
  kind: z.literal('frame', { error: 'must be frame' }),
  id: idSchema,
  /** Ids of the panel and of the strips along its far side, its near side, its left end and its right end. */
  takes: z
    .array(idSchema)
    .length(5, { error: 'must be a panel and four strips: far side, near side, left end, right end' }),
  first: z.enum(FRAME_FIRST, { error: 'must be sides or ends' }),
});

/** More strips than this nobody glues to a back. */
const GREATEST_BACK_STRIP_COUNT = 60;

/** A thin panel of strips glued under all there is. */
export const backSchema = z.strictObject({
  kind: z.literal('back', { error: 'must be back' }),
  id: idSchema,
  /** Ids of the panel, and of the strips of the back side by side. */
  takes: z
    .array(idSchema)
    .min(2, { error: 'must be a panel and at least one strip' })
    .max(GREATEST_BACK_STRIP_COUNT + 1, { error: `must be a panel and at most ${GREATEST_BACK_STRIP_COUNT} strips` }),
  /** Whether its strips lie along the board or across it. */
  runs: z.enum(['along', 'across'], { error: 'must be along or across' }),
  /** How thick it is once flat, mm. */
  thickness: lengthBetween(2, 100),
});

/** One thing that is done on the way from the rack to the panel that the board is trimmed from. */
export const operationSchema = z.discriminatedUnion(
  'kind',
  [stripSchema, stackSchema, glueSchema, sliceSchema, turnSchema, insertSchema, frameSchema, backSchema],
  { error: 'must be one of strip, stack, glue, slice, turn, insert, frame, back' },
);
export type RecipeOperation = z.infer<typeof operationSchema>;
export type StripOperation = z.infer<typeof stripSchema>;
export type StackOperation = z.infer<typeof stackSchema>;
export type GlueOperation = z.infer<typeof glueSchema>;
export type SliceOperation = z.infer<typeof sliceSchema>;
export type TurnOperation = z.infer<typeof turnSchema>;
export type InsertOperation = z.infer<typeof insertSchema>;
export type FrameOperation = z.infer<typeof frameSchema>;
export type BackOperation = z.infer<typeof backSchema>;

/** How parts are glued that lie flush, side by side along the board. */
export const FLUSH = {
  stagger: 0,
  shifts: [],
  runs: 'along',
  thickness: null,
} as const satisfies Partial<GlueOperation>;

/** A strip of a board as it is laid out. */
export type Strip = Omit<StripOperation, 'kind'>;

/** How a strip lies that nobody has turned. */
export const AS_IT_LIES = {
  endForEnd: false,
  turned: false,
  sideKept: false,
  rolled: false,
  locked: false,
  stack: null,
} as const satisfies Partial<Strip>;

/**
 * How a board is made: operations in order, each with an id of its own, each naming what it takes by id, only what was made before and only once. The last gives
 * the panel that is trimmed to the board. Nothing yet while there are no strips.
 */
export const recipeSchema = z
  .array(operationSchema)
  .max(
    GREATEST_STRIP_COUNT +
      GREATEST_TURN_COUNT +
      2 * GREATEST_INSERT_COUNT +
      (GREATEST_STICK_COUNT + 1) * GREATEST_STACK_COUNT +
      5 * GREATEST_FRAME_COUNT +
      GREATEST_BACK_STRIP_COUNT +
      4,
    {
      error: `must be at most ${GREATEST_STRIP_COUNT} strips with their stacks, glue-ups, slices, turns, inserts, frames and a back`,
    },
  )
  .superRefine((recipe, context) => {
    for (const { path, message } of recipeProblems(recipe)) context.addIssue({ code: 'custom', path, message });
  });
export type Recipe = z.infer<typeof recipeSchema>;

interface RecipeProblem {
  path: (string | number)[];
  message: string;
}

/** What is wrong with a recipe, each with the field it stands in: first its references, then what is made of them. */
export function recipeProblems(recipe: readonly RecipeOperation[]): RecipeProblem[] {
  const problems = referenceProblems(recipe);
  return problems.length > 0 ? problems : orderProblems(recipe);
}

const takenBy = (operation: RecipeOperation): { id: string; path: (string | number)[] }[] =>
  operation.kind === 'strip'
    ? []
    : operation.kind !== 'turn'
      ? operation.takes.map((id, k) => ({ id, path: ['takes', k] }))
      : [{ id: operation.takes, path: ['takes'] }];

/** Each thing is made once, before it is taken, taken once, and nothing is left over. */
function referenceProblems(recipe: readonly RecipeOperation[]): RecipeProblem[] {
  const problems: RecipeProblem[] = [];
  const made = new Set<string>();
  const loose = new Set<string>();
  recipe.forEach((operation, i) => {
    for (const { id, path } of takenBy(operation)) {
      if (!made.has(id))
        problems.push({
          path: [i, ...path],
          message: `must name something made before; nothing is called ${id} there`,
        });
      else if (!loose.delete(id)) problems.push({ path: [i, ...path], message: `must not take ${id} twice` });
    }
    // A stack is resawn into as many accents as name it.
    if (operation.kind === 'strip' && operation.stack !== null) {
      if (made.has(operation.stack)) loose.delete(operation.stack);
      else
        problems.push({
          path: [i, 'stack'],
          message: `must name a stack made before; nothing is called ${operation.stack} there`,
        });
    }
    if (made.has(operation.id)) problems.push({ path: [i, 'id'], message: 'must be an id of its own' });
    made.add(operation.id);
    loose.add(operation.id);
  });
  const last = recipe.at(-1);
  if (!last || problems.length > 0) return problems;
  if (last.kind === 'strip' || last.kind === 'stack' || last.kind === 'slice' || last.kind === 'turn')
    problems.push({
      path: [recipe.length - 1],
      message: 'must be a glue-up, an insert, a frame or a back: the last operation gives the panel',
    });
  else if (loose.size > 1)
    problems.push({
      path: [recipe.length - 1, 'takes'],
      message: `must take everything; ${[...loose].find((id) => id !== last.id)} is left over`,
    });
  return problems;
}

/** What each kind may take: strips are glued, a panel of strips is sliced, slices are turned and glued again; strips are put into a flat panel; frames go round what is glued, and a back under it, last of all. */
function orderProblems(recipe: readonly RecipeOperation[]): RecipeProblem[] {
  const byId = new Map(recipe.map((operation) => [operation.id, operation]));
  const kindOf = (id: string) => {
    const made = byId.get(id);
    return made?.kind === 'strip' && made.stack !== null ? 'accent' : made?.kind;
  };
  const sliced = recipe.some((o) => o.kind === 'slice');
  let turns = 0;
  let inserts = 0;
  let frames = 0;
  let stacks = 0;
  const framed = recipe.findIndex((o) => o.kind === 'frame' || o.kind === 'back');
  // What is framed is made like any board: its own last operation gives the panel.
  const made = framed < 0 ? recipe : recipe.slice(0, framed).filter((o) => o.kind !== 'strip');
  return recipe.flatMap((operation, i): RecipeProblem[] => {
    const last = operation === made.at(-1);
    if (operation.kind === 'strip') return operation.stack === null ? [] : accentProblems(operation, i, byId);
    if (operation.kind === 'stack') {
      stacks += 1;
      if (stacks > GREATEST_STACK_COUNT)
        return [{ path: [i], message: `must be one of at most ${GREATEST_STACK_COUNT} stacks` }];
      if (sliced) return [{ path: [i], message: 'must be for a flat panel: this one is sliced' }];
      return stackProblems(operation, i, byId);
    }
    if (operation.kind === 'slice') {
      if (recipe.slice(0, i).some((o) => o.kind === 'slice'))
        return [{ path: [i], message: 'must be the only slices: what several panels give is taken together' }];
      return operation.takes.flatMap((id, k): RecipeProblem[] =>
        kindOf(id) === 'glue'
          ? []
          : [{ path: [i, 'takes', k], message: 'must be a panel: only what is glued is sliced' }],
      );
    }
    if (operation.kind === 'turn') {
      turns += 1;
      if (turns > GREATEST_TURN_COUNT)
        return [{ path: [i], message: `must be one of at most ${GREATEST_TURN_COUNT} turns` }];
      const taken = kindOf(operation.takes);
      if (taken !== 'slice' && taken !== 'turn')
        return [{ path: [i, 'takes'], message: 'must be slices: only slices are turned' }];
      if (operation.turn !== 'up') return [];
      if (operation.pattern.includes(false))
        return [{ path: [i, 'pattern'], message: 'must turn every slice up: rows of one board are equally high' }];
      return recipe.slice(0, i).some((o) => o.kind === 'turn' && o.turn === 'up')
        ? [{ path: [i, 'turn'], message: 'must not turn slices up twice' }]
        : [];
    }
    if (operation.kind === 'insert') {
      inserts += 1;
      if (inserts > GREATEST_INSERT_COUNT)
        return [{ path: [i], message: `must be one of at most ${GREATEST_INSERT_COUNT} inserts` }];
      const [panel, strip] = operation.takes;
      if (kindOf(certain(panel)) !== 'glue' && kindOf(certain(panel)) !== 'insert')
        return [{ path: [i, 'takes', 0], message: 'must be a panel' }];
      if (kindOf(certain(strip)) !== 'strip') return [{ path: [i, 'takes', 1], message: 'must be a strip' }];
      return sliced ? [{ path: [i], message: 'must be put into a flat panel: this one is sliced' }] : [];
    }
    if (operation.kind === 'frame' || operation.kind === 'back') {
      if (operation.kind === 'back' && i < recipe.length - 1)
        return [{ path: [i], message: 'must come last: nothing is glued to a back' }];
      frames += operation.kind === 'frame' ? 1 : 0;
      if (frames > GREATEST_FRAME_COUNT)
        return [{ path: [i], message: `must be one of at most ${GREATEST_FRAME_COUNT} frames` }];
      const [panel, ...strips] = operation.takes.map(kindOf);
      if (panel !== 'glue' && panel !== 'insert' && panel !== 'frame')
        return [{ path: [i, 'takes', 0], message: 'must be a panel' }];
      const other = strips.findIndex((kind) => kind !== 'strip');
      return other < 0 ? [] : [{ path: [i, 'takes', other + 1], message: 'must be a strip' }];
    }
    if (framed >= 0 && i > framed)
      return [
        { path: [i], message: 'must come before the frame: nothing but another frame, or a back, is glued to a frame' },
      ];
    if (operation.kind !== 'glue') return [];
    // How a board will be made may be known before there are strips.
    if (operation.takes.length === 0 && i === recipe.length - 1)
      return [{ path: [i, 'takes'], message: 'must name at least one thing' }];
    const ofStrips = operation.takes.every((id) => kindOf(id) === 'strip' || kindOf(id) === 'accent');
    if (!last || !sliced) {
      if (!ofStrips) return [{ path: [i, 'takes'], message: 'must be strips: the first panel is glued of strips' }];
      const earlier = recipe.slice(0, i).some((o) => o.kind === 'glue');
      if (!earlier) return [];
      const slice = recipe.find((o) => o.kind === 'slice');
      if (!slice?.takes.includes(operation.id))
        return [{ path: [i], message: 'must be the only panel of strips, or sliced with the others' }];
      const main = byId.get(certain(slice.takes[0]));
      return main?.kind === 'glue' && main.thickness !== operation.thickness
        ? [{ path: [i, 'thickness'], message: 'must be that of the first panel: rows are alike' }]
        : [];
    }
    const [only, ...others] = operation.takes;
    const taken = only === undefined ? undefined : kindOf(only);
    return others.length === 0 && (taken === 'slice' || taken === 'turn')
      ? []
      : [{ path: [i, 'takes'], message: 'must be the slices, and nothing else' }];
  });
}

/** An accent is of a stack, told by the wood that its bits begin with. */
function accentProblems(
  { stack, species }: StripOperation,
  i: number,
  byId: ReadonlyMap<string, RecipeOperation>,
): RecipeProblem[] {
  const own = byId.get(stack ?? '');
  if (own?.kind !== 'stack') return [{ path: [i, 'stack'], message: 'must be a stack' }];
  const first = byId.get(certain(own.takes[0]));
  return first?.kind === 'strip' && first.species !== species
    ? [{ path: [i, 'species'], message: `must be ${first.species}, as the first bit of its stack` }]
    : [];
}

/** A stack is of strips out of the rack, all as wide, each with the length of its bits. */
function stackProblems(
  { takes, bits }: StackOperation,
  i: number,
  byId: ReadonlyMap<string, RecipeOperation>,
): RecipeProblem[] {
  const sticks = takes.map((id) => byId.get(id));
  const other = sticks.findIndex((s) => s?.kind !== 'strip' || s.stack !== null);
  if (other >= 0) return [{ path: [i, 'takes', other], message: 'must be a strip out of the rack' }];
  if (bits.length !== takes.length)
    return [{ path: [i, 'bits'], message: 'must say for each of its strips how long its bits are' }];
  const widths = sticks.map((s) => (s?.kind === 'strip' ? s.width : 0));
  const wider = widths.findIndex((w) => w !== widths[0]);
  return wider < 0 ? [] : [{ path: [i, 'takes', wider], message: 'must be as wide as the first strip of the stack' }];
}

/** Strips of recipes that were read before: the same recipe gives the same list. */
const STRIPS = new WeakMap<Recipe, readonly StripOperation[]>();

/** The panels that strips are glued to: one, or those that rows come from in turn, the first first. */
export function panelsOfRecipe(recipe: readonly RecipeOperation[]): GlueOperation[] {
  const glued = recipe.filter((o) => o.kind === 'glue');
  const slice = recipe.find((o) => o.kind === 'slice');
  return slice ? slice.takes.flatMap((id) => glued.find((o) => o.id === id) ?? []) : glued.slice(0, 1);
}

/** The strips of a panel in the order they lie in it. */
export function stripsIn(panel: GlueOperation, { recipe }: { readonly recipe: Recipe }): StripOperation[] {
  const byId = new Map(recipe.flatMap((o) => (o.kind === 'strip' ? [[o.id, o] as const] : [])));
  return panel.takes.flatMap((id) => byId.get(id) ?? []);
}

/** The strips of a board in the order they lie in their panel, first to last across it; none while nothing is laid out. */
export function stripsOf({ recipe }: { readonly recipe: Recipe }): readonly StripOperation[] {
  const known = STRIPS.get(recipe);
  if (known) return known;
  const [panel] = panelsOfRecipe(recipe);
  const strips = panel ? stripsIn(panel, { recipe }) : [];
  STRIPS.set(recipe, strips);
  return strips;
}

/** Strips that are cut beside those of the first panel, in the order they are put into it. */
const LOOSE = new WeakMap<Recipe, readonly StripOperation[]>();

/** Strips that do not lie in the first panel: those of panels whose rows come in turn with its own, then what is glued in between parts or round them, in the order of the recipe. */
export function looseStripsOf({ recipe }: { readonly recipe: Recipe }): readonly StripOperation[] {
  const known = LOOSE.get(recipe);
  if (known) return known;
  const panels = panelsOfRecipe(recipe);
  const inPanels = new Set(panels.flatMap((p) => p.takes));
  // Those of a back side by side.
  const back = recipe.find((o) => o.kind === 'back');
  const under = new Set(back?.takes.slice(1));
  const loose = [
    ...panels.slice(1).flatMap((p) => stripsIn(p, { recipe })),
    ...(panels.length > 0
      ? recipe.flatMap((o) => (o.kind === 'strip' && !inPanels.has(o.id) && !under.has(o.id) ? [o] : []))
      : []),
  ];
  if (panels.length > 0)
    loose.push(...[...under].flatMap((id) => recipe.flatMap((o) => (o.kind === 'strip' && o.id === id ? [o] : []))));
  LOOSE.set(recipe, loose);
  return loose;
}

/** Every strip that is cut for a board, by its number: those of the first panel in order, then those that are put in later. */
export function cutStripsOf(board: { readonly recipe: Recipe }): readonly StripOperation[] {
  const loose = looseStripsOf(board);
  return loose.length === 0 ? stripsOf(board) : [...stripsOf(board), ...loose];
}

/** Whether a board is more than strips side by side: some of them are accents of bits, its panel is sliced, or something is put into it, glued round it or under it. */
export function isCutAgain({ recipe }: { readonly recipe: Recipe }): boolean {
  return recipe.some((o) => o.kind !== 'strip' && o.kind !== 'glue');
}

/** Operations in the order of the work: strips out of the rack, stacks of their bits, accents, and what is made of them; strips keep their numbers. */
export function inWorkingOrder(operations: readonly RecipeOperation[]): Recipe {
  const rank = (o: RecipeOperation) => (o.kind === 'strip' ? (o.stack === null ? 0 : 2) : o.kind === 'stack' ? 1 : 3);
  return [...operations].sort((a, b) => rank(a) - rank(b));
}

/** The first panel of a board as all there is: what else is cut for it lies beside its strips. @param glueId of its glue-up */
export function firstPanelRecipe(board: { readonly recipe: Recipe }, glueId: string): Recipe {
  const strips = stripsOf(board);
  const beside = [...looseStripsOf(board), ...board.recipe.filter((o) => o.kind === 'stack')];
  if (strips.length === 0) return beside;
  return inWorkingOrder([...beside, ...strips, { ...FLUSH, kind: 'glue', id: glueId, takes: strips.map((s) => s.id) }]);
}

/** The recipe of a flat panel: strips, glued side by side. @param glueId of the glue-up; one that a strip has is not taken */
export function flatRecipe(strips: readonly Strip[], glueId = 'panel'): Recipe {
  return strips.length === 0 ? [] : relaid([{ ...FLUSH, kind: 'glue', id: glueId, takes: [] }], strips);
}

/** The same operations on other strips: ids that a strip has now give way. A stack that no strip is resawn from any more goes, and a strip whose stack is not there is one out of the rack. */
function relaid(made: readonly RecipeOperation[], strips: readonly Strip[]): Recipe {
  const used = new Set(strips.map((s) => s.id));
  const renamed = new Map<string, string>();
  const nameFor = (id: string): string => {
    let free = id;
    while (used.has(free)) free = `${free}-`;
    used.add(free);
    renamed.set(id, free);
    return free;
  };
  const main = panelsOfRecipe(made)[0];
  const accented = new Set(strips.map((s) => s.stack));
  const stacks = made.filter((o) => o.kind === 'stack' && accented.has(o.id));
  const idle = made.filter((o) => o.kind === 'stack' && !accented.has(o.id));
  const sticksOf = (of: readonly RecipeOperation[]) =>
    new Set(of.flatMap((o): string[] => (o.kind === 'stack' ? o.takes : [])));
  const [kept, gone] = [sticksOf(stacks), sticksOf(idle)];
  const again = (operation: RecipeOperation): RecipeOperation => {
    const id = nameFor(operation.id);
    if (operation.kind === 'strip') return { ...operation, id };
    if (operation.kind === 'turn') return { ...operation, id, takes: renamed.get(operation.takes) ?? operation.takes };
    const takes = operation === main ? strips.map((s) => s.id) : operation.takes.map((t) => renamed.get(t) ?? t);
    return { ...operation, id, takes };
  };
  // Stacks come before the strips that are resawn from them.
  const stacked = made.filter((o) => kept.has(o.id) || stacks.includes(o)).map(again);
  const known = new Set(stacked.map((o) => o.id));
  const laid = strips.map((s): StripOperation => {
    const stack = s.stack === null ? null : (renamed.get(s.stack) ?? s.stack);
    return { kind: 'strip', ...s, stack: stack !== null && known.has(stack) ? stack : null };
  });
  const rest = made.filter((o) => !kept.has(o.id) && !stacks.includes(o) && !gone.has(o.id) && !idle.includes(o));
  const all = [...stacked, ...laid, ...rest.map(again)];
  return stacked.length > 0 ? inWorkingOrder(all) : all;
}

/** The recipe of the first panel alone: its strips and the glue-up that takes them; of a flat board that is all of it. */
export function panelRecipe(recipe: Recipe): Recipe {
  const [panel] = panelsOfRecipe(recipe);
  const loose = new Set(looseStripsOf({ recipe }));
  if (!panel || (panel === recipe.at(-1) && loose.size === 0)) return recipe;
  return recipe.slice(0, recipe.indexOf(panel) + 1).filter((o) => o === panel || (o.kind === 'strip' && !loose.has(o)));
}

/** What is done with the strips of the first panel, in order, and what is cut beside them. */
function madeOf(board: { readonly recipe: Recipe }): RecipeOperation[] {
  const inPanel = new Set<RecipeOperation>(stripsOf(board));
  return board.recipe.filter((o) => !inPanel.has(o));
}

/** The same board with other strips, made the same way. A board without strips is made by nothing, and begins as a flat panel. */
export function withStrips<B extends { readonly recipe: Recipe }>(board: B, strips: readonly Strip[]): B {
  const made = madeOf(board);
  const recipe = made.length === 0 ? flatRecipe(strips) : relaid(made, strips);
  return { ...board, recipe: strips.length === 0 && recipe.length <= 1 ? [] : recipe };
}
