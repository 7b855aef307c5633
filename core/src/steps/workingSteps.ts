import { cornerCuts, edgeCuts, type Cut } from '../features/edgeCuts.ts';
import {
  bevelSetting,
  edgeReach,
  isEnd,
  isSide,
  SIDE_NAMES,
  SIDES,
  type EdgeCut,
  type Side,
} from '../features/edge.ts';
import type { FeatureOf } from '../features/feature.ts';
import { grooveLines, grooveVolume, jigOpening } from '../features/groove.ts';
import { outlineLength } from '../features/outline.ts';
import { inlayFit } from '../features/inlay.ts';
import { passDepths, ROUTER_PASS } from '../features/routerPass.ts';
import { fenceMark } from '../features/solids.ts';
import { passesOf } from '../shop/machines.ts';
import type { ToolId } from '../shop/tools.ts';
import { slowness } from '../shop/gluing.ts';
import { schoolOf } from '../shop/schools.ts';
import { glueOf } from '../shop/shop.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import type { PlanContext } from '../plan/context.ts';
import { joined } from './millingWords.ts';
import type { StepDraft } from './operation.ts';
import { spareWood, type SpareWood, type WantedWood } from '../cutting/spareWood.ts';
import {
  boardThing,
  stockThing,
  stripThing,
  type PlugWood,
  type Instruction,
  type InstructionOf,
  type Thing,
  type WorkKind,
} from './instruction.ts';
import { edgeWays, routedWays } from './toolWays.ts';
import { toolOf } from './ways.ts';
import type { WorkedBoard } from '../plan/workedBoard.ts';
import { stripTops } from '../board/board.ts';
import { stripsOf, type Strip } from '../board/recipe.ts';

const routerPasses = (bit: number, depth: number): number => passDepths(depth, bit).length;
/** Minutes (common practice): to make a template, and to set up a table for holds. */
const TEMPLATE_MINUTES = 15;
const TABLE_MINUTES = 12;

const boardsOf = (count: number): Thing[] => Array.from({ length: count }, (_, i) => boardThing(i + 1));

/** One feature worked into every board. @param figures what the step says of it, mm */
function work(
  count: number,
  what: WorkKind,
  feature: string,
  cuts: Cut[],
  tool: ToolId,
  passes: number | null,
  figures: Record<string, number>,
): InstructionOf<'work'> {
  return { do: 'work', parts: boardsOf(count), cuts, what, feature, place: '', tool, passes, figures };
}

/** What a feature takes out of the finished board. */
function cutsOf({ solids }: WorkedBoard, feature: string): Cut[] {
  return solids.filter((s) => s.feature === feature).map(({ outlines, from, to }) => ({ outlines, from, to }));
}

/** Corners, groove, edges, holds and bores of boards that are cut to size, in the order that spoils nothing. */
export function workingSteps(context: PlanContext, worked: WorkedBoard): StepDraft[] {
  const grooves = grooveSteps(context, worked);
  const edges = edgeSteps(context, worked);
  return [
    ...cornerSteps(context, worked),
    ...(context.shop.schools.grooveOrder === 'before' ? [...grooves, ...edges] : [...edges, ...grooves]),
    ...holdSteps(context, worked),
    ...boreSteps(context, worked),
  ];
}

function cornerSteps(
  {
    board: {
      worked: { corners },
      count,
    },
  }: PlanContext,
  { size }: WorkedBoard,
): StepDraft[] {
  if (corners.kind === 'square' || corners.size === 0) return [];
  return [
    {
      kind: 'corners',
      title: corners.kind === 'round' ? say`Round the corners` : say`Clip the corners`,
      machine: 'Jigsaw or band saw',
      instructions: [
        work(count, 'corners', 'corners', cornerCuts(corners, size), 'jigsaw', null, { size: corners.size }),
      ],
      lines: [
        corners.kind === 'round'
          ? say`Radius ${length(corners.size)}, from the template; saw outside the line and sand to it`
          : say`${length(corners.size)} off each side of a corner; saw outside the line and sand to it`,
      ],
      why: say`Corners come before the edges, so that a bit with a bearing follows them round.`,
    },
  ];
}

