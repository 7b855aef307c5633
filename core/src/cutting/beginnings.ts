import type { Defect } from '../stock/defect.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { nearLoss, type UnitGeometry } from './unitGeometry.ts';

/** More places on one piece than this are not all listed. */
export const MOST_PLACES = 300;

/**
 * Where a run of blanks may begin: at a breakpoint, or so many whole blanks before a stop; on a piece that tapers one way in width and the other in thickness also
 * where it is just wide enough. Ascending.
 */
export function beginnings(
  geometry: UnitGeometry,
  lengths: readonly number[],
  widths: ReadonlyMap<number, readonly number[]>,
  defects: readonly Defect[] = geometry.defects,
): number[] {
  const {
    shop: {
      crosscutSaw: { kerf },
    },
    start,
    end,
    taken,
  } = geometry;
  const breakpoints = [
    start,
    ...defects.flatMap((d) => [d.from + d.length, d.from + kerf]),
    ...taken.map((r) => r.to + kerf),
  ];
  const stops = [
    end,
    ...defects.flatMap((d) => [d.from, d.from + d.length - kerf]),
    ...taken.map((r) => r.from - kerf),
  ].filter((x) => x <= end);
  const found = new Set<number>();
  const add = (x: number) => {
    if (x >= start - LENGTH_TOLERANCE_MM && x < end) found.add(Math.round(Math.max(start, x) * 1e6) / 1e6);
  };
  breakpoints.forEach(add);
  const before = new Set<number>();
  const chain = (stop: number) => {
    for (const length of lengths) {
      const x = stop - length;
      const place = Math.round(x * 1e6) / 1e6;
      if (x < start - LENGTH_TOLERANCE_MM || before.has(place) || before.size > MOST_PLACES) continue;
      before.add(place);
      add(x);
      chain(x - kerf);
    }
  };
  stops.forEach(chain);
  for (const length of lengths) for (const x of wideEnough(geometry, length, widths.get(length) ?? [])) add(x);
  return [...found].sort((a, b) => a - b);
}

/** Where a piece that grows wider as it grows thinner is first as wide as some rips ask, for a blank of a length. */
function wideEnough(geometry: UnitGeometry, length: number, widths: readonly number[]): number[] {
  const { piece, shop, mirrored } = geometry;
  if (!piece.farEnd) return [];
  const [from, to] = mirrored ? [piece.farEnd.width, piece.width] : [piece.width, piece.farEnd.width];
  if (to <= from) return [];
  const near = nearLoss(piece, length, shop);
  return widths.map((w) => ((near + w - from) * piece.length) / (to - from) + LENGTH_TOLERANCE_MM);
}
