import { isThinFace, proudBy, ripFatOf } from '../board/allowances.ts';
import { layeringOf } from '../shop/layering.ts';
import { passesOf } from '../shop/machines.ts';
import { schoolOf } from '../shop/schools.ts';
import type { Shop } from '../shop/shop.ts';
import { ripTool, SAFE_WIDTH_MM, thinRipOf, TOOL_NAMES, type ToolId } from '../shop/tools.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import type { PlanContext } from '../plan/context.ts';
import { stripThing, type Face, type InstructionOf, type Thing } from './instruction.ts';
import type { MilledStrip, Milling } from './millingPlan.ts';
import { jointLines, partChanges, remillLines, resawLines, ripLines, thicknessSettings } from './millingWords.ts';
import { stripList } from './numberList.ts';
import type { StepDraft } from './operation.ts';
import { isNarrow, type Lane, type RoughPart } from './stockWork.ts';
import { settingsOf } from './sawSettings.ts';
import { layeringWays, ripWays, straightEdgeWays } from './toolWays.ts';
import { flatteningWays, toolOf, passDepthFor, straightEdgeTool, wayTaken } from './ways.ts';
import { stripsOf } from '../board/recipe.ts';

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
function ripsOfPart(
  part: RoughPart,
  context: PlanContext,
  panels: number,
  whole: (lane: Lane) => boolean,
): InstructionOf<'rip'>[] {
  const list: InstructionOf<'rip'>[] = [];
  const lastLane = part.lanes.at(-1)!;
  let edge = part.from + part.straighten;
  let kerf = 0;
  for (const lane of part.lanes) {
    const how = ripOf(lane, context, lastLane.from + lastLane.rip - edge - kerf);
    const skip = lane.from - edge - kerf;
    const [only] = lane.strips;
    const thing = whole(lane) ? lane.thing : stripThing(only!.demand, panels);
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
    cuts[0]!.at - part.from < LENGTH_TOLERANCE_MM &&
    part.to - cuts[0]!.at - cuts[0]!.width < LENGTH_TOLERANCE_MM
  );
}

