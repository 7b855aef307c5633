import { certain, firstOf } from '../lists/there.ts';
import { ripFatOf } from '../board/allowances.ts';
import { showsOf } from '../board/board.ts';
import { stripsOf } from '../board/recipe.ts';
import type { Blank, RippedStrip } from '../cutting/cutPlan.ts';
import { orderOutcomes, type MillingOrder } from '../cutting/millingOrder.ts';
import { nearLoss, unitGeometry } from '../cutting/unitGeometry.ts';
import { thicknessAt } from '../stock/shape.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import type { PlanContext } from './context.ts';
import { glueThicknessReached, isOfItsOwnHeight } from './gluedThickness.ts';
import type { Rungs, Stage } from './ladder.ts';
import { firstCopySources, leastPiece, widthOfBlank } from './limitingPiece.ts';

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
      if (
        strip.way.shows === 'face' &&
        !isOfItsOwnHeight(context, strip.demand.stripId) &&
        (!least || strip.planed < least.strip.planed)
      )
        least = { strip, blank };
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

/** From the stock to the thickness that strips are glued at. */
function thickness(context: PlanContext): Stage {
  const {
    allowances,
    board,
    shop: { habits },
  } = context;
  const fat = ripFatOf(context.shop);
  const glued = glueThicknessReached(context);
  const onEdge = (blank: Blank) => blank.strips.some((s) => s.way.shows === 'edge');
  // Where every strip was rolled, an edge-grain board gets its thickness from the stock's as well.
  const standing = context.cutting.blanks.length === 0 || context.cutting.blanks.some(onEdge);
  if (board.construction === 'edge' && standing && glued >= allowances.glueThickness - LENGTH_TOLERANCE_MM) {
    const narrowest = leastPiece(context, widthOfBlank, onEdge);
    const piece = narrowest?.piece;
    const joint = narrowest ? nearLoss(narrowest.piece, narrowest.blank.length, context.shop) : habits.stockEdgeJoint;
    const start = narrowest?.size ?? allowances.glueThickness + fat + joint;
    return {
      start,
      specs: [
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
      ],
      limiting: piece ? say`${piece.mark}, the narrowest in use at ${length(start)}` : null,
    };
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
  return {
    start,
    specs: [
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
    ],
    limiting: piece ? say`${piece.mark}, the piece that is thinnest once flat` : null,
  };
}

/** From the sections of the stock, side by side, to the width of the panel. */
function width(context: PlanContext): Stage {
  const {
    board,
    shop: { habits, saw },
    panelWidth,
  } = context;
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
  return {
    start: panelWidth + planed + joints + fat + kerfs,
    specs: [
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
    ],
    limiting,
  };
}

/** From the end of the stock to strips crosscut for the panel. */
function lengthwise(context: PlanContext): Stage {
  const {
    allowances,
    shop: { habits },
  } = context;
  const panel = firstOf(allowances.panels);
  // In a batch the last panel may be shorter; the ladder is that of the longest.
  const piece = leastPiece(
    context,
    (p) => p.length,
    (blank) => blank.length >= panel.length - LENGTH_TOLERANCE_MM,
  )?.piece;
  const start = piece?.length ?? panel.length + 2 * habits.stockEndTrim;
  const trimmed = piece ? unitGeometry(piece, context.shop, []).start : habits.stockEndTrim;
  return {
    start,
    specs: [
      {
        id: 'stock-end',
        label: say`Trim the end of the stock`,
        taken: trimmed,
        habit: trimmed === habits.stockEndTrim ? 'stockEndTrim' : undefined,
        ...(trimmed === habits.stockEndTrim ? {} : { source: 'piece' as const }),
        why:
          trimmed > habits.stockEndTrim
            ? say`This end is checked or sniped further than the usual trim.`
            : say`Checks and old snipe sit at the ends.`,
      },
      {
        id: 'crosscut',
        label: say`Crosscut to ${length(panel.length)}`,
        taken: start - trimmed - panel.length,
        why: say`The rest of the piece gives other blanks, their kerfs, the far end trim and the offcut.`,
      },
    ],
    limiting: piece ? say`${piece.mark}, the shortest piece in use at ${length(piece.length)}` : null,
  };
}

/** What milling strips out of the stock takes, up to the glue. */
export const stripRungs: Rungs = { thickness, width, length: lengthwise };
