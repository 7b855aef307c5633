import { z } from 'zod';
import type { Habits, Shop } from '../shop/shop.ts';
import { shopSchema } from '../shop/shop.ts';
import { someSchoolsSchema } from '../shop/schools.ts';

/** Habits that one board may have of its own. What concerns stock belongs to the shop: several boards are cut from one piece. */
export const BOARD_HABITS = [
  'creep',
  'glueEdgeJoint',
  'ripFat',
  'panelFlatten',
  'endGrainFlatten',
  'panelEdgeTrim',
  'panelEndTrim',
  'sanding',
  'edgeTreatment',
  'leaveBeneath',
  'leaveBeside',
] as const satisfies readonly (keyof Habits)[];
export type BoardHabit = (typeof BOARD_HABITS)[number];

const habitShape = shopSchema.shape.habits.shape;

/** Where a board differs from its shop; what is left out is as in the shop. */
export const boardHabitsSchema = z.strictObject({
  habits: z.strictObject(Object.fromEntries(BOARD_HABITS.map((h) => [h, habitShape[h].optional()]))),
  schools: someSchoolsSchema,
  /** Id of a glue of the shop; null is the shop's choice. */
  glue: z.string().max(40).nullable(),
});
export type Differences = z.infer<typeof boardHabitsSchema>;

export const NO_DIFFERENCES: Differences = { habits: {}, schools: {}, glue: null };

const MERGED = new WeakMap<Shop, Map<string, Shop>>();
/** Figures are typed one after the other; older ones are forgotten. */
const MOST_MERGED = 50;

/**
 * The shop as a board is made in it. The same shop and the same differences give the same object, so that what is remembered of a shop stays good.
 */
export function shopFor({ differs }: { differs: Differences }, shop: Shop): Shop {
  const key = JSON.stringify(differs);
  if (key === JSON.stringify(NO_DIFFERENCES)) return shop;
  const known = MERGED.get(shop) ?? new Map<string, Shop>();
  MERGED.set(shop, known);
  const found = known.get(key);
  if (found) return found;
  if (known.size >= MOST_MERGED) known.clear();
  const merged: Shop = {
    ...shop,
    habits: { ...shop.habits, ...differs.habits },
    schools: { ...shop.schools, ...differs.schools },
    glue: differs.glue !== null && shop.glues.some((g) => g.id === differs.glue) ? differs.glue : shop.glue,
  };
  known.set(key, merged);
  return merged;
}
