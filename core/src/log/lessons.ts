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
  /** In what its figures are. */
  unit: 'mm' | 'min' | 'spares' | 'g';
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

/** A figure of the shop that pairs speak of: what is said of it, and where it is kept. */
interface Kept {
  before: string;
  behind: string;
  keeper: string;
  of: (shop: Told) => number | null;
  set: (shop: Shop, mm: number) => Shop;
}
/** What of a shop lessons speak of. */
type Told = Pick<Shop, 'habits' | 'pace' | 'planer' | 'cutting' | 'finishes'>;

const habit = (
  name: 'panelFlatten' | 'endGrainFlatten' | 'sanding' | 'creep' | 'panelEndTrim',
): Pick<Kept, 'keeper' | 'of' | 'set'> => ({
  keeper: 'the habit',
  of: ({ habits }) => habits[name],
  set: (shop, mm) => ({ ...shop, habits: { ...shop.habits, [name]: mm } }),
});

const LENGTHS: Readonly<Record<'flatten' | 'flattenEnd' | 'sand' | 'creep' | 'snipe' | 'endTrim', Kept>> = {
  flatten: { before: 'Panels lost', behind: 'at flattening', ...habit(HABIT_OF.flatten) },
  flattenEnd: { before: 'Blocks of end grain lost', behind: 'at flattening', ...habit(HABIT_OF.flattenEnd) },
  sand: { before: 'Boards lost', behind: 'at sanding', ...habit(HABIT_OF.sand) },
  creep: { before: 'Strips ended', behind: 'out of line', ...habit('creep') },
  snipe: {
    before: 'The planer dug in',
    behind: 'from the end',
    keeper: 'the shop',
    of: ({ planer }) => planer?.snipe ?? null,
    set: (shop, mm) => (shop.planer ? { ...shop, planer: { ...shop.planer, snipe: mm } } : shop),
  },
  endTrim: { before: 'Ends were sound', behind: 'in', ...habit('panelEndTrim') },
};

/** What finished boards teach: losses by what took them, times by all steps a clock ran for. Never fewer than five pairs, never a change by itself. */
export function lessonsOf(pairs: readonly Pair[], shop: Told): Lesson[] {
  const losses = Object.entries(LENGTHS).flatMap(([what, { before, behind, keeper, of, set }]): Lesson[] => {
    const own = pairs.filter((p) => p.what === what);
    const now = of(shop);
    if (own.length < LEAST_PAIRS || now === null) return [];
    const happened = own.map((p) => p.happened);
    const [middle, suggested] = [median(happened), Math.round(covered(happened) * 10) / 10];
    return [
      {
        id: what,
        unit: 'mm',
        count: own.length,
        median: middle,
        suggested,
        planned: now,
        says: say`${before} ${length(middle)} ${behind} (${own.length} of them, ${length(Math.min(...happened))} to ${length(Math.max(...happened))}); ${keeper} says ${length(now)}.`,
        change: Math.abs(suggested - now) <= SAME_MM || suggested <= 0 ? null : (s) => set(s, suggested),
        pairs: own,
      },
    ];
  });
  return [...losses, ...spoiled(pairs, shop), ...uptake(pairs, shop), ...times(pairs, shop)];
}

/** What four in five stay within; nothing where there are none. */
const covered = (values: readonly number[]): number => (values.length === 0 ? 0 : quantile(values, COVERED));

/** Strips that were no good: whether thin ones have spares enough, and whether thicker ones want some too. */
function spoiled(pairs: readonly Pair[], { cutting }: Told): Lesson[] {
  const own = pairs.filter((p) => p.what === 'spoiled');
  const isThin = (p: Pair) => (p.width ?? 0) <= cutting.spareBelow;
  const thin = own.filter(isThin);
  const thicker = own.filter((p) => !isThin(p) && p.happened > 0);
  const bad = thin.reduce((sum, p) => sum + p.happened, 0);
  const spares = Math.max(0, Math.ceil(covered(thin.map((p) => p.happened)) - 1e-9));
  const below = Math.ceil(covered(thicker.map((p) => p.width ?? 0)) * 10) / 10;
  return [
    ...(thin.length < LEAST_PAIRS
      ? []
      : [
          {
            id: 'spoiled',
            unit: 'spares' as const,
            count: thin.length,
            median: median(thin.map((p) => p.happened)),
            suggested: spares,
            planned: cutting.spares,
            says: say`Of ${thin.length} strips up to ${length(cutting.spareBelow)} thick ${bad} were spoiled; ${cutting.spares} of each ${cutting.spares === 1 ? 'is' : 'are'} cut to spare.`,
            change:
              spares === cutting.spares
                ? null
                : (s: Shop) => ({ ...s, cutting: { ...s.cutting, spares: Math.min(5, spares) } }),
            pairs: thin,
          },
        ]),
    ...(thicker.length < LEAST_PAIRS
      ? []
      : [
          {
            id: 'spoiledThicker',
            unit: 'mm' as const,
            count: thicker.length,
            median: median(thicker.map((p) => p.width ?? 0)),
            suggested: below,
            planned: cutting.spareBelow,
            says: say`Strips that get no spare were spoiled too (${thicker.length} of them, ${length(Math.min(...thicker.map((p) => p.width ?? 0)))} to ${length(Math.max(...thicker.map((p) => p.width ?? 0)))} thick); spares are cut up to ${length(cutting.spareBelow)}.`,
            change: (s: Shop) => ({ ...s, cutting: { ...s.cutting, spareBelow: Math.min(50, below) } }),
            pairs: thicker,
          },
        ]),
  ];
}

/** What boards drank of each finish, told apart by its name: its figures in proportion. */
function uptake(pairs: readonly Pair[], { finishes }: Told): Lesson[] {
  return finishes.flatMap((finish): Lesson[] => {
    const own = pairs.filter((p) => p.what === 'uptake' && p.machine === finish.name && p.planned > 0);
    if (own.length < LEAST_PAIRS) return [];
    const ratios = own.map((p) => p.happened / p.planned);
    const ratio = median(ratios);
    const by = (grams: number) => Math.min(3000, Math.round(grams * ratio));
    return [
      {
        id: `uptake-${finish.id}`,
        unit: 'g',
        count: own.length,
        median: ratio,
        suggested: by(finish.face),
        planned: finish.face,
        says: say`Boards took ${quantityOfShare(ratio)} of the ${finish.name.toLowerCase()} that was planned (the middle of ${own.length}, ${quantityOfShare(Math.min(...ratios))} to ${quantityOfShare(Math.max(...ratios))}); a face is planned with ${finish.face} g/m².`,
        change:
          Math.abs(ratio - 1) <= SAME_SHARE
            ? null
            : (s) => ({
                ...s,
                finishes: s.finishes.map((f) =>
                  f.id === finish.id ? { ...f, face: by(f.face), edge: by(f.edge), end: by(f.end) } : f,
                ),
              }),
        pairs: own,
      },
    ];
  });
}

function times(pairs: readonly Pair[], shop: Told): Lesson[] {
  const timed = pairs.filter((p) => p.what === 'minutes' && p.planned > 0);
  if (timed.length < LEAST_PAIRS) return [];
  const ratios = timed.map((p) => p.happened / p.planned);
  const ratio = median(ratios);
  const pace = Math.min(10, Math.max(0.2, Math.round(shop.pace.work * ratio * 100) / 100));
  return [
    {
      id: 'minutes',
      unit: 'min',
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
