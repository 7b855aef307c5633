import { firstOf, nth } from '../lists/there.ts';
import { bevelMiss, edgeReach, isEnd, sideLeft, SIDE_NAMES, SIDES, type Side } from '../features/edge.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';

/** Edges that eat up the side between them or meet on a face, corners that the board is too small for, and bevels that do not meet. */
export const edgeShape: Rule = (plan, { board }) => {
  const { edges, size } = plan.worked;
  const finding = (
    rule: string,
    severity: Found['severity'],
    what: Found['what'],
    why: Found['why'],
    waysOut: Found['waysOut'],
  ): Found => ({ rule, severity, strips: [], at: 'edges', what, why, waysOut });
  const eaten = SIDES.filter((side) => sideLeft(edges[side], size.thickness) < -LENGTH_TOLERANCE_MM);
  const faces = (['top', 'bottom'] as const).flatMap((face) => {
    const reach = (side: Side) => edgeReach(edges[side][face], size.thickness).reach;
    return reach('left') + reach('right') >= size.length || reach('far') + reach('near') >= size.width ? [face] : [];
  });
  const misses = SIDES.flatMap((side, i) => {
    const next = nth(SIDES, (i + 1) % SIDES.length);
    const miss = bevelMiss(edges[side].bottom, edges[next].bottom);
    return miss > LENGTH_TOLERANCE_MM ? [{ side, next, miss }] : [];
  });
  const idle = SIDES.flatMap((side) =>
    (['top', 'bottom'] as const).flatMap((face) => {
      const cut = edges[side][face];
      return cut.kind === 'underBevel' && cut.reveal >= size.thickness ? [{ side, reveal: cut.reveal }] : [];
    }),
  )[0];
  const least = Math.min(size.length, size.width) / 2;
  const { corners } = board.worked;
  return [
    ...(eaten.length > 0
      ? [
          finding(
            'edge-eaten',
            'stop',
            say`Edges above and below take ${length(size.thickness - sideLeft(edges[firstOf(eaten)], size.thickness))} of the ${eaten.map((s) => SIDE_NAMES[s]).join(' and the ')}, and the board is ${length(size.thickness)} thick.`,
            say`The second cut would take away what the first one shaped.`,
            [say`Leave more of the side, or make one of them smaller.`],
          ),
        ]
      : []),
    ...(faces.length > 0
      ? [
          finding(
            'edge-face',
            'stop',
            say`Edges of the ${faces[0] === 'top' ? 'show side' : 'underside'} meet in its middle: nothing flat is left.`,
            say`The board has nothing to stand on or to cut on.`,
            [say`Use a steeper or smaller bevel.`],
          ),
        ]
      : []),
    ...(corners.kind !== 'square' && corners.size > least + LENGTH_TOLERANCE_MM
      ? [
          finding(
            'corner-size',
            'stop',
            say`Corners of ${length(corners.size)} do not fit a board of ${length(size.length)} by ${length(size.width)}.`,
            say`Two of them would meet.`,
            [say`Make them at most ${length(least)}.`],
          ),
        ]
      : []),
    ...(idle && board.worked.edges
      ? [
          finding(
            'bevel-idle',
            'caution',
            say`The under-bevel of the ${SIDE_NAMES[idle.side]} leaves ${length(idle.reveal)} of its side, and the board is ${length(size.thickness)} thick: nothing is cut.`,
            say`It was set for a thicker board.`,
            [say`Leave less of the side.`],
          ),
        ]
      : []),
    ...misses
      .slice(0, 1)
      .map(({ side, next, miss }) =>
        finding(
          'bevel-corner',
          'caution',
          say`The bevels of ${SIDE_NAMES[side]} and ${SIDE_NAMES[next]} miss each other by ${length(miss)} at the corner.`,
          say`They meet in one line only where the same is left of both sides.`,
          [say`Leave the same of ${isEnd(side) ? 'ends and edges' : 'edges and ends'}.`],
        ),
      ),
  ];
};
