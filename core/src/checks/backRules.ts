import { LEAST_ABOVE_BACK_MM, missingOf } from '../board/back.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import { crossGrain } from './crossGrain.ts';
import type { Found, Rule } from './finding.ts';
import { deeperThanSaw } from './machineLimits.ts';

/** Whether a back covers its board, and leaves one above it. */
export const backSize: Rule = (plan, { board, shop }) => {
  const { back } = plan;
  if (!back) return [];
  const about = { strips: back.strips.map((s) => s.number), part: back.operation.id, at: 'layBack' as const };
  const found: Found[] = deeperThanSaw('backed board', back.tops.thickness + back.thickness, shop.saw.cutDepth).map(
    (f) => ({
      ...f,
      part: 'back',
    }),
  );
  const missing = missingOf(back);
  if (missing > 0)
    found.push({
      ...about,
      rule: 'back-narrow',
      severity: 'stop',
      what: say`The strips of the back add up to ${length(back.width)}; ${length(back.wantedWidth)} is needed, ${length(missing)} more.`,
      why: say`It reaches over all round and is trimmed with the board.`,
      waysOut: [say`Add or widen strips by ${length(missing)}.`, say`Lay them the other way.`, say`Take the back off.`],
    });
  if (board.thickness - back.thickness < LEAST_ABOVE_BACK_MM - LENGTH_TOLERANCE_MM)
    found.push({
      ...about,
      rule: 'back-thick',
      severity: 'stop',
      what: say`The board is ${length(board.thickness)} thick, its back ${length(back.thickness)}: less than ${length(LEAST_ABOVE_BACK_MM)} is left above it.`,
      why: say`That is a veneer, and the first sanding goes through it.`,
      waysOut: [say`Make the back thinner.`, say`Make the board thicker.`, say`Take the back off.`],
    });
  const low = back.strips.filter(
    (s) => (plan.strips[s.number - 1]?.milled.thickness ?? 0) < back.height - LENGTH_TOLERANCE_MM,
  );
  if (low.length > 0)
    found.push({
      ...about,
      strips: low.map((s) => s.number),
      rule: 'back-thin',
      severity: 'stop',
      what: say`The back is milled to ${length(back.height)}; its wood gives ${length(Math.min(...low.map((s) => plan.strips[s.number - 1]?.milled.thickness ?? 0)))}.`,
      why: say`Flattened, it comes out thinner than it was reckoned, and the board with it.`,
      waysOut: [say`Use thicker stock for the back.`, say`Make the back thinner.`],
    });
  return found;
};

/** A back that moves otherwise than what it is glued under. */
export const backJoints: Rule = (plan) => {
  const { back } = plan;
  if (!back) return [];
  const about = { strips: back.strips.map((s) => s.number), part: back.operation.id, at: 'layBack' as const };
  const along = back.operation.runs === 'along';
  // Along its own grain a back does not move; across it does as any panel.
  const apart = Math.abs(along ? back.movement.along : back.movement.across);
  const own = Math.abs(along ? back.movement.across : back.movement.along);
  const waysOut = [
    say`Lay the strips of the back the way the strips above it run.`,
    say`Make the board smaller.`,
    say`Take the back off.`,
  ];
  const found = crossGrain(
    about,
    apart,
    say`Above its back the board moves ${length(apart)} ${along ? 'along' : 'across'} between the dry and the damp month; the back runs that way and does not.`,
    waysOut,
  );
  // Two layers that move by nearly nothing against each other still bend: the one that drinks first grows first.
  return found.length > 0 || own <= 0
    ? found
    : [
        {
          ...about,
          rule: 'two-layers',
          severity: 'note',
          what: say`Two layers of different wood: a side that drinks or dries first bends the board.`,
          why: say`Above and below must be oiled alike, at the same time, and the board must stand on feet or on its edge.`,
          waysOut: [say`Feet, and oil on both faces at once.`, say`Make both layers of one wood.`],
          source: 'common practice',
        },
      ];
};