function grooveSteps({ board, shop }: PlanContext, worked: WorkedBoard): StepDraft[] {
  const { size, features, sanded } = worked;
  return features
    .filter((f) => f.kind === 'groove')
    .flatMap((groove): StepDraft[] => {
      const lines = grooveLines(groove, size);
      if (lines.length === 0) return [];
      const deep = groove.depth + sanded;
      const passes = routerPasses(groove.bit, deep);
      const travel = lines.reduce((sum, l) => sum + outlineLength(l), 0) * passes;
      const { ways, taken } = routedWays(
        shop,
        { parts: boardsOf(board.count), figures: { travel } },
        TEMPLATE_MINUTES,
        'gouge',
        'Gouge and scraper',
      );
      const jig = jigOpening(groove, size, shop.router?.base ?? 0);
      return [
        {
          kind: 'groove',
          about: groove.id,
          title: say`Juice groove, ${groove.face === 'top' ? 'show side' : 'underside'}`,
          school: 'grooveOrder',
          taken,
          ways,
          passes: toolOf(taken) === 'router' ? passes : null,
          instructions: [
            work(
              board.count,
              'groove',
              groove.id,
              cutsOf(worked, groove.id),
              toolOf(taken),
              toolOf(taken) === 'router' ? passes : null,
              {
                travel,
                offset: groove.offset,
                corner: groove.corner,
                bit: groove.bit,
                depth: deep,
                left: groove.depth,
                sanded,
                each: deep / passes,
                fall: groove.fall,
                beneath: size.thickness - groove.depth,
                ...(jig && shop.router
                  ? {
                      base: shop.router.base,
                      jigLength: jig.length,
                      jigWidth: jig.width,
                      jigCorner: jig.corner,
                      jigBeyond: Math.abs(jig.beyond),
                    }
                  : {}),
              },
            ),
          ],
          settings: [
            { label: 'Round-nose bit', value: length(groove.bit) },
            { label: 'Depth', value: length(deep) },
          ],
          lines: [
            ...(sanded > 0
              ? [say`${length(deep)} deep: ${length(sanded)} goes with sanding and ${length(groove.depth)} is left`]
              : []),
            ...(toolOf(taken) === 'router'
              ? [
                  say`${passes} ${passes === 1 ? 'pass' : 'passes'} of at most ${length(deep / passes)}, clockwise inside the jig, against the turn of the bit; the last one light and without a stop`,
                ]
              : [say`Mark both lines, cut across the ends first, then along; scrape to a gauge of the groove`]),
            ...(toolOf(taken) === 'router' && jig && shop.router
              ? [
                  say`Jig for a base of ${length(shop.router.base)}: opening ${length(jig.length)} by ${length(jig.width)}, corners of ${length(jig.corner)}; it lies ${length(Math.abs(jig.beyond))} ${jig.beyond >= 0 ? 'beyond the board on every side' : 'inside the edge on every side'}`,
                ]
              : []),
            ...(toolOf(taken) === 'router' && jig && shop.router
              ? []
              : [
                  say`The middle of the groove runs ${length(groove.offset)} from every edge, its corners ${length(groove.corner)} round${groove.wells === 2 ? say`; two wells, ${length(groove.offset)} between their middles` : say``}`,
                ]),
            ...(groove.spout
              ? [
                  say`It falls ${length(groove.fall)} to the ${groove.spout} end: shim the jig at the other end by as much; then the spout, straight out over the end`,
                ]
              : []),
            say`It holds ${Math.round(grooveVolume(groove, size) / 1000)} ml to the brim; ${length(size.thickness - groove.depth)} of wood is left beneath`,
          ],
          why: say`${schoolOf(shop.schools, 'grooveOrder').why} Burn marks on end grain are slow to sand out: keep moving at the corners.`,
        },
      ];
    });
}

