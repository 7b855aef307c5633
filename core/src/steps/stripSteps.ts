import { grouped } from '../lists/grouped.ts';
import { certain, firstOf, lastOf, nth } from '../lists/there.ts';
import { ripFatOf } from '../board/allowances.ts';
import { schoolOf } from '../shop/schools.ts';
import type { Shop } from '../shop/shop.ts';
import { ripTool, SAFE_WIDTH_MM, thinRipOf, TOOL_NAMES, type ToolId } from '../shop/tools.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { InstructionOf, Thing } from './instruction.ts';
import { demandThing } from './panelThings.ts';
import type { MilledStrip, Milling } from './millingPlan.ts';
import { jointLines, remillLines, ripLines } from './millingWords.ts';
import { stripList } from './numberList.ts';
import type { StepDraft } from './operation.ts';
import { isNarrow, type Lane, type RoughPart } from './stockWork.ts';
import { settingsOf } from './sawSettings.ts';
import { ripWays, straightEdgeWays } from './toolWays.ts';
import { straightEdgeTool } from './ways.ts';
import { cutStripsOf } from '../board/recipe.ts';
import { isThinLane } from './resawSteps.ts';

/** With what a rip is made, and along what it is guided. */
function ripOf(
  lane: Lane,
  context: PlanContext,
  parallel: number,
): Pick<InstructionOf<'rip'>, 'saw' | 'guide' | 'parallel'> {
  const { shop } = context;
  const thin = isThinLane(lane, context) ? thinRipOf(shop) : null;
  const saw = thin ? { tool: thin.tool, kerf: thin.kerf } : { tool: ripTool(shop), kerf: shop.saw.kerf };
  const guide = thin
    ? thin.guide
    : shop.saw.kind === 'circular'
      ? 'guide'
      : shop.saw.kind === 'hand'
        ? 'line'
        : isNarrow(lane.rip)
          ? 'stop'
          : 'fence';
  if (guide !== 'stop') return { saw, guide, parallel: null };
  return parallel < SAFE_WIDTH_MM ? { saw, guide: 'carrier', parallel: null } : { saw, guide, parallel };
}

/** The rips of a part, cut after cut from its straight edge; neighbours that are made alike are told together. */
function ripsOfPart(part: RoughPart, context: PlanContext, whole: (lane: Lane) => boolean): InstructionOf<'rip'>[] {
  const list: InstructionOf<'rip'>[] = [];
  const lastLane = lastOf(part.lanes);
  let edge = part.from + part.straighten;
  let kerf = 0;
  for (const lane of part.lanes) {
    const how = ripOf(lane, context, lastLane.from + lastLane.rip - edge - kerf);
    const skip = lane.from - edge - kerf;
    const [only] = lane.strips;
    const thing = whole(lane) ? lane.thing : demandThing(certain(only).demand, context);
    const cut = {
      part: thing,
      at: lane.from,
      width: lane.rip,
      skip: skip > LENGTH_TOLERANCE_MM ? skip : 0,
      strips: lane.strips.map((s) => s.demand.strip),
    };
    const last = list.at(-1);
    if (last && last.guide === how.guide && last.saw.tool === how.saw.tool) last.cuts.push(cut);
    else list.push({ do: 'rip', parts: [part.thing], ...how, cuts: [cut] });
    edge = lane.from + lane.rip;
    kerf = how.saw.kerf;
  }
  return list.map((i) => (wholeWidth(i, part) ? { ...i, saw: { tool: 'hands', kerf: 0 }, guide: 'line' } : i));
}

/** Ready stock that is as wide as its one strip is not ripped at all. */
function wholeWidth({ cuts }: InstructionOf<'rip'>, part: RoughPart): boolean {
  const asItIs = part.piece.surface === 'ready' || part.piece.straight === 'both';
  return (
    asItIs &&
    cuts.length === 1 &&
    part.lanes.length === 1 &&
    firstOf(cuts).at - part.from < LENGTH_TOLERANCE_MM &&
    part.to - firstOf(cuts).at - firstOf(cuts).width < LENGTH_TOLERANCE_MM
  );
}

export function ripStep({ context, open, strips }: Milling): StepDraft[] {
  const { shop, board } = context;
  const resawn = new Set(strips.filter((s) => s.resawn).map((s) => s.lane));
  const instructions = open.flatMap((w) => w.parts).flatMap((p) => ripsOfPart(p, context, (lane) => resawn.has(lane)));
  const cut = instructions.filter((i) => i.saw.tool !== 'hands');
  if (instructions.length === 0) return [];
  const fat = ripFatOf(shop);
  const { ways, taken } = ripWays(shop, cut);
  const kept = cut.length === 0;
  return [
    {
      kind: 'rip',
      title: kept
        ? say`The strips are as wide as they must be`
        : fat > 0
          ? say`Rip the strips ${length(fat)} fat`
          : say`Rip the strips`,
      ways: kept ? [] : ways,
      taken: kept ? null : taken,
      school: fat > 0 ? 'rip' : 'measuring',
      habit: fat > 0 ? 'ripFat' : null,
      instructions:
        fat > 0
          ? [
              ...instructions,
              { do: 'wait', parts: [], minutes: REST_MINUTES, for: 'the strips to rest' },
              { do: 'fat', by: fat },
            ]
          : instructions,
      settings: settingsOf(cut),
      lines: ripLines(instructions, { relative: shop.schools.measuring === 'relative', rest: fat > 0 }),
      ...(fat > 0 ? { waitMinutes: REST_MINUTES, waitFor: 'the strips to rest' } : {}),
      why:
        board.construction === 'edge'
          ? say`The rip is the panel's thickness as glued: finished ${length(board.thickness)} and what flattening and sanding take${fat > 0 ? ', and what is milled again' : ''}.`
          : say`The rip is the strip's width in the panel and what jointing takes off both edges.`,
    },
  ];
}

