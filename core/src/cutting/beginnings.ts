import type { Defect } from '../stock/defect.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { partsAcross } from './rips.ts';
import { nearLoss, SHOW_CLEARANCE, type UnitGeometry } from './unitGeometry.ts';

/** More places on one piece than this are not all listed. */
export const MOST_PLACES = 300;

/**
 * Where a run of blanks may begin: at a breakpoint, or so many whole blanks before a stop; on a piece that tapers one way in width and the other in thickness also
 * where it is just wide enough. Ascending.
 * @param widths of the rips wanted of each length
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
  for (const length of lengths) for (const x of wideEnough(geometry, length, widths.get(length) ?? [], defects)) add(x);
  return [...found].sort((a, b) => a - b);
}

/**
 * Where a piece that grows wider as it grows thinner is first as wide as one rip, or several of a width side by side, ask for a blank of a length, counted from
 * the near edge or from behind a defect.
 */
function wideEnough(
  geometry: UnitGeometry,
  length: number,
  widths: readonly number[],
  defects: readonly Defect[],
): number[] {
  const { piece, shop, mirrored } = geometry;
  if (!piece.farEnd) return [];
  const [from, to] = mirrored ? [piece.farEnd.width, piece.width] : [piece.width, piece.farEnd.width];
  if (to <= from) return [];
  const { kerf } = shop.saw;
  return widths.flatMap((width) =>
    [
      nearLoss(piece, length, shop),
      ...defects.flatMap(({ across, width: wide }) => [across + wide, across + wide + SHOW_CLEARANCE - width]),
    ].flatMap((base) =>
      Array.from(
        { length: partsAcross(to - base, width, kerf) },
        (_, i) => base + (i + 1) * width + i * kerf - from,
      ).flatMap((more) => (more > 0 ? [(more * piece.length) / (to - from) + LENGTH_TOLERANCE_MM] : [])),
    ),
  );
}
