import { certain, firstOf, nth } from '../lists/there.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import type { Shop } from '../shop/shop.ts';
import { panelSaw, type Saw } from '../shop/tools.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { panelWidth, type Board } from './board.ts';
import {
  panelsOfRecipe,
  stripsIn,
  type GlueOperation,
  type Recipe,
  type SliceOperation,
  type Turn,
  type TurnOperation,
} from './recipe.ts';
import { remembered } from './remembered.ts';

/** Slices of a panel whose cut faces do not come up are as wide as this until somebody says, mm: 1 1/2 in (common practice for a chevron). */
const USUAL_PITCH_MM = 38.1;

/** The operations by which a panel of strips is cut and glued again. */
export interface RecutRecipe {
  panel: GlueOperation;
  slice: SliceOperation;
  turns: readonly TurnOperation[];
  last: GlueOperation;
}

/** A row of a board: which slice of which panel it is, and how it is turned, in order. */
export interface Row {
  /** From 1 over all boards of the batch. */
  number: number;
  /** Which of the panels in turn, from 0. */
  kind: number;
  /** Which board, and which panel of all, from 1; which slice of that, from 0. */
  board: number;
  panel: number;
  slice: number;
  turns: readonly Turn[];
  /** Further along than where it would be flush, mm. */
  shift: number;
}

/** One of the panels that rows come from in turn. Lengths in mm. */
export interface PanelOfRows {
  panel: GlueOperation;
  /** Panels, and strips on the board, that are numbered before its own. */
  before: { panels: number; strips: number };
  /** Slices of each panel of those alike. */
  slices: number[];
  /** Width as glued, width once its long edges are true, and length as its strips are crosscut, the longest. */
  panelWidth: number;
  trueWidth: number;
  panelLength: number;
  /** Where the first slice begins, square to the cuts from the corner at strip 1 of the trued panel. */
  firstCut: number;
  /** What the cut leans over the panel more than its strips are staggered, along the strips. */
  lean: number;
  /** Of its strips, across. */
  widths: number[];
  /** Each strip lies so much further along than the one that lies least far. */
  offsets: number[];
}

/** What cutting again asks, read backward from the finished board; of several panels in turn the figures of the first stand for themselves, and all in `kinds`. Lengths in mm. */
export interface Recut extends RecutRecipe, PanelOfRows {
  how: 'rows';
  kinds: PanelOfRows[];
  /** Whether the cut faces come up, so that the board shows end grain where the cut is square. */
  up: boolean;
  /** Degrees. */
  angle: number;
  /** Of the saw that slices. */
  kerf: number;
  /** Thickness of a slice as sawn. */
  pitch: number;
  /** Thickness of the first panel once flat. */
  thickness: number;
  /** What one row adds to the board, and rows of one board. */
  row: number;
  rows: number;
  /** The rows of all boards, one board after the other. */
  all: Row[];
  /** Rows as glued: from the end of the row that lies furthest to where the first one ends. */
  rowLength: number;
  /** Off each end of the rows, at least. */
  rowTrim: number;
  /** The board of it as it lies in the glued rows: `length` along the board. */
  block: { length: number; width: number; height: number };
  /** What makes the faces flat takes, both together. */
  flatten: number;
  /** Width of the first panel that would give the board its size. */
  wantedPanelWidth: number;
}

/** The operations of a recipe that cuts a panel again; null for a flat one. */
export function recutRecipe(recipe: Recipe): RecutRecipe | null {
  const slice = recipe.find((o) => o.kind === 'slice');
  const last = recipe.findLast((o) => o.kind !== 'strip' && o.kind !== 'frame' && o.kind !== 'back');
  const [panel] = panelsOfRecipe(recipe);
  if (!slice || !panel || last?.kind !== 'glue' || last === panel) return null;
  return { panel, slice, last, turns: recipe.filter((o) => o.kind === 'turn') };
}

/** Where a pattern that repeats stands at a place; `otherwise` for an empty one. */
function atPattern<T>(pattern: readonly T[], i: number, otherwise: T): T {
  return pattern.length === 0 ? otherwise : nth(pattern, i % pattern.length);
}

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** Each strip further along than the one that lies least far, so that their ends follow a cut, mm. @param widths across the panel */
export function staggerOf(widths: readonly number[], degrees: number): number[] {
  let across = 0;
  const middles = widths.map((width) => {
    across += width;
    return -(across - width / 2) * Math.tan(radians(degrees));
  });
  const least = Math.min(0, ...middles.map((m) => m - nth(middles, 0))) + (middles[0] ?? 0);
  return middles.map((m) => m - least);
}

