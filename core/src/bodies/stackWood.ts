import { depthOf } from '../board/accents.ts';
import { type Stack } from '../board/stack.ts';
import type { StripOperation } from '../board/recipe.ts';
import type { PlanContext } from '../ladders/context.ts';
import { nth } from '../lists/there.ts';
import { after, AT_REST, shift, type Motion, type Triple } from '../recipe/motion.ts';
import { carried, cellsWithin, cutOut, type Cell, type Workpiece } from '../recipe/workpiece.ts';
import { looseInCells } from './looseWood.ts';

/** How an accent lies that is turned over about its length, and then end for end. @param size along, across and up, mm */
function lieOf({ turned, endForEnd }: Pick<StripOperation, 'turned' | 'endForEnd'>, [l, w, h]: Triple): Motion {
  const over: Motion = turned ? { origin: [0, w, h], along: [1, 0, 0], across: [0, -1, 0], up: [0, 0, -1] } : AT_REST;
  return endForEnd ? after({ origin: [l, w, 0], along: [-1, 0, 0], across: [0, -1, 0], up: [0, 0, 1] }, over) : over;
}

/**
 * An accent with the bits that it is resawn from, each knowing where it lay in its piece.
 * @param size of the accent along, across and up, mm @param copy which of the panels, from 1: in a shorter one the stack is cut off more at both ends
 */
export function accentInCells(
  context: PlanContext,
  stack: Stack,
  strip: StripOperation,
  size: Triple,
  copy: number,
): Workpiece {
  const [length, width, height] = size;
  const off = (stack.glued - nth(context.allowances.panels, copy - 1).length) / 2;
  const deep = stack.flatten / 2 + depthOf(stack, strip.id);
  const sticks = stack.sticks.map((s) =>
    looseInCells(context, { strip: s.strip, length: s.length, width: stack.depth }, copy),
  );
  const lie = lieOf(strip, size);
  const cells = stack.bits.flatMap((bit): Cell[] => {
    const { first, bit: long } = nth(stack.sticks, bit.stick);
    const from = first + bit.of * (long + stack.saw.kerf);
    const sawn = cutOut(nth(sticks, bit.stick), [from, deep, 0], [from + long, deep + width, height]).cells;
    const laid = cellsWithin(carried(sawn, shift([bit.at - off, 0, 0])), [0, 0, 0], size);
    return carried(laid, lie).map((cell) => ({ ...cell, accent: strip.id }));
  });
  return { size: [length, width, height], cells };
}