/** Strips that were ripped fat lie on stickers overnight (common practice). */
const REST_MINUTES = 720;

export function remillStep({ context, strips }: Milling): StepDraft[] {
  const { shop, board } = context;
  const fat = ripFatOf(shop);
  if (fat <= 0) return [];
  const rips = new Map<number, Thing[]>();
  for (const { lane, thing, part, resawn } of strips) {
    if (isThinLane(lane, context)) continue;
    // What is resawn is milled in one; where it was resawn already, layer by layer.
    const whole = resawn && !part.blank.done ? lane.thing : thing;
    const things = rips.get(lane.rip) ?? [];
    if (!things.some((t) => t.id === whole.id)) rips.set(lane.rip, [...things, whole]);
  }
  if (rips.size === 0) return [];
  const instructions = [...rips]
    .sort(([a], [b]) => b - a)
    .map(([rip, things]): InstructionOf<'remill'> => ({
      do: 'remill',
      parts: things,
      from: rip,
      to: rip - fat,
      tool: remillTool(shop, rip - fat),
    }));
  return [
    {
      kind: 'remill',
      title: say`Mill the rested strips to size`,
      school: 'rip',
      habit: 'ripFat',
      machine: TOOL_NAMES[firstOf(instructions).tool],
      instructions,
      settings: instructions.map((i) => ({ label: 'To', value: { mm: i.to, rounding: 'up' } })),
      parts: instructions.map((i) => ({
        part: i.parts.length === 1 ? '1 strip' : `${i.parts.length} strips`,
        dimension: board.construction === 'edge' ? 'thickness' : 'width',
        before: i.from,
        after: i.to,
        passes: null,
      })),
      lines: remillLines(instructions),
      why: say`A strip that is milled after it has sprung stays straight in the panel.`,
    },
  ];
}

/** One edge straight, the other parallel: on the jointer and the saw, or by hand. */
function remillTool(shop: Shop, width: number): ToolId {
  if (shop.jointer && width >= SAFE_WIDTH_MM) return 'jointer';
  return shop.handTools.planes ? 'handPlanes' : ripTool(shop) === 'tableSaw' ? 'carrierSled' : 'batten';
}

export function jointStep({ context, strips }: Milling): StepDraft[] {
  const { shop, allowances, board } = context;
  const flat = strips.filter((s) => s.strip.way.shows === 'face');
  const thin = flat.filter((s) => isThinLane(s.lane, context));
  const wide = flat.filter((s) => !isThinLane(s.lane, context));
  const marks = schoolOf(shop.schools, 'edgeMarks');
  const asSawn = shop.schools.straightEdge === 'offSaw';
  const tool = straightEdgeTool(shop, Math.min(...flat.map((s) => s.part.blank.length)));
  const byWidth = (list: MilledStrip[], by: number, with_: ToolId) => {
    return [...grouped(list, (s) => s.lane.rip)]
      .sort(([a], [b]) => b - a)
      .map(([, of]): InstructionOf<'joint'> => ({
        do: 'joint',
        parts: of.map((s) => s.thing),
        by,
        width: nth(cutStripsOf(board), firstOf(of).strip.demand.strip - 1).width,
        tool: with_,
        strips: of.map((s) => s.strip.demand.strip),
      }));
  };
  const instructions: InstructionOf<'joint'>[] = [
    ...(asSawn || shop.habits.glueEdgeJoint <= 0 ? [] : byWidth(wide, shop.habits.glueEdgeJoint, tool.tool)),
    ...(allowances.thinFace.extra > 0
      ? byWidth(thin, allowances.thinFace.extra / 2, shop.handTools.planes ? 'handPlanes' : 'sandingBlock')
      : []),
  ];
  if (instructions.length === 0) return [];
  const numbers = [...new Set(instructions.flatMap((i) => i.strips))];
  const { ways, taken } = straightEdgeWays(shop, instructions, tool.id);
  return [
    {
      kind: 'jointStrips',
      title:
        numbers.length === cutStripsOf(board).length
          ? say`Joint both edges of each strip`
          : say`Joint both edges of ${stripList(numbers)}`,
      habit: 'glueEdgeJoint',
      school: 'edgeMarks',
      taken,
      ways,
      instructions,
      lines: jointLines(instructions, marks),
      why: say`A glue joint wants a fresh, straight, square edge. Narrow strips stay off every machine: they are cleaned by hand, or glued as the saw left them.`,
    },
  ];
}
