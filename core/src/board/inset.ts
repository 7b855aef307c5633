import { nth } from '../lists/there.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import type { Shop } from '../shop/shop.ts';
import { panelSaw } from '../shop/tools.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { panelWidth, type Board } from './board.ts';
import {
  looseStripsOf,
  stripsOf,
  type GlueOperation,
  type InsertOperation,
  type Recipe,
  type StripOperation,
} from './recipe.ts';
import { slicingSaw } from './recut.ts';
import { remembered } from './remembered.ts';

/** One strip that is put into a panel, in the order of their places from the left. Lengths in mm. */
export interface Insert {
  operation: InsertOperation;
  strip: StripOperation;
  /** Of the strip, on the board. */
  number: number;
  /** Degrees from a square crosscut. */
  angle: number;
  jog: number;
  /** How far along the cut, toward the near edge, the middle of the face behind the strip comes to lie from that of the face before it. */
  slid: number;
  /** What is between its glue lines, and how long it is crosscut. */
  width: number;
  length: number;
  kerf: number;
  /** Where the cut begins, square to it from the panel's far left corner: on the panel as it is sawn, and on the block where everything before it lies as it is glued. */
  sawnAt: number;
  at: number;
  /** How far what lies behind it is moved along and across, by what is put in and what the saw took. */
  moved: readonly [number, number];
  /** How far what lies before it was moved. */
  before: readonly [number, number];
}

/** What strips put into a panel ask of it, read backward from the finished board. Lengths in mm. */
export interface Inset {
  how: 'parts';
  /** The cut faces never come up. */
  up: false;
  panel: GlueOperation;
  inserts: Insert[];
  /** First panel: width as glued, width once its long edges are true, length as its strips are crosscut, and thickness once flat. */
  panelWidth: number;
  trueWidth: number;
  panelLength: number;
  thickness: number;
  /** How far its strips still stood over that when they were glued; those that are put in do it in the block. */
  proud: number;
  /** Where the block begins across the panel, from its true far edge, and what the parts step beside each other. */
  top: number;
  steps: number;
  block: { length: number; width: number; height: number };
  /** Off each long edge of the block, at least, and from each of its ends to where the board begins. */
  rowTrim: number;
  end: number;
  flatten: number;
  wantedPanelWidth: number;
}

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** Across and along a cut: the direction square to it, away from the left end, and the one along it, toward the near edge. */
export function cutAxes(degrees: number): { square: readonly [number, number]; along: readonly [number, number] } {
  const [c, s] = [Math.cos(radians(degrees)), Math.sin(radians(degrees))];
  return { square: [c, s], along: [-s, c] };
}

/** The operations of a recipe that put strips into its panel, with their strips; none for other boards. */
export function insertsOf(recipe: Recipe): { operation: InsertOperation; strip: StripOperation }[] {
  if (!recipe.some((o) => o.kind === 'insert')) return [];
  const strips = new Map(recipe.flatMap((o) => (o.kind === 'strip' ? [[o.id, o] as const] : [])));
  return recipe.flatMap((operation) => {
    const strip = operation.kind === 'insert' && strips.get(nth(operation.takes, 1));
    return strip ? [{ operation, strip }] : [];
  });
}

/**
 * What a board with strips put in asks of its first panel.
 * Check: two bands of 20 with a kerf of 3 make a panel 34 longer; at 30 degrees a strip of 20 makes it 17 over the cosine longer, and takes nothing of its width unless the parts are jogged.
 * @param own the shop; where the board differs from it is taken into account here
 * @returns null for any other board
 */
export function insetOf(board: Board, own: Shop): Inset | null {
  const panel = board.recipe.find((o) => o.kind === 'glue');
  const inserts = insertsOf(board.recipe);
  return !panel || inserts.length === 0 ? null : INSET(board, { panel, inserts }, own);
}

const INSET = remembered(readInset);

