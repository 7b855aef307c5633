import { bevelSetting, edgeReach, isEnd, isSide, SIDE_NAMES, SIDES, type EdgeCut, type Side } from '../features/edge.ts';
import type { FeatureOf } from '../features/feature.ts';
import { grooveLines, grooveVolume, jigOpening } from '../features/groove.ts';
import { outlineLength } from '../features/outline.ts';
import { inlayFit } from '../features/inlay.ts';
import { passDepths, ROUTER_PASS } from '../features/routerPass.ts';
import { fenceMark } from '../features/solids.ts';
import { passesOf } from '../shop/machines.ts';
import { schoolOf } from '../shop/schools.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import type { PlanContext } from '../plan/context.ts';
import type { StepDraft } from './operation.ts';
import { edgeWays, routedWays } from './toolWays.ts';
import type { WorkedBoard } from '../plan/workedBoard.ts';

const routerPasses = (bit: number, depth: number): number => passDepths(depth, bit).length;
/** Minutes (common practice): to shape a corner, drill a hole, make a template, engrave or brand a mark. */
const MINUTES = { corner: 4, drill: 1.5, template: 15, mark: 10 } as const;

/** A phrase that goes on. */
const join = (...parts: Phrase[]): Phrase => parts.flat();

/** Corners, groove, edges, holds and bores of boards that are cut to size, in the order that spoils nothing. */
export function workingSteps(context: PlanContext, worked: WorkedBoard): StepDraft[] {
  const grooves = grooveSteps(context, worked);
  const edges = edgeSteps(context, worked);
  return [...cornerSteps(context), ...(context.shop.schools.grooveOrder === 'before' ? [...grooves, ...edges] : [...edges, ...grooves]), ...holdSteps(context, worked), ...boreSteps(context, worked)];
}

function cornerSteps({ board: { worked: { corners }, count }, shop }: PlanContext): StepDraft[] {
  if (corners.kind === 'square' || corners.size === 0) return [];
  return [{
    kind: 'corners', title: corners.kind === 'round' ? say`Round the corners` : say`Clip the corners`, machine: 'Jigsaw or band saw', minutes: MINUTES.corner * 4 * count * shop.pace.work,
    lines: [corners.kind === 'round' ? say`Radius ${length(corners.size)}, from the template; saw outside the line and sand to it` : say`${length(corners.size)} off each side of a corner; saw outside the line and sand to it`],
    why: say`Corners come before the edges, so that a bit with a bearing follows them round.`,
  }];
}

function grooveSteps({ board, shop }: PlanContext, { size, features, sanded }: WorkedBoard): StepDraft[] {
  return features.filter((f) => f.kind === 'groove').flatMap((groove): StepDraft[] => {
    const lines = grooveLines(groove, size);
    if (lines.length === 0) return [];
    const deep = groove.depth + sanded;
    const passes = routerPasses(groove.bit, deep);
    const metres = (lines.reduce((sum, l) => sum + outlineLength(l), 0) * passes * board.count) / 1000;
    const { ways, taken } = routedWays(shop, metres, MINUTES.template, 'Gouge and scraper');
    const jig = jigOpening(groove, size, shop.router?.base ?? 0);
    return [{
      kind: 'groove', title: say`Juice groove, ${groove.face === 'top' ? 'show side' : 'underside'}`, school: 'grooveOrder', machine: taken.name, ways, minutes: taken.minutes, passes: taken.id === 'router' ? passes : null,
      settings: [{ label: 'Round-nose bit', value: length(groove.bit) }, { label: 'Depth', value: length(deep) }],
      lines: [
        ...(sanded > 0 ? [say`${length(deep)} deep: ${length(sanded)} goes with sanding and ${length(groove.depth)} is left`] : []),
        ...(taken.id === 'router' ? [say`${passes} ${passes === 1 ? 'pass' : 'passes'} of at most ${length(deep / passes)}, clockwise inside the jig, against the turn of the bit; the last one light and without a stop`] : [say`Mark both lines, cut across the ends first, then along; scrape to a gauge of the groove`]),
        ...(taken.id === 'router' && jig && shop.router ? [say`Jig for a base of ${length(shop.router.base)}: opening ${length(jig.length)} by ${length(jig.width)}, corners of ${length(jig.corner)}; it lies ${length(Math.abs(jig.beyond))} ${jig.beyond >= 0 ? 'beyond the board on every side' : 'inside the edge on every side'}`] : []),
        ...(groove.spout ? [say`It falls ${length(groove.fall)} to the ${groove.spout} end: shim the jig at the other end by as much; then the spout, straight out over the end`] : []),
        say`It holds ${Math.round(grooveVolume(groove, size) / 1000)} ml to the brim; ${length(size.thickness - groove.depth)} of wood is left beneath`,
      ],
      why: say`${schoolOf(shop.schools, 'grooveOrder').why} Burn marks on end grain are slow to sand out: keep moving at the corners.`,
    }];
  });
}

