import { frameStrips } from '../board/frame.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import { crossGrain, endGrainJoint } from './crossGrain.ts';
import type { Found, Rule } from './finding.ts';

/** Whether the frame leaves a board inside it, and is as high as that. */
export const frameSize: Rule = (plan, { board }) => {
  const { frame } = plan;
  if (!frame) return [];
  const strips = frameStrips(frame);
  const found: Found[] = [];
  if (frame.tooWide) {
    const long = strips.filter((s) => s.side === 'left' || s.side === 'right').reduce((sum, s) => sum + s.width, 0);
    const wide = strips.filter((s) => s.side === 'far' || s.side === 'near').reduce((sum, s) => sum + s.width, 0);
    found.push({
      rule: 'frame-wide',
      severity: 'stop',
      strips: strips.map((s) => s.number),
      at: 'layFrame',
      what: say`The frame takes ${length(long)} of the board's length of ${length(board.length)} and ${length(wide)} of its width of ${length(board.width)}: nothing is left inside it.`,
      why: say`A frame goes round a board.`,
      waysOut: [say`Make its strips narrower.`, say`Make the board larger.`, say`Take the frame off.`],
    });
  }
  const low = strips.filter(
    (s) => (plan.strips[s.number - 1]?.milled.thickness ?? 0) < frame.fields.thickness - LENGTH_TOLERANCE_MM,
  );
  if (low.length > 0) {
    const least = Math.min(...low.map((s) => plan.strips[s.number - 1]?.milled.thickness ?? 0));
    found.push({
      rule: 'frame-thin',
      severity: 'stop',
      strips: low.map((s) => s.number),
      at: 'layFrame',
      what: say`The frame comes out ${length(least)} high; what it goes round is ${length(frame.fields.thickness)}.`,
      why: say`A frame is made level with the board, never the board with its frame.`,
      waysOut: [
        say`Roll the strips of the frame: on edge their height is ripped.`,
        say`Use thicker stock for the frame.`,
      ],
    });
  }
  return found;
};

/** What is inside a frame moves with the seasons; the frame's strips do not, along their grain. */
export const frameJoints: Rule = (plan) => {
  const { frame } = plan;
  if (!frame) return [];
  const { along, across } = frame.movement;
  return frame.rings.flatMap(({ operation, pairs }): Found[] => {
    const of = (long: boolean) =>
      pairs
        .flat()
        .filter((s) => (s.side === 'far' || s.side === 'near') === long)
        .map((s) => s.number);
    const about = (long: boolean) => ({ strips: of(long), part: operation.id, at: 'layFrame' as const });
    const waysOut = [
      say`Make the board smaller.`,
      say`Take quartered wood inside, which moves half as much.`,
      say`Leave the frame off.`,
    ];
    return [
      ...crossGrain(
        about(false),
        Math.abs(across),
        say`Inside the frame the board moves ${length(Math.abs(across))} across between the dry and the damp month; strips ${of(false).join(' and ')} at its ends do not.`,
        waysOut,
      ),
      ...crossGrain(
        about(true),
        Math.abs(along),
        say`Inside the frame the board moves ${length(Math.abs(along))} along between the dry and the damp month; strips ${of(true).join(' and ')} along its sides do not.`,
        waysOut,
      ),
      ...(plan.again === null || plan.again.how === 'parts'
        ? [
            endGrainJoint(
              about(false),
              say`Strips ${of(false).join(' and ')} are glued to the ends of the board inside: end grain.`,
              [say`Leave them off, and oil the ends well.`],
            ),
          ]
        : []),
    ];
  });
};
