import { certain, nth } from '../lists/there.ts';

/** What the search for groups weighs. */
export interface GroupingTask {
  /** Widths of the strips, mm, in order. */
  widths: readonly number[];
  /** Most pieces that close in time. */
  mostParts: number;
  /** Widest first group, mm, so that it can be flattened; null where the whole panel can. Single strips may be wider. */
  sectionWidth: number | null;
  symmetrical: boolean;
  /** Glue-ups that the clamps allow at the same time. */
  sideBySide: number;
  /** Minutes a first group, a later one and the last glue-up stay in clamps. */
  groupMinutes: number;
  joinMinutes: number;
  lastMinutes: number;
  /** Hands-on minutes of a glue-up of so many parts; rises by the same amount with each part. */
  handsMinutes(parts: number): number;
  /** Sizes of the first groups that are given; null to search them too. */
  groups: readonly number[] | null;
}

/** Sizes of the groups level by level; a 1 waits for the next level. The last level is a single group. */
export interface Grouping {
  levels: number[][];
  /** Minutes under clamps and hands-on, one after the other as far as the clamps ask for it. */
  minutes: number;
}

/** Minutes of one level: rounds under the clamps, and every glue-up's hands-on time. */
export function levelMinutes(
  sizes: readonly number[],
  waitMinutes: number,
  task: Pick<GroupingTask, 'sideBySide' | 'handsMinutes'>,
): number {
  const glued = sizes.filter((s) => s > 1);
  return (
    Math.ceil(glued.length / task.sideBySide) * waitMinutes + glued.reduce((sum, s) => sum + task.handsMinutes(s), 0)
  );
}

/** How uneven and one-sided a list of sizes is; 0 is even and symmetrical. Only decides between equals. */
function crookedness(sizes: readonly number[], symmetrical: boolean): number {
  const spread = Math.max(...sizes) - Math.min(...sizes);
  const lopsided = sizes.reduce((sum, s, i) => sum + Math.abs(s - nth(sizes, sizes.length - 1 - i)), 0);
  return spread + (symmetrical ? 10 : 1) * lopsided;
}

/**
 * The tree of groups with the fewest minutes; between equals fewest levels, then the most even and symmetrical. Exact for the minutes: minutes of a level depend only on
 * how many pieces it begins and ends with and how many glue-ups make that, so the best way up from each number of pieces is found once.
 */
export function chooseGroups(task: GroupingTask): Grouping {
  const { widths, groups } = task;
  if (widths.length <= 1) return { levels: [], minutes: 0 };
  const upward = joinsFrom(task, Math.max(2, widths.length));
  let best: { levels: number[][]; minutes: number; crooked: number } | null = null;
  for (const first of groups ? [[...groups]] : firstLevels(task)) {
    const single = first.length === 1;
    const rest = nth(upward, first.length);
    const minutes =
      levelMinutes(first, single ? task.lastMinutes : task.groupMinutes, task) + (single ? 0 : rest.minutes);
    const levels = [first, ...(single ? [] : rest.levels)].filter((sizes) => sizes.some((s) => s > 1));
    const crooked = crookedness(first, task.symmetrical);
    if (
      !best ||
      minutes < best.minutes - 1e-6 ||
      (minutes < best.minutes + 1e-6 &&
        (levels.length < best.levels.length || (levels.length === best.levels.length && crooked < best.crooked)))
    ) {
      best = { levels, minutes, crooked };
    }
  }
  const { levels, minutes } = certain(best, 'A grouping');
  return { levels, minutes };
}

interface Joins {
  levels: number[][];
  minutes: number;
}

/** While strips change widths, what joining so many pieces costs stays the same. Minutes rise evenly with the parts, so two of them name the function. */
const KNOWN_JOINS = new Map<string, Joins[]>();
const MOST_KNOWN = 40;

function joinsFrom(task: GroupingTask, most: number): Joins[] {
  const key = [
    task.mostParts,
    task.sideBySide,
    task.joinMinutes,
    task.lastMinutes,
    task.handsMinutes(2),
    task.handsMinutes(3),
    most,
  ].join('/');
  let joins = KNOWN_JOINS.get(key);
  if (!joins) {
    joins = bestJoins(task, most);
    if (KNOWN_JOINS.size >= MOST_KNOWN) KNOWN_JOINS.clear();
    KNOWN_JOINS.set(key, joins);
  }
  return joins;
}

/** The best way to join so many pieces into one, for every number up to `most`. */
function bestJoins(task: GroupingTask, most: number): Joins[] {
  const best: Joins[] = [
    { levels: [], minutes: 0 },
    { levels: [], minutes: 0 },
  ];
  for (let count = 2; count <= most; count += 1) {
    let found: Joins | null = null;
    for (let left = Math.ceil(count / task.mostParts); left < count; left += 1) {
      for (const sizes of splits(count, left, task.mostParts)) {
        const minutes =
          levelMinutes(sizes, left === 1 ? task.lastMinutes : task.joinMinutes, task) + nth(best, left).minutes;
        const levels = [sizes, ...nth(best, left).levels];
        if (
          !found ||
          minutes < found.minutes - 1e-6 ||
          (minutes < found.minutes + 1e-6 && levels.length < found.levels.length)
        )
          found = { levels, minutes };
      }
    }
    best.push(certain(found));
  }
  return best;
}

