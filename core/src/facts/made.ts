import { factsThatHold, MOST_SPOTS, type HeldFact } from './factsThatHold.ts';
import type { BoardSide, Fact, MeasuredLength, Spot, Stage, WayTaken } from './fact.ts';

/** What is there already of a board, folded from its facts. Lengths in mm. */
export interface Made {
  /** Length of the first panel as it came out of the clamps; null while it is only planned. */
  readonly panelLength: number | null;
  /** Bad places that were found on it, in the order they were found in. */
  readonly spots: readonly Spot[];
  /** How thick it was out of the clamps, flat, and sanded: of several panels the thinnest of them; null where nobody measured. */
  readonly thickness: Readonly<Record<'glued' | 'flat' | 'finished', number | null>>;
  /** How wide it was out of the clamps, and trimmed: the narrowest. */
  readonly width: Readonly<Record<'glued' | 'trimmed', number | null>>;
  /** How long the shortest board is that was cut to length. */
  readonly length: number | null;
  /** The deepest place in each side that is to be sanded out: one that is filled is none. */
  readonly pits: Readonly<Partial<Record<BoardSide, number>>>;
  /** How many places were filled: glue or a patch that is sanded flush. */
  readonly filled: number;
  /** Strips as they were measured once they were milled, by id. */
  readonly strips: ReadonlyMap<string, MadeStrip>;
}

/** The thinnest and the narrowest of the strips of one name, mm; null where nobody measured. */
export interface MadeStrip {
  readonly thickness: number | null;
  readonly width: number | null;
}

export const NOTHING_MADE: Made = {
  panelLength: null,
  spots: [],
  thickness: { glued: null, flat: null, finished: null },
  width: { glued: null, trimmed: null },
  length: null,
  pits: {},
  filled: 0,
  strips: new Map(),
};

type MeasuredFact = Extract<Fact, { kind: 'measured' }>;

/** Facts by the lists they were read from: the same list folds to the same. */
const FOLDED = new WeakMap<readonly Fact[], Map<string, Made>>();

/**
 * What facts say of the panels and of their strips. Of a size measured twice, or a place looked at twice, the last counts; facts about another thing decide nothing.
 * @param panel id of the operation of the recipe that gives it; undefined while nothing is laid out @param strips ids of the strips that are in it
 */
export function madeOf(facts: readonly Fact[], panel: string | undefined, strips: readonly string[] = []): Made {
  if (panel === undefined || facts.length === 0) return NOTHING_MADE;
  const known = FOLDED.get(facts) ?? new Map<string, Made>();
  FOLDED.set(facts, known);
  const key = `${panel} ${strips.join(' ')}`;
  let made = known.get(key);
  if (!made) known.set(key, (made = folded(factsThatHold(facts), panel, strips)));
  return made;
}

function folded(held: readonly HeldFact[], panel: string, strips: readonly string[]): Made {
  const measured = held.filter((f): f is MeasuredFact => f.kind === 'measured');
  const own = measured.filter((f) => f.thing === panel);
  const ways = decidedWays(held);
  const spots = new Map(
    held.flatMap((f) => (f.kind === 'badPlace' && f.thing === panel && f.copy === 1 ? [[f.spot.id, f] as const] : [])),
  );
  const first = own.filter((f) => f.copy === 1 && f.dimension === 'length' && stageOf(f) === 'glued');
  const panelLength = first.at(-1)?.value ?? null;
  const glued = least(own, 'thickness', ['glued']);
  const flat = noMore(least(own, 'thickness', ['flat', 'trimmed']), glued);
  const wide = least(own, 'width', ['glued', 'flat']);
  return {
    panelLength,
    // One that is filled, lies underneath or is lived with is in nobody's way any more.
    spots: [...spots.values()]
      // One in a side that is sanded moves no board.
      .filter((f) => f.side === undefined && !LIVED_WITH.includes(ways.get(f.id) ?? 'shift'))
      .map((f) => f.spot)
      .slice(0, MOST_SPOTS),
    thickness: { glued, flat, finished: noMore(least(own, 'thickness', ['finished']), flat ?? glued) },
    width: { glued: wide, trimmed: noMore(least(own, 'width', ['trimmed', 'finished']), wide) },
    length: noMore(least(own, 'length', ['trimmed', 'finished']), panelLength),
    filled: held.filter((f) => f.kind === 'badPlace' && f.thing === panel && ways.get(f.id) === 'fill').length,
    pits: deepest([...spots.values()].filter((f) => ways.get(f.id) !== 'fill')),
    strips: new Map(
      strips.flatMap((id) => {
        const of = measured.filter((f) => f.thing === id);
        const strip = { thickness: least(of, 'thickness'), width: least(of, 'width') };
        return strip.thickness === null && strip.width === null ? [] : [[id, strip] as const];
      }),
    ),
  };
}

/** The deepest of the places in each side, mm. */
function deepest(places: readonly Extract<HeldFact, { kind: 'badPlace' }>[]): Partial<Record<BoardSide, number>> {
  const pits: Partial<Record<BoardSide, number>> = {};
  for (const { side, depth } of places)
    if (side !== undefined && depth !== undefined) pits[side] = Math.max(pits[side] ?? 0, depth);
  return pits;
}

/** Work takes wood off: what was measured later is no more than what was measured before. */
const noMore = (size: number | null, before: number | null): number | null =>
  size === null || before === null ? size : Math.min(size, before);

const LIVED_WITH: readonly WayTaken[] = ['goOn', 'fill', 'turnOver'];

/** What was decided last about each thing that went wrong, by the fact that told of it. */
export function decidedWays(held: readonly HeldFact[]): ReadonlyMap<string, WayTaken> {
  return new Map(held.flatMap((f) => (f.kind === 'decided' ? [[f.about, f.way] as const] : [])));
}

/** Strips that are no good and are made again, or about which nobody has decided yet: which, and of which panel. */
export function failedStrips(facts: readonly Fact[]): { strip: string; copy: number }[] {
  if (!facts.some((f) => f.kind === 'failed')) return [];
  const held = factsThatHold(facts);
  const ways = decidedWays(held);
  return held.flatMap((f) =>
    f.kind === 'failed' && f.what === 'strip' && (ways.get(f.id) ?? 'again') === 'again'
      ? [{ strip: f.thing, copy: f.copy }]
      : [],
  );
}

/** How far a thing was when it was measured. */
export const stageOf = ({ stage }: Pick<MeasuredFact, 'stage'>): Stage => stage ?? 'glued';

/** The least of what each copy measured last at some stages; null where nobody measured. */
function least(facts: readonly MeasuredFact[], dimension: MeasuredLength, stages?: readonly Stage[]): number | null {
  const last = new Map<number, number>();
  for (const fact of facts)
    if (fact.dimension === dimension && (!stages || stages.includes(stageOf(fact)))) last.set(fact.copy, fact.value);
  return last.size === 0 ? null : Math.min(...last.values());
}
