import { entryOf, firstOf, lastOf, nth } from '../lists/there.ts';
import { panelWidth } from './board.ts';
import { flatRecipe, type Strip } from './recipe.ts';

/**
 * What hands do with strips on the bench. Every function returns a new list and leaves the old one alone; an index outside the
 * list changes nothing. New strips need ids, which the caller passes in, so that the same moves give the same board.
 */
export type NewId = () => string;

/** Puts a strip in so that it becomes number `index` (0-based); past the end it goes last. */
export function insertStrip(strips: readonly Strip[], index: number, strip: Strip): Strip[] {
  return strips.toSpliced(Math.max(0, Math.min(index, strips.length)), 0, strip);
}

/** Indices of a hand full of strips, each once, in the order of the board; those outside it are let go. */
function inOrder(strips: readonly Strip[], indices: readonly number[]): number[] {
  return [...new Set(indices)].filter((i) => i in strips).sort((a, b) => a - b);
}

/** Takes several strips out and puts them back side by side, in their order, so that `to` others lie before them. */
export function moveStrips(strips: readonly Strip[], indices: readonly number[], to: number): Strip[] {
  const held = new Set(inOrder(strips, indices));
  const others = strips.filter((_, i) => !held.has(i));
  return others.toSpliced(Math.max(0, Math.min(to, others.length)), 0, ...[...held].map((i) => nth(strips, i)));
}

/** Whether nobody could tell two strips apart on the board. */
function alike(a: Strip, b: Strip): boolean {
  return (
    a.species === b.species &&
    a.stack === b.stack &&
    Math.abs(a.width - b.width) < 1e-6 &&
    a.endForEnd === b.endForEnd &&
    a.turned === b.turned &&
    a.rolled === b.rolled &&
    a.locked === b.locked
  );
}

/**
 * Where a strip goes that is moved one place on: past all strips that look just like it, so that something is seen to move.
 * @returns its new index; the old one when only strips like it lie on that side
 */
export function placeBeyond(strips: readonly Strip[], index: number, by: 1 | -1): number {
  const strip = strips[index];
  let to = index + by;
  while (strip && strips[to] && alike(nth(strips, to), strip)) to += by;
  return strips[to] ? to : index;
}

/** Two strips change places. */
export function swapPlaces(strips: readonly Strip[], one: number, two: number): Strip[] {
  const [a, b] = [strips[one], strips[two]];
  if (!a || !b) return [...strips];
  return strips.map((s, i) => (i === one ? b : i === two ? a : s));
}

export function removeStrips(strips: readonly Strip[], indices: readonly number[]): Strip[] {
  return strips.filter((_, i) => !indices.includes(i));
}

/** Repeats the strips at `indices`, in their order, right behind the last of them: one strip gets a twin, several are a motif. */
export function repeatStrips(strips: readonly Strip[], indices: readonly number[], newId: NewId): Strip[] {
  const motif = inOrder(strips, indices);
  if (motif.length === 0) return [...strips];
  return strips.toSpliced(
    lastOf(motif) + 1,
    0,
    ...motif.map((i) => ({ ...nth(strips, i), id: newId(), locked: false })),
  );
}

/** So little short of the wanted width the board is full, mm: evening out gives it, and another strip would be far too much (common practice). */
const FULL_MM = 1;

/** Repeats a motif until the strips together are as wide as `wanted`, mm, or there are `most` of them. */
export function repeatUntil(
  strips: readonly Strip[],
  indices: readonly number[],
  wanted: number,
  most: number,
  newId: NewId,
): Strip[] {
  const motif = inOrder(strips, indices).map((i) => nth(strips, i));
  let filled = [...strips];
  let at = Math.max(...inOrder(strips, indices)) + 1;
  for (
    let n = 0;
    motif.length > 0 && panelWidth({ recipe: flatRecipe(filled) }) < wanted - FULL_MM && filled.length < most;
    n += 1
  ) {
    filled = insertStrip(filled, at, { ...nth(motif, n % motif.length), id: newId(), locked: false });
    at += 1;
  }
  return filled;
}

