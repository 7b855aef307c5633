import { firstOf } from '../lists/there.ts';
import { isMetal } from '../stock/defect.ts';
import { overlaps, placeOf } from '../follow/bench.ts';
import { length, say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';

/** Metal that nobody means to cut out: it meets every blade and knife between the rack and the panel, and then a kitchen knife. */
export const metalStays: Rule = ({ cutting }, { rack }) =>
  rack.flatMap((piece): Found[] => {
    const blanks = cutting.blanks.filter((b) => !b.done && b.pieceId === piece.id);
    const whole = blanks.some((b) => b.strips.some((s) => s.order === 'fullLength'));
    const metal = piece.defects.filter(isMetal);
    const met = metal.filter(
      (d) =>
        (whole && blanks.length > 0) ||
        (d.treatment !== 'cut' &&
          blanks.some((b) =>
            overlaps(placeOf(d).x, { from: b.from - METAL_REACH_MM, to: b.from + b.length + METAL_REACH_MM }),
          )),
    );
    if (met.length === 0) return [];
    const first = firstOf(met);
    return [
      {
        rule: 'metal-stays',
        severity: 'stop',
        at: 'crosscut',
        strips: [
          ...new Set(blanks.flatMap((b) => b.strips.filter((s) => s.demand.spare === 0).map((s) => s.demand.strip))),
        ].sort((a, b) => a - b),
        what:
          whole && first.treatment === 'cut'
            ? say`${piece.mark} is planed at full length, and has a ${first.kind} ${length(first.from)} from its marked end.`
            : say`${piece.mark}: the ${first.kind} ${length(first.from)} from its marked end is not marked to be cut out, and lies in what is milled.`,
        why: say`Metal takes the teeth off a blade and the edge off every knife, and its pieces fly.`,
        waysOut: [
          say`Mark it to be cut out; Cadenza keeps every blade clear of it.`,
          say`Pull it, go over the piece with a detector, and take the mark away.`,
        ],
        source: 'Common practice',
      },
    ];
  });

/** A crosscut beside a blank takes its kerf from there, mm: the widest. */
const METAL_REACH_MM = 8;
