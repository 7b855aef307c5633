import { certain, nth } from '../lists/there.ts';
import { stripTops } from '../board/board.ts';
import { apart } from '../features/apart.ts';
import { FEATURE_NAMES } from '../features/feature.ts';
import { rectangle, type Outline } from '../features/outline.ts';
import { defectsOn, furtherAlong, type StripBody } from '../bodies/stripBody.ts';
import type { Triple } from '../recipe/motion.ts';
import type { Defect } from '../stock/defect.ts';
import { boardPlaces } from '../trim/trimLayout.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { say } from '../units/phrase.ts';
import { STEP_OF } from './featureRoom.ts';
import type { Found, Rule } from './finding.ts';
import { stripsOf } from '../board/recipe.ts';

/** What a bit meets badly; sapwood, stain and paint only look different. */
const HARD: readonly Defect['kind'][] = ['knot', 'check', 'bark', 'screw', 'nail', 'worm'];

/** A cut that runs into a knot, a check or metal of the piece its strip comes from. */
export const featureKnots: Rule = (plan, { board }) => {
  const { worked, bodies } = plan;
  if (worked.solids.length === 0) return [];
  const tops = stripTops(stripsOf(board));
  const found = new Map<string, Found>();
  const [first = 0, ...others] = boardPlaces(plan.trim);
  const places = [0, ...others.map((x) => x - first)];
  for (const face of ['top', 'under'] as const) {
    const opening = worked.solids.filter(
      (s) =>
        s.kind !== 'mark' &&
        (face === 'top' ? s.from <= LENGTH_TOLERANCE_MM : s.to >= worked.size.thickness - LENGTH_TOLERANCE_MM),
    );
    if (opening.length === 0) continue;
    bodies.forEach((own, i) =>
      places.forEach((by, b) => {
        const body = furtherAlong(own, by);
        for (const defect of defectsOn(body, face).filter((d) => HARD.includes(d.kind))) {
          const place = onBoard(body, defect, (body.size[0] - worked.size.length) / 2, nth(tops, i) - worked.shift);
          for (const solid of opening) {
            const key = `${solid.feature} ${i} ${b}`;
            if (found.has(key) || apart(solid.outlines, [place], 1) > LENGTH_TOLERANCE_MM) continue;
            found.set(key, {
              rule: 'feature-knot',
              severity: 'caution',
              strips: [i + 1],
              part: solid.feature,
              at: STEP_OF[solid.kind],
              what: say`${FEATURE_NAMES[solid.kind]}${places.length > 1 ? ` of board ${b + 1} of the panel` : ''}: into a ${defect.kind} of strip ${i + 1}, from ${certain(body.piece).mark}.`,
              why:
                defect.kind === 'screw' || defect.kind === 'nail'
                  ? say`Metal breaks the bit and throws pieces of it.`
                  : say`A bit tears loose wood out, and what is open holds juice.`,
              waysOut: [say`Turn the strip end for end or over, or swap it.`, say`Move the feature.`],
            });
          }
        }
      }),
    );
  }
  return [...found.values()];
};

/** Where a defect of a strip's piece lies on the finished board. On edge only what goes through is seen, across all of the strip. */
function onBoard(body: StripBody, defect: Defect, endTrim: number, top: number): Outline {
  const along = ends(body.origin, body.along, 0, defect.from, defect.length);
  const across: [number, number] =
    body.shows === 'face' ? ends(body.origin, body.across, 1, defect.across, defect.width) : [0, body.size[1]];
  const y: [number, number] = [Math.max(0, across[0]), Math.min(body.size[1], across[1])];
  return rectangle(along[0] - endTrim, top + y[0], along[1] - along[0], Math.max(0.1, y[1] - y[0]));
}

/** A stretch of the piece on one of its axes as a stretch of the body. */
function ends(origin: Triple, direction: Triple, axis: 0 | 1, from: number, size: number): [number, number] {
  const [a, b] = [(from - origin[axis]) * direction[axis], (from + size - origin[axis]) * direction[axis]];
  return [Math.min(a, b), Math.max(a, b)];
}
