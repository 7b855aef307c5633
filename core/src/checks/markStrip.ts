import { stripTops } from '../board/board.ts';
import { length, say } from '../units/phrase.ts';
import type { Finding, Rule } from './finding.ts';

/** A mark that is made before the glue-up must lie on one outer strip, all of it. */
export const markStrip: Rule = (plan, { board, shop }) => {
  if (shop.schools.engraving !== 'outerStrip' || board.strips.length < 2) return [];
  const { shift, size, features } = plan.worked;
  const tops = stripTops(board.strips).map((top) => top - shift);
  const [first, last] = [tops[1]!, tops.at(-1)!];
  return features.flatMap((f): Finding[] => {
    if (f.kind !== 'mark') return [];
    // Along an end it is measured from the far edge; both long edges are outer strips.
    const [middle, half] = f.face === 'left' || f.face === 'right' ? [f.x, f.length / 2] : [f.y, f.width / 2];
    if (f.face === 'far' || f.face === 'near' || middle + half <= first || middle - half >= last) return [];
    return [{
      rule: 'mark-strip', severity: 'caution', strips: [1, board.strips.length], at: 'engrave',
      what: say`${f.name} does not lie on an outer strip: it is ${length(f.width)} wide, they show ${length(Math.max(0, first))} and ${length(Math.max(0, size.width - last))}.`, why: say`Only a strip that is still loose can be engraved before the glue-up, and turned or thrown away when it goes wrong.`,
      waysOut: [say`Move it onto an outer strip, or make it smaller.`, say`Engrave the board before its grain is raised.`],
    }];
  });
};