/** Sides and faces that get the same cut, in words: all, both ends, or each by name. */
function placesOf(places: readonly { side: Side; face: 'top' | 'bottom' }[]): string {
  const faceWords = { top: 'above', bottom: 'below' } as const;
  const of = (face: 'top' | 'bottom') => SIDES.filter((side) => places.some((p) => p.side === side && p.face === face));
  const names = (sides: readonly Side[]) => (sides.length === 4 ? 'all round' : sides.every(isEnd) && sides.length === 2 ? 'both ends' : sides.length === 2 && !sides.some(isEnd) ? 'both long edges' : sides.map((s) => SIDE_NAMES[s]).join(', '));
  const [top, bottom] = [of('top'), of('bottom')];
  if (top.join() === bottom.join()) return `${names(top)}, above and below`;
  return [...(top.length > 0 ? [`${names(top)} ${faceWords.top}`] : []), ...(bottom.length > 0 ? [`${names(bottom)} ${faceWords.bottom}`] : [])].join('; ');
}

/** Under-bevels first: their saw wants square edges to lie against. */
const EDGE_ORDER: readonly EdgeCut['kind'][] = ['underBevel', 'thumbnail', 'chamfer', 'roundOver'];

function edgeSteps({ board, shop }: PlanContext, { size, edges }: WorkedBoard): StepDraft[] {
  const groups = new Map<string, { cut: EdgeCut; places: { side: Side; face: 'top' | 'bottom' }[] }>();
  for (const side of SIDES) {
    for (const face of ['top', 'bottom'] as const) {
      const cut = edges[side][face];
      if (edgeReach(cut, size.thickness).drop === 0) continue;
      const key = JSON.stringify(cut);
      groups.set(key, { cut, places: [...(groups.get(key)?.places ?? []), { side, face }] });
    }
  }
  const byHabit = board.worked.edges === null;
  const school = schoolOf(shop.schools, 'edge');
  return [...groups.values()].sort((a, b) => EDGE_ORDER.indexOf(a.cut.kind) - EDGE_ORDER.indexOf(b.cut.kind)).map(({ cut, places }): StepDraft => {
    const run = places.reduce((sum, { side }) => sum + (isEnd(side) ? size.width : size.length), 0);
    const { ways, taken } = edgeWays(shop, cut.kind, run / (4 * (size.length + size.width)), board.count, byHabit && shop.schools.edge === 'blockPlane');
    const { reach, drop } = edgeReach(cut, size.thickness);
    const where = placesOf(places);
    return {
      kind: 'edges', title: say`Edges: ${edgeName(cut)} ${where}`, machine: taken.name, ways, minutes: taken.minutes,
      passes: taken.id === 'router' ? Math.max(1, passesOf(ROUTER_PASS, Math.max(reach, drop))) : null,
      ...(byHabit ? { habit: 'edgeTreatment' as const, school: 'edge' as const } : {}),
      settings: edgeSettings(cut, size.thickness),
      lines: [...edgeLines(cut, size.thickness, taken.id), say`End grain first, long grain after; keep moving`],
      why: say`${byHabit ? `${school.why} ` : ''}What the end grain tears at its corner, the long grain takes away.`,
    };
  });
}

function edgeName(cut: EdgeCut): Phrase {
  switch (cut.kind) {
    case 'straight': return say`straight`;
    case 'chamfer': return say`chamfer of ${length(cut.reach)}${cut.angle === 45 ? '' : ` at ${cut.angle}°`}`;
    case 'roundOver': return say`round-over of ${length(cut.radius)}`;
    case 'underBevel': return say`under-bevel at ${cut.angle}°`;
    case 'thumbnail': return say`thumbnail of ${length(cut.reach)}`;
  }
}

function edgeSettings(cut: EdgeCut, thickness: number): StepDraft['settings'] {
  if (cut.kind === 'roundOver') return [{ label: 'Bit radius', value: length(cut.radius) }];
  if (cut.kind === 'underBevel') return [{ label: 'Reach on the underside', value: length(bevelSetting(cut, thickness).reach) }, { label: 'Left of the side', value: length(cut.reveal) }];
  const { reach, drop } = edgeReach(cut, thickness);
  return [{ label: 'In on the face', value: length(reach) }, { label: 'Down the side', value: length(drop) }];
}

