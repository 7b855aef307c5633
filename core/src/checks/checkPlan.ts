import { certain } from '../lists/there.ts';
import type { AcceptedStop, Board } from '../board/board.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { shopFor } from '../board/differences.ts';
import type { Plan } from '../plan/plan.ts';
import { backJoints, backSize } from './backRules.ts';
import { frameJoints, frameSize } from './frameRules.ts';
import { insetJoints, insetSize } from './insetRules.ts';
import { lastSlices, recutJoints } from './recutJoints.ts';
import { recutSize } from './recutSize.ts';
import { boardThickness, thinBoard } from './boardThickness.ts';
import { bleedingNeighbours } from './bleedingNeighbours.ts';
import { clamping } from './clamping.ts';
import { clampsTwoWays } from './clampsTwoWays.ts';
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
import { stationOf, type Operation } from '../steps/operation.ts';
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
import { stackRules } from './stackRules.ts';
import { stockSafety } from './stockSafety.ts';
import { stockShortage } from './stockShortage.ts';
import { sparesShort } from './sparesShort.ts';
import { speciesCautions } from './speciesCautions.ts';
import { stockSettled } from './stockSettled.ts';
import { toolMissing } from './toolMissing.ts';
import { stripWidth } from './stripWidth.ts';
import { cutStripsOf, stripsOf } from '../board/recipe.ts';

/** What is checked of panels of strips: of a flat board that is the board itself. */
const PANEL_RULES: readonly Rule[] = [
  stripWidth,
  stackRules,
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
];
/** What only strips from end to end can have. */
const FLAT_RULES: readonly Rule[] = [outerStrips];
const FLAT_FEATURES: readonly Rule[] = [featureJoints, featureKnots, markStrip];
/** What is checked of the board, however it was made. */
const BOARD_RULES: readonly Rule[] = [panelSpots, edgeShape, featureRoom, featureDepth, featuresApart];
const LAST_RULES: readonly Rule[] = [bleedingNeighbours, speciesCautions, finishSafety];
/** Before anything else: whether there is a board, and of what size. */
const SIZE_RULES: readonly Rule[] = [emptyBoard, panelWidthRule, boardThickness];

const FLAT: readonly Rule[] = [
  ...SIZE_RULES,
  ...PANEL_RULES,
  ...FLAT_RULES,
  ...BOARD_RULES,
  ...FLAT_FEATURES,
  markArt,
  seasonalNeighbours,
  ...LAST_RULES,
];

const run = (rules: readonly Rule[], of: Plan, given: PlanInput) => rules.flatMap((rule) => rule(of, given));

/** What is found of a board that is more than one panel: of its first panel, of its rows or parts, of its frame, of the board itself. */
function foundAgain(
  plan: Plan,
  made: NonNullable<Plan['again'] | Plan['frame'] | Plan['back']>,
  input: PlanInput,
): Found[] {
  const { again, frame, back } = plan;
  const panel: Plan = {
    ...plan,
    trim: made.trim,
    ladders: made.ladders,
    again: null,
    recut: null,
    frame: null,
    back: null,
  };
  const panelInput = { ...input, board: made.board, shop: shopFor(made.board, input.shop) };
  // What is inside a frame is looked at as a board of its own.
  const parts = frame?.fields ?? back?.tops;
  const inside: Plan = parts ? { ...plan, trim: parts.trim, ladders: parts.ladders } : plan;
  const insideBoard = frame?.field ?? back?.inside;
  const insideInput = insideBoard ? { ...input, board: insideBoard } : input;
  const panels = run(PANEL_RULES, panel, panelInput);
  return [
    ...run([emptyBoard, ...(again ? AGAIN_RULES : [panelWidthRule])], inside, insideInput),
    ...run([frameSize, frameJoints, backSize, backJoints, again ? thinBoard : boardThickness], plan, input),
    ...panels,
    ...once(
      (again?.otherPanels ?? []).flatMap((p) =>
        gluedInTime(plan, p.gluing, p.allowances.glueThickness, input, `panel ${p.before.panels + 1}`),
      ),
    ).filter((f) => !panels.some((told) => told.rule === f.rule)),
    ...(again ? gluedInTime(plan, again.gluing, again.block.height, input, again.how) : []),
    ...(frame ? foundOfFrame(plan, frame, input) : []),
    ...(back?.gluing ? gluedInTime(plan, back.gluing, input.board.width, input, 'back') : []),
    ...(back ? gluedInTime(plan, back.panel.gluing, back.height, input, 'back panel') : []),
    ...run([...BOARD_RULES, markArt, ...LAST_RULES], plan, input),
  ];
}

const AGAIN_RULES: readonly Rule[] = [recutSize, recutJoints, lastSlices, insetSize, insetJoints, clampsTwoWays];

/** Rows, parts and frames are glued like strips: in time, and under the clamps there are. @param part what it is about */
function gluedInTime(plan: Plan, gluing: Plan['gluing'], height: number, input: PlanInput, part: string): Found[] {
  const block: Plan = { ...plan, gluing, allowances: { ...plan.allowances, glueThickness: height } };
  return run([glueTime, clamping], block, input).map((f) => ({ ...f, part: f.part ?? part }));
}

/** Of several things that are glued alike each rule speaks once, of the first that it is about. */
const once = (all: Found[]): Found[] => all.filter((f, i) => all.findIndex((other) => other.rule === f.rule) === i);

function foundOfFrame(plan: Plan, { pairs, fields, rings }: NonNullable<Plan['frame']>, input: PlanInput): Found[] {
  return once(
    pairs.flatMap((pair) =>
      gluedInTime(plan, pair.gluing, fields.thickness, input, `${rings[pair.ring]?.operation.id}/${pair.pair}`),
    ),
  );
}

const ORDER: Record<Severity, number> = { stop: 0, caution: 1, note: 2 };

/** All findings on a plan, stops first; within a severity in the order of the rules. A stop that the maker goes on with stays, with his note. */
export function checkPlan(plan: Plan, given: PlanInput): Finding[] {
  const input = { ...given, shop: plan.shop };
  // Before there are strips there is nothing to say but what to do first.
  if (stripsOf(given.board).length === 0) return emptyBoard(plan, input).map((f) => placed(f, plan));
  const made = plan.again ?? plan.frame ?? plan.back;
  const found = [
    ...(made ? foundAgain(plan, made, input) : run(FLAT, plan, input)),
    ...plan.stacks.flatMap(({ stack, gluing }) =>
      gluedInTime(plan, gluing, plan.allowances.glueThickness, input, stack.operation.id),
    ),
  ];
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
  const all = cutStripsOf(board);
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

/** Whether a finding is told at a step: at its own, or at each of its kind where it concerns several. */
export function isToldAt({ step, at }: Finding, { id, kind }: Pick<Operation, 'id' | 'kind'>): boolean {
  return step === id || (step === null && at === kind);
}

/** Stops that no step of a plan tells: wood that is missing takes the steps at which it would be cut out of the plan. */
export function stopsOfNoStep(findings: readonly Finding[], operations: readonly Operation[]): Finding[] {
  return openStops(findings).filter((f) => !operations.some((o) => isToldAt(f, o)));
}

/** Stops that still stand in the way. */
export function openStops(findings: readonly Finding[]): Finding[] {
  return findings.filter((f) => f.severity === 'stop' && f.accepted === undefined);
}
