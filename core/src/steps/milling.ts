import { showsOf } from '../board/board.ts';
import { edgeRip, proudBy, ripFatOf } from '../board/allowances.ts';
import { ripsOf } from '../cutting/auditCut.ts';
import type { Blank, RippedStrip } from '../cutting/cutPlan.ts';
import type { MillingOrder } from '../cutting/millingOrder.ts';
import { alongPiece, nearLoss, unitGeometry } from '../cutting/unitGeometry.ts';
import { layeringOf } from '../shop/layering.ts';
import { passesOf } from '../shop/machines.ts';
import { schoolOf } from '../shop/schools.ts';
import type { Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { thicknessAt } from '../stock/shape.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { atLeast, length, say, type Phrase } from '../units/phrase.ts';
import type { PlanContext } from '../plan/context.ts';
import { glueThicknessReached } from '../plan/ladders.ts';
import { listNumbers, stripList } from './numberList.ts';
import type { PartChange, StepDraft } from './operation.ts';
import { crosscutWays, layeringWays, ripWays, straightEdgeWays } from './toolWays.ts';
import { flatteningWays, passDepthFor, straightEdgeOf, wayTaken, type Face } from './ways.ts';

/** What a piece's order of milling changes about the crosscut. */
const ORDER_LINES: Record<MillingOrder, string> = {
  crosscutFirst: '', ripFirst: '; rip the strips a little fat on the band saw before they are flattened', fullLength: '; flatten it at full length before: its parts are too short for the planer, or lose less',
};

/** Planing away more than this, a strip could have been sawn off instead, mm: a thin strip, a kerf and two clean faces (common practice). */
const WORTH_RESAWING = 9;

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

export function pieceWork({ cutting, pieces }: PlanContext, glued: number): PieceWork[] {
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

/** From rough stock to strips ready for glue, all pieces through one machine at one setting after the other. */
export function millingSteps(context: PlanContext): StepDraft[] {
  const work = pieceWork(context, glueThicknessReached(context));
  if (work.length === 0) return [];
  return [crosscutStep(context, work), flattenStep(context, work), ...edgeStep(context, work), ripStep(context, work), ...remillStep(context, work), ...resawStep(context, work), ...thinnerStep(context, work), ...jointStep(context)];
}

function crosscutStep({ allowances, board, shop }: PlanContext, work: PieceWork[]): StepDraft {
  const { ways, taken } = crosscutWays(shop, work.reduce((sum, w) => sum + w.blanks.length + 1, 0));
  return {
    kind: 'crosscut', title: say`Crosscut the blanks`, habit: 'stockEndTrim', ways, machine: taken.name, minutes: taken.minutes,
    settings: [{ label: 'Stop', value: atLeast(allowances.panels[0]!.length) }],
    lines: work.flatMap((w) => crosscutLines(w, shop)),
    why: say`Short blanks lose less thickness to bow than a whole plank. The length carries ${length(allowances.roughLength - board.length)} for creep, snipe and both end cuts.`,
  };
}

function flattenStep(context: PlanContext, work: PieceWork[]): StepDraft {
  const { board, shop } = context;
  const falling = [...work].sort((a, b) => b.planeTo - a.planeTo);
  // A blank wider than the planer is ripped in two first, and both halves go through; not where one strip takes more than a half.
  const halved = (w: PieceWork) => Math.max(...w.rips.keys()) <= w.piece.width / 2 && w.piece.width / 2 <= shop.planer!.width;
  const wide = shop.planer ? falling.filter((w) => w.piece.width > shop.planer!.width && halved(w)) : [];
  const faces = (w: PieceWork): Face[] => w.blanks.flatMap((b) => {
    const halves = wide.includes(w) ? 2 : 1;
    return Array<Face>(halves).fill({ length: b.length, width: w.piece.width / halves, removal: Math.max(thicknessAt(w.piece, b.from), thicknessAt(w.piece, b.from + b.length)) - w.planeTo, hardness: hardnessOf(context, w.piece.species) });
  });
  const ways = flatteningWays(falling.flatMap(faces), shop, 'stock');
  const taken = wayTaken(ways, 'planer');
  const passes = (w: PieceWork) => (taken.id === 'planer' && shop.planer ? Math.max(...faces(w).map((f) => passesOf(passDepthFor(shop.planer!, f), f.removal))) : null);
  return {
    kind: 'flatten', title: say`Flatten one face, make the other parallel`, machine: taken.name, minutes: taken.minutes, ways, passes: taken.passes,
    settings: taken.id === 'planer' ? [...new Set(falling.map((w) => w.planeTo))].map((mm) => ({ label: 'Planer', value: atLeast(mm) })) : [],
    parts: falling.map((w) => ({ part: `${w.piece.mark}${w.blanks.length > 1 ? ` × ${w.blanks.length}` : ''}`, dimension: 'thickness', before: Math.max(...w.blanks.flatMap((b) => [thicknessAt(w.piece, b.from), thicknessAt(w.piece, b.from + b.length)])), after: w.planeTo, passes: passes(w) })),
    lines: [
      taken.id === 'planer' ? say`${taken.name}: the hollow face down first, then the other face at the settings above, thickest pieces first; turn the piece over between passes, the last pass light`
        : say`${taken.name}: one face flat, checked with a straight edge and two battens for twist; then the other parallel to it, a line scribed round all edges at the thickness above`,
      ...wide.map((w) => say`${w.piece.mark} is ${length(w.piece.width)} wide and the planer takes ${length(shop.planer!.width)}: rip its blanks in two first`),
      ...(taken.extra > 0 ? [say`Reckon ${length(taken.extra)} more than planned, for shims that give`] : []),
      say`Mark the flat face of each piece as it comes off`,
    ],
    why: board.construction === 'edge' ? say`Turned on edge, these faces are the glue joints, and their distance is the width that shows.`
      : say`All strips are planed to the one thickness the panel is glued at.`,
  };
}

function hardnessOf({ species }: Pick<PlanContext, 'species'>, code: string): number | null {
  return species.find((s) => s.code === code)?.hardness ?? null;
}

function edgeStep(context: PlanContext, work: PieceWork[]): StepDraft[] {
  const { shop } = context;
  const losses = new Map<number, string[]>();
  let blanks = 0;
  for (const { piece, blanks: own } of work) {
    const loss = Math.round(nearLoss(piece, context.allowances.panels[0]!.length, shop) * 10) / 10;
    if (loss <= 0) continue;
    losses.set(loss, [...(losses.get(loss) ?? []), piece.mark]);
    blanks += own.length;
  }
  if (losses.size === 0) return [];
  const { ways, taken } = straightEdgeWays(shop, blanks);
  const school = schoolOf({ ...shop.schools, straightEdge: straightEdgeOf(shop) }, 'straightEdge');
  return [{
    kind: 'jointEdge', title: say`Straighten one edge of each blank`, habit: 'stockEdgeJoint', school: 'straightEdge',
    machine: taken.name, ways, minutes: taken.minutes,
    lines: [...(taken.id === shop.schools.straightEdge ? [] : [say`The habit is the jointer, and the shop has none`]), say`${school.name}. Square to the flat face; mark the edge`, ...[...losses].sort(([a], [b]) => b - a).map(([mm, marks]) => say`${marks.join(', ')}: take off up to ${length(mm)}`)],
    why: say`A straight edge against the fence keeps the rip parallel and the piece from binding. ${school.why}`,
  }];
}

function ripStep(context: PlanContext, work: PieceWork[]): StepDraft {
  const { shop, board } = context;
  const byFence = new Map<number, { marks: string[]; strips: number[] }>();
  for (const w of work) {
    for (const [rip, strips] of w.rips) {
      const entry = byFence.get(rip) ?? { marks: [], strips: [] };
      byFence.set(rip, { marks: [...entry.marks, w.piece.mark], strips: [...entry.strips, ...strips] });
    }
  }
  const fences = [...byFence].sort(([a], [b]) => b - a);
  const count = fences.reduce((sum, [, { strips }]) => sum + strips.length, 0);
  const fat = ripFatOf(shop);
  const { ways, taken } = ripWays(shop, count);
  return {
    kind: 'rip', title: fat > 0 ? say`Rip the strips ${length(fat)} fat` : say`Rip the strips`, ways, machine: taken.name, minutes: taken.minutes,
    school: fat > 0 ? 'rip' : 'measuring', habit: fat > 0 ? 'ripFat' : null,
    settings: fences.map(([rip]) => ({ label: shop.saw.kind === 'table' ? 'Fence' : 'Guide', value: atLeast(rip) })),
    lines: [
      ...fences.map(([rip, { marks, strips }]) => say`${atLeast(rip)}: ${strips.length} ${strips.length === 1 ? 'strip' : 'strips'} from ${[...new Set(marks)].join(', ')} for ${stripList(strips)}`),
      ...(shop.schools.measuring === 'relative' ? [say`Set the fence once; for a repeat, lay a finished strip against the blade and bring the fence to it`] : []),
      ...(fat > 0 ? [say`Let them lie on stickers overnight: what wants to spring, springs now`] : []),
    ],
    ...(fat > 0 ? { waitMinutes: 720, waitFor: 'the strips to rest' } : {}),
    why: board.construction === 'edge'
      ? say`The rip is the panel's thickness as glued: finished ${length(board.thickness)} and what flattening and sanding take${fat > 0 ? ', and what is milled again' : ''}.`
      : say`The rip is the strip's width in the panel and what jointing takes off both edges.`,
  };
}

function remillStep({ shop, board }: PlanContext, work: PieceWork[]): StepDraft[] {
  const fat = ripFatOf(shop);
  if (fat <= 0) return [];
  const rips = [...new Set(work.flatMap((w) => [...w.rips.keys()]))].sort((a, b) => b - a);
  const count = work.reduce((sum, w) => sum + [...w.rips.values()].reduce((n, s) => n + s.length, 0), 0);
  return [{
    kind: 'remill', title: say`Mill the rested strips to size`, school: 'rip', habit: 'ripFat', machine: shop.jointer ? 'Jointer' : null, minutes: 4 + count * 2 * shop.pace.work,
    settings: rips.map((rip) => ({ label: 'To', value: atLeast(rip - fat) })),
    parts: rips.map((rip): PartChange => ({ part: 'strips', dimension: board.construction === 'edge' ? 'thickness' : 'width', before: rip, after: rip - fat, passes: null })),
    lines: [say`One edge straight again, then rip or plane the other parallel`], why: say`A strip that is milled after it has sprung stays straight in the panel.`,
  }];
}

function resawStep({ allowances, shop }: PlanContext, work: PieceWork[]): StepDraft[] {
  const resawn = work.flatMap((w) => w.resawn.map((layers) => ({ w, layers })));
  const layering = layeringOf(shop);
  const chosen = layeringWays(shop, resawn.reduce((sum, r) => sum + r.layers.length, 0), Math.max(0, ...resawn.map((r) => r.layers[0]!.way.rip)));
  if (resawn.length === 0 || !layering || !chosen) return [];
  const { kerf, clean, by } = layering;
  const thin = resawn.some(({ layers }) => layers.some((s) => proudBy(allowances, s.way.thickness) > 0));
  return [{
    kind: 'resaw', title: by === 'bandSaw' ? say`Resaw on the band saw` : say`Resaw on the table saw`, school: 'thin', ways: chosen.ways, machine: chosen.taken.name, minutes: chosen.taken.minutes,
    settings: [...new Set(resawn.flatMap(({ layers }) => layers.map((s) => s.way.thickness + clean)))].sort((a, b) => b - a).map((mm) => ({ label: by === 'bandSaw' ? 'Band saw fence' : 'Stop from the blade', value: atLeast(mm) })),
    lines: [
      ...(by === 'tableSaw' ? [say`On edge against a tall fence, a stop on the side away from it as far from the blade as the setting says: the thin strip falls free and nothing thin runs between blade and fence`] : []),
      ...resawn.map(({ w, layers }) => say`${w.piece.mark}: ${length(layers[0]!.planed)} into ${layers.length} layers for ${stripList(layers.map((s) => s.demand.strip))}, ${length(clean)} to clean each sawn face`),
      thin ? say`Thin strips are left fat: sawn faces cleaned by hand plane or scraper, never through the planer` : by === 'bandSaw' ? say`Sawn faces through the planer on a carrier board, light passes` : say`The saw's face wants little: a light pass or a scraper`,
    ],
    why: say`One thick ripping gives several thin strips for ${length(kerf)} of dust each, and their grain matches.`,
  }];
}

function thinnerStep(context: PlanContext, work: PieceWork[]): StepDraft[] {
  const { allowances, shop } = context;
  const thinner = work.flatMap((w) => [...w.thinner].map(([width, strips]) => ({ w, width, strips }))).sort((a, b) => b.width - a.width);
  if (thinner.length === 0) return [];
  const face = ({ w, width }: { w: PieceWork; width: number }): Face => ({ length: allowances.roughLength, width: edgeRip(allowances, width), removal: w.planeTo - width, hardness: hardnessOf(context, w.piece.species) });
  const school = schoolOf(shop.schools, 'thin');
  const thin = thinner.some((t) => t.width <= allowances.proud.below);
  const ways = flatteningWays(thinner.flatMap((t) => t.strips.map(() => face(t))), shop, 'panel');
  const taken = wayTaken(ways, thin && shop.schools.thin === 'fat' ? 'handPlanes' : 'planer');
  const passes = (t: (typeof thinner)[number]) => (taken.id === 'planer' && shop.planer ? passesOf(passDepthFor(shop.planer, face(t)), face(t).removal) : null);
  // What goes to chips here could have been a strip, had the shop a saw that resaws.
  const lost = Math.max(...thinner.map((t) => face(t).removal));
  return [{
    kind: 'planeStrips', title: say`Bring the thinner strips to width`, machine: taken.name, ways, minutes: taken.minutes, ...(thin ? { school: 'thin' as const } : {}),
    settings: taken.id === 'planer' ? [...new Set(thinner.map((t) => t.width))].map((mm) => ({ label: 'Planer', value: atLeast(mm) })) : [],
    parts: thinner.map((t): PartChange => ({ part: `${listNumbers(t.strips)} (${t.w.piece.mark})`, dimension: 'thickness', before: t.w.planeTo, after: t.width, passes: passes(t) })),
    lines: [
      say`Together at each setting, widest first`, ...(thin ? [say`Thin ones: ${school.name.toLowerCase()}. ${school.why}`] : []),
      ...(layeringOf(shop) === null && lost >= WORTH_RESAWING ? [say`Up to ${length(lost)} of a strip goes to chips: a band saw would make a second strip of it`] : []),
    ],
    passes: Math.max(0, ...thinner.map((t) => passes(t) ?? 0)) || null,
    why: say`These strips share a blank with wider ones.`,
  }];
}

function jointStep({ board, shop, cutting }: PlanContext): StepDraft[] {
  // Edges of the rip become glue joints where the strip lies flat, whichever way it was meant to.
  const lies = new Map(cutting.blanks.flatMap((b) => b.strips.map((s) => [s.demand.stripId, s.way.shows])));
  const flat = board.strips.flatMap((s, i) => ((lies.get(s.id) ?? showsOf(board.construction, s)) === 'face' ? [i + 1] : []));
  if (flat.length === 0) return [];
  const { habits, saw } = shop;
  const marks = schoolOf(shop.schools, 'edgeMarks');
  const { ways, taken } = straightEdgeWays(shop, 2 * flat.length * board.count);
  return [{
    kind: 'jointStrips', title: flat.length === board.strips.length ? say`Joint both edges of each strip` : say`Joint both edges of ${stripList(flat)}`, habit: 'glueEdgeJoint', school: 'edgeMarks',
    machine: taken.name, ways, minutes: taken.minutes,
    lines: [
      say`Take ${length(habits.glueEdgeJoint)} off each edge: the strips come to their width in the panel`,
      say`${marks.name}: ${marks.why} The marks are on the marking drawing`,
    ],
    why: say`A glue joint wants a fresh, straight, square edge. The saw's kerf is ${length(saw.kerf)}; its marks go here.`,
  }];
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
