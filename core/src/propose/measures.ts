import { nth } from '../lists/there.ts';
import type { Board } from '../board/board.ts';
import type { CutPlan } from '../cutting/cutPlan.ts';
import type { Piece } from '../stock/piece.ts';
import { volumeBetween } from '../stock/shape.ts';
import { cubicMetres } from '../units/volume.ts';
import { colourDifference } from '../wood/colour.ts';
import type { Species } from '../wood/species.ts';
import { type Strip, stripsOf } from '../board/recipe.ts';

/** What a proposal is judged by. */
export interface Measures {
  /** Wood crosscut from the rack, m3, and how much of that goes back to it as offcuts. */
  woodUsed: number;
  woodLeft: number;
  /** Mean CIEDE2000 difference between neighbours: 0 none, above 30 strong. */
  contrast: number;
  /** 0 to 1: how far the order repeats itself or mirrors itself. */
  rhythm: number;
  glueLines: number;
  /** Wood cost of one board in the shop's currency, as the cut plan values wood. */
  cost: number;
}

type Bare = Pick<Strip, 'species' | 'width'>;

/** Widths closer than this share count as alike. */
const ALIKE = 0.08;
/** Longest motif that counts as a rhythm. */
const LONGEST_MOTIF = 6;

export function alike(a: Bare, b: Bare): boolean {
  return a.species === b.species && Math.abs(a.width - b.width) <= ALIKE * Math.max(a.width, b.width);
}

/** Share of strips that are like their mirror image, 0 to 1. */
export function symmetryOf(strips: readonly Bare[]): number {
  return strips.length === 0
    ? 0
    : strips.filter((s, i) => alike(s, nth(strips, strips.length - 1 - i))).length / strips.length;
}

/** The better of symmetry and the best repeating motif. */
export function rhythmOf(strips: readonly Bare[]): number {
  let best = symmetryOf(strips);
  for (let period = 1; period <= Math.min(LONGEST_MOTIF, Math.floor(strips.length / 2)); period += 1) {
    const pairs = strips.length - period;
    best = Math.max(best, strips.filter((s, i) => i >= period && alike(s, nth(strips, i - period))).length / pairs);
  }
  return best;
}

export function contrastOf(strips: readonly Bare[], colours: ReadonlyMap<string, string>): number {
  if (strips.length < 2) return 0;
  const sum = strips
    .slice(1)
    .reduce((total, s, i) => total + differenceOf(s.species, nth(strips, i).species, colours), 0);
  return sum / (strips.length - 1);
}

export function differenceOf(one: string, two: string, colours: ReadonlyMap<string, string>): number {
  const [a, b] = [colours.get(one), colours.get(two)];
  return one === two || a === undefined || b === undefined ? 0 : colourDifference(a, b);
}

export function coloursOf(species: readonly Species[]): Map<string, string> {
  return new Map(species.map((s) => [s.code, s.colour]));
}

export function measuresOf(
  board: Pick<Board, 'recipe' | 'count'>,
  cutting: CutPlan,
  rack: ReadonlyMap<string, Piece>,
  kerf: number,
  colours: ReadonlyMap<string, string>,
): Measures {
  let used = 0;
  for (const blank of cutting.blanks) {
    const piece = rack.get(blank.pieceId);
    if (piece) used += volumeBetween(piece, blank.from, Math.min(piece.length, blank.from + blank.length + kerf));
  }
  const left = cutting.leftovers
    .filter((l) => l.kept && l.side)
    .reduce((sum, l) => sum + l.length * l.width * (rack.get(l.pieceId)?.thickness ?? 0), 0);
  const strips = stripsOf(board);
  return {
    woodUsed: cubicMetres(used),
    woodLeft: cubicMetres(left),
    contrast: contrastOf(strips, colours),
    rhythm: rhythmOf(strips),
    glueLines: Math.max(0, strips.length - 1),
    cost: cutting.score.wood / board.count,
  };
}

/** Share of the panel's width that each species takes, 0 to 1. */
export function sharesOf(strips: readonly Bare[]): Map<string, number> {
  const whole = strips.reduce((sum, s) => sum + s.width, 0);
  const shares = new Map<string, number>();
  for (const s of strips) shares.set(s.species, (shares.get(s.species) ?? 0) + s.width / whole);
  return shares;
}