/** Sides and faces that get the same cut, in words: all, both ends, or each by name. */
function placesOf(places: readonly { side: Side; face: 'top' | 'bottom' }[]): string {
  const faceWords = { top: 'above', bottom: 'below' } as const;
  const of = (face: 'top' | 'bottom') => SIDES.filter((side) => places.some((p) => p.side === side && p.face === face));
  const names = (sides: readonly Side[]) =>
    sides.length === 4
      ? 'all round'
      : sides.every(isEnd) && sides.length === 2
        ? 'both ends'
        : sides.length === 2 && !sides.some(isEnd)
          ? 'both long edges'
          : sides.map((s) => SIDE_NAMES[s]).join(', ');
  const [top, bottom] = [of('top'), of('bottom')];
  if (top.join() === bottom.join()) return `${names(top)}, above and below`;
  return [
    ...(top.length > 0 ? [`${names(top)} ${faceWords.top}`] : []),
    ...(bottom.length > 0 ? [`${names(bottom)} ${faceWords.bottom}`] : []),
  ].join('; ');
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
  return [...groups.values()]
    .sort((a, b) => EDGE_ORDER.indexOf(a.cut.kind) - EDGE_ORDER.indexOf(b.cut.kind))
    .map(({ cut, places }): StepDraft => {
      const run = places.reduce((sum, { side }) => sum + (isEnd(side) ? size.width : size.length), 0);
      const runs = { run, round: 4 * (size.length + size.width) };
      const { ways, taken } = edgeWays(
        shop,
        cut.kind,
        { parts: boardsOf(board.count), figures: runs },
        byHabit && shop.schools.edge === 'blockPlane',
      );
      const { reach, drop } = edgeReach(cut, size.thickness);
      const where = placesOf(places);
      return {
        kind: 'edges',
        about: places.map((p) => `${p.side}.${p.face}`).join('+'),
        title: say`Edges: ${edgeName(cut)} ${where}`,
        taken,
        ways,
        passes: toolOf(taken) === 'router' ? Math.max(1, passesOf(ROUTER_PASS, Math.max(reach, drop))) : null,
        ...(byHabit ? { habit: 'edgeTreatment' as const, school: 'edge' as const } : {}),
        instructions: [
          work(board.count, 'edge', JSON.stringify(cut), edgeCuts(cut, places, size), toolOf(taken), null, {
            ...edgeFigures(cut, size.thickness),
            ...runs,
          }),
        ],
        settings: edgeSettings(cut, size.thickness),
        lines: [...edgeLines(cut, size.thickness, toolOf(taken)), say`End grain first, long grain after; keep moving`],
        why: say`${byHabit ? `${school.why} ` : ''}What the end grain tears at its corner, the long grain takes away.`,
      };
    });
}

function edgeFigures(cut: EdgeCut, thickness: number): Record<string, number> {
  if (cut.kind === 'underBevel') {
    const { reach, face } = bevelSetting(cut, thickness);
    return { reach, face, reveal: cut.reveal };
  }
  const { reach, drop } = edgeReach(cut, thickness);
  return { reach, drop, ...(cut.kind === 'roundOver' ? { radius: cut.radius } : {}) };
}

function edgeName(cut: EdgeCut): Phrase {
  switch (cut.kind) {
    case 'straight':
      return say`straight`;
    case 'chamfer':
      return say`chamfer of ${length(cut.reach)}${cut.angle === 45 ? '' : ` at ${cut.angle}°`}`;
    case 'roundOver':
      return say`round-over of ${length(cut.radius)}`;
    case 'underBevel':
      return say`under-bevel at ${cut.angle}°`;
    case 'thumbnail':
      return say`thumbnail of ${length(cut.reach)}`;
  }
}

function edgeSettings(cut: EdgeCut, thickness: number): StepDraft['settings'] {
  if (cut.kind === 'roundOver') return [{ label: 'Bit radius', value: length(cut.radius) }];
  if (cut.kind === 'underBevel')
    return [
      { label: 'Reach on the underside', value: length(bevelSetting(cut, thickness).reach) },
      { label: 'Left of the side', value: length(cut.reveal) },
    ];
  const { reach, drop } = edgeReach(cut, thickness);
  return [
    { label: 'In on the face', value: length(reach) },
    { label: 'Down the side', value: length(drop) },
  ];
}

