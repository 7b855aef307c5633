import type { Recut } from '#core/board/recut.ts';

type Place = readonly [number, number];

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** The first panel with its strips staggered, mm. */
export function panelOutline({ panelLength, offsets, panelWidth }: Recut): { length: number; width: number } {
  return { length: panelLength + Math.max(0, ...offsets), width: panelWidth };
}

/** Where a line square to the cuts lies on the panel as glued, from its far edge to its near one, mm. @param c from the corner at strip 1 of the trued panel */
export function lineAt({ angle, trueWidth, panelWidth }: Recut, c: number): { from: Place; to: Place } {
  const a = radians(angle);
  const edge = (panelWidth - trueWidth) / 2;
  const x = (y: number) => (c - y * Math.sin(a)) / Math.cos(a);
  return { from: [x(0), edge], to: [x(trueWidth), edge + trueWidth] };
}

/** Both faces of each cut of the first panel, in order: the end first, then behind each slice. */
export function cutLines(recut: Recut): { from: Place; to: Place }[] {
  const { firstCut, pitch, kerf, slices } = recut;
  const count = slices[0] ?? 0;
  return Array.from({ length: count + 1 }, (_, i) => lineAt(recut, firstCut + i * (pitch + kerf) - (i > 0 ? kerf : 0)));
}

/** The pitch at which the face behind the first slice lies at a place along the far edge, mm. */
export function pitchAt(recut: Recut, x: number): number {
  return x * Math.cos(radians(recut.angle)) - recut.firstCut;
}

/** Angles that saws have a stop for, or makers usually take, degrees (common practice). */
export const USUAL_ANGLES = [0, 15, 22.5, 30, 35, 45, 60] as const;
/** As near as this to one of them it is that one, degrees. */
const SNAP = 1.5;

/** The angle of a cut between two places along the far and the near edge, to half a degree, or a usual one that is near. */
export function angleAt(far: number, near: number, width: number): number {
  const free = (Math.atan2(far - near, width) * 180) / Math.PI;
  const usual = [...USUAL_ANGLES, ...USUAL_ANGLES.map((u) => -u)].find((u) => Math.abs(u - free) <= SNAP);
  return Math.max(-60, Math.min(60, usual ?? Math.round(free * 2) / 2));
}
