import { demandKey } from './demandKey.ts';
import { certain, entryOf, firstOf } from '../lists/there.ts';
import { panelBoardOf } from '../board/again.ts';
import { allowancesFor, type Allowances } from '../board/allowances.ts';
import type { Board } from '../board/board.ts';
import { madeFor } from '../board/madeFor.ts';
import { shopFor } from '../board/differences.ts';
import { auditCut } from '../cutting/auditCut.ts';
import { NO_SCORE } from '../cutting/settle.ts';
import type { Blank, CutPlan, PromisedRange, RippedStrip, Shortage, StripDemand } from '../cutting/cutPlan.ts';
import type { CutProblem } from '../cutting/cutProblem.ts';
import { firstFit } from '../cutting/firstFit.ts';
import { shortagesOf } from '../cutting/shortages.ts';
import { demandsAsThickAsCanBe } from '../cutting/thinner.ts';
import type { Fact } from '../facts/fact.ts';
import type { Shop } from '../shop/shop.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { NOTHING_SAWN, type DoneBlank, type PlanInput } from './planInput.ts';
import { demandsFor } from './demands.ts';

/** A board among those that are cut together. */
export interface BoardToCut {
  key: string;
  board: Board;
  done: readonly DoneBlank[];
  /** What happened to it; left out: nothing did. */
  facts?: readonly Fact[];
}

/** The shop that boards are cut in: where one alone differs from it, as it differs; boards cut together are sawn by the shop's own habits. */
export function sawingShop(boards: readonly Pick<Board, 'differs'>[], shop: Shop): Shop {
  return boards.length === 1 ? shopFor(firstOf(boards), shop) : shop;
}

/**
 * What several boards still ask of one rack. Strips that are cut already are not asked for again; pieces that every board bans are left alone.
 */
export function cutProblemFor(
  boards: readonly BoardToCut[],
  rest: Pick<PlanInput, 'rack' | 'shop' | 'species'> & { promised: readonly PromisedRange[] },
): CutProblem {
  const shop = sawingShop(
    boards.map((b) => b.board),
    rest.shop,
  );
  const demands = boards.flatMap(({ key, board, done, facts }) => {
    const all = demandsFor(
      board,
      allowancesFor(board, rest.shop, madeFor(panelBoardOf(board, rest.shop), facts)),
      shopFor(board, rest.shop),
      key,
    );
    const { met } = stripsInHand(all, done);
    const banned = new Set(board.cutting.bans);
    const allowed =
      boards.length > 1 && banned.size > 0 ? rest.rack.filter((p) => !banned.has(p.id)).map((p) => p.id) : null;
    return all
      .filter((d) => !met.has(demandKey(d)))
      .map((d) => (allowed ? { ...d, from: d.from ? d.from.filter((id) => !banned.has(id)) : allowed } : d));
  });
  const banned = new Set(boards.length === 1 ? firstOf(boards).board.cutting.bans : []);
  const problem = { demands, rack: rest.rack, promised: rest.promised, banned, shop, species: rest.species };
  return { ...problem, demands: demandsAsThickAsCanBe(problem) };
}

/** Strips on the bench that meet demands, by the demand, and demands that are not asked for again: those, and spares that stand in for a strip. */
interface InHand {
  strips: Map<string, { strip: RippedStrip; from: DoneBlank }>;
  met: Set<string>;
}

/** Which demands a strip on the bench already meets: the same strip, still large enough; for one that failed a spare like it stands in. */
function stripsInHand(demands: readonly StripDemand[], done: readonly DoneBlank[]): InHand {
  const strips: InHand['strips'] = new Map();
  const cut = new Map(
    done.flatMap((from) => from.blank.strips.map((strip) => [demandKey(strip.demand), { strip, from }] as const)),
  );
  for (const demand of demands) {
    const held = cut.get(demandKey(demand));
    if (held && serves(held, demand)) strips.set(demandKey(demand), held);
  }
  const met = new Set(strips.keys());
  const spares = demands.filter((d) => d.spare > 0 && strips.has(demandKey(d)));
  for (const demand of demands) {
    // While nothing of a strip was cut yet it is only to be cut, and keeps its spare.
    if (demand.spare > 0 || met.has(demandKey(demand)) || spares.length === 0) continue;
    const at = spares.findIndex((s) => alike(s, demand) && serves(entryOf(strips, demandKey(s)), demand));
    if (at < 0) continue;
    const [spare] = spares.splice(at, 1);
    strips.set(demandKey(demand), entryOf(strips, demandKey(certain(spare))));
    strips.delete(demandKey(certain(spare)));
    met.add(demandKey(demand));
  }
  return { strips, met };
}