function edgeLines(cut: EdgeCut, thickness: number, way: string): Phrase[] {
  if (cut.kind === 'underBevel') {
    const { tilt, reach, face } = bevelSetting(cut, thickness);
    return [
      say`Blade tilted ${tilt}° from upright, the board flat on the table, show side up: the blade leaves the table ${length(reach)} in from the edge and the side ${length(cut.reveal)} below the show side; the cut is ${length(face)} long`,
      say`Sneak up on it: fence a little wide on all sides, look at the corners, bring the fence in until neighbouring bevels meet in one line that ends at the corner`,
      say`The offcut must fall free: fence on the side away from the tilt, nothing trapped under the blade`,
    ];
  }
  const passes = Math.max(1, passesOf(ROUTER_PASS, Math.max(edgeReach(cut, thickness).reach, edgeReach(cut, thickness).drop)));
  if (way === 'router') return [say`${passes} ${passes === 1 ? 'pass' : 'passes'}, left to right with the board before you, against the turn of the bit${passes > 1 ? ', the last one light' : ''}; a block plane does it without a bit to tear the corner out`];
  return [say`Strokes counted, the same on every edge; on end grain from both corners inward`];
}

function holdSteps({ board, shop }: PlanContext, { size, features, sanded }: WorkedBoard): StepDraft[] {
  return features.flatMap((f): StepDraft[] => {
    if (f.kind === 'finger') {
      const passes = routerPasses(f.bit, f.depth);
      const { ways, taken } = routedWays(shop, (2 * f.length * passes * board.count) / 1000, 12, 'Gouge and rasp');
      const mark = fenceMark(f, size);
      return [{
        kind: 'holds', title: say`Finger holds in both ${f.on === 'ends' ? 'ends' : 'long edges'}`, machine: taken.name, ways, minutes: taken.minutes, passes: taken.id === 'router' ? passes : null,
        settings: [{ label: f.shape === 'cove' ? 'Cove bit' : 'Chamfer bit', value: length(f.bit) }, { label: 'Into the edge', value: length(f.depth) }, { label: 'Marks from the middle of the bit', value: length(mark) }],
        lines: [
          say`${length(f.length)} long, in the middle; ${f.shape === 'cove' ? join(say`middle ${length(f.up + sanded)} above the underside as it is before sanding`) : join(say`up to ${length(f.up + sanded)} above the underside as it is before sanding`)}`,
          ...(taken.id === 'router' ? [say`Router table: a mark on the fence ${length(mark)} from the middle of the bit on either side. Pivot in with the leading end at the far mark, stop when the trailing end is at the near one, pivot out`, say`${passes} ${passes === 1 ? 'pass' : 'passes'}, the fence moved back each time`] : []),
        ],
        why: say`Both stops the same, and both holds come out in the middle.`,
      }];
    }
    if (f.kind === 'hole') {
      const passes = routerPasses(12, size.thickness + 2 * sanded);
      const { ways, taken } = routedWays(shop, (2 * 2 * (f.length + f.width) * passes * board.count) / 1000, MINUTES.template, 'Jigsaw and rasp');
      return [{
        kind: 'holds', title: say`Hand holes behind both ${f.on === 'ends' ? 'ends' : 'long edges'}`, machine: taken.name, ways, minutes: taken.minutes + 4 * MINUTES.drill * board.count,
        settings: [{ label: 'Slot', value: length(f.length) }, { label: 'Wide', value: length(f.width) }, { label: 'Behind the edge', value: length(f.inset) }],
        lines: [say`Bore ${length(f.width)} at both ends of each slot, saw out between, ${taken.id === 'router' ? 'flush to the template with a bearing bit from both faces' : 'rasp to the line'}`, say`Ease both rims by hand`],
        why: say`From both faces the rims stay whole.`,
      }];
    }
    return [];
  });
}

