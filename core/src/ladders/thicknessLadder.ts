import { certain } from '../lists/there.ts';
import { ripFatOf } from '../board/allowances.ts';
import type { Blank, RippedStrip } from '../cutting/cutPlan.ts';
import { nearLoss } from '../cutting/unitGeometry.ts';
import { orderOutcomes, type MillingOrder } from '../cutting/millingOrder.ts';
import { thicknessAt } from '../stock/shape.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import { buildLadder, type Ladder } from './ladder.ts';
import type { PlanContext } from './context.ts';
import { leastPiece, widthOfBlank } from './limitingPiece.ts';

/**
 * The thickness to which strips can be milled for gluing, mm: what the board asks for, or where strips lie flat what the thinnest of
 * their pieces leaves once flat.
 */
export function glueThicknessReached(context: PlanContext): number {
  const { allowances } = context;
  return Math.min(
    allowances.glueThickness,
    ...context.cutting.blanks.flatMap((b) =>
      b.strips.map((s) =>
        s.way.shows === 'face' && s.layers === 1 ? s.planed : s.way.shows === 'face' ? s.way.thickness : Infinity,
      ),
    ),
  );
}

const ORDER_WORDS: Record<MillingOrder, string> = {
  crosscutFirst: 'Crosscut first',
  ripFirst: 'Crosscut and ripped first',
  fullLength: 'Flattened at full length',
};

/** The strip lying flat that is thinnest once planed, with what flattening took off its piece. */
function thinnestStrip(context: PlanContext) {
  let least: { strip: RippedStrip; blank: Blank } | undefined;
  for (const blank of context.cutting.blanks)
    for (const strip of blank.strips)
      if (strip.way.shows === 'face' && (!least || strip.planed < least.strip.planed)) least = { strip, blank };
  const piece = least && context.pieces.get(least.blank.pieceId);
  if (!least || !piece) return undefined;
  const { order, way } = least.strip;
  const { loss } = certain(
    orderOutcomes(piece, { length: least.blank.length, width: way.rip }, context.shop).find((o) => o.order === order),
  );
  const start = Math.min(
    thicknessAt(piece, least.blank.from),
    thicknessAt(piece, least.blank.from + least.blank.length),
  );
  return { piece, start, order, loss };
}

const PANEL_FLATTEN_WHY: Phrase = say`Strips never lie quite level; both faces of the panel are flattened.`;
const SANDING_WHY: Phrase = say`Sanding marks and the planer's ripples go, half off each face.`;

export function thicknessLadder(context: PlanContext): Ladder {
  const {
    allowances,
    board,
    shop: { habits },
  } = context;
  const fat = ripFatOf(context.shop);
  const finish = [
    {
      id: 'flatten-panel',
      label: say`Flatten the panel`,
      taken: habits.panelFlatten,
      why: PANEL_FLATTEN_WHY,
      habit: 'panelFlatten' as const,
    },
    { id: 'sand', label: say`Sand both faces`, taken: habits.sanding, why: SANDING_WHY, habit: 'sanding' as const },
  ];

  const glued = glueThicknessReached(context);
  const onEdge = (blank: Blank) => blank.strips.some((s) => s.way.shows === 'edge');
  // Where every strip was rolled, an edge-grain board gets its thickness from the stock's as well.
  const standing = context.cutting.blanks.length === 0 || context.cutting.blanks.some(onEdge);
  if (board.construction === 'edge' && standing && glued >= allowances.glueThickness - LENGTH_TOLERANCE_MM) {
    const narrowest = leastPiece(context, widthOfBlank, onEdge);
    const piece = narrowest?.piece;
    const joint = narrowest ? nearLoss(narrowest.piece, narrowest.blank.length, context.shop) : habits.stockEdgeJoint;
    const start = narrowest?.size ?? allowances.glueThickness + fat + joint;
    return buildLadder(
      'thickness',
      start,
      board.thickness,
      [
        {
          id: 'joint-edge',
          label: say`Straighten one edge`,
          taken: joint,
          habit: 'stockEdgeJoint',
          ...(joint > habits.stockEdgeJoint ? { source: 'piece' as const } : {}),
          why:
            joint > habits.stockEdgeJoint
              ? say`A straight edge runs against the fence; the crook of a part this long comes on top of the usual jointing.`
              : say`A straight edge runs against the fence; only then is the rip parallel.`,
        },
        {
          id: 'rip',
          label: say`Rip to ${length(allowances.glueThickness + fat)}`,
          taken: start - joint - allowances.glueThickness - fat,
          why: say`The rip decides the thickness of an edge-grain board; the rest of the width gives other strips, their kerfs and the offcut.`,
        },
        {
          id: 'remill',
          label: say`Rest, mill again`,
          taken: fat,
          habit: 'ripFat',
          why: say`Ripped strips may spring; what was ripped fat is milled away once they have rested.`,
        },
        ...finish,
      ],
      piece ? say`${piece.mark}, the narrowest in use at ${length(start)}` : null,
    );
  }

  const thinnest = thinnestStrip(context);
  const piece = thinnest?.piece;
  const loss = thinnest?.loss ?? {
    form: habits.flattenRough,
    skim: 2 * habits.skimRough,
    total: habits.flattenRough + 2 * habits.skimRough,
  };
  const start = thinnest?.start ?? glued + loss.total;
  const rough = (piece?.surface ?? 'rough') === 'rough';
  return buildLadder(
    'thickness',
    start,
    board.thickness,
    [
      {
        id: 'flatten-stock',
        label: say`Flatten the stock`,
        taken: loss.form,
        habit: piece?.form ? undefined : rough ? 'flattenRough' : 'flattenSurfaced',
        ...(piece?.form ? { source: 'piece' as const } : {}),
        why: piece?.form
          ? say`${ORDER_WORDS[certain(thinnest).order]}, bow, cup and half the twist measured on ${piece.mark} come to this at the part's size.`
          : say`Bow, cup and twist come out until one face is flat and the other parallel.`,
      },
      {
        id: 'skim',
        label: say`Skim both faces`,
        taken: loss.skim,
        habit: rough ? 'skimRough' : 'skimSurfaced',
        why: rough
          ? say`Saw marks of rough stock go on each face.`
          : say`Surfaced stock is cleaned lightly on each face.`,
      },
      {
        id: 'thickness',
        label: say`Plane all to ${length(glued)}`,
        taken: start - loss.total - glued,
        why: say`Every strip that lies flat is planed to the one thickness the panel is glued at.`,
      },
      ...finish,
    ],
    piece ? say`${piece.mark}, the piece that is thinnest once flat` : null,
  );
}
