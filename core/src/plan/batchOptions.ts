import { firstOf, nth } from '../lists/there.ts';
import { panelsOf } from '../board/allowances.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { makePlan } from './plan.ts';
import { stripsOf } from '../board/recipe.ts';

/** A batch made with so many boards to a panel. */
export interface BatchOption {
  perPanel: number;
  panels: number;
  /** Length of the longest panel as glued, mm, and its weight, kg; null for a species without density. */
  length: number;
  kilograms: number | null;
  /** Strips that the rack cannot give so long. */
  missing: number;
  /** Wood taken from the rack, m3, and what creep, trims, snipe and kerfs take of the length of all panels, mm. */
  cubicMetres: number;
  lostLength: number;
  glueUps: number;
  /** Minutes until everything is out of its clamps, and hands-on minutes. */
  clampMinutes: number;
  handsMinutes: number;
  /** One person can hold it at a machine. */
  alone: boolean;
  recommended: boolean;
}

/** Longer or heavier than this a panel wants a second pair of hands or a stand, mm and kg (common practice). */
const ALONE = { length: 1500, kilograms: 12 } as const;

/** The ways to divide a batch into panels, from one board each to all in one; the one that wins on strips there are, on hands, on wood and on glue-ups is recommended. */
export function batchOptions(input: PlanInput): BatchOption[] {
  const { board } = input;
  const sizes = Array.from({ length: board.count }, (_, i) => i + 1).filter(
    (n, i, all) =>
      panelsOf({ count: board.count, perPanel: n }).length <
      (i === 0 ? Infinity : panelsOf({ count: board.count, perPanel: nth(all, i - 1) }).length),
  );
  const options = sizes.map((perPanel): BatchOption => {
    const plan = makePlan({ ...input, board: { ...board, perPanel } });
    const { panels } = plan.allowances;
    const longest = firstOf(panels);
    const grams = plan.materials.gramsEach;
    // A panel weighs what its boards weigh, and its trims.
    const kilograms =
      grams === null
        ? null
        : (grams / 1000) *
          (longest.length / board.length) *
          (plan.panelWidth / Math.max(1, plan.ladders.width.reached));
    return {
      perPanel,
      panels: panels.length,
      length: longest.length,
      kilograms,
      missing: plan.cutting.shortages.reduce((sum, s) => sum + s.parts, 0),
      cubicMetres: plan.materials.taken.cubicMetres,
      lostLength:
        panels.reduce((sum, p) => sum + p.length - p.boards * board.length, 0) -
        board.worked.others.reduce((sum, o) => sum + o.length, 0),
      glueUps: plan.gluing.glueUps.length * panels.length,
      clampMinutes: plan.gluing.clampMinutes * panels.length,
      handsMinutes: plan.handsMinutes,
      alone: longest.length <= ALONE.length && (kilograms ?? 0) <= ALONE.kilograms,
      recommended: false,
    };
  });
  const best = [...options].sort(
    (a, b) =>
      a.missing - b.missing ||
      Number(b.alone) - Number(a.alone) ||
      a.glueUps - b.glueUps ||
      a.cubicMetres - b.cubicMetres,
  )[0];
  return options.map((o) => ({ ...o, recommended: o === best }));
}

/** How many boards to a panel are chosen where nobody chose: the recommended way, or one each while there are no strips. */
export function bestPerPanel(input: PlanInput): number {
  if (stripsOf(input.board).length === 0 || input.board.count === 1) return 1;
  return batchOptions(input).find((o) => o.recommended)?.perPanel ?? 1;
}