function edgeLines(cut: EdgeCut, thickness: number, tool: ToolId): Phrase[] {
  if (cut.kind === 'underBevel') {
    const { tilt, reach, face } = bevelSetting(cut, thickness);
    return [
      say`Blade tilted ${tilt}° from upright, the board flat on the table, show side up: the blade leaves the table ${length(reach)} in from the edge and the side ${length(cut.reveal)} below the show side; the cut is ${length(face)} long`,
      say`Sneak up on it: fence a little wide on all sides, look at the corners, bring the fence in until neighbouring bevels meet in one line that ends at the corner`,
      say`The offcut must fall free: fence on the side away from the tilt, nothing trapped under the blade`,
    ];
  }
  const passes = Math.max(
    1,
    passesOf(ROUTER_PASS, Math.max(edgeReach(cut, thickness).reach, edgeReach(cut, thickness).drop)),
  );
  if (tool === 'router')
    return [
      say`${passes} ${passes === 1 ? 'pass' : 'passes'}, left to right with the board before you, against the turn of the bit${passes > 1 ? ', the last one light' : ''}; a block plane does it without a bit to tear the corner out`,
    ];
  return [say`Strokes counted, the same on every edge; on end grain from both corners inward`];
}

function holdSteps({ board, shop }: PlanContext, worked: WorkedBoard): StepDraft[] {
  const { size, features, sanded } = worked;
  return features.flatMap((f): StepDraft[] => {
    if (f.kind === 'finger') {
      const passes = routerPasses(f.bit, f.depth);
      const travel = 2 * f.length * passes;
      const { ways, taken } = routedWays(
        shop,
        { parts: boardsOf(board.count), figures: { travel } },
        TABLE_MINUTES,
        'gouge',
        'Gouge and rasp',
      );
      const mark = fenceMark(f, size);
      return [
        {
          kind: 'holds',
          about: f.id,
          title: say`Finger holds in both ${f.on === 'ends' ? 'ends' : 'long edges'}`,
          taken,
          ways,
          passes: toolOf(taken) === 'router' ? passes : null,
          instructions: [
            work(
              board.count,
              'finger',
              f.id,
              cutsOf(worked, f.id),
              toolOf(taken),
              toolOf(taken) === 'router' ? passes : null,
              { travel, bit: f.bit, depth: f.depth, mark, length: f.length, up: f.up + sanded },
            ),
          ],
          settings: [
            { label: f.shape === 'cove' ? 'Cove bit' : 'Chamfer bit', value: length(f.bit) },
            { label: 'Into the edge', value: length(f.depth) },
            { label: 'Marks from the middle of the bit', value: length(mark) },
          ],
          lines: [
            say`${length(f.length)} long, in the middle; ${f.shape === 'cove' ? joined(say`middle ${length(f.up + sanded)} above the underside as it is before sanding`) : joined(say`up to ${length(f.up + sanded)} above the underside as it is before sanding`)}`,
            ...(toolOf(taken) === 'router'
              ? [
                  say`Router table: a mark on the fence ${length(mark)} from the middle of the bit on either side. Pivot in with the leading end at the far mark, stop when the trailing end is at the near one, pivot out`,
                  say`${passes} ${passes === 1 ? 'pass' : 'passes'}, the fence moved back each time`,
                ]
              : []),
          ],
          why: say`Both stops the same, and both holds come out in the middle.`,
        },
      ];
    }
    if (f.kind === 'hole') {
      const passes = routerPasses(12, size.thickness + 2 * sanded);
      const travel = 2 * 2 * (f.length + f.width) * passes;
      const { ways, taken } = routedWays(
        shop,
        { parts: boardsOf(board.count), figures: { travel } },
        TEMPLATE_MINUTES,
        'jigsaw',
        'Jigsaw and rasp',
      );
      return [
        {
          kind: 'holds',
          about: f.id,
          title: say`Hand holes behind both ${f.on === 'ends' ? 'ends' : 'long edges'}`,
          taken,
          ways,
          instructions: [
            work(board.count, 'hole', f.id, cutsOf(worked, f.id), toolOf(taken), null, {
              travel,
              bores: f.length > f.width ? 4 : 2,
              length: f.length,
              width: f.width,
              inset: f.inset,
            }),
          ],
          settings: [
            { label: 'Long', value: length(f.length) },
            { label: 'Wide', value: length(f.width) },
            { label: 'Behind the edge', value: length(f.inset) },
          ],
          lines: [
            say`${length(f.length)} by ${length(f.width)}, in the middle, ${length(f.inset)} behind the edge`,
            joined(
              f.length > f.width
                ? say`Bore ${length(f.width)} at both ends of each slot, saw out between, `
                : say`Bore ${length(f.width)}, `,
              say`${toolOf(taken) === 'router' ? 'flush to the template with a bearing bit from both faces' : 'rasp to the line'}`,
            ),
            say`Ease both rims by hand`,
          ],
          why: say`From both faces the rims stay whole.`,
        },
      ];
    }
    return [];
  });
}

