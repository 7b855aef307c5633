import type { InstructionOf } from '../steps/instruction.ts';
import type { Laid, Panel } from './bench.ts';
import { FINE, TOLERANCE, type Bench } from './makersBench.ts';
import { inTime, pressed } from './panelWork.ts';
import { edgesOf } from './rowWork.ts';

export function layBack(bench: Bench, i: InstructionOf<'layBack'>): void {
  if (!bench.boards.has(i.part.id)) bench.fail('missingPart', i, i.part);
  if (!bench.panels.has(i.back.id)) bench.fail('missingPart', i, i.back);
  bench.backs.set(i.back.id, i);
}

/** Whether a back is glued under a thing. */
export const isOfBack = (bench: Bench, { parts }: InstructionOf<'glue'>): boolean =>
  parts.some((p) => bench.backs.has(p.id));

export function glueBack(bench: Bench, i: InstructionOf<'glue'>): void {
  inTime(bench, i);
  const laid = i.parts.map((p) => bench.backs.get(p.id)).find((l) => l !== undefined);
  const under = laid && bench.panels.get(laid.back.id);
  const top = laid && bench.boards.get(laid.part.id);
  if (!laid || !under || !top || bench.used.has(laid.back.id) || bench.used.has(laid.part.id))
    return bench.fail('missingPart', i, laid?.part ?? i.makes);
  bench.used.add(laid.back.id);
  bench.used.add(laid.part.id);
  for (const [thing, panel] of [
    [laid.part, top.panel],
    [laid.back, under],
  ] as const) {
    if (!panel.flat) bench.fail('notFlat', i, thing);
    if (panel.strips.some(({ wood }) => bench.isOily(wood)) && !bench.wiped.has(thing.id))
      bench.fail('oilyFace', i, thing);
  }
  const along = laid.runs === 'along';
  const [long, wide] = along ? [under.length, under.width] : [under.width, under.length];
  const over = { along: (long - top.length) / 2, across: (wide - top.width) / 2 };
  if (over.along < -FINE) bench.fail('notEnoughLength', i, laid.back, { is: long, limit: top.length });
  if (over.across < -FINE) bench.fail('notEnoughWidth', i, laid.back, { is: wide, limit: top.width });
  for (const side of ['along', 'across'] as const)
    if (over[side] >= 0 && Math.abs(over[side] - laid.over[side]) > TOLERANCE)
      bench.fail('sizes', i, laid.back, { is: over[side], limit: laid.over[side] });
  const backed: Panel = {
    thing: i.makes,
    strips: [
      ...top.panel.strips.map((s) => ({ ...s, height: top.thickness })),
      ...under.strips.map((s) => ({ ...s, height: top.thickness })),
    ],
    length: top.length,
    width: top.width,
    trimmedFar: 0,
    trimmedNear: 0,
    thickness: top.thickness + under.thickness,
    proud: 0,
    flat: true,
    hardGlue: true,
    back: { top, panel: under, runs: laid.runs },
  };
  bench.panels.set(i.makes.id, backed);
  // One joint as large as the board, pressed through battens over the height of both.
  pressed(bench, i, { ...backed, thickness: top.width, width: backed.thickness }, true);
}

/** Which strip of a back a point was, and where along its piece. @param at mm from the left end, the far edge */
export function woodOfBack(
  { top, panel, runs }: NonNullable<Panel['back']>,
  [x, y]: readonly [number, number],
): { strip: Laid; along: number } | null {
  const along = runs === 'along';
  // In the middle under what it is glued to; across, its far side is at the right end.
  const px = along ? x + (panel.length - top.length) / 2 : y + (panel.length - top.width) / 2;
  const py = along ? y + (panel.width - top.width) / 2 : top.length - x + (panel.width - top.length) / 2;
  const found = edgesOf(panel).find(({ from, to }) => py >= from - TOLERANCE && py < to);
  if (!found) return null;
  const { strip } = found;
  return { strip, along: strip.endForEnd ? strip.wood.x.to - px : strip.wood.x.from + px };
}
