import { certain, firstOf, nth } from '../lists/there.ts';
import type { StripDemand } from './cutPlan.ts';
import type { CutProblem } from './cutProblem.ts';

/**
 * Test support: the least cost of cutting a tiny problem of one species, by trying every place for every blank and every
 * whole millimetre for every rip, measured from either end. Written from the
 * rules, not from the search it checks. For pieces that do not taper, rough and unmeasured, one way a strip, nothing resawn or promised.
 * @returns the least total, or null when not every strip can be had
 */
export function leastCostByEnumeration({ demands, rack, shop }: CutProblem, rate: number): number | null {
  const kinds = [...new Set(demands.map(kindOf))];
  const wanted = kinds.map((k) => demands.filter((d) => kindOf(d) === k).length);
  const samples = kinds.map((k) => certain(demands.find((d) => kindOf(d) === k)));
  let best = new Map<string, number>([[wanted.map(() => 0).join(), 0]]);
  for (const piece of rack) {
    const options = new Map<string, number>();
    const loss =
      piece.surface === 'rough'
        ? shop.habits.flattenRough + 2 * shop.habits.skimRough
        : shop.habits.flattenSurfaced + 2 * shop.habits.skimSurfaced;
    const near = shop.habits.stockEdgeJoint;
    const [first, last] = [shop.habits.stockEndTrim, piece.length - shop.habits.stockEndTrim];

    const along = (from: number, blanks: { x: number; length: number; lastEnd: number }[], counts: number[]) => {
      if (blanks.length > 0) offer(blanks, counts);
      for (const length of new Set(samples.map((d) => d.length))) {
        for (let x = from; x + length <= last; x += 1) {
          across(x, length, near, counts, 0, (lastEnd, next) =>
            along(x + length + shop.crosscutSaw.kerf, [...blanks, { x, length, lastEnd }], next),
          );
        }
      }
    };
    const across = (
      x: number,
      length: number,
      from: number,
      counts: number[],
      lastEnd: number,
      done: (lastEnd: number, counts: number[]) => void,
    ) => {
      if (lastEnd > 0) done(lastEnd, counts);
      samples.forEach((d, k) => {
        const way = firstOf(d.ways);
        if (d.length !== length || nth(counts, k) >= nth(wanted, k) || way.thickness > piece.thickness - loss + 1e-9)
          return;
        for (let y = from; y + way.rip <= piece.width; y += 1) {
          const clear = piece.defects.every(
            (f) =>
              f.treatment !== 'cut' ||
              f.from >= x + length ||
              f.from + f.length <= x ||
              f.across >= y + way.rip ||
              f.across + f.width <= y,
          );
          if (clear)
            across(x, length, y + way.rip + shop.saw.kerf, counts.with(k, nth(counts, k) + 1), y + way.rip, done);
        }
      });
    };
    const offer = (blanks: { x: number; length: number; lastEnd: number }[], counts: number[]) => {
      const { habits, cutting, crosscutSaw, saw } = shop;
      let cost =
        rate * piece.length * piece.width * piece.thickness +
        cutting.openPiece +
        (piece.origin.kind === 'bought' ? cutting.openPlank : 0);
      const keep = (volume: number) => (cost -= Math.max(0, rate * volume - cutting.leftoverEach));
      const edges = [
        0,
        ...blanks.flatMap((b) => [b.x - crosscutSaw.kerf, b.x + b.length + crosscutSaw.kerf]),
        piece.length,
      ];
      for (let i = 0; i < edges.length; i += 2) {
        const length = nth(edges, i + 1) - nth(edges, i);
        if (length >= habits.keepLength) keep(length * piece.width * piece.thickness);
      }
      for (const b of blanks) {
        const width = piece.width - b.lastEnd - saw.kerf;
        if (width >= cutting.keepWidth && b.length >= habits.keepLength)
          keep(width * b.length * piece.thickness * cutting.sideShare);
      }
      const key = counts.join();
      options.set(key, Math.min(options.get(key) ?? Infinity, cost));
    };
    along(
      first,
      [],
      wanted.map(() => 0),
    );

    const next = new Map(best);
    for (const [have, cost] of best) {
      for (const [gives, price] of options) {
        const sum = have.split(',').map((n, k) => Math.min(nth(wanted, k), Number(n) + Number(gives.split(',')[k])));
        next.set(sum.join(), Math.min(next.get(sum.join()) ?? Infinity, cost + price));
      }
    }
    best = next;
  }
  return best.get(wanted.join()) ?? null;
}

function kindOf(demand: StripDemand): string {
  return `${demand.length}/${firstOf(demand.ways).rip}/${firstOf(demand.ways).thickness}`;
}