export function ripStep({ context, open, panels, strips }: Milling): StepDraft[] {
  const { shop, board } = context;
  const resawn = new Set(strips.filter((s) => s.resawn).map((s) => s.lane));
  const instructions = open
    .flatMap((w) => w.parts)
    .flatMap((p) => ripsOfPart(p, context, panels, (lane) => resawn.has(lane)));
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
      machine: TOOL_NAMES[instructions[0]!.tool],
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

function isThinLane(lane: Lane, { allowances, board }: PlanContext): boolean {
  const { demand, way } = lane.strips[0]!;
  return way.shows === 'face' && isThinFace(allowances, stripsOf(board)[demand.strip - 1]!.width);
}

export function resawStep(mill: Milling): StepDraft[] {
  const { context, strips } = mill;
  const { shop } = context;
  const layering = layeringOf(shop);
  const lanes = [...new Set(strips.filter((s) => s.resawn && !s.part.blank.done).map((s) => s.lane))];
  if (lanes.length === 0 || !layering) return [];
  const instructions = lanes.map((lane): InstructionOf<'resaw'> => {
    const own = strips.filter((s) => s.lane === lane);
    return {
      do: 'resaw',
      part: lane.thing,
      saw: { tool: layering.by === 'bandSaw' ? 'bandSaw' : 'tableSaw', kerf: layering.kerf },
      guide: layering.by === 'bandSaw' ? 'fence' : 'stop',
      height: lane.rip,
      from: mill.planeTo.get(own[0]!.part.thing.id)!,
      layers: own.map((s) => ({ part: s.thing, setting: s.sawn, strip: s.strip.demand.strip })),
      rest: own[0]!.rest,
      clean: layering.clean,
    };
  });
  const chosen = layeringWays(shop, instructions)!;
  return [
    {
      kind: 'resaw',
      title: instructions[0]!.saw.tool === 'bandSaw' ? say`Resaw on the band saw` : say`Resaw on the table saw`,
      school: 'thin',
      ways: chosen.ways,
      taken: chosen.taken,
      instructions,
      settings: settingsOf(instructions),
      lines: resawLines(instructions),
      why: say`One thick ripping gives several thin strips, their grain matches, and nothing is planed to shavings that a saw can take off whole.`,
    },
  ];
}

/** Nobody planes less than this off, mm: it is the width of a pencil line (common practice). */
const WORTH_PLANING_MM = 0.05;

/** Strips that are thicker off the saw than they are glued. */
export function thinnerStep(mill: Milling): StepDraft[] {
  const { context, strips } = mill;
  const { allowances, shop } = context;
  const thinner = strips.filter((s) => s.sawn > s.wanted + WORTH_PLANING_MM);
  if (thinner.length === 0) return [];
  const face = (s: MilledStrip): Face => ({
    length: s.part.blank.length,
    width: s.lane.rip - (isThinLane(s.lane, context) ? 0 : ripFatOf(shop)),
    removal: s.sawn - s.wanted,
    hardness: context.species.find((k) => k.code === s.strip.demand.species)?.hardness ?? null,
  });
  const leftFat = (s: MilledStrip) => s.strip.way.shows === 'edge' && proudBy(allowances, s.wanted) > 0;
  const jobs = new Map<string, { of: MilledStrip[]; tool: ToolId }>();
  for (const s of thinner) {
    const ways = flatteningWays([face(s)], shop, 'strip', s.wanted);
    const taken = wayTaken(ways, leftFat(s) ? 'handPlanes' : 'planer');
    const key = `${taken.id}/${s.wanted}/${s.sawn}`;
    const job = jobs.get(key) ?? { of: [], tool: toolOf(taken) };
    job.of.push(s);
    jobs.set(key, job);
  }
  const planer = shop.planer;
  const list = [...jobs.values()].sort((a, b) => b.of[0]!.wanted - a.of[0]!.wanted || b.of[0]!.sawn - a.of[0]!.sawn);
  const instructions = list.map(({ of, tool }): InstructionOf<'thickness'> => ({
    do: 'thickness',
    parts: of.map((s) => s.thing),
    faces: of.map(face),
    from: of[0]!.sawn,
    to: of[0]!.wanted,
    tool,
    strips: of.map((s) => s.strip.demand.strip),
    passes:
      tool === 'planer' && planer
        ? Math.max(...of.map((s) => passesOf(passDepthFor(planer, face(s)), face(s).removal)))
        : null,
    carrier: tool === 'planer' && planer !== null && of[0]!.wanted < planer.leastThickness - LENGTH_TOLERANCE_MM,
  }));
  const school = schoolOf(shop.schools, 'thin');
  const tools = [...new Set(list.map((j) => j.tool))];
  return tools.map((tool): StepDraft => {
    const jobsOf = list.filter((j) => j.tool === tool);
    const own = instructions.filter((i) => i.tool === tool);
    const strips = jobsOf.flatMap((j) => j.of);
    const thin = strips.some((s) => s.wanted <= allowances.proud.below);
    const ways = flatteningWays(
      own.flatMap((i) => i.faces),
      shop,
      'strip',
      Math.min(...strips.map((s) => s.wanted)),
    );
    const taken = ways.find((w) => toolOf(w) === tool)!;
    return {
      kind: 'planeStrips',
      about: tool,
      title: say`Bring the thinner strips to width`,
      taken,
      ways,
      ...(thin ? { school: 'thin' as const } : {}),
      instructions: own,
      settings: thicknessSettings(own),
      parts: partChanges(own),
      passes: Math.max(0, ...own.map((i) => i.passes ?? 0)) || null,
      lines: [
        say`Together at each setting, widest first`,
        ...(own.some((i) => i.carrier)
          ? [say`The thinnest lie on a flat carrier board through the planer: alone they shatter`]
          : []),
        ...(thin ? [say`Thin ones: ${school.name.toLowerCase()}. ${school.why}`] : []),
      ],
      why: say`These strips share a blank with wider ones, or come off the saw with a little to clean.`,
    };
  });
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
    const groups = new Map<number, MilledStrip[]>();
    for (const s of list) groups.set(s.lane.rip, [...(groups.get(s.lane.rip) ?? []), s]);
    return [...groups]
      .sort(([a], [b]) => b - a)
      .map(([, of]): InstructionOf<'joint'> => ({
        do: 'joint',
        parts: of.map((s) => s.thing),
        by,
        width: stripsOf(board)[of[0]!.strip.demand.strip - 1]!.width,
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
        numbers.length === stripsOf(board).length
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
