import { certain } from '../lists/there.ts';
import type { AcceptedStop, Board } from '../board/board.ts';
import type { PlanInput } from '../saw/planInput.ts';
import type { Plan } from '../plan/plan.ts';
import { boardThickness } from './boardThickness.ts';
import { bleedingNeighbours } from './bleedingNeighbours.ts';
import { clamping } from './clamping.ts';
import { edgeShape } from './edgeShape.ts';
import { featureDepth } from './featureDepth.ts';
import { featureKnots } from './featureKnots.ts';
import { featureJoints } from './featureJoints.ts';
import { featureRoom } from './featureRoom.ts';
import { featuresApart } from './featuresApart.ts';
import { markArt } from './markArt.ts';
import { markStrip } from './markStrip.ts';
import { metalStays } from './metalStays.ts';
import { mixedOrders } from './mixedOrders.ts';
import { panelSpots } from './panelSpots.ts';
import { emptyBoard } from './emptyBoard.ts';
import { stationOf } from '../steps/operation.ts';
import type { Finding, Found, Rule, Severity } from './finding.ts';
import { finishSafety } from './finishSafety.ts';
import { glueTime } from './glueTime.ts';
import { glueClass } from './glueClass.ts';
import { glueClimate } from './glueClimate.ts';
import { grainDirection } from './grainDirection.ts';
import { machineLimits } from './machineLimits.ts';
import { outerStrips } from './outerStrips.ts';
import { notFollowed } from './notFollowed.ts';
import { panelWidthRule } from './panelWidth.ts';
import { ripSafety } from './ripSafety.ts';
import { seasonalNeighbours } from './seasonalNeighbours.ts';
import { showSide } from './showSide.ts';
import { stockSafety } from './stockSafety.ts';
import { stockShortage } from './stockShortage.ts';
import { sparesShort } from './sparesShort.ts';
import { speciesCautions } from './speciesCautions.ts';
import { stockSettled } from './stockSettled.ts';
import { toolMissing } from './toolMissing.ts';
import { stripWidth } from './stripWidth.ts';
import { stripsOf } from '../board/recipe.ts';

const RULES: readonly Rule[] = [
  emptyBoard,
  panelWidthRule,
  boardThickness,
  stripWidth,
  stockShortage,
  sparesShort,
  machineLimits,
  toolMissing,
  mixedOrders,
  metalStays,
  stockSafety,
  ripSafety,
  stockSettled,
  glueTime,
  glueClimate,
  glueClass,
  clamping,
  grainDirection,
  showSide,
  outerStrips,
  panelSpots,
  edgeShape,
  featureRoom,
  featureDepth,
  featuresApart,
  featureJoints,
  featureKnots,
  markStrip,
  markArt,
  seasonalNeighbours,
  bleedingNeighbours,
  speciesCautions,
  finishSafety,
];
const ORDER: Record<Severity, number> = { stop: 0, caution: 1, note: 2 };

/** All findings on a plan, stops first; within a severity in the order of the rules. A stop that the maker goes on with stays, with his note. */
export function checkPlan(plan: Plan, given: PlanInput): Finding[] {
  const input = { ...given, shop: plan.shop };
  // Before there are strips there is nothing to say but what to do first.
  if (stripsOf(given.board).length === 0) return emptyBoard(plan, input).map((f) => placed(f, plan));
  const found = RULES.flatMap((rule) => rule(plan, input));
  return [...found, ...notFollowed(plan, input, found)]
    .sort((a, b) => ORDER[a.severity] - ORDER[b.severity])
    .map((found) => {
      const f = placed(found, plan);
      const accepted = f.severity === 'stop' ? acceptanceOf(f, given.board) : undefined;
      return accepted ? { ...f, accepted: accepted.note } : f;
    });
}

/** The finding at its step and station. */
function placed(found: Found, { operations }: Pick<Plan, 'operations'>): Finding {
  const steps = operations.filter((o) => o.kind === found.at);
  const step =
    steps.length === 1 ? steps[0] : steps.find((o) => o.id === found.part || o.id === `${o.kind}:${found.part}`);
  return { ...found, station: found.at ? stationOf(found.at) : null, step: step?.id ?? null };
}

/** Ids of the strips that a finding is about: they stay the same when strips change places. */
export function stripIds({ strips }: Pick<Found, 'strips'>, board: Pick<Board, 'recipe'>): string[] {
  const all = stripsOf(board);
  return strips.flatMap((n) => all[n - 1]?.id ?? []);
}

/** The acceptance that covers a stop: the same rule, the same part, and every strip that it is about now. */
export function acceptanceOf(
  finding: Pick<Found, 'rule' | 'strips' | 'part'>,
  board: Pick<Board, 'recipe' | 'accepted'>,
): AcceptedStop | undefined {
  const ids = stripIds(finding, board);
  return board.accepted.find(
    (a) =>
      a.rule === finding.rule &&
      (a.part === null || a.part === (finding.part ?? '')) &&
      (a.strips === null ||
        (ids.length === 0 ? a.strips.length === 0 : ids.every((id) => certain(a.strips).includes(id)))),
  );
}

/** Stops that still stand in the way. */
export function openStops(findings: readonly Finding[]): Finding[] {
  return findings.filter((f) => f.severity === 'stop' && f.accepted === undefined);
}