/** `count` pieces in `left` groups: as even as can be, and with as few glue-ups as can be. */
function splits(count: number, left: number, most: number): number[][] {
  const even = groupSizes(count, left);
  const fewest = Math.ceil((count - left) / (most - 1));
  const packed = inTheMiddle(left, groupSizes(count - left + fewest, fewest));
  return even.join() === packed.join() ? [even] : [even, packed];
}

/** Groups among single pieces: the singles outside, as evenly as can be. */
function inTheMiddle(left: number, grouped: number[]): number[] {
  const singles = left - grouped.length;
  const before = Math.floor(singles / 2);
  return [...Array<number>(before).fill(1), ...grouped, ...Array<number>(singles - before).fill(1)];
}

/** Even, symmetrical sizes of so many groups: 11 in three gives 4, 3, 4. */
export function groupSizes(count: number, groups: number): number[] {
  const sizes = Array<number>(groups).fill(Math.floor(count / groups));
  let extra = count % groups;
  // Extras go to mirrored pairs from the outside in; an odd one to the middle.
  for (let i = 0; extra > 1 && i < Math.floor(groups / 2); i += 1, extra -= 2) {
    sizes[i] = nth(sizes, i) + 1;
    sizes[groups - 1 - i] = nth(sizes, groups - 1 - i) + 1;
  }
  if (extra === 1) sizes[Math.floor(groups / 2)] = nth(sizes, Math.floor(groups / 2)) + 1;
  return sizes;
}

/** First levels worth weighing: for each number of groups the most even split and the one with the fewest glue-ups; where a width limits, those that keep it. */
function firstLevels(task: GroupingTask): number[][] {
  const { widths, mostParts, sectionWidth } = task;
  if (sectionWidth !== null) {
    const limited = limitedLevels(task, sectionWidth).filter((sizes) => sizes.some((s) => s > 1));
    // Where not even two strips keep the width, nothing is gained by sections.
    if (limited.length > 0) return limited;
  }
  const levels: number[][] = [];
  for (let left = Math.ceil(widths.length / mostParts); left < widths.length; left += 1)
    levels.push(...splits(widths.length, left, mostParts));
  return levels.length > 0 ? levels : [[...widths.map(() => 1)]];
}

/**
 * Splits whose groups keep within a width: for each number of groups the one with the fewest glue-ups, then the most even; where the pattern is symmetrical also
 * those that mirror about its middle.
 */
function limitedLevels({ widths, mostParts, symmetrical }: GroupingTask, limit: number): number[][] {
  const levels = splitsWithin(widths, mostParts, limit);
  if (!symmetrical) return levels;
  const n = widths.length;
  for (let middle = n % 2; middle <= Math.min(mostParts, n); middle += 2) {
    const half = (n - middle) / 2;
    const width = widths.slice(half, half + middle).reduce((sum, w) => sum + w, 0);
    if (middle > 1 && width > limit + 1e-6) break;
    for (const sizes of splitsWithin(widths.slice(0, half), mostParts, limit))
      levels.push([...sizes, ...(middle > 0 ? [middle] : []), ...[...sizes].reverse()]);
  }
  return levels;
}

interface Split {
  glued: number;
  squares: number;
  /** Size of the last group. */
  size: number;
}

/** For each number of groups the best split of all strips, by dynamic programming over where groups end. */
function splitsWithin(widths: readonly number[], mostParts: number, limit: number): number[][] {
  const best: (Split | undefined)[][] = [[{ glued: 0, squares: 0, size: 0 }]];
  for (let end = 1; end <= widths.length; end += 1) {
    const here: (Split | undefined)[] = [];
    let width = 0;
    for (let size = 1; size <= Math.min(mostParts, end); size += 1) {
      width += nth(widths, end - size);
      if (size > 1 && width > limit + 1e-6) break;
      nth(best, end - size).forEach((before, groups) => {
        if (!before) return;
        const next: Split = { glued: before.glued + Number(size > 1), squares: before.squares + size * size, size };
        const known = here[groups + 1];
        if (!known || next.glued < known.glued || (next.glued === known.glued && next.squares < known.squares))
          here[groups + 1] = next;
      });
    }
    best.push(here);
  }
  return nth(best, widths.length).flatMap((split, groups) => {
    if (!split) return [];
    const sizes: number[] = [];
    for (let end = widths.length, left = groups; left > 0; left -= 1) {
      const { size } = certain(nth(nth(best, end), left));
      sizes.unshift(size);
      end -= size;
    }
    return [sizes];
  });
}