/** Splits a strip along its length into two halves. */
export function splitStrip(strips: readonly Strip[], index: number, newId: NewId): Strip[] {
  const strip = strips[index];
  if (!strip || strip.width < 2 * LEAST_STRIP_WIDTH) return [...strips];
  const half = { ...strip, width: strip.width / 2 };
  return strips.toSpliced(index, 1, half, { ...half, id: newId() });
}

/** Joins neighbouring strips of one species into one that is as wide as all of them; anything else changes nothing. */
export function joinStrips(strips: readonly Strip[], indices: readonly number[]): Strip[] {
  const held = inOrder(strips, indices);
  if (!canJoin(strips, held)) return [...strips];
  const first = nth(strips, firstOf(held));
  return strips.toSpliced(firstOf(held), held.length, {
    ...first,
    width: held.reduce((sum, i) => sum + nth(strips, i).width, 0),
  });
}

/** Whether a strip is of the same wood as another, both out of the rack: accents of bits are of none. */
const isOfWood = (a: Strip, b: Strip): boolean => a.species === b.species && a.stack === null && b.stack === null;

/** Whether these strips lie side by side and are of one species. */
export function canJoin(strips: readonly Strip[], indices: readonly number[]): boolean {
  const held = inOrder(strips, indices);
  return (
    held.length > 1 &&
    held.every((i, n) => i === firstOf(held) + n && isOfWood(nth(strips, i), nth(strips, firstOf(held))))
  );
}

/**
 * Makes the board symmetrical about the strip at `index`: what lies before it is repeated behind it in reverse, and replaces
 * whatever was there. Strips that already lie behind keep their ids as far as they reach.
 */
export function mirrorAbout(strips: readonly Strip[], index: number, newId: NewId): Strip[] {
  if (!strips[index]) return [...strips];
  const behind = strips.slice(index + 1);
  const mirrored = strips
    .slice(0, index)
    .reverse()
    .map((strip, i) => ({ ...strip, id: behind[i]?.id ?? newId() }));
  return [...strips.slice(0, index + 1), ...mirrored];
}

/** The first half repeated behind the middle in reverse; an odd strip in the middle stays. */
export function mirrorFirstHalf(strips: readonly Strip[]): Strip[] {
  const half = Math.floor(strips.length / 2);
  return strips.map((strip, i) => {
    const twin = nth(strips, strips.length - 1 - i);
    return i < strips.length - half ? strip : { ...twin, id: strip.id };
  });
}

/** The whole board once more behind itself, in reverse. */
export function mirrorWhole(strips: readonly Strip[], newId: NewId): Strip[] {
  return [...strips, ...[...strips].reverse().map((strip) => ({ ...strip, id: newId(), locked: false }))];
}

/** The strips at `indices` the other way round among their own places; all of them when fewer than two are named. */
export function reverseStrips(strips: readonly Strip[], indices: readonly number[] = []): Strip[] {
  const held = inOrder(strips, indices);
  const places = held.length > 1 ? held : strips.map((_, i) => i);
  const turned = [...strips];
  places.forEach((place, n) => {
    turned[place] = nth(strips, nth(places, places.length - 1 - n));
  });
  return turned;
}

/** Changes the strips at `indices`; a function sees each strip before. */
export function changeStrips(
  strips: readonly Strip[],
  indices: readonly number[],
  change: Partial<Omit<Strip, 'id'>> | ((strip: Strip) => Partial<Omit<Strip, 'id'>>),
): Strip[] {
  return strips.map((strip, i) =>
    indices.includes(i) ? { ...strip, ...(typeof change === 'function' ? change(strip) : change) } : strip,
  );
}

/** Changes one strip. */
export function changeStrip(strips: readonly Strip[], index: number, change: Partial<Omit<Strip, 'id'>>): Strip[] {
  return changeStrips(strips, [index], change);
}

/**
 * Widens or narrows the strips that are not locked, all in one proportion, until together they are `wanted` mm wide. Strips nearly as wide as one another become
 * equally wide where the limits allow it: one setting of the fence for all of them.
 * @param most widest that a strip can be, mm
 * @returns the strips, and how far they still are from what was wanted, mm: positive when they stay too narrow, negative when too wide
 */