/** How much further along the strips a cut runs at one place than at another, beyond their stagger: what it costs of length, mm. */
function leanOf(widths: readonly number[], offsets: readonly number[], degrees: number, edge: number): number {
  const reach = cutReach(widths, offsets, degrees, edge);
  return reach.length === 0 ? 0 : Math.max(...reach) - Math.min(...reach);
}

/** How far along a cut meets both edges of each strip, where it meets the end of the one that lies least far at the far edge of the trued panel, mm. @param edge what is off each long edge */
export function cutReach(
  widths: readonly number[],
  offsets: readonly number[],
  degrees: number,
  edge: number,
): number[] {
  const slope = Math.tan(radians(degrees));
  const width = widths.reduce((sum, w) => sum + w, 0);
  const within = (y: number) => Math.min(Math.max(y - edge, 0), Math.max(0, width - 2 * edge));
  let across = 0;
  return widths.flatMap((own, i) => {
    const at = [across, across + own].map((y) => nth(offsets, i) + within(y) * slope);
    across += own;
    return at;
  });
}

/** The saw that slices a panel: a slanted cut is longer than the panel is wide. @param width of the panel as glued, mm */
export function slicingSaw(shop: Shop, width: number, degrees: number): Saw {
  return panelSaw(shop, width / Math.cos(radians(degrees)));
}

/**
 * What a board that is cut and glued again asks of its slices and its first panel.
 * Check: 400 long, panel 30 thick: 14 rows. Slices of 1 in of a panel 3/4 in thick: 24 for 18 in (common practice).
 * @param own the shop; where the board differs from it is taken into account here
 * @returns null for a flat board
 */
export function recutOf(board: Board, own: Shop): Recut | null {
  const made = recutRecipe(board.recipe);
  return made && RECUT(board, made, own);
}

const RECUT = remembered(readRecut);

function readRecut(board: Board, made: RecutRecipe, shop: Shop): Recut {
  const { panel, slice, turns, last } = made;
  const { habits } = shop;
  const { angle } = slice;
  const a = radians(angle);
  const { kerf } = slicingSaw(shop, panelWidth(board), angle);
  const up = turns.some((t) => t.turn === 'up');
  const across = last.runs === 'across';
  const flatten = up ? habits.endGrainFlatten : habits.panelFlatten;
  const asked = board.thickness + habits.sanding + flatten;
  const thickness = panel.thickness ?? (up ? board.thickness : asked);
  const pitch = slice.pitch ?? (up ? asked : USUAL_PITCH_MM);
  const row = up ? thickness : pitch;
  const rows = slice.count ?? Math.max(1, Math.ceil((across ? board.length : board.width) / row - LENGTH_TOLERANCE_MM));
  const kinds = panelsInTurn(board, slice, rows, { pitch, kerf, shop });
  const first = firstOf(kinds);
  const all = rowsOf(made, kinds, rows, board.count);
  const shifts = all.map((r) => r.shift);
  const spread = Math.max(...shifts) - Math.min(...shifts);
  // The slanted ends of a slice reach past each other by what the cut leans over its thickness.
  const slant = pitch * Math.abs(Math.tan(a)) + spread;
  const rowTrim = habits.creep / 2 + (across ? habits.panelEdgeTrim : habits.panelEndTrim + kerf);
  const wanted = (across ? board.width : board.length) + 2 * rowTrim;
  return {
    ...made,
    ...first,
    how: 'rows',
    kinds,
    up,
    angle,
    kerf,
    pitch,
    thickness,
    row,
    rows,
    all,
    ...glued({ last, kinds, all, pitch, thickness, up, angle, row, rows }),
    rowTrim,
    flatten,
    wantedPanelWidth: (wanted + slant) * Math.cos(a) + 2 * habits.panelEdgeTrim,
  };
}

/** The panels that rows come from in turn, with what each must measure for its share of them. */
function panelsInTurn(
  board: Board,
  { angle, first, panels: alike }: SliceOperation,
  rows: number,
  { pitch, kerf, shop }: { pitch: number; kerf: number; shop: Shop },
): PanelOfRows[] {
  const { habits } = shop;
  const a = radians(angle);
  const endTrim = Math.max(habits.panelEndTrim, flattenerLimits(shop).snipe);
  const panels = panelsOfRecipe(board.recipe);
  let before = { panels: 0, strips: 0 };
  return panels.map((panel, k): PanelOfRows => {
    const widths = stripsIn(panel, board).map((s) => s.width);
    const width = widths.reduce((sum, w) => sum + w, 0);
    // Of each board every row whose turn it is.
    const total = Math.ceil(Math.max(0, rows - k) / panels.length) * board.count;
    const count = Math.max(1, Math.min(alike, total));
    const slices = Array.from({ length: count }, (_, n) => Math.floor(total / count) + (n < total % count ? 1 : 0));
    const offsets = staggerOf(widths, panel.stagger);
    const lean = leanOf(widths, offsets, angle, habits.panelEdgeTrim);
    const kind = {
      panel,
      before,
      slices,
      panelWidth: width,
      trueWidth: Math.max(0, width - 2 * habits.panelEdgeTrim),
      // Both ends as they are of any panel, and every slice with its kerf, measured along the strips.
      panelLength: habits.creep + 2 * endTrim + first + (kerf + firstOf(slices) * (pitch + kerf)) / Math.cos(a) + lean,
      lean,
      firstCut:
        (Math.max(0, ...cutReach(widths, offsets, angle, habits.panelEdgeTrim)) + habits.creep / 2 + endTrim + first) *
          Math.cos(a) +
        kerf,
      widths,
      offsets,
    };
    before = { panels: before.panels + count, strips: before.strips + widths.length };
    return kind;
  });
}

