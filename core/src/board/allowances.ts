import { firstOf } from '../lists/there.ts';
import { leftFat } from '../shop/layering.ts';
import type { Shop } from '../shop/shop.ts';
import { panelSaw, SAFE_WIDTH_MM, thinRipOf } from '../shop/tools.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import { panelWidth, type Board } from './board.ts';
import type { Made } from '../facts/made.ts';
import { shopFor } from './differences.ts';
import { againOf, panelBoardOf } from './again.ts';
import { stripsIn, type Strip } from './recipe.ts';
import { backOf } from './back.ts';
import { frameOf, frameStrips } from './frame.ts';
import { isOfStack, stacksOf, type Stack } from './stack.ts';

/**
 * Sizes to mill to, worked backward from the finished board by the shop's habits. Everything downstream (offers, cutting, ladders,
 * steps) takes its sizes from here.
 */
export interface Allowances {
  /** Panels that are glued, and how many boards are cut from each; `length` as strips are crosscut for it. The first is the longest, and other boards come out of it too. */
  panels: { boards: number; length: number }[];
  /** What the first panel is longer than its boards need: it was glued for longer ones. */
  spareLength: number;
  /** Strip length at rough crosscut for a panel of one board: finished + creep + both end trims with their kerfs. */
  roughLength: number;
  /** Off each end of the panel before its kerf: the larger of habit and snipe. */
  endTrim: number;
  /** Thickness of strips when they are glued: finished + sanding + panel flattening. */
  glueThickness: number;
  /** Strips that are cut beside those of the panels, and glued on later, by id: how long each is crosscut, and how high it is milled; null for as high as those of the panels. */
  loose: Readonly<Record<string, LooseStrip>>;
  /** Panel width that gives the finished width and both edge trims. */
  wantedPanelWidth: number;
  /** What the rip of a strip adds to the size it is glued at: jointing both edges of one that lies flat, and what is ripped fat to be milled again. */
  ripExtra: { edge: number; face: number };
  /** Strips that lie flat and are narrower than `below` are too thin for a jointer: `extra` is cleaned off both their edges together, by hand. */
  thinFace: { below: number; extra: number };
  /** Standing strips as thin as `below` are ripped `by` taller, to be made flush with the panel. */
  proud: { below: number; by: number };
}

/** A strip that is cut beside those of the panels. Lengths in mm. */
export interface LooseStrip {
  length: number;
  height: number | null;
  /** How many of it where it is not one for each panel: one for each board, or one for each of other panels, the first of which has this number less one before it. */
  own: { count: number; of: 'board' | 'panel'; before: number } | null;
}

/** Width that is left of a panel once both long edges are trimmed, mm: what is wanted, or what there is. */
export function widthReached(board: Pick<Board, 'width'>, panel: number, shop: Pick<Shop, 'habits'>): number {
  return Math.min(board.width, Math.max(0, panel - 2 * shop.habits.panelEdgeTrim));
}

/** What strips are ripped fat by, mm: nothing where they are ripped to size at once. */
export function ripFatOf({ habits, schools }: Pick<Shop, 'habits' | 'schools'>): number {
  return schools.rip === 'fat' ? habits.ripFat : 0;
}

/** How far a standing strip of a width is over its neighbours when it is glued, mm. */
export function proudBy({ proud }: Pick<Allowances, 'proud'>, width: number): number {
  return width <= proud.below + LENGTH_TOLERANCE_MM ? proud.by : 0;
}

/** Which strips are left fat, for one of a board: nothing of a stack is. */
export function proudFor(
  { proud }: Pick<Allowances, 'proud'>,
  board: Pick<Board, 'recipe'>,
  strip: Pick<Strip, 'id' | 'stack'>,
): Pick<Allowances, 'proud'> {
  return { proud: isOfStack(board, strip) ? { ...proud, by: 0 } : proud };
}

/** What a strip that stands on edge is ripped to, mm. @param width it shows, mm */
export function edgeRip(allowances: Pick<Allowances, 'glueThickness' | 'ripExtra' | 'proud'>, width: number): number {
  return allowances.glueThickness + allowances.ripExtra.edge + proudBy(allowances, width);
}

/** What a strip that lies flat is ripped to, mm. @param width it shows, mm */
export function faceRip({ ripExtra, thinFace }: Pick<Allowances, 'ripExtra' | 'thinFace'>, width: number): number {
  return width + (isThinFace({ thinFace }, width) ? thinFace.extra : ripExtra.face);
}

/** Whether a strip that lies flat is too narrow to be jointed. */
export function isThinFace({ thinFace }: Pick<Allowances, 'thinFace'>, width: number): boolean {
  return width < thinFace.below - LENGTH_TOLERANCE_MM;
}

