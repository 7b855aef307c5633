import { progressOf } from '../bench/progress.ts';
import { measuresOf } from '../bench/measures.ts';
import { shopFor } from '../board/differences.ts';
import { cutStripsOf } from '../board/recipe.ts';
import { isHabitMeasured } from '../facts/fact.ts';
import { factsThatHold } from '../facts/factsThatHold.ts';
import { stageOf } from '../facts/made.ts';
import { makePlan, type Plan } from '../plan/plan.ts';
import { showFace } from '../recipe/face.ts';
import type { PlanInput } from '../saw/planInput.ts';
import type { Shop } from '../shop/shop.ts';
import type { LogEntry, Pair } from './entry.ts';

/** Coordinates on a face are told so finely, mm. */
const FACE_STEP = 100;
/** Longer than that no line of the log is, characters. */
const MOST_FINISH_TEXT = 120;

/**
 * A finished board as the log keeps it, from its plan with all that happened.
 * @param at when it was finished @param forWhom whose it is
 */
export function entryOf(given: PlanInput, boardId: string | null, at: string, forWhom = ''): LogEntry {
  const plan = makePlan(given);
  const { board, facts = [] } = given;
  const { operations, ladders, shop } = plan;
  const { steps } = progressOf(operations, facts);
  const timed = steps.flatMap(({ step, times }) =>
    times.flatMap((t) => (t?.minutes === null || t === null ? [] : [{ step, minutes: t.minutes }])),
  );
  const wood = plan.wood?.board;
  const speciesOf = new Map(cutStripsOf(board).map((s) => [s.id, s.species]));
  const priced = plan.materials.unpriced.length < plan.cutting.blanks.length;
  return {
    board,
    boardId,
    finishedAt: at,
    forWhom,
    wished: { length: board.length, width: board.width, thickness: board.thickness },
    reached: {
      length: ladders.length.reached,
      width: ladders.width.reached,
      thickness: ladders.thickness.reached,
    },
    pieces: plan.cutting.blanks.flatMap((blank) => {
      const piece = given.rack.find((p) => p.id === blank.pieceId) ?? pieceSawn(given, blank.pieceId);
      if (!piece) return [];
      const { mark, species, width, origin } = piece;
      return [{ mark, species, length: blank.length, width, origin: origin.kind, of: origin.of }];
    }),
    glue: shop.glues.find((g) => g.id === shop.glue)?.name ?? '',
    finish: plan.finish.coatings
      .map((c) => c.finish.name)
      .join(', ')
      .slice(0, MOST_FINISH_TEXT)
      .trim(),
    minutesPlanned: operations.reduce((sum, o) => sum + o.minutes * o.repeats, 0),
    minutesTaken: timed.reduce((sum, t) => sum + t.minutes, 0),
    minutesPlannedOfTaken: timed.reduce((sum, t) => sum + t.step.minutes, 0),
    cost: priced ? plan.materials.cost : null,
    currency: plan.materials.currency,
    grams: plan.materials.gramsEach,
    facts: [...facts],
    pairs: pairsOf(given, plan),
    face: wood
      ? showFace(wood).map(({ polygon, cell }) => ({
          species: speciesOf.get(cell.strip) ?? '',
          corners: polygon.map(([x, y]): [number, number] => [
            Math.round(x * FACE_STEP) / FACE_STEP,
            Math.round(y * FACE_STEP) / FACE_STEP,
          ]),
        }))
      : [],
    care: [],
  };
}

/** A piece that is cut already is no longer in the rack: as it was then. */
function pieceSawn({ saw }: PlanInput, id: string) {
  return saw?.done.find((d) => d.piece.id === id)?.piece;
}

/** Which habit says how much each takes. */
export const HABIT_OF = { flatten: 'panelFlatten', flattenEnd: 'endGrainFlatten', sand: 'sanding' } as const;