/** The same rows as one of their panels sees them. @param k which of those in turn, from 0 */
export const ofKind = (recut: Recut, k: number): Recut => ({ ...recut, ...nth(recut.kinds, k) });

/** The block that rows make: how far all of them reach, and how high they are stacked. */
function glued({
  last,
  kinds,
  all,
  pitch,
  thickness,
  up,
  angle,
  row,
  rows,
}: Pick<Recut, 'last' | 'kinds' | 'all' | 'pitch' | 'thickness' | 'up' | 'angle' | 'row' | 'rows'>): Pick<
  Recut,
  'rowLength' | 'block'
> {
  const a = radians(angle);
  // From where the last row begins to where the first one ends: rows of a wider panel lose what they reach over.
  const ends = all.map((r) => r.shift + nth(kinds, r.kind).trueWidth / Math.cos(a));
  const begins = Math.max(...all.map((r) => r.shift)) + pitch * Math.abs(Math.tan(a));
  const rowLength = Math.max(0, Math.min(...ends) - begins);
  const [stack, across] = [rows * row, last.runs === 'across'];
  return {
    rowLength,
    block: {
      length: across ? stack : rowLength,
      width: across ? rowLength : stack,
      height: up ? pitch : thickness,
    },
  };
}

/** The same rows of panels that came out otherwise than they were asked. @param thickness of all of them once flat @param widths of each in turn once its long edges are true, mm */
export function recutAsMade(recut: Recut, thickness: number, widths: readonly number[]): Recut {
  const asAsked =
    Math.abs(thickness - recut.thickness) <= LENGTH_TOLERANCE_MM &&
    recut.kinds.every((kind, k) => Math.abs(nth(widths, k) - kind.trueWidth) <= LENGTH_TOLERANCE_MM);
  if (asAsked) return recut;
  const kinds = recut.kinds.map((kind, k): PanelOfRows => {
    const trueWidth = nth(widths, k);
    // What more comes off comes off both edges alike: the corner that cuts are measured from moves, the cuts do not.
    const moved = ((kind.trueWidth - trueWidth) / 2) * Math.sin(radians(recut.angle));
    return { ...kind, trueWidth, firstCut: kind.firstCut - moved };
  });
  const made = { ...recut, ...firstOf(kinds), kinds, thickness, row: recut.up ? thickness : recut.row };
  return { ...made, ...glued(made) };
}

/** The rows of all boards: slices of each panel in the order they are sawn, shared out one board after the other. */
function rowsOf({ turns, last }: RecutRecipe, kinds: readonly PanelOfRows[], rows: number, boards: number): Row[] {
  const sawn = kinds.map(({ slices, before }) =>
    slices.flatMap((count, k) =>
      Array.from({ length: count }, (_, slice) => ({ panel: before.panels + k + 1, slice })),
    ),
  );
  return Array.from({ length: rows * boards }, (_, i): Row => {
    const inBoard = i % rows;
    const kind = inBoard % kinds.length;
    const { panel, slice } = certain(nth(sawn, kind).shift(), 'a slice for every row');
    return {
      number: i + 1,
      kind,
      board: Math.floor(i / rows) + 1,
      panel,
      slice,
      turns: turns.flatMap((t) => (atPattern(t.pattern, inBoard, false) ? [t.turn] : [])),
      shift: atPattern(last.shifts, inBoard, 0),
    };
  });
}

/** How many slices a panel of a length gives, the first end and the last trimmed as always. @param length as its strips are crosscut, mm */
export function slicesFrom({ panelLength, slices, pitch, kerf, angle }: Recut, length: number): number {
  const each = (pitch + kerf) / Math.cos(radians(angle));
  const ends = panelLength - certain(slices[0]) * each;
  return Math.max(0, Math.floor((length - ends + LENGTH_TOLERANCE_MM) / each));
}