export function evenOut(
  strips: readonly Strip[],
  wanted: number,
  most: (strip: Strip) => number,
): { strips: Strip[]; missing: number } {
  const alikeFirst = shareOut(oneWidthEach(strips), strips, wanted, most);
  const asTheyAre = shareOut(strips, strips, wanted, most);
  return Math.abs(alikeFirst.missing) <= Math.abs(asTheyAre.missing) + 1e-6 ? alikeFirst : asTheyAre;
}

/** Widths that differ by no more than this are one width in the maker's mind, mm (common practice: what two planed boards of one thickness differ by). */
const ONE_WIDTH_MM = 1;

/** Strips that may change and are nearly as wide as one another, each as wide as they are on average. */
function oneWidthEach(strips: readonly Strip[]): Strip[] {
  const free = strips.filter((s) => !s.locked).sort((a, b) => a.width - b.width);
  const groups: Strip[][] = [];
  for (const strip of free) {
    const group = groups.at(-1);
    if (group && strip.width - firstOf(group).width <= ONE_WIDTH_MM) group.push(strip);
    else groups.push([strip]);
  }
  const mean = new Map(
    groups.flatMap((g) => g.map((s) => [s.id, g.reduce((sum, one) => sum + one.width, 0) / g.length])),
  );
  return strips.map((s) => (mean.has(s.id) ? { ...s, width: entryOf(mean, s.id) } : s));
}

/** @param from what the proportions are taken from */
function shareOut(
  from: readonly Strip[],
  strips: readonly Strip[],
  wanted: number,
  most: (strip: Strip) => number,
): { strips: Strip[]; missing: number } {
  const free = new Set(from.flatMap((s, i) => (s.locked ? [] : [i])));
  const widths = from.map((s) => s.width);
  // A strip that reaches its limit stays there; the others share what is left.
  while (free.size > 0) {
    const others = widths.reduce((sum, w, i) => (free.has(i) ? sum : sum + w), 0);
    const share = [...free].reduce((sum, i) => sum + nth(from, i).width, 0);
    const factor = (wanted - others) / share;
    const stuck = [...free].filter(
      (i) =>
        nth(from, i).width * factor > most(nth(strips, i)) + 1e-9 || nth(from, i).width * factor < LEAST_STRIP_WIDTH,
    );
    for (const i of free)
      widths[i] = Math.max(LEAST_STRIP_WIDTH, Math.min(most(nth(strips, i)), nth(from, i).width * factor));
    if (stuck.length === 0) break;
    // Only one side at a time: those too wide set free what those too narrow may need, and the other way round.
    const tooWide = stuck.filter((i) => nth(from, i).width * factor > most(nth(strips, i)));
    for (const i of tooWide.length > 0 ? tooWide : stuck) free.delete(i);
  }
  const evened = strips.map((s, i) => (widths[i] === s.width ? s : { ...s, width: nth(widths, i) }));
  return { strips: evened, missing: wanted - panelWidth({ recipe: flatRecipe(evened) }) };
}

/** Thinnest strip a joint can be dragged to, mm. */
export const LEAST_STRIP_WIDTH = 1;

/**
 * Moves the joint behind the strip at `index` so that the strip becomes `width` wide.
 * @param keepSum when true the strip behind takes the difference and the panel keeps its width; otherwise all strips behind move along
 */
export function moveJoint(strips: readonly Strip[], index: number, width: number, keepSum: boolean): Strip[] {
  const strip = strips[index];
  const neighbour = strips[index + 1];
  if (!strip) return [...strips];
  if (!keepSum || !neighbour) return changeStrip(strips, index, { width: Math.max(LEAST_STRIP_WIDTH, width) });
  const both = strip.width + neighbour.width;
  const wanted = Math.min(Math.max(LEAST_STRIP_WIDTH, width), both - LEAST_STRIP_WIDTH);
  return changeStrip(changeStrip(strips, index, { width: wanted }), index + 1, { width: both - wanted });
}
