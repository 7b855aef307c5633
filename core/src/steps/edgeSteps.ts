import { cornerCuts, edgeCuts } from '../features/edgeCuts.ts';
import { bevelSetting, edgeReach, isEnd, SIDE_NAMES, SIDES, type EdgeCut, type Side } from '../features/edge.ts';
import { ROUTER_PASS } from '../features/routerPass.ts';
import { passesOf } from '../shop/machines.ts';
import type { ToolId } from '../shop/tools.ts';
import { schoolOf } from '../shop/schools.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { StepDraft } from './operation.ts';
import { edgeWays } from './toolWays.ts';
import { toolOf } from './ways.ts';
import type { WorkedBoard } from '../bodies/workedBoard.ts';
import { work, boardsOf } from './boardWork.ts';

export function cornerSteps(
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

export function edgeSteps({ board, shop }: PlanContext, { size, edges }: WorkedBoard): StepDraft[] {
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