/** Whether two demands ask for the same strip. */
function alike(a: StripDemand, b: StripDemand): boolean {
  const near = (x: number, y: number) => Math.abs(x - y) < LENGTH_TOLERANCE_MM;
  return (
    a.species === b.species &&
    near(a.length, b.length) &&
    near(firstOf(a.ways).rip, firstOf(b.ways).rip) &&
    near(firstOf(a.ways).thickness, firstOf(b.ways).thickness)
  );
}

function serves({ strip, from }: { strip: RippedStrip; from: DoneBlank }, demand: StripDemand): boolean {
  return (
    strip.demand.species === demand.species &&
    from.blank.length >= demand.length - LENGTH_TOLERANCE_MM &&
    demand.ways.some(
      (way) =>
        way.shows === strip.way.shows &&
        strip.way.rip >= way.rip - LENGTH_TOLERANCE_MM &&
        Math.max(strip.way.thickness, strip.layers === 1 ? strip.planed : 0) >= way.thickness - LENGTH_TOLERANCE_MM,
    )
  );
}

/**
 * The cut plan of one board: what is cut already, then the plan that was chosen as long as it fits, else first fit.
 */
export function cutForBoard(input: PlanInput, allowances: Allowances): { cutting: CutPlan; outdated: boolean } {
  const saw = input.saw ?? NOTHING_SAWN;
  const problem = cutProblemFor([{ key: saw.key, board: input.board, done: saw.done, facts: input.facts }], {
    ...input,
    promised: saw.promised,
  });
  const chosen = saw.chosen ? stillFits(saw.chosen, problem, saw.key) : null;
  const planned = chosen ?? firstFit(problem);
  const all = new Map(
    demandsFor(input.board, allowances, shopFor(input.board, input.shop), saw.key).map((d) => [demandKey(d), d]),
  );
  const held = new Map(
    [...stripsInHand([...all.values()], saw.done).strips].map(([key, { strip }]) => [strip, entryOf(all, key)]),
  );
  const done = saw.done
    .map(({ blank }): Blank => ({
      ...blank,
      done: true,
      strips: blank.strips.flatMap((s) => (held.has(s) ? [{ ...s, demand: entryOf(held, s) }] : [])),
    }))
    .filter((b) => b.strips.length > 0);
  return {
    cutting: { ...planned, blanks: [...done, ...planned.blanks] },
    outdated: saw.chosen !== null && chosen === null,
  };
}

/** The board's share of a chosen plan, with today's strip numbers, or null when a strip or piece in it has changed. */
function stillFits(chosen: CutPlan, problem: CutProblem, key: string): CutPlan | null {
  const wanted = new Map(problem.demands.map((d) => [demandKey(d), d]));
  const unmet = new Set(wanted.keys());
  const blanks: Blank[] = [];
  for (const blank of chosen.blanks) {
    const mine = blank.strips.filter((s) => s.demand.board === key);
    if (mine.length === 0) continue;
    const strips: RippedStrip[] = [];
    for (const strip of mine) {
      const demand = wanted.get(demandKey(strip.demand));
      const way = demand?.ways.find(
        (w) =>
          w.shows === strip.way.shows &&
          Math.abs(w.rip - strip.way.rip) < LENGTH_TOLERANCE_MM &&
          Math.abs(w.thickness - strip.way.thickness) < LENGTH_TOLERANCE_MM,
      );
      if (
        !demand ||
        !way ||
        Math.abs(demand.length - blank.length) > LENGTH_TOLERANCE_MM ||
        demand.species !== strip.demand.species ||
        (demand.from && !demand.from.includes(blank.pieceId)) ||
        problem.banned.has(blank.pieceId)
      )
        return null;
      strips.push({ ...strip, demand });
      unmet.delete(demandKey(demand));
    }
    blanks.push({ ...blank, strips });
  }
  const missing = problem.demands.filter((d) => d.spare === 0 && unmet.has(demandKey(d)));
  // What the plan could not give is still missing; anything else it knows nothing of.
  if (
    !missing.every((d) =>
      chosen.shortages.some((s) => isKind(s, d) && s.parts >= missing.filter((m) => isKind(s, m)).length),
    )
  )
    return null;
  if (auditCut(blanks, problem.rack, problem.promised, problem.shop).length > 0) return null;
  const touched = new Set(blanks.map((b) => `${b.pieceId}/${b.unit}`));
  const whole = chosen.blanks.every((b) => b.strips.every((s) => s.demand.board === key));
  return {
    ...chosen,
    blanks,
    leftovers: chosen.leftovers.filter((l) => touched.has(`${l.pieceId}/${l.unit}`)),
    score: whole ? chosen.score : NO_SCORE,
    shortages: shortagesOf(missing, problem),
  };
}

/** Whether a demand is of the kind that a shortage speaks of. */
function isKind(shortage: Shortage, { species, length, ways: [usual] }: StripDemand): boolean {
  return (
    shortage.species === species &&
    shortage.length === length &&
    shortage.rip === usual?.rip &&
    shortage.thickness === usual.thickness
  );
}
