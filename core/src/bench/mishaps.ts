import type { Board } from '../board/board.ts';
import { cutStripsOf, stripsOf, withStrips } from '../board/recipe.ts';
import { isHabitMeasured, type Fact } from '../facts/fact.ts';
import { factsThatHold, type HeldFact } from '../facts/factsThatHold.ts';
import { decidedWays, stageOf } from '../facts/made.ts';
import { nth } from '../lists/there.ts';
import { makePlan, type Plan } from '../plan/plan.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import { NEAR_ENOUGH_MM, type FactOf, type Mishap, type MishapWay } from './mishap.ts';
import { moistureMishap } from './moistureMishap.ts';
import { pitMishap } from './pitMishap.ts';
import { measuresOf, type Measure } from './measures.ts';

/** Diagonals that differ by more make corners that are seen to be out of square, mm (common practice). */
const SQUARE_WITHIN_MM = 0.5;

const WORDS = { thickness: 'thick', width: 'wide', length: 'long' } as const;
const SIDES = ['thickness', 'width', 'length'] as const;
type Side = (typeof SIDES)[number];

/** Nobody decides about more than these at one moment. */
export const MOST_TOLD = 3;

/** What went otherwise, as far as it is told at once. */
export interface Mishaps {
  /** The oldest first. */
  told: Mishap[];
  /** Whether more waits until these are decided. */
  more: boolean;
}

/**
 * What went otherwise than planned and is not decided yet. Each way out may take a plan of its own, so a few are told, and the next ones when those are decided.
 * @param plan made with all the facts of `given`
 */
export function firstMishaps(given: PlanInput, plan: Plan): Mishaps {
  return told(given, plan, MOST_TOLD);
}

/** Facts that may be told as gone otherwise, as long as nobody decided about them: no plan is needed to know them. */
export function undecidedFacts(facts: readonly Fact[]): ReadonlySet<string> {
  const held = factsThatHold(facts);
  const decided = decidedWays(held);
  return new Set(held.filter((f) => KINDS.has(f.kind) && !decided.has(f.id)).map((f) => f.id));
}

const KINDS: ReadonlySet<Fact['kind']> = new Set(['measured', 'badPlace', 'failed', 'usedUp']);

/** All of them. */
export function mishapsOf(given: PlanInput, plan: Plan): Mishap[] {
  return told(given, plan, Infinity).told;
}

function told(given: PlanInput, plan: Plan, most: number): Mishaps {
  const facts = given.facts ?? [];
  const held = factsThatHold(facts);
  const decided = decidedWays(held);
  const latest = latestOf(held);
  let unmeasured: Plan | null = null;
  /** What came out as it was planned before anything was measured needs no plan of its own to be told. */
  const isAsPlanned = (fact: FactOf<'measured'>): boolean => {
    unmeasured ??= makePlan({ ...given, facts: facts.filter((f) => f.kind !== 'measured') });
    const expected = measureOf(unmeasured, given, fact)?.expected ?? null;
    return expected !== null && Math.abs(fact.value - expected) <= NEAR_ENOUGH_MM;
  };
  const mishapOf = (fact: HeldFact): Mishap[] => {
    if (fact.kind === 'measured') {
      if (fact.dimension === 'moisture') return moistureMishap(given, fact);
      // It is for the lessons: nothing of this board is another size for it.
      if (isHabitMeasured(fact.dimension)) return [];
      if (fact.dimension === 'diagonal' || fact.dimension === 'otherDiagonal') return outOfSquare(given, plan, fact);
      return isAsPlanned(fact) ? [] : offSize(given, plan, fact);
    }
    if (fact.kind === 'badPlace')
      return fact.side === undefined ? badPlace(given, plan, fact) : pitMishap(given, plan, fact);
    if (fact.kind === 'failed') return failed(given, plan, fact);
    return fact.kind === 'usedUp'
      ? [
          {
            fact: fact.id,
            says: say`There is no ${fact.what} left.`,
            ways: [{ way: 'goOn', title: say`There is again`, cost: say`Nothing else changes`, board: null }],
          },
        ]
      : [];
  };
  const open = held.filter((fact) => !decided.has(fact.id) && latest.has(fact.id));
  const first: Mishap[] = [];
  let next = 0;
  for (; next < open.length && first.length < most; next += 1) first.push(...mishapOf(nth(open, next)));
  // What was measured may be as planned; anything else that was noted is told for certain.
  const more = open.slice(next).some((f) => (f.kind === 'measured' ? mishapOf(f).length > 0 : KINDS.has(f.kind)));
  return { told: first, more };
}

