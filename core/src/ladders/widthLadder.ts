import { ripFatOf, widthReached } from '../board/allowances.ts';
import { showsOf } from '../board/board.ts';
import { length, say } from '../units/phrase.ts';
import { buildLadder, type Ladder } from './ladder.ts';
import type { PlanContext } from './context.ts';
import { stripsOf } from '../board/recipe.ts';
import { firstCopySources } from './limitingPiece.ts';

export function widthLadder(context: PlanContext): Ladder {
  const {
    board,
    shop: { habits, saw },
    panelWidth,
  } = context;
  const reached = widthReached(board, panelWidth, context.shop);
  const trim = {
    id: 'trim-edges',
    label: say`Trim both long edges`,
    taken: panelWidth - reached,
    habit: 'panelEdgeTrim' as const,
    why: say`The outer strips carry the extra: at least ${length(habits.panelEdgeTrim)} a side makes the edges straight, parallel and free of glue.`,
  };
  const limiting = stripsOf(board).length > 0 ? say`the sum of the strips, ${length(panelWidth)}` : null;

  const sources = firstCopySources(context);
  const roughLoss = habits.flattenRough + 2 * habits.skimRough;
  const onEdge = stripsOf(board).flatMap((strip, i) =>
    showsOf(board.construction, strip) === 'edge'
      ? [
          {
            strip, // A tapering piece may be thinner at its marked end than where the strip comes from.
            stock: Math.max(strip.width, sources.get(i + 1)?.piece.thickness ?? strip.width + roughLoss),
          },
        ]
      : [],
  );
  const planed = onEdge.reduce((sum, { strip, stock }) => sum + stock - strip.width, 0);
  const flat = stripsOf(board).length - onEdge.length;
  const joints = flat * 2 * habits.glueEdgeJoint;
  const fat = flat * ripFatOf(context.shop);
  const kerfs = flat * saw.kerf;
  return buildLadder(
    'width',
    panelWidth + planed + joints + fat + kerfs,
    board.width,
    [
      ...(onEdge.length > 0
        ? [
            {
              id: 'plane-strips',
              label: say`Flatten and plane the strips`,
              taken: planed,
              why: say`Turned on edge, each strip shows its thickness: what flattening and planing take off ${onEdge.length} pieces adds up here.`,
            },
          ]
        : []),
      ...(flat > 0 || onEdge.length === 0
        ? [
            {
              id: 'kerfs',
              label: say`Rip ${flat} strips`,
              taken: kerfs,
              source: 'machine' as const,
              why: say`Each rip turns ${length(saw.kerf)} to dust.`,
            },
            {
              id: 'remill',
              label: say`Rest, mill again`,
              taken: fat,
              habit: 'ripFat' as const,
              why: say`Ripped strips may spring; what was ripped fat is milled away once they have rested.`,
            },
            {
              id: 'joint-strips',
              label: say`Joint both edges of each strip`,
              taken: joints,
              habit: 'glueEdgeJoint' as const,
              why: say`A glue joint wants a fresh, straight, square edge on both sides.`,
            },
          ]
        : []),
      trim,
    ],
    limiting,
  );
}
