import { fieldOf, panelBoardOf, rowsOf } from '../board/again.ts';
import type { Board } from '../board/board.ts';
import { shopFor } from '../board/differences.ts';
import { cutStripsOf } from '../board/recipe.ts';
import type { Measured, Stage } from '../facts/fact.ts';
import type { Shop } from '../shop/shop.ts';
import { ofKind } from '../steps/instruction.ts';
import type { Operation, OperationKind, PartChange } from '../steps/operation.ts';

/** What can be measured when a step is done. */
export interface Measure {
  /** What of the board: the operation of the recipe that gives it, or a strip; and which of its copies. */
  thing: string;
  copy: number;
  stage: Stage;
  dimension: Measured;
  /** What the plan expects there, mm; null where it expects nothing. */
  expected: number | null;
  /** What it was before the step, mm: it cannot be more now. Null where that is not known. */
  before: number | null;
  label: string;
}

/** What a step leaves to measure of panels, blocks and boards: a kind that is not here leaves nothing. */
const LEAVES: Partial<Record<OperationKind, { stage: Stage; dimension: 'thickness' | 'width' | 'length' }>> = {
  flattenPanel: { stage: 'flat', dimension: 'thickness' },
  flushFrame: { stage: 'flat', dimension: 'thickness' },
  trimEdges: { stage: 'trimmed', dimension: 'width' },
  trimEnds: { stage: 'trimmed', dimension: 'length' },
  sand: { stage: 'finished', dimension: 'thickness' },
};

/** Glue-ups of so many strips are measured one by one no more. */
const MOST_COPIES = 12;

/**
 * What can be measured when a step of a plan is done, with what is expected: read off the sizes that the step itself tells.
 * @param operations all steps of the plan
 */
export function measuresOf(step: Operation, operations: readonly Operation[], board: Board, own: Shop): Measure[] {
  return [...sizesOf(step, operations, board, own), ...habitsOf(step, operations, board, own)];
}

/** What says how the shop works: what strips crept, how far a planer dug in, what had to come off an end. */
function habitsOf(step: Operation, operations: readonly Operation[], board: Board, own: Shop): Measure[] {
  const shop = shopFor(board, own);
  const one = (dimension: 'creep' | 'snipe' | 'endTrim', stage: Stage, expected: number): Measure => ({
    ...about(dimension, stage, null, thingOf(step, board, own), 1),
    expected,
    label: 'the panel',
  });
  const last = step.kind === 'glue' && !operations.some((o) => o.kind === 'glue' && o.after.includes(step.id));
  if (step.kind === 'join' || last) return [one('creep', 'glued', shop.habits.creep)];
  if (
    step.kind === 'flattenPanel' &&
    shop.planer &&
    ofKind(step.instructions, 'flatten').some((i) => i.tool === 'planer')
  )
    return [one('snipe', 'flat', shop.planer.snipe)];
  return step.kind === 'trimEnds' ? [one('endTrim', 'trimmed', shop.habits.panelEndTrim)] : [];
}

function sizesOf(step: Operation, operations: readonly Operation[], board: Board, own: Shop): Measure[] {
  const leaves = LEAVES[step.kind];
  const change = leaves && step.parts.find((p) => p.dimension === leaves.dimension);
  if (leaves && change) return ofThing(step, { ...leaves, change }, widthBefore(step, operations), board, own);
  if (step.kind === 'glue' || step.kind === 'join') return outOfClamps(step, operations, board, own);
  if (step.kind === 'planeStrips' || step.kind === 'remill') return ofStrips(step, board);
  // Strips are as wet as they are when they are laid out; glued, it is too late.
  if (step.kind === 'layOut')
    return [{ ...about('moisture', 'glued', null, thingOf(step, board, own), 1), label: 'the strips' }];
  const bare = step.kind === 'raiseGrain' && !operations.some((o) => o.kind === 'raiseGrain' && o.number > step.number);
  // Weighed before and after, a board tells what it drank.
  if (step.kind === 'oil' || step.kind === 'topCoat' || step.kind === 'feet' || bare)
    return copiesOf(board.count).map((copy) => ({
      ...about('weight', bare ? 'trimmed' : 'finished', null, thingOf(step, board, own), copy),
      label: named('board', copy, board.count),
    }));
  return [];
}

