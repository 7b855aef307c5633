import type { Recut, Row } from '../board/recut.ts';
import type { Turn } from '../board/recipe.ts';
import type { GluePlan } from '../gluing/glueUps.ts';
import type { PlanContext } from '../ladders/context.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import { glueStep, rehearsal, type Glued } from './glueSteps.ts';
import { blockThing, rowThing, type Instruction } from './instruction.ts';
import { endCoatLine } from './endCoat.ts';
import { joined } from './millingWords.ts';
import { listNumbers } from './numberList.ts';
import type { StepDraft } from './operation.ts';

/** Rows of the blocks. */
function rowsGlued({ allowances }: PlanContext, { rows }: Recut): Glued {
  const blocks = allowances.panels.length;
  return {
    word: 'row',
    whole: 'block',
    about: 'rows',
    count: rows,
    single: (row, copy) => rowThing((copy - 1) * rows + row, rows, blocks),
    made: (copy) => blockThing(copy, blocks),
  };
}

/** Turning, laying out, rehearsing and gluing the rows of every board. */
export function rowSteps(context: PlanContext, recut: Recut, gluing: GluePlan): StepDraft[] {
  const glued = rowsGlued(context, recut);
  const drinks: Phrase[] = recut.up ? [] : [endCoatLine(context.shop, 'every cut face')];
  return [
    layRows(context, recut, glued),
    ...(gluing.glueUps.length > 0 ? [rehearsal(context, gluing, glued)] : []),
    ...gluing.glueUps.map((glueUp) => {
      const step = glueStep(context, glueUp, gluing, oilyRows(context, glueUp.firstStrip, glueUp.lastStrip), glued);
      const angled = recut.angle === 0 || recut.up ? [] : [SIDEWAYS];
      return { ...step, lines: [...drinks, ...step.lines, ...angled] };
    }),
  ];
}

const SIDEWAYS: Phrase = say`Slanted joints slide under pressure: clamps along the rows as well, lightly, before those across them are tightened`;

/** Rows that hold oily wood: all of them hold every strip. */
function oilyRows({ board, species }: PlanContext, from: number, to: number): number[] {
  const oily = new Set(species.filter((s) => s.oily).map((s) => s.code));
  const any = board.recipe.some((o) => o.kind === 'strip' && oily.has(o.species));
  return any ? Array.from({ length: to - from + 1 }, (_, i) => from + i) : [];
}

/** What each turn is called, of the rows it is done to. */
const TURN_WORDS: Readonly<Record<Turn, (rows: string, all: boolean) => Phrase>> = {
  up: () => say`Turn every slice up: its cut face shows, the numbered one above`,
  over: (rows, all) =>
    say`${all ? 'All rows' : `Rows ${rows}`} turned over lengthwise: the underside comes up, the ends stay where they are`,
  endForEnd: (rows, all) => say`${all ? 'All rows' : `Rows ${rows}`} end for end, the same side up`,
};

/** What is done to the rows of one board, in the recipe's order: lines a maker reads, the same of all boards. */
export function turnLines({ turns, rows, all, kinds }: Recut): Phrase[] {
  const inTurn = kinds.map((kind, k) => {
    const own = all.filter((r) => r.board === 1 && r.kind === k).map((r) => r.number);
    const from =
      kind.slices.length > 1
        ? `panels ${kind.before.panels + 1} to ${kind.before.panels + kind.slices.length}`
        : `panel ${kind.before.panels + 1}`;
    return say`${own.length === 1 ? 'Row' : 'Rows'} ${listNumbers(own)} from ${from}`;
  });
  const lies = turns.map(({ turn, pattern }) => {
    const turned = all.filter((r) => r.board === 1).flatMap((r, i) => (pattern[i % pattern.length] ? [r.number] : []));
    return TURN_WORDS[turn](listNumbers(turned), turned.length === rows);
  });
  return kinds.length > 1 ? [...inTurn, ...lies] : lies;
}

/** Rows that are shifted, by how much. */
function shiftLines(rows: readonly Row[]): Phrase[] {
  const shifted = rows.filter((r) => r.shift !== 0);
  if (shifted.length === 0) return [];
  const by = [...new Set(shifted.map((r) => r.shift))];
  return [
    joined(
      say`Shifted along: `,
      ...by.map(
        (mm, i) =>
          say`${i > 0 ? '; ' : ''}rows ${listNumbers(shifted.filter((r) => r.shift === mm).map((r) => r.number))} by ${length(Math.abs(mm))}${mm < 0 ? ' back' : ''}`,
      ),
    ),
  ];
}

function layRows(context: PlanContext, recut: Recut, { made }: Glued): StepDraft {
  const { rows, all, last } = recut;
  const blocks = context.allowances.panels.length;
  const thing = (row: Row) => rowThing(row.number, rows, blocks);
  const turned = recut.turns.flatMap(({ turn, pattern }): Instruction[] => {
    const parts = all.filter((_, i) => pattern[(i % rows) % pattern.length]).map(thing);
    return parts.length > 0 ? [{ do: 'turn', parts, turn }] : [];
  });
  return {
    kind: 'layRows',
    title: say`Turn and lay out the rows`,
    instructions: [
      ...turned,
      ...context.allowances.panels.map((_, k): Instruction => ({
        do: 'layRows',
        block: made(k + 1),
        runs: last.runs,
        stack: rows * recut.row,
        rows: all.filter((r) => r.board === k + 1).map((r) => ({ part: thing(r), shift: r.shift })),
      })),
    ],
    lines: [
      ...turnLines(recut),
      say`Rows 1 to ${rows} side by side in order${blocks > 1 ? `, a block for each of ${blocks} boards` : ''}, along the ${last.runs === 'across' ? 'length' : 'width'} of the board: ${length(rows * recut.row)}`,
      ...shiftLines(all.filter((r) => r.board === 1)),
      say`Dry first: corners meet by eye, row by row, with light behind; then number the rows on top and strike a triangle over them`,
    ],
    why: say`The picture decides before the glue does: look long, then keep the order.`,
  };
}
