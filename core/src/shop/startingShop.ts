import { firstOf } from '../lists/there.ts';
import { z } from 'zod';
import { lineOfText } from '../units/textSchema.ts';
import { crosscutSawSchema, handToolsSchema, jointerSchema, planerSchema, sawSchema } from './machines.ts';
import { clampSchema, glueSchema, USUAL_GLUES } from './gluing.ts';
import type { Schools } from './schools.ts';
import { USUAL_SCHOOLS } from './schools.ts';
import type { DayHours } from './hours.ts';
import { DEFAULT_SHOP, shopSchema, type Shop } from './shop.ts';
import { usualFigures, type Machine } from './usualFigures.ts';

/** When a shop is open, as its maker says it. */
export const HOURS = {
  evenings: { name: 'Evenings and Saturdays', weekday: { from: '18:00', to: '21:00' }, saturday: true, sunday: false },
  weekends: { name: 'Weekends', weekday: null, saturday: true, sunday: true },
  days: { name: 'All day', weekday: { from: '09:00', to: '18:00' }, saturday: true, sunday: false },
} as const;
export type HoursId = keyof typeof HOURS;
export const hoursIds = Object.keys(HOURS) as [HoursId, ...HoursId[]];
const WEEKEND_DAY: DayHours = { from: '10:00', to: '16:00' };

/** What decides plans, asked once of a shop that begins. Everything else begins with usual figures, and is changed in the Shop. */
export const startingAnswersSchema = z.strictObject({
  name: lineOfText(1, 80),
  system: z.enum(['metric', 'inch'], { error: 'must be metric or inch' }),
  currency: shopSchema.shape.currency,
  saw: sawSchema.shape.kind,
  crosscutSaw: crosscutSawSchema.shape.kind,
  /** Widths of what it has; null for what it has not. */
  jointer: jointerSchema.shape.width.nullable(),
  planer: planerSchema.shape.width.nullable(),
  head: planerSchema.shape.head,
  drumSander: planerSchema.shape.width.nullable(),
  bandSaw: z.boolean(),
  router: z.boolean(),
  handTools: handToolsSchema,
  clamps: z
    .array(
      z.strictObject({
        kind: clampSchema.shape.kind,
        opening: clampSchema.shape.opening,
        count: clampSchema.shape.count,
      }),
    )
    .max(20, { error: 'must be at most 20 kinds' }),
  glue: z.enum(
    USUAL_GLUES.map((g) => g.id),
    { error: 'must be one of the usual glues' },
  ),
  hours: z.enum(hoursIds),
});
export type StartingAnswers = z.infer<typeof startingAnswersSchema>;

/** What most begin with, as answers to be changed. */
export function usualAnswers(system: StartingAnswers['system']): StartingAnswers {
  const { machines, clamp } = usualFigures(system);
  return {
    name: 'My shop',
    system,
    currency: DEFAULT_SHOP.currency,
    saw: 'table',
    crosscutSaw: 'sled',
    jointer: null,
    planer: machines.planer.width,
    head: 'straight',
    drumSander: null,
    bandSaw: false,
    router: true,
    handTools: { planes: false, beltSander: false, orbitalSander: true },
    clamps: [{ kind: 'pipe', opening: clamp.opening, count: 4 }],
    glue: firstOf(USUAL_GLUES).id,
    hours: 'evenings',
  };
}

/** Force of a firm hand by kind of clamp, kN (common practice). */
const FORCE: Readonly<Record<StartingAnswers['clamps'][number]['kind'], number>> = {
  pipe: 4.5,
  bar: 4,
  parallel: 4,
  f: 2.5,
};

/** The ways of working that what is there allows: on every other question the usual one. */
function schoolsFor({ saw, jointer, planer, drumSander, bandSaw, handTools }: StartingAnswers): Schools {
  return {
    ...USUAL_SCHOOLS,
    straightEdge: jointer ? 'jointer' : saw === 'table' ? 'carrier' : handTools.planes ? 'handPlane' : 'stuck',
    thin: bandSaw ? 'bandSaw' : saw === 'table' ? 'thinRip' : 'fat',
    flatten: planer
      ? 'planer'
      : drumSander
        ? 'drum'
        : handTools.beltSander
          ? 'beltSander'
          : handTools.planes
            ? 'handPlanes'
            : 'orbital',
  };
}

function daysOf(hours: HoursId): DayHours[] {
  const { weekday, saturday, sunday } = HOURS[hours];
  return [...Array<DayHours>(5).fill(weekday), saturday ? WEEKEND_DAY : null, sunday ? WEEKEND_DAY : null];
}

/** The shop that somebody described in a few answers, with usual figures in round ones of its own units for all the rest. */
export function startingShop(answers: StartingAnswers): Shop {
  const { machines, ripKerf, cutDepth, crosscutKerf, clamp, habits, cutting, clampSpacing, clampInset } = usualFigures(
    answers.system,
  );
  const wide = <M extends Machine>(machine: M, width: number | null) =>
    width === null ? null : { ...machines[machine], width };
  return shopSchema.parse({
    ...DEFAULT_SHOP,
    name: answers.name,
    currency: answers.currency,
    saw: { kind: answers.saw, kerf: ripKerf[answers.saw], cutDepth: cutDepth[answers.saw] },
    crosscutSaw: { kind: answers.crosscutSaw, kerf: crosscutKerf[answers.crosscutSaw] },
    jointer: wide('jointer', answers.jointer),
    planer: answers.planer === null ? null : { ...machines.planer, width: answers.planer, head: answers.head },
    drumSander: wide('drumSander', answers.drumSander),
    routerSled: null,
    bandSaw: answers.bandSaw ? machines.bandSaw : null,
    router: answers.router ? machines.router : null,
    handTools: answers.handTools,
    clamps: answers.clamps
      .filter((c) => c.count > 0)
      .map((c, i) => ({ id: `clamps-${i + 1}`, ...c, reach: clamp.reach, force: FORCE[c.kind] })),
    glues: USUAL_GLUES.map((g) => glueSchema.parse(g)),
    glue: answers.glue,
    hours: daysOf(answers.hours),
    habits,
    schools: schoolsFor(answers),
    cutting: { ...DEFAULT_SHOP.cutting, keepWidth: cutting.keepWidth, spareBelow: cutting.spareBelow },
    pace: { ...DEFAULT_SHOP.pace, clampSpacing, clampInset },
  } satisfies Shop);
}
