import type { PlanInput } from '../plan/context.ts';
import type { Plan } from '../plan/plan.ts';
import { boardThickness } from './boardThickness.ts';
import { bleedingNeighbours } from './bleedingNeighbours.ts';
import { emptyBoard } from './emptyBoard.ts';
import type { Finding, Rule, Severity } from './finding.ts';
import { glueTime } from './glueTime.ts';
import { grainDirection } from './grainDirection.ts';
import { machineLimits } from './machineLimits.ts';
import { outerStrips } from './outerStrips.ts';
import { panelWidthRule } from './panelWidth.ts';
import { seasonalNeighbours } from './seasonalNeighbours.ts';
import { showSide } from './showSide.ts';
import { stockShortage } from './stockShortage.ts';
import { speciesCautions } from './speciesCautions.ts';
import { stripWidth } from './stripWidth.ts';

const RULES: readonly Rule[] = [
  emptyBoard, panelWidthRule, boardThickness, stripWidth, stockShortage, machineLimits, glueTime, grainDirection, showSide, outerStrips,
  seasonalNeighbours, bleedingNeighbours, speciesCautions,
];
const ORDER: Record<Severity, number> = { stop: 0, caution: 1, note: 2 };

/** All findings on a plan, stops first; within a severity in the order of the rules. */
export function checkPlan(plan: Plan, input: PlanInput): Finding[] {
  return RULES.flatMap((rule) => rule(plan, input)).sort((a, b) => ORDER[a.severity] - ORDER[b.severity]);
}
