import type { Shop } from '../shop/shop.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import type { Pair } from './entry.ts';
import { HABIT_OF } from './entryOf.ts';

/** Fewer pairs than that teach nothing. */
export const LEAST_PAIRS = 5;
/** Of losses the plan should cover four in five. */
const COVERED = 0.8;

/** The middle of some figures: of an even number the mean of both in the middle. @throws RangeError for none */
export function median(values: readonly number[]): number {
  return quantile(values, 0.5);
}

/**
 * A quantile, read between neighbours (type 7 of Hyndman and Fan, *Sample quantiles in statistical packages*, The American Statistician 50, 1996: what most programs give).
 * @param share from 0 to 1 @throws RangeError for no figures
 */
export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  const at = (sorted.length - 1) * share;
  const [low, high] = [sorted[Math.floor(at)], sorted[Math.ceil(at)]];
  if (low === undefined || high === undefined) throw new RangeError('There is no quantile of nothing.');
  return low + (high - low) * (at - Math.floor(at));
}

/** What the log says of one habit or one kind of step, and what the shop could plan with instead. */
export interface Lesson {
  id: string;
  says: Phrase;
  count: number;
  median: number;
  /** The figure that four in five stay within, or the middle one of times. */
  suggested: number;
  /** What the plan was made with, the middle of it. */
  planned: number;
  /** The shop as it would be; null where nothing is worth changing. */
  change: ((shop: Shop) => Shop) | null;
  pairs: readonly Pair[];
}

/** So much is no difference, mm, and as a share of a time. */
const SAME_MM = 0.1;
const SAME_SHARE = 0.05;

const WORDS = { flatten: 'Panels lost', flattenEnd: 'Blocks of end grain lost', sand: 'Boards lost' } as const;
const WHERE = { flatten: 'at flattening', flattenEnd: 'at flattening', sand: 'at sanding' } as const;

/** What finished boards teach: losses by what took them, times by all steps a clock ran for. Never fewer than five pairs, never a change by itself. */
export function lessonsOf(pairs: readonly Pair[], shop: Pick<Shop, 'habits' | 'pace'>): Lesson[] {
  const losses = (['flatten', 'flattenEnd', 'sand'] as const).flatMap((what): Lesson[] => {
    const own = pairs.filter((p) => p.what === what);
    if (own.length < LEAST_PAIRS) return [];
    const happened = own.map((p) => p.happened);
    const [middle, covered] = [median(happened), Math.round(quantile(happened, COVERED) * 10) / 10];
    const habit = HABIT_OF[what];
    const now = shop.habits[habit];
    return [
      {
        id: what,
        count: own.length,
        median: middle,
        suggested: covered,
        planned: now,
        says: say`${WORDS[what]} ${length(middle)} ${WHERE[what]} (${own.length} of them, ${length(Math.min(...happened))} to ${length(Math.max(...happened))}); the habit says ${length(now)}.`,
        change:
          Math.abs(covered - now) <= SAME_MM || covered <= 0
            ? null
            : (s) => ({ ...s, habits: { ...s.habits, [habit]: covered } }),
        pairs: own,
      },
    ];
  });
  const timed = pairs.filter((p) => p.what === 'minutes' && p.planned > 0);
  if (timed.length < LEAST_PAIRS) return losses;
  const ratios = timed.map((p) => p.happened / p.planned);
  const ratio = median(ratios);
  const pace = Math.min(10, Math.max(0.2, Math.round(shop.pace.work * ratio * 100) / 100));
  return [
    ...losses,
    {
      id: 'minutes',
      count: timed.length,
      median: ratio,
      suggested: pace,
      planned: shop.pace.work,
      says: say`Work took ${quantityOfShare(ratio)} of the time that was planned (the middle of ${timed.length} steps, ${quantityOfShare(Math.min(...ratios))} to ${quantityOfShare(Math.max(...ratios))}).`,
      change: Math.abs(ratio - 1) <= SAME_SHARE ? null : (s) => ({ ...s, pace: { ...s.pace, work: pace } }),
      pairs: timed,
    },
  ];
}

const quantityOfShare = (share: number): string => `${Math.round(share * 100)} %`;