function readInset(
  board: Board,
  {
    panel,
    inserts,
  }: { panel: GlueOperation; inserts: readonly { operation: InsertOperation; strip: StripOperation }[] },
  shop: Shop,
): Inset {
  const { habits } = shop;
  const width = panelWidth(board);
  const trueWidth = Math.max(0, width - 2 * habits.panelEdgeTrim);
  const numbers = new Map(looseStripsOf(board).map((s, i) => [s.id, stripsOf(board).length + 1 + i]));
  const thickness = board.thickness + habits.sanding + habits.panelFlatten;
  const inOrder = [...inserts].sort((a, b) => a.operation.at - b.operation.at);
  const moves = inOrder.map(({ operation: { angle, jog }, strip }) => {
    const { kerf } = slicingSaw(shop, width, angle);
    const { square } = cutAxes(angle);
    const apart = strip.width - kerf;
    // Pressed on the strip it may still slide along it, until it steps just as far as it shall.
    const slid = (jog - apart * square[1]) / square[0];
    return {
      kerf,
      slid: slid - (kerf * square[1]) / square[0],
      moved: [apart * square[0] - slid * square[1], jog] as const,
    };
  });
  // How far each part lies from where it was in the panel, the first one not at all.
  const lies: (readonly [number, number])[] = [[0, 0]];
  for (const { moved } of moves) {
    const [x, y] = nth(lies, lies.length - 1);
    lies.push([x + moved[0], y + moved[1]]);
  }
  const across = lies.map(([, y]) => y);
  const top = Math.max(...across);
  const steps = top - Math.min(...across);
  const longer = nth(lies, lies.length - 1)[0];
  const { kerf: endKerf } = panelSaw(shop, width);
  const end = habits.creep / 2 + Math.max(habits.panelEndTrim, flattenerLimits(shop).snipe) + endKerf;
  const block = { length: board.length + 2 * end, width: Math.max(0, trueWidth - steps), height: thickness };
  return {
    how: 'parts',
    up: false,
    panel,
    inserts: inOrder.map(({ operation, strip }, k) => {
      const { angle, jog, at } = operation;
      const { kerf, moved, slid } = nth(moves, k);
      const before = nth(lies, k);
      const { square } = cutAxes(angle);
      const begins = (end + at) * square[0] + (top + block.width / 2) * square[1] - strip.width / 2;
      return {
        operation,
        strip,
        number: numbers.get(strip.id) ?? 0,
        angle,
        jog,
        slid,
        width: strip.width,
        // Both faces from edge to edge of the panel.
        length: trueWidth / Math.cos(radians(angle)) + Math.abs(slid) + habits.creep,
        kerf,
        at: begins,
        sawnAt: begins - before[0] * square[0] - before[1] * square[1],
        moved,
        before,
      };
    }),
    panelWidth: width,
    trueWidth,
    panelLength: block.length - longer,
    thickness,
    proud: habits.panelFlatten,
    top,
    steps,
    block,
    rowTrim: habits.panelEdgeTrim,
    end,
    flatten: habits.panelFlatten,
    wantedPanelWidth: board.width + steps + 4 * habits.panelEdgeTrim,
  };
}

/** The same, of a panel that came out otherwise than it was asked. @param thickness once flat @param trueWidth once its long edges are true, mm */
export function insetAsMade(inset: Inset, thickness: number, trueWidth: number): Inset {
  const narrower = inset.trueWidth - trueWidth;
  if (Math.abs(thickness - inset.thickness) <= LENGTH_TOLERANCE_MM && Math.abs(narrower) <= LENGTH_TOLERANCE_MM)
    return inset;
  const width = Math.max(0, trueWidth - inset.steps);
  return {
    ...inset,
    thickness,
    trueWidth,
    block: { ...inset.block, width, height: thickness },
    // What more comes off comes off both edges alike: the corner that cuts are measured from moves, the cuts do not.
    inserts: inset.inserts.map((insert) => {
      const moved = (narrower / 2) * Math.sin(radians(insert.angle));
      return { ...insert, at: insert.at - moved, sawnAt: insert.sawnAt - moved };
    }),
  };
}

/** Where a cut crosses the panel as it is sawn, from its left end: at the true far edge and at the near one, mm. @param side of the kerf: where it begins, or where it ends */
export function crossings(
  { angle, sawnAt, kerf }: Pick<Insert, 'angle' | 'sawnAt' | 'kerf'>,
  { trueWidth }: Pick<Inset, 'trueWidth'>,
  side: 'before' | 'behind' = 'before',
): { far: number; near: number } {
  const c = sawnAt + (side === 'behind' ? kerf : 0);
  const a = radians(angle);
  return { far: c / Math.cos(a), near: (c - trueWidth * Math.sin(a)) / Math.cos(a) };
}