/** Facts that none after them says anew: of a size measured twice at one stage, and a place looked at twice, the last. */
function latestOf(held: readonly HeldFact[]): ReadonlySet<string> {
  const last = new Map<string, string>();
  for (const fact of held) {
    const key =
      fact.kind === 'measured'
        ? `${fact.thing} ${fact.copy} ${fact.dimension} ${stageOf(fact)}`
        : fact.kind === 'badPlace'
          ? `${fact.thing} ${fact.copy} ${fact.spot.id}`
          : fact.id;
    last.set(key, fact.id);
  }
  return new Set(last.values());
}

/** The plan as it was before somebody measured something, and what it expected there. */
function before(given: PlanInput, fact: FactOf<'measured'>): { plan: Plan; measure: Measure } | null {
  const facts = (given.facts ?? []).filter((f) => f.id !== fact.id);
  const plan = makePlan({ ...given, facts });
  const measure = measureOf(plan, given, fact);
  return measure ? { plan, measure } : null;
}

/** What a plan expects where something was measured. */
function measureOf({ operations }: Plan, { board, shop }: PlanInput, fact: FactOf<'measured'>): Measure | undefined {
  return operations
    .flatMap((step) => measuresOf(step, operations, board, shop))
    .find(
      (m) =>
        m.thing === fact.thing && m.copy === fact.copy && m.dimension === fact.dimension && m.stage === stageOf(fact),
    );
}

/** What becomes of the board: the sizes that are others than before, or the one that was measured. */
function endsAt(plan: Plan, was: Plan, side: Side): Phrase {
  const differs = SIDES.filter((s) => Math.abs(plan.ladders[s].reached - was.ladders[s].reached) > NEAR_ENOUGH_MM);
  const told = differs.length > 0 ? differs : [side];
  return told.reduce<Phrase>((all, s, i) => {
    const { reached, target, shortBy } = plan.ladders[s];
    const one =
      shortBy > NEAR_ENOUGH_MM
        ? say`${i === 0 ? 'the board ends ' : ''}${length(reached)} ${WORDS[s]}, ${length(target - reached)} under what is wished`
        : say`${i === 0 ? 'the board still comes out ' : ''}${length(reached)} ${WORDS[s]}`;
    return i === 0 ? one : say`${all}, and ${one}`;
  }, []);
}

function offSize(given: PlanInput, plan: Plan, fact: FactOf<'measured'>): Mishap[] {
  const side = SIDES.find((s) => s === fact.dimension);
  const known = side && before(given, fact);
  if (!known || known.measure.expected === null) return [];
  const off = fact.value - known.measure.expected;
  if (Math.abs(off) <= NEAR_ENOUGH_MM) return [];
  const strip = cutStripsOf(given.board).some((s) => s.id === fact.thing);
  const ends = endsAt(plan, known.plan, side);
  return [
    {
      fact: fact.id,
      says: say`${known.measure.label}: ${length(fact.value)} ${WORDS[side]}, ${length(Math.abs(off))} ${off < 0 ? 'under' : 'over'}; ${ends}.`,
      ways: [
        { way: 'goOn', title: say`Go on`, cost: ends, board: null },
        ...(strip ? [again(plan, fact.thing, fact.copy)] : []),
        ...(side === 'thickness' && off < 0 ? shallower(given.board, -off) : []),
        ...(off > 0 && !strip
          ? [
              {
                way: 'again' as const,
                title: say`Take ${length(off)} more off`,
                cost: say`One more time through the same step, then measure again`,
                board: null,
              },
            ]
          : []),
      ],
    },
  ];
}