/** The operation of the recipe whose thing a step works on: panels of strips, blocks of rows or parts, or the board. */
function thingOf({ id, kind: does }: Pick<Operation, 'id' | 'kind'>, board: Board, own: Shop): string {
  const about = id.slice(does.length + 1);
  const last = (of: Board) => of.recipe.at(-1)?.id ?? 'panel';
  if (about === 'rows' || about === 'parts') return last(fieldOf(board, own));
  // One of several that rows come from in turn.
  const kinds = about.startsWith('panel ') ? (rowsOf(board, own)?.kinds ?? []) : [];
  const inTurn = kinds.find((k) => about === `panel ${k.before.panels + 1}`);
  if (inTurn) return inTurn.panel.id;
  const forPanels: readonly OperationKind[] = ['layOut', 'flattenPanel', 'trimEdges', 'glue', 'join'];
  return about === '' || does === 'glue' || does === 'join'
    ? last(forPanels.includes(does) ? panelBoardOf(board, own) : board)
    : about === 'field'
      ? last(fieldOf(board, own))
      : last(board);
}

const copiesOf = (count: number): number[] => Array.from({ length: Math.min(count, MOST_COPIES) }, (_, k) => k + 1);

const named = (what: string, copy: number, count: number): string => (count === 1 ? `the ${what}` : `${what} ${copy}`);

const about = (
  dimension: Measured,
  stage: Stage,
  change: Pick<PartChange, 'before' | 'after'> | null,
  thing: string,
  copy: number,
): Omit<Measure, 'label'> => ({
  thing,
  copy,
  stage,
  dimension,
  expected: change?.after ?? null,
  before: change?.before ?? null,
});

/** How wide the thing is that a step crosscuts, as the last step before it left it; null where none did. */
function widthBefore(step: Operation, operations: readonly Operation[]): number | null {
  const before = operations.filter((o) => o.number < step.number).flatMap((o) => o.parts);
  return before.findLast((p) => p.dimension === 'width')?.after ?? null;
}

function ofThing(
  step: Operation,
  { stage, dimension, change }: { stage: Stage; dimension: 'thickness' | 'width' | 'length'; change: PartChange },
  wide: number | null,
  board: Board,
  own: Shop,
): Measure[] {
  const thing = thingOf(step, board, own);
  const what = change.part.replace(/^(the|\d+) /, '').replace(/s$/, '');
  const count = Number(/^\d+/.exec(change.part)?.[0] ?? 1);
  return copiesOf(count).flatMap((copy): Measure[] => {
    const label = named(what, copy, count);
    const one = { ...about(dimension, stage, change, thing, copy), label };
    // Corners are square where both diagonals are alike.
    if (step.kind !== 'trimEnds') return [one];
    const expected = wide === null ? null : Math.hypot(change.after, wide);
    return [
      one,
      ...(['diagonal', 'otherDiagonal'] as const).map((d) => ({
        ...about(d, stage, null, thing, copy),
        expected,
        label,
      })),
    ];
  });
}

/** A panel as it comes out of the clamps of the last of its glue-ups: what the step that makes it flat expects. */
function outOfClamps(step: Operation, operations: readonly Operation[], board: Board, own: Shop): Measure[] {
  const next = operations.find((o) => o.after.includes(step.id));
  const flat = next?.kind === 'scrape' ? operations.find((o) => o.after.includes(next.id)) : next;
  const change = flat?.kind === 'flattenPanel' ? flat.parts.find((p) => p.dimension === 'thickness') : undefined;
  // Sections are flat before they are joined: what is measured then is flat already, and is asked for after it.
  if (!flat || !change || operations.some((o) => o.kind === 'flattenSections')) return [];
  const thing = thingOf(flat, board, own);
  return copiesOf(step.repeats).map((copy) => ({
    ...about('thickness', 'glued', { before: Infinity, after: change.before }, thing, copy),
    before: null,
    label: named(flat.id === flat.kind ? 'panel' : 'block', copy, step.repeats),
  }));
}

/** Strips that were planed: those that stand on edge show that size, those that lie flat are that high. */
function ofStrips(step: Operation, board: Board): Measure[] {
  const strips = cutStripsOf(board);
  const seen = new Set<number>();
  return ofKind(step.instructions, 'thickness').flatMap((i) =>
    i.strips.flatMap((number): Measure[] => {
      const strip = strips[number - 1];
      // One of each name is enough: all of its copies go through at one setting.
      if (!strip || seen.has(number)) return [];
      seen.add(number);
      const shown = Math.abs(i.to - strip.width) < 1e-6;
      return [
        {
          ...about(shown ? 'width' : 'thickness', 'flat', { before: i.from, after: i.to }, strip.id, 1),
          label: `strip ${number}`,
        },
      ];
    }),
  );
}