function boreSteps({ board }: PlanContext, worked: WorkedBoard): StepDraft[] {
  const { size, features, sanded } = worked;
  return features.flatMap((f): StepDraft[] => {
    if (f.kind === 'handle') {
      return [
        {
          kind: 'handles',
          about: f.id,
          title: f.bores === 1 ? say`Bores for loops` : say`Bores for handles`,
          machine: 'Drill',
          instructions: [
            work(board.count, 'handle', f.id, cutsOf(worked, f.id), 'drill', null, {
              bores: 2 * f.bores * 2,
              bore: f.bore,
              counterbore: f.counterbore,
              inset: f.inset,
              spacing: f.spacing,
              sinkTop: f.sinkTop > 0 ? f.sinkTop + sanded : 0,
              sinkBottom: f.sinkBottom > 0 ? f.sinkBottom + sanded : 0,
              between: size.thickness - f.sinkTop - f.sinkBottom,
            }),
          ],
          settings: [
            { label: 'Bore', value: length(f.bore) },
            ...(f.sinkTop + f.sinkBottom > 0 ? [{ label: 'Counterbore', value: length(f.counterbore) }] : []),
          ],
          lines: [
            say`${length(f.inset)} in from the ${f.on === 'ends' ? 'ends' : 'long edges'}, ${f.bores === 1 ? say`in the middle` : say`${length(f.spacing)} apart, the middle between them on the board's middle`}`,
            ...(f.sinkTop + f.sinkBottom > 0
              ? [
                  say`Counterbores first: ${length(f.sinkTop > 0 ? f.sinkTop + sanded : 0)} deep above, ${length(f.sinkBottom > 0 ? f.sinkBottom + sanded : 0)} below, with what sanding takes; then through, so that the point of the bit finds the middle`,
                ]
              : [say`Through from both faces`]),
            ...(f.bores === 2
              ? [
                  say`${length(size.thickness - f.sinkTop - f.sinkBottom)} of wood is between head and handle: bolts to suit`,
                ]
              : [say`Ease both rims: a rope wears on a sharp one`]),
          ],
          why: say`A counterbore cannot be drilled where its middle is already gone.`,
        },
      ];
    }
    if (f.kind === 'feet' && f.boreDepth > 0) {
      return [
        {
          kind: 'bores',
          about: f.id,
          title: say`Shallow bores for ${f.count} feet${board.count > 1 ? ` a board, ${f.count * board.count} in all` : ''}`,
          ...askedFeet(board, f),
          machine: 'Drill',
          instructions: [
            work(board.count, 'footBores', f.id, cutsOf(worked, f.id), 'drill', null, {
              bores: f.count,
              bore: f.bore,
              depth: f.boreDepth + sanded,
              inset: f.inset,
              left: f.boreDepth,
            }),
          ],
          settings: [
            { label: 'Bore', value: length(f.bore) },
            { label: 'Depth', value: length(f.boreDepth + sanded) },
          ],
          lines: [
            say`${length(f.inset)} in from both edges, flat-bottomed; ${length(f.boreDepth)} is left once it is sanded; pilot holes for the screws, a stop on the bit`,
          ],
          why: say`Before oil, so that the bores drink too; the feet come last.`,
        },
      ];
    }
    return [];
  });
}