/** What was planned of a board against what happened: sizes before and after a step that both were measured or known, and the minutes of steps a clock ran for. */
export function pairsOf(given: PlanInput, plan: Plan): Pair[] {
  const { board, shop, facts = [] } = given;
  const species = [...new Set(cutStripsOf(board).map((s) => s.species))];
  const only = species.length === 1 ? (species[0] ?? null) : null;
  const bare = makePlan({ ...given, facts: [] });
  const planned = bare.operations.flatMap((step) =>
    measuresOf(step, bare.operations, board, shop).map((measure) => ({ step, measure })),
  );
  const measured = factsThatHold(facts).flatMap((f) => (f.kind === 'measured' ? [f] : []));
  const value = (thing: string, copy: number, dimension: string, stage: string) =>
    measured.findLast((f) => f.thing === thing && f.copy === copy && f.dimension === dimension && stageOf(f) === stage)
      ?.value;
  const endGrain = plan.again?.up === true;
  const sizes = planned.flatMap(({ step, measure }): Pair[] => {
    const ofBlock = step.id !== step.kind;
    const what =
      step.kind === 'sand'
        ? 'sand'
        : step.kind !== 'flattenPanel'
          ? null
          : endGrain && ofBlock
            ? 'flattenEnd'
            : 'flatten';
    if (!what || measure.dimension !== 'thickness' || measure.before === null || measure.expected === null) return [];
    const after = value(measure.thing, measure.copy, 'thickness', measure.stage);
    if (after === undefined) return [];
    // Where nobody measured it before, it is what the plan says it was.
    const before =
      value(measure.thing, measure.copy, 'thickness', what === 'sand' ? 'flat' : 'glued') ?? measure.before;
    // Sections lost half of it before they were joined: what is compared is all of it.
    const whole = plan.shop.habits[HABIT_OF[what]];
    return [
      {
        what,
        step: step.kind,
        machine: step.machine,
        species: only,
        width: plan.panelWidth,
        planned: whole,
        happened: whole + (before - after) - (measure.before - measure.expected),
      },
    ];
  });
  const times = progressOf(plan.operations, facts).steps.flatMap(({ step, times: done }) =>
    done.flatMap((t): Pair[] =>
      t === null || t.minutes === null
        ? []
        : [
            {
              what: 'minutes',
              step: step.kind,
              machine: step.machine,
              species: only,
              width: null,
              planned: step.minutes,
              happened: t.minutes,
            },
          ],
    ),
  );
  return [
    ...sizes,
    ...workPairs(given, plan, only),
    ...spoiledPairs(given, plan),
    ...uptakePairs(given, plan, only),
    ...times,
  ];
}

/** How the shop worked, where somebody measured it. */
function workPairs({ board, shop, facts = [] }: PlanInput, plan: Plan, species: string | null): Pair[] {
  const steps = new Map(plan.operations.map((o) => [o.id, o]));
  return factsThatHold(facts).flatMap((f): Pair[] => {
    if (f.kind !== 'measured' || !isHabitMeasured(f.dimension)) return [];
    const { dimension: what } = f;
    const step = f.step === undefined ? undefined : steps.get(f.step);
    const planned = shopWays[what](shopFor(board, shop));
    return planned === null
      ? []
      : [
          {
            what,
            step: step?.kind ?? 'trimEnds',
            machine: step?.machine ?? null,
            species,
            width: plan.panelWidth,
            planned,
            happened: f.value,
          },
        ];
  });
}

/** Where the shop keeps what it expects of each; null where it does not have the machine. */
const shopWays: Readonly<Record<'creep' | 'snipe' | 'endTrim', (shop: Shop) => number | null>> = {
  creep: ({ habits }) => habits.creep,
  snipe: ({ planer }) => planer?.snipe ?? null,
  endTrim: ({ habits }) => habits.panelEndTrim,
};

/** What boards drank of their first finish, where they were weighed bare and right after it. */
function uptakePairs({ facts = [] }: PlanInput, plan: Plan, species: string | null): Pair[] {
  const [first] = plan.finish.coatings;
  const step = plan.operations.find((o) => o.kind === 'oil' || o.kind === 'topCoat');
  if (!first || !step) return [];
  const weighed = factsThatHold(facts).flatMap((f) => (f.kind === 'measured' && f.dimension === 'weight' ? [f] : []));
  const copies = [...new Set(weighed.map((f) => f.copy))];
  return copies.flatMap((copy): Pair[] => {
    const of = weighed.filter((f) => f.copy === copy);
    const before = of.findLast((f) => stageOf(f) === 'trimmed');
    const after = of.find((f) => f.step === step.id);
    return before && after && after.value > before.value
      ? [
          {
            what: 'uptake',
            step: step.kind,
            machine: first.finish.name,
            species,
            width: null,
            planned: first.amount.total,
            happened: after.value - before.value,
          },
        ]
      : [];
  });
}

/** Strips that are wider than this are not spoiled for being thin, mm. */
const THIN_MM = 25;

/** How many of every thin strip were no good, with how many spares were cut. */
function spoiledPairs({ board, facts = [] }: PlanInput, plan: Plan): Pair[] {
  const failed = factsThatHold(facts).flatMap((f) => (f.kind === 'failed' && f.what === 'strip' ? [f.thing] : []));
  const { spares, spareBelow } = plan.shop.cutting;
  const machine = plan.operations.find((o) => o.kind === 'resaw' || o.kind === 'rip')?.machine ?? null;
  return cutStripsOf(board).flatMap(({ id, species, width }): Pair[] =>
    width > THIN_MM
      ? []
      : [
          {
            what: 'spoiled',
            step: 'rip',
            machine,
            species,
            width,
            planned: board.cutting.spares + (width <= spareBelow ? spares : 0),
            happened: failed.filter((thing) => thing === id).length,
          },
        ],
  );
}
