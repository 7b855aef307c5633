import { firstOf, nth } from '../lists/there.ts';
import type { PlanInput } from '../saw/planInput.ts';
import type { PlanContext } from '../ladders/context.ts';
import { panelContextsOf } from '../plan/panelContext.ts';
import { cellsOfBoard } from '../plan/boardCells.ts';
import type { Plan } from '../plan/plan.ts';
import { millingOf } from '../steps/millingPlan.ts';
import { bodiesOfPanel, boardInCells, panelInCells } from '../bodies/cells.ts';
import { movedBy, type Triple } from '../recipe/motion.ts';
import { bounds, moved } from '../recipe/solid.ts';
import { frameStrips } from '../board/frame.ts';
import { woodOf } from './frameWork.ts';
import { bitAt } from './stackWork.ts';
import { madeFor } from '../board/madeFor.ts';
import { boardThing } from '../steps/instruction.ts';
import type { Failure, Made, Wood } from './bench.ts';
import { follow } from './follow.ts';
import { FINE, TOLERANCE, type Followed } from './makersBench.ts';
import { cutStripsOf, stripsIn, stripsOf, type Strip } from '../board/recipe.ts';

/** What he made is compared with the board to his own tolerance; a difference of just that much is none. */
const EXACT_MM = TOLERANCE + FINE;

/**
 * Has the blind maker carry out a plan, from where the work stands, and compares what he made with the board that was planned.
 * @returns his failures in the order of the steps, those of the comparison last
 */
export function followPlan(plan: Plan, given: PlanInput): Followed {
  const input = { ...given, shop: plan.shop };
  const contexts = panelContextsOf(plan, given);
  const context = firstOf(contexts);
  const { strips } = madeFor(given.board, given.facts);
  const followed = follow(plan.operations, {
    rack: input.rack,
    shop: plan.shop,
    species: input.species,
    bench: benchOf(context),
    measured: new Map(
      cutStripsOf(given.board).flatMap((s, k) => {
        const strip = strips.get(s.id);
        return strip ? [[k + 1, strip] as const] : [];
      }),
    ),
  });
  return {
    ...followed,
    failures: [...followed.failures, ...compare(followed, plan, input), ...compareWood(followed, plan, contexts)],
  };
}

/** Strips that were cut already, as they came off the saw. */
function benchOf(context: PlanContext): Wood[] {
  return millingOf(context)
    .strips.filter((s) => s.part.blank.done)
    .map(({ thing, strip, part, sawn }) => ({
      thing,
      piece: part.piece,
      unit: part.blank.unit,
      x: { from: part.blank.from, to: part.blank.from + part.blank.length },
      y: { from: strip.from, to: strip.from + strip.way.rip },
      thickness: sawn,
      thickest: sawn,
      flat: true,
      near: 'straight',
      far: 'straight',
      wiped: false,
    }));
}

function compare({ boards, left, steps }: Followed, plan: Plan, { board, facts }: PlanInput): Failure[] {
  const found: Failure[] = [];
  const fail = (code: Failure['code'], thing: string, strips: number[] = [], mm: Failure['mm'] = null) => {
    if (!found.some((f) => f.code === code && f.thing === thing))
      found.push({ code, step: steps, instruction: 'done', thing, strips, mm });
  };
  const own = boards.filter((b) => b.thing.id.startsWith('board '));
  if (stripsOf(board).length > 0 && own.length < board.count) fail('missingPart', `board ${own.length + 1}`);
  const { size, features } = plan.worked;
  const gluedStrips = [
    ...stripsOf(board),
    ...(plan.recut?.kinds.slice(1) ?? []).flatMap((kind) => stripsIn(kind.panel, board)),
    ...(plan.again?.how === 'parts' ? plan.again.inserts : []).map((i) => i.strip),
    ...(plan.frame ? frameStrips(plan.frame) : []).map((s) => s.strip),
    ...(plan.back?.strips ?? []).map((s) => s.strip),
  ];
  const measured = madeFor(board, facts).strips;
  const asMilled = gluedStrips.map((s) => ({ ...s, width: measured.get(s.id)?.width ?? s.width }));
  for (const made of own) {
    for (const side of ['length', 'width', 'thickness'] as const)
      if (Math.abs(made[side] - size[side]) > EXACT_MM)
        fail('sizes', `${side} of ${made.thing.label}`, [], { is: made[side], limit: size[side] });
    compareStrips(made, asMilled, fail);
    for (const f of features) {
      const done = f.kind === 'feet' ? made.feet >= f.count : made.features.includes(f.id);
      // A feature for which the board has no room is told by a check of its own.
      if (f.kind === 'handle' && done && !made.fitted.includes(f.id))
        fail('missingPart', `handles of ${made.thing.label}`);
      if (!done && plan.worked.solids.some((s) => s.feature === f.id))
        fail('missingPart', `${f.kind} of ${made.thing.label}`);
    }
  }
  for (const wood of left) {
    const strip = /^strip (\d+)\/\d+$/.exec(wood.thing.id);
    if (strip) fail('unusedPart', wood.thing.label, [Number(strip[1])]);
  }
  return found;
}