const MARK_TOOLS: Readonly<Record<FeatureOf<'mark'>['method'], ToolId>> = {
  laser: 'engraver',
  brand: 'brandingIron',
  router: 'router',
  inlay: 'router',
};
const MARK_WORDS: Readonly<Record<FeatureOf<'mark'>['method'], string>> = {
  laser: 'Engraver',
  brand: 'Branding iron',
  router: 'Router',
  inlay: 'Router',
};

/** When a mark is made: with the habit, or where the habit would lose it to a later step, before the grain is raised. */
export function markTime(
  mark: FeatureOf<'mark'>,
  shop: PlanContext['shop'],
  trim: { far: number; near: number },
): 'outerStrip' | 'beforeGrain' | 'last' {
  if (shop.schools.engraving !== 'outerStrip') return shop.schools.engraving;
  // A face is flattened and an end is cut off; only a long edge that is not trimmed keeps what was burnt into its strip.
  const kept =
    mark.face === 'far' ? trim.far < LENGTH_TOLERANCE_MM : mark.face === 'near' && trim.near < LENGTH_TOLERANCE_MM;
  return kept ? 'outerStrip' : 'beforeGrain';
}

/** Engraving and branding. @param when only the marks that are made then */
export function engravingStep(
  context: PlanContext,
  worked: WorkedBoard,
  when: 'outerStrip' | 'beforeGrain' | 'last',
): StepDraft[] {
  const { board, shop, allowances } = context;
  const { size, features } = worked;
  const layout = context.trim;
  const trim = { far: layout.boards[0]?.y ?? 0, near: layout.width - (layout.boards[0]?.y ?? 0) - size.width };
  const marks = features
    .filter((f) => f.kind === 'mark')
    .filter((m) => m.method !== 'inlay' && markTime(m, shop, trim) === when);
  if (marks.length === 0) return [];
  const school = schoolOf(shop.schools, 'engraving');
  const early = when === 'outerStrip';
  const panels = allowances.panels.length;
  // What flattening and sanding take off the show side before the mark is looked at.
  const above = early ? (allowances.glueThickness - size.thickness) / 2 : 0;
  const starts = early ? layout.boards.map((b) => b.x) : [0];
  const instructions = marks.map((m): Instruction => {
    const strip = m.face === 'far' ? 1 : stripsOf(board).length;
    const parts = early
      ? allowances.panels.map((_, k) => stripThing({ strip, copy: k + 1, spare: 0 }, panels))
      : boardsOf(board.count);
    return {
      do: 'work',
      parts,
      cuts: cutsOf(worked, m.id),
      what: 'mark',
      feature: m.id,
      place: m.face,
      tool: MARK_TOOLS[m.method],
      passes: null,
      figures: {
        times: starts.length,
        length: m.length,
        width: m.width,
        depth: m.depth,
        ...markFigures(m, size, above),
        ...Object.fromEntries(starts.map((x, i) => [`x${i + 1}`, x + m.x])),
      },
    };
  });
  return [
    {
      kind: 'engrave',
      about: when,
      title: marks.length === 1 ? say`Mark: ${marks[0]!.name}` : say`${marks.length} marks`,
      school: 'engraving',
      machine: MARK_WORDS[marks[0]!.method],
      instructions,
      lines: [
        ...marks.map((m) =>
          joined(
            say`${m.name}, ${MARK_WORDS[m.method].toLowerCase()}, ${early ? say`on the outer face of strip ${m.face === 'far' ? 1 : stripsOf(board).length}` : say`${MARK_PLACES[m.face]}`}: ${length(m.length)} by ${length(m.width)}, ${length(m.depth)} deep, its middle `,
            early
              ? joined(
                  ...starts.map((x, i) => joined(say`${i > 0 ? ' and ' : ''}`, say`${length(x + m.x)}`)),
                  say` from the strip's left end and ${length(m.y + above)} below what will be the show side`,
                )
              : markPlace(m, size),
          ),
        ),
        ...(shop.schools.engraving === 'outerStrip' && !early
          ? [say`The habit is an outer strip before the glue-up: there this mark would be planed or trimmed away`]
          : []),
      ],
      why: say`${school.why}`,
    },
  ];
}

