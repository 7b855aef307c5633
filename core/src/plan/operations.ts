import { showsOf } from '../board/board.ts';
import type { GluePlan, GlueUp } from '../gluing/glueUps.ts';
import { ripsOf } from '../cutting/auditCut.ts';
import type { Blank, RippedStrip } from '../cutting/cutPlan.ts';
import { alongPiece, nearLoss, unitGeometry } from '../cutting/unitGeometry.ts';
import type { MillingOrder } from '../cutting/millingOrder.ts';
import { passCount, type Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { atLeast, length, say, type Phrase } from '../units/phrase.ts';
import { cautionsFor } from './cautions.ts';
import type { Ladder } from './ladder.ts';
import { glueThicknessReached } from './ladders.ts';
import { listNumbers } from './numberList.ts';
import type { Operation, OperationKind } from './operation.ts';
import type { PlanContext } from './context.ts';

/** What a piece's order of milling changes about the crosscut. */
const ORDER_LINES: Record<MillingOrder, string> = {
  crosscutFirst: '', ripFirst: '; rip the strips a little fat on the band saw before they are flattened', fullLength: '; flatten it at full length before: its parts are too short for the planer, or lose less',
};

type Draft = Pick<Operation, 'kind' | 'title' | 'lines' | 'why'> & Partial<Operation>;

/** Blanks of one piece, with what is to be planed off them. */
interface PieceWork {
  piece: Piece;
  blanks: Blank[];
  /** Thickness its blanks are planed to before ripping, mm. */
  planeTo: number;
  /** Strips by rip width, mm. */
  rips: Map<number, number[]>;
  /** Strips that are planed further after the rip, by their width, mm. */
  thinner: Map<number, number[]>;
  /** Rips that are resawn into layers. */
  resawn: RippedStrip[][];
  order: MillingOrder;
}

/**
 * The ordered steps from rough crosscut to the trimmed, sanded panel, batched as a maker works: all pieces through one machine at one setting.
 * @returns an empty list while there are no strips
 */
export function operationsFor(context: PlanContext, ladders: { thickness: Ladder; width: Ladder }, gluing: GluePlan): Operation[] {
  if (context.board.strips.length === 0) return [];
  const work = pieceWork(context);
  const drafts = [...millingSteps(context, work), ...gluingSteps(context, gluing), ...panelSteps(context, ladders)];
  return drafts.map((draft, i) => ({
    settings: [], passes: null, waitMinutes: null, habit: null, cautions: cautionsFor(draft.kind), ...draft, number: i + 1,
  }));
}

function pieceWork(context: PlanContext): PieceWork[] {
  const { cutting, pieces } = context;
  const glued = glueThicknessReached(context);
  const byPiece = new Map<string, PieceWork>();
  for (const blank of cutting.blanks) {
    if (blank.done) continue;
    const piece = pieces.get(blank.pieceId);
    if (!piece) continue;
    const work: PieceWork = byPiece.get(piece.id) ?? { piece, blanks: [], planeTo: 0, rips: new Map(), thinner: new Map(), resawn: [], order: blank.strips[0]!.order };
    byPiece.set(piece.id, work);
    work.blanks.push(blank);
    for (const layers of ripsOf(blank)) {
      const { demand, way } = layers[0]!;
      append(work.rips, way.rip, demand.strip);
      if (way.shows !== 'edge' && layers.length === 1) {
        work.planeTo = Math.max(work.planeTo, Math.min(glued, way.thickness));
        continue;
      }
      // A ripping that is resawn stays as thick as it can until then.
      work.planeTo = Math.max(work.planeTo, layers.length > 1 ? layers[0]!.planed : way.thickness);
      if (layers.length > 1) work.resawn.push(layers);
      else append(work.thinner, way.thickness, demand.strip);
    }
  }
  for (const work of byPiece.values()) work.thinner.delete(work.planeTo);
  return [...byPiece.values()];
}

function append(map: Map<number, number[]>, key: number, value: number): void {
  map.set(key, [...(map.get(key) ?? []), value]);
}

function millingSteps(context: PlanContext, work: PieceWork[]): Draft[] {
  const { allowances, board, shop } = context;
  const { habits, planer, saw } = shop;
  if (work.length === 0) return [];
  const fallingThickness = [...work].sort((a, b) => b.planeTo - a.planeTo);
  const removal = (w: PieceWork) => w.piece.thickness - w.planeTo;
  const crooked = edgesToStraighten(context, work);
  const steps: Draft[] = [
    {
      kind: 'crosscut', title: say`Crosscut the blanks`, habit: 'stockEndTrim',
      settings: [{ label: 'Stop', value: atLeast(allowances.roughLength) }],
      lines: work.flatMap((w) => crosscutLines(w, shop)),
      why: say`Short blanks lose less thickness to bow than a whole plank. The length carries ${length(allowances.roughLength - board.length)} for creep, snipe and both end cuts.`,
    },
    {
      kind: 'flatten', title: say`Flatten one face, plane the other parallel`,
      settings: [...new Set(fallingThickness.map((w) => w.planeTo))].map((mm) => ({ label: 'Planer', value: atLeast(mm) })),
      lines: fallingThickness.map((w) => say`${w.piece.mark}: ${length(w.piece.thickness)} to ${length(w.planeTo)}, ${passes(passCount(planer, w.piece.width, removal(w)))}${
        w.piece.width > planer.width ? say`; ${length(w.piece.width)} is wider than the planer, so rip the blank in two first` : ''}`),
      passes: Math.max(...work.map((w) => passCount(planer, w.piece.width, removal(w)))),
      why: board.construction === 'edge' ? say`Turned on edge, these faces are the glue joints, and their distance is the width that shows.`
        : say`All strips are planed to the one thickness the panel is glued at.`,
    },
    ...(crooked.length === 0 ? [] : [{
      kind: 'jointEdge' as const, title: say`Straighten one edge of each blank`, habit: 'stockEdgeJoint' as const,
      lines: crooked.map(([mm, marks]) => say`${marks.join(', ')}: take off up to ${length(mm)}, square to the flat face`),
      why: say`A straight edge against the fence keeps the rip parallel and the piece from binding.`,
    }]),
    ripStep(context, work),
  ];

  const resawn = work.flatMap((w) => w.resawn.map((layers) => ({ w, layers })));
  if (resawn.length > 0 && shop.bandSaw) {
    const { kerf, clean } = shop.bandSaw;
    steps.push({
      kind: 'resaw', title: say`Resaw on the band saw`,
      settings: [...new Set(resawn.flatMap(({ layers }) => layers.map((s) => s.way.thickness + clean)))].sort((a, b) => b - a).map((mm) => ({ label: 'Band saw fence', value: atLeast(mm) })),
      lines: resawn.map(({ w, layers }) => say`${w.piece.mark}: ${length(layers[0]!.planed)} into ${layers.length} layers for ${stripList(layers.map((s) => s.demand.strip))}, each sawn face planed clean (${length(clean)})`),
      why: say`One thick ripping gives several thin strips for ${length(kerf)} of dust each, and their grain matches.`,
    });
  }

  const thinner = work.flatMap((w) => [...w.thinner].map(([width, strips]) => ({ w, width, strips }))).sort((a, b) => b.width - a.width);
  if (thinner.length > 0) {
    steps.push({
      kind: 'planeStrips', title: say`Plane the thinner strips to width`,
      settings: [...new Set(thinner.map((t) => t.width))].map((mm) => ({ label: 'Planer', value: atLeast(mm) })),
      lines: thinner.map(({ w, width, strips }) => say`${stripList(strips)} from ${w.piece.mark}: ${length(w.planeTo)} to ${length(width)}, ${
        passes(passCount(planer, allowances.glueThickness, w.planeTo - width))}`),
      passes: Math.max(...thinner.map((t) => passCount(planer, allowances.glueThickness, t.w.planeTo - t.width))),
      why: say`These strips share a blank with wider ones.`,
    });
  }
  const flat = board.strips.flatMap((s, i) => (showsOf(board.construction, s) === 'face' ? [i + 1] : []));
  if (flat.length > 0) {
    steps.push({
      kind: 'jointStrips', title: flat.length === board.strips.length ? say`Joint both edges of each strip` : say`Joint both edges of ${stripList(flat)}`, habit: 'glueEdgeJoint',
      lines: [
        say`Take ${length(habits.glueEdgeJoint)} off each edge: the strips come to their width in the panel`,
        say`Neighbours folded like a book, or faces alternately to the fence: then a fence that is slightly off 90° cancels`,
      ],
      why: say`A glue joint wants a fresh, straight, square edge. The saw's kerf is ${length(saw.kerf)}; its marks go here.`,
    });
  }
  return steps;
}

/** What straightening takes, and off which pieces: those with a straight edge are not among them. */
function edgesToStraighten(context: PlanContext, work: PieceWork[]): [mm: number, marks: string[]][] {
  const losses = new Map<number, string[]>();
  for (const { piece } of work) {
    const loss = Math.round(nearLoss(piece, context.allowances.roughLength, context.shop) * 10) / 10;
    if (loss > 0) losses.set(loss, [...(losses.get(loss) ?? []), piece.mark]);
  }
  return [...losses].sort(([a], [b]) => b - a);
}

/** Where the first cut of a piece goes and what comes after it, for each of identical pieces; a new line where wood is left between blanks. */
function crosscutLines({ piece, blanks, order }: PieceWork, shop: Shop): Phrase[] {
  const kerf = shop.crosscutSaw.kerf;
  const geometry = unitGeometry(piece, shop, []);
  const end = geometry.mirrored ? 'far' : 'marked';
  const runs: { unit: number; x: number; length: number; count: number; next: number }[] = [];
  const placed = blanks.map((b) => ({ ...b, x: alongPiece(geometry, b.from, b.length) })).sort((a, b) => a.unit - b.unit || a.x - b.x);
  for (const { unit, x, length: long } of placed) {
    const run = runs.at(-1);
    if (run && run.unit === unit && run.length === long && Math.abs(x - run.next) < LENGTH_TOLERANCE_MM) {
      run.count += 1;
      run.next += long + kerf;
    } else runs.push({ unit, x, length: long, count: 1, next: x + long + kerf });
  }
  return runs.map(({ unit, x, length: long, count }) => {
    const begin = x <= LENGTH_TOLERANCE_MM ? say`from the ${end} end` : x <= geometry.start + LENGTH_TOLERANCE_MM ? say`trim ${length(x)} off the ${end} end, then` : say`from ${length(x)} behind the ${end} end`;
    return say`${piece.mark}${piece.count > 1 ? ` no. ${unit + 1}` : ''}: ${begin} ${count} × ${length(long)}${ORDER_LINES[order]}`;
  });
}

function ripStep(context: PlanContext, work: PieceWork[]): Draft {
  const byFence = new Map<number, { marks: string[]; strips: number[] }>();
  for (const w of work) {
    for (const [rip, strips] of w.rips) {
      const entry = byFence.get(rip) ?? { marks: [], strips: [] };
      byFence.set(rip, { marks: [...entry.marks, w.piece.mark], strips: [...entry.strips, ...strips] });
    }
  }
  const fences = [...byFence].sort(([a], [b]) => b - a);
  return {
    kind: 'rip', title: say`Rip the strips`,
    settings: fences.map(([rip]) => ({ label: 'Fence', value: atLeast(rip) })),
    lines: fences.map(([rip, { marks, strips }]) => say`${atLeast(rip)}: ${strips.length} ${strips.length === 1 ? 'strip' : 'strips'} from ${marks.join(', ')} for ${stripList(strips)}`),
    why: context.board.construction === 'edge'
      ? say`The rip is the panel's thickness as glued: finished ${length(context.board.thickness)} and what flattening and sanding take.`
      : say`The rip is the strip's width in the panel and what jointing takes off both edges.`,
  };
}

/** How strips stand or lie in the panel, those apart that were rolled. */
function howTheyLie({ construction, strips }: PlanContext['board']): Phrase[] {
  const rolled = strips.flatMap((s, i) => (s.rolled ? [i + 1] : []));
  const stand = { edge: say`Each strip stands on edge: its planed faces meet its neighbours`, face: say`Each strip lies flat: its jointed edges meet its neighbours` };
  const other = { edge: say`Rolled: ${stripList(rolled)} with the broad face up`, face: say`Rolled: ${stripList(rolled)} with the edge up` };
  return rolled.length > 0 ? [stand[construction], other[construction]] : [stand[construction]];
}

function gluingSteps(context: PlanContext, gluing: GluePlan): Draft[] {
  const { board, shop } = context;
  const each = board.count > 1 ? say` (${board.count} boards)` : say``;
  const steps: Draft[] = [{
    kind: 'layOut', title: say`Lay out and mark`,
    lines: [
      say`Strips 1 to ${board.strips.length} in order, best side up, grain arrows as drawn${each}`,
      ...howTheyLie(board),
      say`Number the strips and draw a triangle across them`,
    ],
    why: say`Once glue is on there is no time to think; the triangle shows at a glance that nothing turned.`,
  }];
  if (gluing.glueUps.length === 0) return steps;
  steps.push({
    kind: 'dryRun', title: say`Dry run with every clamp`,
    lines: [
      say`${Math.max(...gluing.glueUps.map((g) => g.clamps))} clamps, alternately above and below, pads under the jaws, cauls taped where they cross a joint`,
      say`Open joints and cauls in the way of a clamp are found now`,
    ],
    why: say`${shop.glue.name} leaves ${minutes(gluing.usableMinutes)} of safe time from first glue to last clamp.`,
  });
  for (const glueUp of gluing.glueUps) steps.push(glueStep(glueUp, gluing, board.count));
  return steps;
}

function glueStep(glueUp: GlueUp, gluing: GluePlan, copies: number): Draft {
  const kind: OperationKind = glueUp.joins.length === 0 ? 'glue' : 'join';
  const range = say`strips ${glueUp.firstStrip} to ${glueUp.lastStrip}`;
  return {
    kind, title: kind === 'glue' ? say`Glue ${range}` : say`Join ${glueUp.parts} groups into ${range}`,
    lines: [
      say`${glueUp.parts} pieces, ${glueUp.joints} ${glueUp.joints === 1 ? 'joint' : 'joints'}, ${glueUp.clamps} clamps: ready in ${minutes(glueUp.assemblyMinutes)} of ${minutes(gluing.usableMinutes)}`,
      say`Snug one clamp after the other, level the strips, then tighten in turn`,
      ...(copies > 1 ? [say`The same for each of the ${copies} boards`] : []),
    ],
    waitMinutes: gluing.clampMinutesEach,
    why: kind === 'glue' ? say`At most ${gluing.mostParts} pieces close before the glue skins over.` : say`Groups are flat and few, so the last joints close in time too.`,
  };
}

function panelSteps(context: PlanContext, ladders: { thickness: Ladder; width: Ladder }): Draft[] {
  const { allowances, board, shop: { habits, planer, saw }, panelWidth } = context;
  const glued = glueThicknessReached(context);
  const flat = glued - habits.panelFlatten;
  const fits = panelWidth <= planer.width;
  const planes = passCount(planer, panelWidth, habits.panelFlatten);
  const trimEach = (panelWidth - ladders.width.reached) / 2;
  return [
    {
      kind: 'flattenPanel', title: say`Flatten the panel`, habit: 'panelFlatten', passes: fits ? planes : null,
      settings: fits ? [{ label: 'Planer', value: atLeast(flat) }] : [],
      lines: [
        say`${length(glued)} to ${length(flat)}, cleanest side down first, turning it over between passes`,
        fits ? say`${passes(planes)} on the planer` : say`The panel is ${length(panelWidth)} wide and the planer ${length(planer.width)}: drum sander, router sled, belt sander or a long hand plane; light passes`,
      ],
      why: say`Strips never lie quite level; the thinnest place decides what is left.`,
    },
    {
      kind: 'trimEdges', title: say`Trim both long edges`, habit: 'panelEdgeTrim',
      settings: [
        { label: 'Fence, first edge', value: length(ladders.width.reached + trimEach) }, { label: 'Fence, second edge', value: length(ladders.width.reached) },
      ],
      lines: [say`${length(panelWidth)} to ${length(ladders.width.reached)}: ${length(trimEach)} off each side, kerf within the waste; the first cut edge is the reference`],
      why: say`One straight long edge squares everything after it.`,
    },
    {
      kind: 'trimEnds', title: say`Trim both ends`, habit: planer.snipe > habits.panelEndTrim ? null : 'panelEndTrim',
      settings: [{ label: 'Stop', value: length(board.length) }],
      lines: [
        say`Cut one end ${length(allowances.endTrim)} in, turn end for end keeping the same long edge to the fence, cut the other to ${length(board.length)}`,
        say`Each cut takes ${length(saw.kerf)} more for its kerf`,
      ],
      why: say`The same edge to the fence makes both ends square to it, even if the fence is not perfect.`,
    },
    {
      kind: 'sand', title: say`Sand to thickness`, habit: 'sanding',
      lines: [say`${length(flat)} to ${length(ladders.thickness.reached)}: ${length(habits.sanding)} in all, half off each face; pencil lines gone before the next grit`],
      why: say`The coarse grit must reach the bottom of the deepest pit; finer paper never will.`,
    },
  ];
}

function passes(count: number): string {
  return count === 1 ? '1 pass' : `${count} passes, the last one light`;
}

function minutes(value: number): string {
  return `${Math.round(value * 10) / 10} min`;
}

function stripList(numbers: number[]): Phrase {
  const unique = [...new Set(numbers)];
  return say`${unique.length === 1 ? 'strip' : 'strips'} ${listNumbers(unique)}`;
}
