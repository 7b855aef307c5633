import { nth } from '../lists/there.ts';
import { say, type Phrase } from '../units/phrase.ts';
import type { Species } from '../wood/species.ts';
import { lightness } from '../wood/colour.ts';
import { alike, coloursOf, contrastOf, differenceOf, rhythmOf, symmetryOf } from './measures.ts';
import { randomFrom, type Random } from './random.ts';
import { keepVaried, lightnessProfile, type Varied } from './variety.ts';
import type { Strip } from '../board/recipe.ts';

/** Another order of the same strips. */
export interface ShuffledOrder {
  strips: Strip[];
  says: Phrase;
  contrast: number;
  rhythm: number;
  score: number;
}

export interface ShuffleOptions {
  seed: number;
  seconds: number;
  now(): number;
  onProgress?(orders: ShuffledOrder[]): void;
  stop?(): boolean;
}

/** What an order can be good for. */
const AIMS = ['contrast', 'symmetry', 'rhythm', 'calm', 'shaded', 'balance'] as const;
type Aim = (typeof AIMS)[number];

const AIM_WORDS: Readonly<Record<Aim, string>> = {
  contrast: 'Light beside dark wherever it can be',
  symmetry: 'Mirrored about the middle as far as the strips allow',
  rhythm: 'A motif that returns',
  calm: 'Alike beside alike, in quiet bands',
  shaded: 'From light to dark',
  balance: 'Light and dark even on both halves, no two alike side by side',
};
const ORDER_COUNT = 12;
/** Fixed numbers of rounds and swaps, so that the same seed gives the same orders. */
const ROUNDS = 6;
const SWAPS = 900;

/**
 * Other orders of the strips that are not locked; locked ones keep their place. Widths, and so the cut plan, stay as they are. Same seed, same orders.
 * @throws nothing: with fewer than two strips that may move there is no other order, and the list is empty
 */
export function shuffle(
  strips: readonly Strip[],
  species: readonly Species[],
  options: ShuffleOptions,
): ShuffledOrder[] {
  const free = strips.flatMap((s, i) => (s.locked ? [] : [i]));
  const colours = coloursOf(species);
  if (free.length < 2 || new Set(free.map((i) => `${nth(strips, i).species}/${nth(strips, i).width}`)).size < 2)
    return [];
  const random = randomFrom(options.seed);
  const deadline = options.now() + options.seconds;
  let kept: Varied<ShuffledOrder>[] = [];
  const sorted = () => kept.map((k) => k.item).sort((a, b) => b.score - a.score);
  for (let round = 0; round < ROUNDS; round += 1) {
    for (const aim of AIMS) {
      if (options.now() > deadline || options.stop?.()) return sorted();
      const order = anneal(strips, free, aim, colours, random);
      const score = aimed(order, aim, colours);
      const unchanged = order.every((s, i) => alike(s, nth(strips, i)));
      if (unchanged) continue;
      const item = {
        strips: order,
        says: say`${AIM_WORDS[aim]}.`,
        contrast: contrastOf(order, colours),
        rhythm: rhythmOf(order),
        score,
      };
      kept = keepVaried(kept, { item, score, look: lightnessProfile(order, colours) }, ORDER_COUNT);
    }
    options.onProgress?.(sorted());
  }
  return sorted();
}

/** Swaps pairs that may move; at first also for the worse, less and less. */
function anneal(
  strips: readonly Strip[],
  free: readonly number[],
  aim: Aim,
  colours: ReadonlyMap<string, string>,
  random: Random,
): Strip[] {
  const order = [...strips];
  random.shuffled(free).forEach((from, n) => {
    order[nth(free, n)] = nth(strips, from);
  });
  let score = aimed(order, aim, colours);
  for (let k = 0; k < SWAPS; k += 1) {
    const [a, b] = [random.pick(free), random.pick(free)];
    if (a === b || alike(nth(order, a), nth(order, b))) continue;
    [order[a], order[b]] = [nth(order, b), nth(order, a)];
    const next = aimed(order, aim, colours);
    const heat = 0.06 * (1 - k / SWAPS) ** 2;
    if (next >= score || random.next() < Math.exp((next - score) / Math.max(1e-6, heat))) score = next;
    else [order[a], order[b]] = [order[b], order[a]];
  }
  return order;
}

/** How well an order meets an aim, about 0 to 1. */
function aimed(strips: readonly Strip[], aim: Aim, colours: ReadonlyMap<string, string>): number {
  const contrast = Math.min(1, contrastOf(strips, colours) / 35);
  switch (aim) {
    case 'contrast':
      return contrast + 0.1 * rhythmOf(strips);
    case 'symmetry':
      return symmetryOf(strips) + 0.1 * contrast;
    case 'rhythm':
      return rhythmOf(strips) - 0.3 * symmetryOf(strips) + 0.1 * contrast;
    case 'calm':
      return 1 - contrast + 0.1 * symmetryOf(strips);
    case 'shaded':
      return shading(strips, colours);
    case 'balance':
      return (
        1 -
        imbalance(strips, colours) -
        0.5 *
          (strips.filter((s, i) => i > 0 && differenceOf(s.species, nth(strips, i - 1).species, colours) < 5).length /
            strips.length)
      );
  }
}

/** Share of neighbours that do not lighten: 1 runs from light to dark. */
function shading(strips: readonly Strip[], colours: ReadonlyMap<string, string>): number {
  const light = strips.map((s) => lightness(colours.get(s.species) ?? '#888888'));
  return light.filter((l, i) => i === 0 || l <= nth(light, i - 1) + 1e-9).length / light.length;
}

/** How much lighter one half of the width is than the other, 0 to 1. */
function imbalance(strips: readonly Strip[], colours: ReadonlyMap<string, string>): number {
  const whole = strips.reduce((sum, s) => sum + s.width, 0);
  let at = 0;
  let moment = 0;
  for (const s of strips) {
    moment += (at + s.width / 2 - whole / 2) * s.width * lightness(colours.get(s.species) ?? '#888888');
    at += s.width;
  }
  return Math.min(1, Math.abs(moment) / (whole * whole * 4));
}