/** How many boards come out of each panel of the batch, the longest first. */
export function panelsOf({ count, perPanel }: Pick<Board, 'count' | 'perPanel'>): number[] {
  const each = Math.min(count, perPanel);
  const rest = count % each;
  return [...Array<number>(Math.floor(count / each)).fill(each), ...(rest > 0 ? [rest] : [])];
}

/** Of a board that is cut again those of its first panel. @param kind which of the panels that rows come from in turn, from 0 @param own the shop; where the board differs from it is taken into account here @param made what is there already */
export function allowancesFor(given: Board, own: Shop, made: Pick<Made, 'panelLength'>, kind = 0): Allowances {
  const again = againOf(given, own);
  // Strips are for the first panel; what is glued of it again asks for that.
  const board = panelBoardOf(given, own, kind);
  const shop = shopFor(board, own);
  const { habits } = shop;
  // Ends are trimmed and boards cut apart on the saw that crosscuts.
  const { kerf } = panelSaw(shop, panelWidth(board));
  const endTrim = Math.max(habits.panelEndTrim, flattenerLimits(shop).snipe);
  const fat = ripFatOf(shop);
  // Other boards lie behind those of the first panel, each with its kerf.
  const others = board.worked.others.reduce((sum, o) => sum + o.length + kerf, 0);
  const roughLength = board.length + habits.creep + 2 * (endTrim + kerf);
  const needed = (boards: number, i: number) =>
    roughLength + (boards - 1) * (board.length + kerf) + (i === 0 ? others : 0);
  // A panel that was glued for longer boards stays as long as it is.
  const spareLength = Math.max(0, (made.panelLength ?? 0) - needed(firstOf(panelsOf(board)), 0));
  const panels = panelsOf(board).map((boards, i) => ({
    boards,
    length: needed(boards, i) + (i === 0 ? spareLength : 0),
  }));
  const glueThickness = board.thickness + habits.sanding + habits.panelFlatten;
  return {
    panels,
    spareLength,
    roughLength,
    endTrim,
    glueThickness,
    wantedPanelWidth: again?.wantedPanelWidth ?? board.width + 2 * habits.panelEdgeTrim,
    loose: looseOf(given, own, stacksOfPanel(board, { panels, glueThickness }, shop)),
    // An edge straight off the saw is glued as it is.
    ripExtra: { edge: fat, face: fat + (shop.schools.straightEdge === 'offSaw' ? 0 : 2 * habits.glueEdgeJoint) },
    thinFace: { below: SAFE_WIDTH_MM, extra: 2 * thinRipOf(shop).clean },
    proud: leftFat(shop),
  };
}

function looseOf(board: Board, own: Shop, stacks: readonly Stack[]): Allowances['loose'] {
  const again = againOf(board, own);
  const frame = frameOf(board, own);
  const back = backOf(board, own);
  return Object.fromEntries([
    ...stacks.flatMap(({ sticks }) =>
      sticks.map(({ strip, length, count }): [string, LooseStrip] => [
        strip.id,
        // Of one whose turn never comes nothing is asked.
        { length, height: null, own: count > 0 ? null : { count, of: 'panel', before: 0 } },
      ]),
    ),
    ...(again?.how === 'parts' ? again.inserts : []).map(({ strip, length }): [string, LooseStrip] => [
      strip.id,
      { length, height: null, own: null },
    ]),
    ...(frame ? frameStrips(frame) : []).map(({ strip, length }): [string, LooseStrip] => [
      strip.id,
      { length, height: frame?.height ?? null, own: { count: board.count, of: 'board', before: 0 } },
    ]),
    ...(back?.strips ?? []).map(({ strip }): [string, LooseStrip] => [
      strip.id,
      {
        length: back?.length ?? 0,
        height: back?.height ?? null,
        own: { count: board.count, of: 'board', before: 0 },
      },
    ]),
    ...(again?.how === 'rows' ? again.kinds.slice(1) : []).flatMap(({ panel, panelLength, slices, before }) =>
      stripsIn(panel, board).map((strip): [string, LooseStrip] => [
        strip.id,
        {
          length: panelLength,
          height: null,
          own: { count: slices.length, of: 'panel', before: before.panels },
        },
      ]),
    ),
  ]);
}

/** The stacks of a panel's accents. @param board the panel, as a board of its own @param shop as it is made in it */
export function stacksOfPanel(
  board: Pick<Board, 'recipe'>,
  { panels, glueThickness }: Pick<Allowances, 'panels' | 'glueThickness'>,
  shop: Shop,
): Stack[] {
  return stacksOf(board, { length: panels[0]?.length ?? 0, height: glueThickness }, shop);
}

/** What a strip of one board is longer than the board at each end, mm: its end trim, the kerf and half of what strips creep. */
export function endSpare(length: number, { roughLength }: Pick<Allowances, 'roughLength'>): number {
  return (roughLength - length) / 2;
}
