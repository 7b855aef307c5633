import { crossings, type Insert, type Inset } from '../board/inset.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import { crossGrain, endGrainJoint } from './crossGrain.ts';
import type { Found, Rule } from './finding.ts';
import { panelOf, thicknessOf } from './recutSize.ts';
import { WEAK_ANGLE } from './recutJoints.ts';

const named = ({ number }: Insert): Phrase => say`Strip ${number}`;

/** Where the kerf of a cut ends on the panel, at both edges. */
const behind = (insert: Insert, inset: Inset) => crossings(insert, inset, 'behind');

/** Whether what is put in lies on the board, each in a joint of its own, and whether there is enough panel round it. */
export const insetSize: Rule = (plan, { board, shop }) => {
  const { again } = plan;
  if (again?.how !== 'parts') return [];
  const found: Found[] = [
    ...panelOf(plan, again, board, 'width'),
    ...thicknessOf(again, plan.ladders.thickness.reached, board.thickness, shop.habits.sanding),
  ];
  again.inserts.forEach((insert, k) => {
    const { operation, number } = insert;
    if (operation.at > board.length)
      found.push({
        rule: 'insert-beside',
        severity: 'stop',
        strips: [number],
        part: operation.id,
        at: 'sawApart',
        what: say`${named(insert)} lies ${length(operation.at)} from the left end; the board is ${length(board.length)} long.`,
        why: say`It would be trimmed off with the end.`,
        waysOut: [say`Move it to where the board is.`, say`Take it out.`],
      });
    const [from, to] = [crossings(insert, again), behind(insert, again)];
    const least = Math.min(from.far, from.near);
    const most = Math.max(to.far, to.near);
    if (least < -LENGTH_TOLERANCE_MM || most > again.panelLength + LENGTH_TOLERANCE_MM) {
      const by = Math.max(-least, most - again.panelLength);
      found.push({
        rule: 'insert-misses',
        severity: 'stop',
        strips: [number],
        part: operation.id,
        at: 'sawApart',
        what: say`The cut for strip ${number} leaves the panel through its end, ${length(by)} beyond it.`,
        why: say`Only a cut from long edge to long edge leaves parts that meet in one line again.`,
        waysOut: [say`Move it ${length(by)} toward the middle.`, say`Cut it less slanted.`],
      });
    }
    const next = again.inserts[k + 1];
    if (!next) return;
    const after = crossings(next, again);
    const gap = Math.min(after.far - to.far, after.near - to.near);
    if (gap < -LENGTH_TOLERANCE_MM)
      found.push({
        rule: 'inserts-cross',
        severity: 'stop',
        strips: [number, next.number],
        part: operation.id,
        at: 'sawApart',
        what: say`Strips ${number} and ${next.number} run into each other: their cuts cross ${length(-gap)} beyond each other.`,
        why: say`What lies between two cuts is a part of its own, from edge to edge.`,
        waysOut: [say`Move them ${length(-gap)} apart.`, say`Cut both at the same angle.`],
      });
  });
  return found;
};

/** Wood that is put in does not move the way the parts beside it do, and is glued to their ends. */
export const insetJoints: Rule = (plan) => {
  const { again, movement } = plan;
  if (again?.how !== 'parts') return [];
  return again.inserts.flatMap((insert): Found[] => {
    const about = { strips: [insert.number], part: insert.operation.id, at: 'layParts' as const };
    const along = Math.cos((insert.angle * Math.PI) / 180);
    // Along the joint the parts move by what of their width lies that way; the strip does not.
    const apart = Math.abs(movement.across) * along;
    return [
      ...crossGrain(
        about,
        apart,
        say`Along the joint of strip ${insert.number} the parts move ${length(apart)} between the dry and the damp month; the strip does not.`,
        [
          say`Make the board narrower.`,
          say`Put it in at a slant: the steeper, the less.`,
          say`Take quartered wood, which moves half as much.`,
        ],
      ),
      ...(Math.abs(insert.angle) < WEAK_ANGLE
        ? [
            endGrainJoint(
              about,
              say`The ends of the parts are glued to strip ${insert.number}: cut at ${Math.abs(insert.angle)}°, they are end grain.`,
              [say`Cut at ${WEAK_ANGLE}° or more.`],
            ),
          ]
        : []),
    ];
  });
};
