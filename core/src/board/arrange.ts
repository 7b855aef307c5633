import { MM_PER_INCH } from '../units/length.ts';
import type { Strip } from './board.ts';

/**
 * What hands do with strips on the bench. Every function returns a new list and leaves the old one alone; an index outside the
 * list changes nothing. New strips need ids, which the caller passes in, so that the same moves give the same board.
 */
export type NewId = () => string;

/** Puts a strip in so that it becomes number `index` (0-based); past the end it goes last. */
export function insertStrip(strips: readonly Strip[], index: number, strip: Strip): Strip[] {
  return strips.toSpliced(Math.max(0, Math.min(index, strips.length)), 0, strip);
}

/** Takes the strip at `from` out and puts it back as number `to`. */
export function moveStrip(strips: readonly Strip[], from: number, to: number): Strip[] {
  const strip = strips[from];
  if (!strip || to < 0 || to >= strips.length) return [...strips];
  return strips.toSpliced(from, 1).toSpliced(to, 0, strip);
}

export function removeStrip(strips: readonly Strip[], index: number): Strip[] {
  return strips.filter((_, i) => i !== index);
}

/** Puts a twin right behind the strip at `index`. */
export function duplicateStrip(strips: readonly Strip[], index: number, newId: NewId): Strip[] {
  const strip = strips[index];
  return strip ? insertStrip(strips, index + 1, { ...strip, id: newId() }) : [...strips];
}

/**
 * Makes the board symmetrical about the strip at `index`: what lies before it is repeated behind it in reverse, and replaces
 * whatever was there. Strips that already lie behind keep their ids as far as they reach.
 */
export function mirrorAbout(strips: readonly Strip[], index: number, newId: NewId): Strip[] {
  if (!strips[index]) return [...strips];
  const behind = strips.slice(index + 1);
  const mirrored = strips.slice(0, index).reverse().map((strip, i) => ({ ...strip, id: behind[i]?.id ?? newId() }));
  return [...strips.slice(0, index + 1), ...mirrored];
}

/** The whole layout the other way round. */
export function reverseStrips(strips: readonly Strip[]): Strip[] {
  return [...strips].reverse();
}

/** Changes one strip. */
export function changeStrip(strips: readonly Strip[], index: number, change: Partial<Omit<Strip, 'id'>>): Strip[] {
  return strips.map((strip, i) => (i === index ? { ...strip, ...change } : strip));
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

/**
 * The width a dragged joint should take: the nearest offered width within reach, else the nearest half millimetre or 1/32 in.
 * @param offered widths the rack gives, mm
 * @param reach how near counts, mm
 */
export function snapWidth(width: number, offered: readonly number[], reach: number, system: 'metric' | 'inch'): number {
  let best: number | undefined;
  for (const candidate of offered) {
    const distance = Math.abs(candidate - width);
    if (distance <= reach && (best === undefined || distance < Math.abs(best - width))) best = candidate;
  }
  if (best !== undefined) return best;
  const grid = system === 'metric' ? 0.5 : MM_PER_INCH / 32;
  return Math.max(LEAST_STRIP_WIDTH, Math.round(width / grid) * grid);
}
