import { ripFatOf, widthReached } from '../board/allowances.ts';
import { showsOf } from '../board/board.ts';
import type { Blank, RippedStrip } from '../cutting/cutPlan.ts';
import { nearLoss, unitGeometry } from '../cutting/unitGeometry.ts';
import { orderOutcomes, type MillingOrder } from '../cutting/millingOrder.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import { panelSaw } from '../shop/tools.ts';
import type { Piece } from '../stock/piece.ts';
import { thicknessAt, widthAt } from '../stock/shape.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import { buildLadder, type Ladder } from './ladder.ts';
import type { PlanContext } from './context.ts';
import { stripsOf } from '../board/recipe.ts';

/** The stock piece behind each strip of the first copy, by strip number; strips that the rack cannot give are absent. */
export function firstCopySources(context: PlanContext): Map<number, { piece: Piece; blank: Blank }> {
  const sources = new Map<number, { piece: Piece; blank: Blank }>();
  for (const blank of context.cutting.blanks) {
    const piece = context.pieces.get(blank.pieceId);
    for (const { demand } of blank.strips)
      if (piece && demand.copy === 1 && demand.spare === 0) sources.set(demand.strip, { piece, blank });
  }
  return sources;
}

/** The piece with the least of something among those the plan uses, measured where each blank is cut from it. */
function leastPiece(
  context: PlanContext,
  size: (piece: Piece, blank: Blank) => number,
  counts: (blank: Blank) => boolean = () => true,
): { piece: Piece; blank: Blank; size: number } | undefined {
  let least: { piece: Piece; blank: Blank; size: number } | undefined;
  for (const blank of context.cutting.blanks.filter(counts)) {
    const piece = context.pieces.get(blank.pieceId);
    const here = piece && size(piece, blank);
    if (piece && here !== undefined && (!least || here < least.size)) least = { piece, blank, size: here };
  }
  return least;
}

/** A tapering piece is narrower at one end of a blank than at the other; the narrower one decides. */
function widthOfBlank(piece: Piece, blank: Blank): number {
  return Math.min(widthAt(piece, blank.from), widthAt(piece, blank.from + blank.length));
}

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
  const { loss } = orderOutcomes(piece, { length: least.blank.length, width: way.rip }, context.shop).find(
    (o) => o.order === order,
  )!;
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
          ? say`${ORDER_WORDS[thinnest!.order]}, bow, cup and half the twist measured on ${piece.mark} come to this at the part's size.`
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

export function lengthLadder(context: PlanContext): Ladder {
  const {
    allowances,
    board,
    shop: { habits },
  } = context;
  const { kerf } = panelSaw(context.shop, context.panelWidth);
  const { snipe } = flattenerLimits(context.shop);
  const panel = allowances.panels[0]!;
  // In a batch the last panel may be shorter; the ladder is that of the longest.
  const piece = leastPiece(
    context,
    (p) => p.length,
    (blank) => blank.length >= panel.length - LENGTH_TOLERANCE_MM,
  )?.piece;
  const start = piece?.length ?? panel.length + 2 * habits.stockEndTrim;
  const trimmed = piece ? unitGeometry(piece, context.shop, []).start : habits.stockEndTrim;
  const snipeDecides = snipe > habits.panelEndTrim;
  const end = {
    taken: allowances.endTrim + kerf,
    habit: snipeDecides ? undefined : ('panelEndTrim' as const),
    ...(snipeDecides ? { source: 'machine' as const } : {}),
    why: snipeDecides
      ? say`The planer snipes ${length(snipe)} at each end, more than the usual trim; the kerf goes too.`
      : say`The end is squared; the kerf goes too.`,
  };
  return buildLadder(
    'length',
    start,
    board.length,
    [
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
      {
        id: 'creep',
        label: say`Strips creep in the clamps`,
        taken: habits.creep,
        habit: 'creep',
        why: say`Wet glue lets strips slide; only where all of them lie is there board.`,
      },
      { id: 'first-end', label: say`Trim the first end`, ...end },
      { id: 'second-end', label: say`Turn end for end, trim the second`, ...end },
      {
        id: 'spare',
        label: say`Off for bad places`,
        taken: allowances.spareLength,
        source: 'piece' as const,
        why: say`The panel was glued for longer boards than now come out of it.`,
      },
      {
        id: 'others',
        label: say`Other boards of this panel`,
        taken: board.worked.others.reduce((sum, o) => sum + o.length + kerf, 0),
        source: 'machine',
        why: say`They come out of the same panel, each behind a kerf of ${length(kerf)}.`,
      },
      {
        id: 'cut-apart',
        label: say`Cut ${panel.boards} boards apart`,
        taken: (panel.boards - 1) * (board.length + kerf),
        source: 'machine',
        why: say`The panel holds ${panel.boards} boards end to end; each cut between them takes a kerf.`,
      },
    ],
    piece ? say`${piece.mark}, the shortest piece in use at ${length(piece.length)}` : null,
  );
}