/** Shallower than that a groove holds nothing, mm (common practice). */
const LEAST_GROOVE_MM = 2;

/** A groove that leaves as much wood beneath it as was planned, where a thinner board has one. @param thinner by how much, mm */
function shallower(board: Board, thinner: number): MishapWay[] {
  const grooves = board.worked.features.flatMap((f) => (f.kind === 'groove' ? [f] : []));
  const [first] = grooves;
  if (!first || first.depth - thinner < LEAST_GROOVE_MM) return [];
  const depth = Math.round((first.depth - thinner) * 10) / 10;
  return [
    {
      way: 'shallower',
      title: say`Cut a shallower groove`,
      cost: say`${length(depth)} deep instead of ${length(first.depth)}: as much wood is left beneath it as was planned`,
      board: {
        ...board,
        worked: {
          ...board.worked,
          features: board.worked.features.map((f) =>
            f.kind === 'groove'
              ? { ...f, depth: Math.max(LEAST_GROOVE_MM, Math.round((f.depth - thinner) * 10) / 10) }
              : f,
          ),
        },
      },
    },
  ];
}

/** Both diagonals of a board, when they differ: how far an end leans over the width follows from them (plane geometry: d1² − d2² = 4 a b cos of the corner). */
function outOfSquare(given: PlanInput, plan: Plan, fact: FactOf<'measured'>): Mishap[] {
  const { facts = [], board } = given;
  const other = factsThatHold(facts).findLast(
    (f): f is FactOf<'measured'> =>
      f.kind === 'measured' &&
      f.dimension === (fact.dimension === 'diagonal' ? 'otherDiagonal' : 'diagonal') &&
      f.thing === fact.thing &&
      f.copy === fact.copy,
  );
  // Told once, by the one that was measured later.
  if (!other || other.at > fact.at || (other.at === fact.at && other.id > fact.id)) return [];
  const apart = Math.abs(fact.value - other.value);
  if (apart <= SQUARE_WITHIN_MM) return [];
  // A field that goes into a frame is shorter than its board.
  const long = measureOf(plan, given, { ...fact, dimension: 'length' })?.expected ?? board.length;
  const leans = Math.abs(fact.value ** 2 - other.value ** 2) / (4 * long);
  return [
    {
      fact: fact.id,
      says: say`The diagonals differ by ${length(apart)}: the ends lean ${length(leans)} over the width.`,
      ways: [
        {
          way: 'again',
          title: say`Trim the ends once more`,
          cost: say`About ${length(leans)} of length at each end: the same long edge to the fence both times`,
          board: null,
        },
        { way: 'goOn', title: say`Go on`, cost: say`Bevels will not meet at the corners`, board: null },
      ],
    },
  ];
}

/** Makes a strip once more, from what the rack has: the plan has found it a place already. */
function again(plan: Plan, strip: string, copy: number): MishapWay {
  const blank = plan.cutting.blanks.find(
    (b) => !b.done && b.strips.some((s) => s.demand.stripId === strip && s.demand.copy === copy),
  );
  const short = plan.cutting.shortages.length > 0;
  return {
    way: 'again',
    title: say`Make it again`,
    cost: blank
      ? say`${length(blank.length)} more of the rack, and the steps from the saw on for this one strip`
      : short
        ? say`There is no wood left for it in the rack`
        : say`From an off-cut or the rest of its piece, and its steps from the saw on`,
    board: null,
  };
}