/** Glue in a pocket sets, and its plug may be flushed, after so long, minutes; a plug is this much larger than its pocket all round, mm (common practice). */
const PLUG_MARGIN_MM = 6;

/** Inlays while the board is flat and its edges are square: pocket, plug, glue, wait, and flush; the sanding that follows takes the rest. */
export function inlaySteps(context: PlanContext, worked: WorkedBoard): StepDraft[] {
  const { board, shop } = context;
  const { features } = worked;
  const glue = glueOf(shop);
  const wait = glue.clampMinutes * slowness(shop.room.temperature);
  const taken: SpareWood[] = [];
  return features.flatMap((m): StepDraft[] => {
    if (m.kind !== 'mark' || m.method !== 'inlay') return [];
    const { glueGap, faceGap } = inlayFit(m);
    const plug = {
      plugLength: m.length + 2 * PLUG_MARGIN_MM,
      plugWidth: m.width + 2 * PLUG_MARGIN_MM,
      plugThickness: m.plugStart + m.plugDepth + PLUG_MARGIN_MM,
    };
    const wood = plugWood(m, context, worked, taken, {
      length: board.count * (plug.plugLength + shop.crosscutSaw.kerf) - shop.crosscutSaw.kerf,
      width: plug.plugWidth,
      thickness: plug.plugThickness,
    });
    if (wood) taken.push(wood.found);
    return [
      {
        kind: 'inlay',
        about: m.id,
        title: say`Inlay: ${m.name}`,
        machine: 'Router',
        waitMinutes: wait,
        waitFor: 'the glue of the inlay',
        instructions: [
          {
            do: 'inlay',
            parts: boardsOf(board.count),
            cuts: cutsOf(worked, m.id),
            plug: wood?.told ?? null,
            feature: m.id,
            glue: glue.id,
            waitMinutes: wait,
            figures: {
              length: m.length,
              width: m.width,
              depth: m.depth,
              plugStart: m.plugStart,
              plugDepth: m.plugDepth,
              glueGap,
              faceGap,
              ...plug,
              ...markFigures(m, { width: Infinity }, 0),
            },
          },
        ],
        lines: [
          joined(
            say`${m.name}, ${MARK_PLACES[m.face]}: its middle `,
            say`${length(m.x)} from the left end and ${length(m.y)} from the far edge`,
          ),
          joined(
            say`Wood for the plug${board.count > 1 ? ', for each board' : ''}: ${length(plug.plugLength)} by ${length(plug.plugWidth)}, ${length(plug.plugThickness)} thick, `,
            wood
              ? joined(
                  say`${wood.species} out of what is left of ${wood.told.part.label}, ${length(wood.told.from)} from its marked end`,
                  wood.told.across > 0 ? say` and ${length(wood.told.across)} from its near edge` : say``,
                )
              : say`of another species: nothing that is left gives it`,
          ),
          say`Pocket with a V-bit of ${m.angle}°, ${length(m.depth)} deep; the plug mirrored, begun ${length(m.plugStart)} below its face and cut ${length(m.plugDepth)} further`,
          say`Glue on the walls of the pocket, the plug pressed in until it goes no further, a block and a clamp over it: it goes ${length(m.plugStart)} deep, ${length(glueGap)} for glue beneath, ${length(faceGap)} between the two faces`,
          say`When the glue has set: saw the plug off between the faces, then flush with a plane or a block; the sanding follows`,
        ],
        why: say`While the edges are square and the face is not sanded yet, the plug can be clamped and flushed, and nothing finished is cut again.`,
      },
    ];
  });
}