function boreSteps({ board, shop }: PlanContext, { size, features, sanded }: WorkedBoard): StepDraft[] {
  const work = board.count * shop.pace.work;
  return features.flatMap((f): StepDraft[] => {
    if (f.kind === 'handle') {
      return [{
        kind: 'handles', title: f.bores === 1 ? say`Bores for loops` : say`Bores for handles`, machine: 'Drill', minutes: (5 + 2 * f.bores * 2 * MINUTES.drill) * work,
        settings: [{ label: 'Bore', value: length(f.bore) }, ...(f.sinkTop + f.sinkBottom > 0 ? [{ label: 'Counterbore', value: length(f.counterbore) }] : [])],
        lines: [
          say`${length(f.inset)} in from the ${f.on === 'ends' ? 'ends' : 'long edges'}, ${f.bores === 1 ? say`in the middle` : say`${length(f.spacing)} apart, the middle between them on the board's middle`}`,
          ...(f.sinkTop + f.sinkBottom > 0 ? [say`Counterbores first: ${length(f.sinkTop > 0 ? f.sinkTop + sanded : 0)} deep above, ${length(f.sinkBottom > 0 ? f.sinkBottom + sanded : 0)} below, with what sanding takes; then through, so that the point of the bit finds the middle`] : [say`Through from both faces`]),
          ...(f.bores === 2 ? [say`${length(size.thickness - f.sinkTop - f.sinkBottom)} of wood is between head and handle: bolts to suit`] : [say`Ease both rims: a rope wears on a sharp one`]),
        ],
        why: say`A counterbore cannot be drilled where its middle is already gone.`,
      }];
    }
    if (f.kind === 'feet' && f.boreDepth > 0) {
      return [{
        kind: 'bores', title: say`Shallow bores for ${f.count} feet`, ...askedFeet(board, f), machine: 'Drill', minutes: (3 + f.count * MINUTES.drill) * work,
        settings: [{ label: 'Bore', value: length(f.bore) }, { label: 'Depth', value: length(f.boreDepth + sanded) }],
        lines: [say`${length(f.inset)} in from both edges, flat-bottomed; ${length(f.boreDepth)} is left once it is sanded; pilot holes for the screws, a stop on the bit`], why: say`Before oil, so that the bores drink too; the feet come last.`,
      }];
    }
    return [];
  });
}

/** Engraving, branding; when it happens is the shop's habit. */
export function engravingStep({ board, shop }: PlanContext, { size, features }: WorkedBoard): StepDraft[] {
  const marks = features.filter((f) => f.kind === 'mark');
  if (marks.length === 0) return [];
  const words: Record<FeatureOf<'mark'>['method'], string> = { laser: 'Engraver', brand: 'Branding iron', router: 'Router', inlay: 'Router' };
  const school = schoolOf(shop.schools, 'engraving');
  const early = shop.schools.engraving === 'outerStrip';
  return [{
    kind: 'engrave', title: marks.length === 1 ? say`Mark: ${marks[0]!.name}` : say`${marks.length} marks`, school: 'engraving', machine: words[marks[0]!.method], minutes: MINUTES.mark * marks.length * board.count * shop.pace.work,
    lines: marks.flatMap((m) => [
      join(say`${m.name}, ${words[m.method].toLowerCase()}, ${MARK_PLACES[m.face]}: ${length(m.length)} by ${length(m.width)}, ${length(m.depth)} deep, its middle `, markPlace(m, size), early ? say`; measured on the strip, with what is trimmed off added` : []),
      ...(m.method === 'inlay' ? inlayLines(m) : []),
    ]),
    why: say`${school.why}`,
  }];
}

/** Feet come last of all: after oil and wax. */
export function footSteps({ board, shop }: PlanContext, { features }: WorkedBoard): StepDraft[] {
  return features.filter((f) => f.kind === 'feet').map((f) => ({
    kind: 'feet', title: say`Screw on the feet`, ...askedFeet(board, f), minutes: 2 * f.count * board.count * shop.pace.work,
    lines: [say`${f.count} feet, screws of ${length(f.screw)} that go ${length(f.screwDepth)} into the wood, none into a joint; by hand, until they just hold`], why: say`${schoolOf(shop.schools, 'feet').why} Oil creeps under feet that are on already.`,
  }));
}

/** The shop's question decided it only where the board says nothing itself. */
const askedFeet = ({ worked }: PlanContext['board'], feet: FeatureOf<'feet'>): Pick<StepDraft, 'school'> => (worked.features.includes(feet) ? {} : { school: 'feet' });

/** The two parts of an inlay from one drawing. */
function inlayLines(mark: FeatureOf<'mark'>): Phrase[] {
  const { glueGap, faceGap } = inlayFit(mark);
  return [
    say`Pocket with a V-bit of ${mark.angle}°, ${length(mark.depth)} deep; the plug mirrored from another wood, begun ${length(mark.plugStart)} below its face and cut ${length(mark.plugDepth)} further`,
    say`Glued in it goes ${length(mark.plugStart)} deep: ${length(glueGap)} for glue beneath, ${length(faceGap)} between the two faces to saw the plug off`,
  ];
}

const MARK_PLACES: Readonly<Record<FeatureOf<'mark'>['face'], string>> = { top: 'show side', bottom: 'underside', ...SIDE_NAMES };

/** Where the middle of a mark is, measured from where a maker would. */
function markPlace(mark: FeatureOf<'mark'>, { width }: WorkedBoard['size']): Phrase {
  if (isSide(mark.face)) return say`${length(mark.x)} from the ${isEnd(mark.face) ? 'far edge' : 'left end'} and ${length(mark.y)} below the show side`;
  return say`${length(mark.x)} from the left end and ${length(Math.min(mark.y, width - mark.y))} from the ${mark.y * 2 <= width ? 'far' : 'near'} edge`;
}