function failed(given: PlanInput, plan: Plan, fact: FactOf<'failed'>): Mishap[] {
  const { board } = given;
  if (fact.what === 'glueLine')
    return [
      {
        fact: fact.id,
        says: say`A joint is no good: ${fact.why}. Water and germs get in where it gapes.`,
        ways: [
          {
            way: 'again',
            title: say`Saw it open and glue it again`,
            cost: say`The kerf and both edges, about ${length(given.shop.saw.kerf + 2 * given.shop.habits.glueEdgeJoint)} of width; measure it then`,
            board: null,
          },
          { way: 'fill', title: say`Fill it`, cost: say`It shows, and holds for years if it is thin`, board: null },
          { way: 'goOn', title: say`Go on`, cost: say`It opens with the seasons`, board: null },
        ],
      },
    ];
  if (fact.what === 'slice') {
    const { recut } = plan;
    const side = recut?.last.runs === 'across' ? 'length' : 'width';
    const smaller = recut ? Math.max(30, board[side] - recut.row) : board[side];
    return [
      {
        fact: fact.id,
        says: say`A slice is no good: ${fact.why}.`,
        ways: [
          {
            way: 'shorten',
            title: say`Leave its row out`,
            cost: say`The board gets ${length(smaller)} ${WORDS[side]}`,
            board: recut ? { ...board, [side]: smaller } : null,
          },
          {
            way: 'turnOver',
            title: say`Turn its bad face down`,
            cost: say`The row shows its other face`,
            board: null,
          },
          { way: 'fill', title: say`Fill it`, cost: say`It shows`, board: null },
        ],
      },
    ];
  }
  const strips = stripsOf(board);
  const at = strips.findIndex((s) => s.id === fact.thing);
  const number = cutStripsOf(board).findIndex((s) => s.id === fact.thing) + 1;
  const strip = strips[at];
  const rest = strip
    ? withStrips(
        board,
        strips.filter((s) => s.id !== strip.id),
      )
    : null;
  const without = rest && strips.length > 1 ? makePlan({ ...given, board: rest }) : null;
  const turned = strip
    ? withStrips(
        board,
        strips.map((s) => (s.id === strip.id ? { ...s, turned: !s.turned } : s)),
      )
    : null;
  return [
    {
      fact: fact.id,
      says: say`${number > 0 ? `Strip ${number}` : 'A strip that is no longer in the board'} is no good: ${fact.why}.`,
      ways: [
        again(plan, fact.thing, fact.copy),
        ...(turned
          ? [
              {
                way: 'turnOver' as const,
                title: say`Turn its bad face down`,
                cost: say`Its other face shows`,
                board: turned,
              },
            ]
          : []),
        ...(without && rest
          ? [
              {
                way: 'shorten' as const,
                title: say`Leave it out`,
                cost: say`The board ends at ${length(without.ladders.width.reached)} wide`,
                board: rest,
              },
            ]
          : []),
        { way: 'fill', title: say`Fill it`, cost: say`It shows`, board: null },
        { way: 'goOn', title: say`Use it as it is`, cost: say`It stays in the board`, board: null },
      ],
    },
  ];
}

function badPlace(given: PlanInput, plan: Plan, fact: FactOf<'badPlace'>): Mishap[] {
  const { board } = given;
  const { trim } = plan;
  const clear = trim.missing === 0;
  const { spot } = fact;
  const left = trim.instead?.length ?? 0;
  return [
    {
      fact: fact.id,
      says: clear
        ? say`${spot.what}, ${length(spot.x)} from the left end: the boards are shifted clear of it, as large as they were.`
        : say`${spot.what}, ${length(spot.x)} from the left end: it lies in the way of the board.`,
      ways: [
        ...(clear
          ? [{ way: 'shift' as const, title: say`Shift the boards`, cost: say`Nothing`, board: null }]
          : left >= 50
            ? [
                {
                  way: 'shorten' as const,
                  title: say`Make it shorter`,
                  cost: say`${length(left)} instead of ${length(board.length)}`,
                  board: { ...board, length: left },
                },
              ]
            : []),
        {
          way: 'turnOver',
          title: say`Turn the panel over`,
          cost: say`It is underneath, on the face that nobody sees`,
          board: null,
        },
        { way: 'fill', title: say`Fill it`, cost: say`It shows`, board: null },
        { way: 'goOn', title: say`Leave it`, cost: say`It stays in the board`, board: null },
      ],
    },
  ];
}