/** Another wood for the plug than the strips the mark lies on, out of what the plan leaves. */
function plugWood(
  mark: FeatureOf<'mark'>,
  { board, rack, cutting, shop, species, saw }: PlanContext,
  { shift }: WorkedBoard,
  taken: readonly SpareWood[],
  wanted: WantedWood,
): { found: SpareWood; told: PlugWood; species: string } | null {
  const under = new Set(speciesUnder(mark, stripsOf(board), shift));
  const found = spareWood(
    { rack, cutting, promised: saw?.promised ?? [], taken, shop },
    wanted,
    (code) => !under.has(code),
  );
  if (!found) return null;
  const { piece, unit, place } = found;
  return {
    found,
    told: { part: stockThing(piece, unit), ...place, thickness: wanted.thickness },
    species: species.find((s) => s.code === piece.species)?.name.toLowerCase() ?? piece.species,
  };
}

/** Species of the strips that a mark lies on. @param shift of the board on its panel, mm */
function speciesUnder(mark: FeatureOf<'mark'>, strips: readonly Strip[], shift: number): string[] {
  if (mark.face === 'far') return [strips[0]!.species];
  if (mark.face === 'near') return [strips.at(-1)!.species];
  const [middle, half] = isSide(mark.face) ? [mark.x, mark.length / 2] : [mark.y, mark.width / 2];
  const tops = stripTops(strips);
  return strips.flatMap((s, i) => {
    const from = tops[i]! - shift;
    return from < middle + half && from + s.width > middle - half ? [s.species] : [];
  });
}

/** Feet come last of all: after oil and wax. */
export function footSteps({ board, shop }: PlanContext, worked: WorkedBoard): StepDraft[] {
  return worked.features
    .filter((f) => f.kind === 'feet')
    .map((f) => ({
      kind: 'feet',
      about: f.id,
      title: say`Screw on the feet`,
      ...askedFeet(board, f),
      instructions: [
        {
          do: 'feet',
          parts: boardsOf(board.count),
          cuts: cutsOf(worked, f.id),
          count: f.count,
          screw: f.screw,
          depth: f.screwDepth,
        },
      ],
      lines: [
        say`${f.count} feet${board.count > 1 ? ` a board, ${f.count * board.count} in all` : ''}, screws of ${length(f.screw)} that go ${length(f.screwDepth)} into the wood, none into a joint; by hand, until they just hold`,
      ],
      why: say`${schoolOf(shop.schools, 'feet').why} Oil creeps under feet that are on already.`,
    }));
}

/** The shop's question decided it only where the board says nothing itself. */
const askedFeet = ({ worked }: PlanContext['board'], feet: FeatureOf<'feet'>): Pick<StepDraft, 'school'> =>
  worked.features.includes(feet) ? {} : { school: 'feet' };

const MARK_PLACES: Readonly<Record<FeatureOf<'mark'>['face'], string>> = {
  top: 'show side',
  bottom: 'underside',
  ...SIDE_NAMES,
};

/** Where the middle of a mark is, measured from where a maker would. */
function markPlace(mark: FeatureOf<'mark'>, { width }: WorkedBoard['size']): Phrase {
  if (isSide(mark.face))
    return say`${length(mark.x)} from the ${isEnd(mark.face) ? 'far edge' : 'left end'} and ${length(mark.y)} below the show side`;
  return say`${length(mark.x)} from the left end and ${length(Math.min(mark.y, width - mark.y))} from the ${mark.y * 2 <= width ? 'far' : 'near'} edge`;
}

/** The figures that place a mark. */
function markFigures(
  mark: FeatureOf<'mark'>,
  { width }: Pick<WorkedBoard['size'], 'width'>,
  above: number,
): Record<string, number> {
  return {
    x: mark.x,
    y: mark.y + above,
    across: isSide(mark.face) || !Number.isFinite(width) ? mark.y : Math.min(mark.y, width - mark.y),
  };
}