function compareStrips(
  made: Made,
  strips: readonly Strip[],
  fail: (code: Failure['code'], thing: string, strips?: number[], mm?: Failure['mm']) => void,
): void {
  if (made.panel.strips.length !== strips.length) return fail('missingPart', `strips of ${made.thing.label}`);
  made.panel.strips.forEach(({ wood, width, turned, endForEnd }, i) => {
    const strip = nth(strips, i);
    if (
      wood.piece.species !== strip.species ||
      (strip.sideKept && turned !== strip.turned) ||
      endForEnd !== strip.endForEnd
    )
      fail('wrongWood', `strip ${i + 1}`, [i + 1]);
    if (Math.abs(width - strip.width) > EXACT_MM)
      fail('sizes', `strip ${i + 1}`, [i + 1], { is: width, limit: strip.width });
  });
}

/** The wood of every board that was glued of rows or parts, or framed: the middle of each cell is of the strip and the place that the plan's cells show. */
function compareCells(
  { boards, steps }: Pick<Followed, 'boards' | 'steps'>,
  plan: Plan,
  contexts: readonly PlanContext[],
): Failure[] {
  const first = firstOf(contexts);
  return boards.flatMap((made, k) => {
    if (made.thing.id !== boardThing(k + 1).id) return [];
    const block = k === 0 ? plan.wood?.panel : cellsOfBoard({ ...plan, contexts }, k + 1).whole;
    const place = plan.trim.panels[k]?.[0];
    if (!block || !place) return [];
    const board = k === 0 && plan.wood ? plan.wood.board : boardInCells(block, place, plan.ladders.thickness.reached);
    return board.cells.flatMap((cell): Failure[] => {
      const { corners } = cell.solid;
      const middle = [0, 1, 2].map((axis) => corners.reduce((sum, c) => sum + nth(c, axis), 0) / corners.length);
      const at: Triple = [nth(middle, 0), nth(middle, 1), nth(middle, 2)];
      const laid = woodOf(made, at);
      const wood = laid && bitAt(laid.strip.wood, laid.along);
      const along = movedBy(cell.inPiece, at)[0];
      if (!cell.piece && !wood) return [];
      const same =
        wood !== null &&
        wood.wood.piece.id === cell.piece?.id &&
        wood.wood.unit === cell.unit &&
        Math.abs(wood.along - along) <= EXACT_MM;
      if (same) return [];
      const number = cutStripsOf(first.board).findIndex((s) => s.id === cell.strip) + 1;
      return [
        {
          code: 'wrongWood',
          step: steps,
          instruction: 'done',
          thing: `strip ${number} of ${made.thing.label}`,
          strips: [number],
          mm: wood && { is: wood.along, limit: along },
        },
      ];
    });
  });
}

/** The wood of every board is that of the plan's cells: cut from the same place of the same piece, so that drawings and checks show what is really there. */
function compareWood({ boards, steps }: Followed, plan: Plan, contexts: readonly PlanContext[]): Failure[] {
  const context = firstOf(contexts);
  // Of what came out otherwise the cells are as they were planned.
  if (contexts.some((c) => c.made.strips.size > 0)) return [];
  // What was glued longer or shorter than planned is told of by its own check.
  if (plan.lastly) return compareCells({ boards, steps }, plan, contexts);
  if (context.made.panelLength !== null) return [];
  if (plan.stacks.length > 0) return compareCells({ boards, steps }, plan, contexts);
  const order = stripsOf(context.board).map((s) => s.id);
  let number = 0;
  return plan.trim.panels.flatMap((places, k) => {
    const panel = k === 0 ? (plan.wood?.panel ?? null) : panelInCells(context, bodiesOfPanel(context, k + 1), k + 1);
    return places.flatMap((place) => {
      number += 1;
      const made = boards.find((b) => b.thing.id === boardThing(number).id);
      if (!made || !panel) return [];
      const { cells } =
        number === 1 && plan.wood ? plan.wood.board : boardInCells(panel, place, plan.ladders.thickness.reached);
      return cells.flatMap((cell): Failure[] => {
        const at = order.indexOf(cell.strip);
        const laid = made.panel.strips[at];
        if (!laid || !cell.piece) return [];
        const { wood, endForEnd } = laid;
        const { least, greatest } = bounds(moved(cell.solid, cell.inPiece));
        const from = endForEnd ? wood.x.to - made.x - made.length : wood.x.from + made.x;
        const same =
          wood.piece.id === cell.piece.id &&
          wood.unit === cell.unit &&
          Math.abs(least[0] - from) <= EXACT_MM &&
          Math.abs(greatest[0] - from - made.length) <= EXACT_MM &&
          least[1] >= wood.y.from - EXACT_MM &&
          greatest[1] <= wood.y.to + EXACT_MM;
        return same
          ? []
          : [
              {
                code: 'wrongWood',
                step: steps,
                instruction: 'done',
                thing: `strip ${at + 1} of ${made.thing.label}`,
                strips: [at + 1],
                mm: { is: least[0], limit: from },
              },
            ];
      });
    });
  });
}
