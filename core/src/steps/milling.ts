import { isThinFace, proudBy, ripFatOf } from '../board/allowances.ts';
import type { RippedStrip } from '../cutting/cutPlan.ts';
import { alongPiece, unitGeometry } from '../cutting/unitGeometry.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import { layeringOf } from '../shop/layering.ts';
import { passesOf } from '../shop/machines.ts';
import { schoolOf } from '../shop/schools.ts';
import type { Shop } from '../shop/shop.ts';
import { crosscutTool, ripTool, roughSaw, SAFE_WIDTH_MM, thinRipOf, TOOL_NAMES, type ToolId } from '../shop/tools.ts';
import { thicknessAt } from '../stock/shape.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import type { PlanContext } from '../plan/context.ts';
import { glueThicknessReached } from '../plan/ladders.ts';
import { blankThing, stockThing, stripThing, type InstructionOf, type Thing } from './instruction.ts';
import { stripList } from './numberList.ts';
import type { StepDraft } from './operation.ts';
import { blankWork, isNarrow, sawnRest, wantedThickness, type BlankWork, type Lane, type RoughPart } from './stockWork.ts';
import { crosscutWays, layeringWays, ripWays, straightEdgeWays } from './toolWays.ts';
import { crosscutLines, flattenLines, jointLines, partChanges, remillLines, resawLines, ripLines, ripSettings, splitLines, straightenLines, thicknessSettings } from './millingWords.ts';
import { flatteningTool, flatteningWays, passDepthFor, straightEdgeTool, wayTaken, type Face } from './ways.ts';

/** A strip between the saw and the glue: where it is cut from and what it still wants. */
interface MilledStrip {
  thing: Thing;
  strip: RippedStrip;
  lane: Lane;
  part: RoughPart;
  /** Thickness off the saw, and ready for glue, mm. */
  sawn: number;
  wanted: number;
  /** Sawn through the thickness of its ripping, and what is left of that then, mm. */
  resawn: boolean;
  rest: number;
}

/** What the milling steps share. */
interface Milling {
  context: PlanContext;
  glued: number;
  panels: number;
  /** All that is or was cut, and what is still to be cut. */
  all: BlankWork[];
  open: BlankWork[];
  strips: MilledStrip[];
  /** Thickness each rough part is planed to, by its id, mm. */
  planeTo: ReadonlyMap<string, number>;
}

/** From rough stock to strips ready for glue, all pieces through one machine at one setting after the other. What is cut already is only milled on. */
export function millingSteps(context: PlanContext): StepDraft[] {
  const mill = millingOf(context);
  if (mill.all.length === 0) return [];
  return [
    ...flattenSteps(mill, 'fullLength'), ...crosscutStep(mill), ...splitStep(mill), ...flattenSteps(mill, 'blanks'), ...straightenStep(mill), ...ripStep(mill), ...remillStep(mill),
    ...resawStep(mill), ...thinnerStep(mill), ...jointStep(mill),
  ];
}

export function millingOf(context: PlanContext): Milling {
  const glued = glueThicknessReached(context);
  const all = context.cutting.blanks.flatMap((blank) => {
    const piece = context.pieces.get(blank.pieceId);
    return piece ? [blankWork(blank, piece, context.shop, glued)] : [];
  });
  const planeTo = planedThicknesses(all, context.shop);
  const strips = all.flatMap((work) => work.parts.flatMap((part) => part.lanes.flatMap((lane) => stripsOfLane(lane, part, planeTo.get(part.thing.id)!, context, glued))));
  return { context, glued, panels: context.allowances.panels.length, all, open: all.filter((w) => !w.blank.done), strips, planeTo };
}

/**
 * All parts of a piece are planed to what the thickest of their strips wants, if they give it; strips that were ripped first each to their own. What would be planed to
 * shavings, where a saw can take it off whole, stays as thick as it can.
 */
function planedThicknesses(all: readonly BlankWork[], shop: Shop): Map<string, number> {
  const planeTo = new Map<string, number>();
  for (const work of all) {
    const together = all.filter((w) => w.piece.id === work.piece.id && w.blank.done === work.blank.done && w.split !== 'ripFirst').flatMap((w) => w.parts.flatMap((p) => p.lanes));
    for (const part of work.parts) {
      const own = Math.max(...part.lanes.map((l) => l.need));
      const wanted = thicknessTogether(work.split === 'ripFirst' ? part.lanes : together, shop);
      planeTo.set(part.thing.id, Math.max(own, Math.min(wanted, ...part.lanes.map((l) => l.planed))));
    }
  }
  return planeTo;
}

function thicknessTogether(lanes: readonly Lane[], shop: Shop): number {
  const most = Math.max(...lanes.map((l) => l.need));
  const thickest = lanes.filter((l) => l.need >= most - LENGTH_TOLERANCE_MM);
  return thickest.every((l) => l.strips.length === 1 && sawnRest(l.strips, l.planed, l.need, shop) > 0) ? Math.min(...thickest.map((l) => l.planed)) : most;
}

function stripsOfLane(lane: Lane, part: RoughPart, thickness: number, context: PlanContext, glued: number): MilledStrip[] {
  const layering = layeringOf(context.shop);
  const last = lane.strips.length - 1;
  return lane.strips.map((strip, i) => {
    const wanted = wantedThickness(strip, lane.strips.length, glued);
    const rest = layering ? sawnRest(lane.strips, thickness, lane.strips.length === 1 ? wanted : strip.way.thickness, context.shop) : 0;
    const resawn = lane.strips.length > 1 || rest > 0;
    // The last layer is what is left, unless a rest is sawn off it.
    const used = lane.strips.slice(0, last).reduce((sum, s) => sum + s.way.thickness + (layering ? layering.kerf + 2 * layering.clean : 0), 0);
    const sawn = !resawn || !layering ? thickness : i < last || rest > 0 ? strip.way.thickness + layering.clean : thickness - used + layering.clean;
    return { thing: stripThing(strip.demand, context.allowances.panels.length), strip, lane, part, sawn: resawn && lane.strips.length === 1 && layering ? wanted + layering.clean : sawn, wanted, resawn, rest };
  });
}

/** Stock of which anything is flattened at full length is flattened whole. */
const orderedFull = (work: BlankWork, among: readonly BlankWork[]) => among.some((w) => w.piece.id === work.piece.id && w.blank.unit === work.blank.unit && w.blank.strips.some((s) => s.order === 'fullLength'));

function flattenSteps(mill: Milling, when: 'fullLength' | 'blanks'): StepDraft[] {
  const { context } = mill;
  const { board, shop } = context;
  const mine = mill.open.filter((w) => orderedFull(w, mill.open) === (when === 'fullLength'));
  const jobs = flattenJobs(mine, mill, when === 'fullLength');
  if (jobs.length === 0) return [];
  const ways = flatteningWays(jobs.flatMap((j) => j.faces), shop, 'stock');
  const taken = wayTaken(ways, 'planer');
  const tool = flatteningTool(taken.id);
  const instructions = jobs.map(({ things, from, to, faces }): InstructionOf<'flatten'> => {
    const passes = tool === 'planer' && shop.planer ? Math.max(...faces.map((f) => passesOf(passDepthFor(shop.planer!, f), f.removal))) : null;
    return { do: 'flatten', parts: things, from, to, passes, tool, narrowest: Math.min(...faces.map((f) => f.width)), first: tool !== 'planer' ? 'asItIs' : taken.name.startsWith('Jointer') ? 'jointer' : 'sled' };
  }).sort((a, b) => b.to - a.to);
  return [{
    kind: 'flatten', title: when === 'fullLength' ? say`Flatten at full length` : say`Flatten one face, make the other parallel`, machine: taken.name, minutes: taken.minutes, ways, passes: taken.passes, instructions,
    settings: thicknessSettings(instructions), parts: partChanges(instructions), lines: flattenLines(instructions, taken.name),
    why: when === 'fullLength' ? say`Cut to length these parts would be too short for the machine, or lose more.`
      : board.construction === 'edge' ? say`Turned on edge, these faces are the glue joints, and their distance is the width that shows.` : say`All strips are planed to the one thickness the panel is glued at.`,
  }];
}

/** What is flattened as one job: parts of a piece to one thickness. Parts that are flat and thin enough already are left alone. */
function flattenJobs(works: readonly BlankWork[], { planeTo, context }: Milling, whole: boolean): { things: Thing[]; from: number; to: number; faces: Face[] }[] {
  const jobs = new Map<string, { things: Thing[]; from: number; to: number; faces: Face[] }>();
  for (const work of works) {
    const { piece, blank } = work;
    const hardness = context.species.find((s) => s.code === piece.species)?.hardness ?? null;
    for (const part of work.parts) {
      const to = planeTo.get(part.thing.id)!;
      const ends: [number, number] = whole ? [0, piece.length] : [blank.from, blank.from + blank.length];
      const from = Math.max(thicknessAt(piece, ends[0]), thicknessAt(piece, ends[1]));
      if (from - to < LENGTH_TOLERANCE_MM && piece.surface === 'ready') continue;
      const thing = whole ? stockThing(piece, blank.unit) : part.thing;
      // Whole stock is flattened once, to what the thickest of its strips wants.
      const key = whole ? thing.id : `${piece.id}/${to}`;
      const job = jobs.get(key) ?? { things: [], from: 0, to, faces: [] };
      jobs.set(key, job);
      if (job.things.some((t) => t.id === thing.id)) {
        job.to = Math.max(job.to, to);
        continue;
      }
      job.things.push(thing);
      job.from = Math.max(job.from, from);
      job.faces.push({ length: ends[1] - ends[0], width: whole ? piece.width : part.to - part.from, removal: from - to, hardness });
    }
  }
  return [...jobs.values()];
}

function crosscutStep({ context, open }: Milling): StepDraft[] {
  if (open.length === 0) return [];
  const { allowances, board, shop } = context;
  const instructions = crosscuts(open, shop);
  const { ways, taken } = crosscutWays(shop, instructions.reduce((sum, i) => sum + i.cuts.length + 1, 0));
  const lengths = [...new Set(instructions.flatMap((i) => i.cuts.map((c) => c.length)))].sort((a, b) => b - a);
  const stop: Partial<Record<ToolId, string>> = { mitreSaw: 'Stop', sled: 'Stop' };
  return [{
    kind: 'crosscut', title: say`Crosscut the blanks`, habit: 'stockEndTrim', ways, machine: taken.name, minutes: taken.minutes, instructions,
    settings: lengths.map((mm) => ({ label: stop[crosscutTool(shop)] ?? 'Mark', value: { mm, rounding: 'up' } })), lines: instructions.flatMap(crosscutLines),
    why: say`Short blanks lose less thickness to bow than a whole plank. The length carries ${length(allowances.roughLength - board.length)} for creep, snipe and both end cuts.`,
  }];
}

/** One instruction a piece of stock; places from the end that is cut first. */
function crosscuts(open: readonly BlankWork[], shop: Shop): InstructionOf<'crosscut'>[] {
  const { kerf } = shop.crosscutSaw;
  const stocks = new Map<string, BlankWork[]>();
  for (const work of open) {
    const { id } = stockThing(work.piece, work.blank.unit);
    stocks.set(id, [...(stocks.get(id) ?? []), work]);
  }
  return [...stocks.values()].flatMap((works): InstructionOf<'crosscut'>[] => {
    const { piece, blank: { unit } } = works[0]!;
    const geometry = unitGeometry(piece, shop, []);
    const placed = works.map(({ blank }) => ({ part: blankThing(piece, unit, blank.number), at: alongPiece(geometry, blank.from, blank.length), length: blank.length })).sort((a, b) => a.at - b.at);
    let next = 0;
    const cuts = placed.map((cut, i) => {
      const gap = i === 0 ? 0 : Math.max(0, cut.at - next);
      next = cut.at + cut.length + kerf;
      return { ...cut, gap: gap > LENGTH_TOLERANCE_MM ? gap : 0 };
    });
    // Ready stock as long as it is wanted is not cut at all.
    if (cuts.length === 1 && cuts[0]!.at < LENGTH_TOLERANCE_MM && cuts[0]!.length > piece.length - LENGTH_TOLERANCE_MM) {
      return [{ do: 'crosscut', part: stockThing(piece, unit), end: 'marked', trim: 0, saw: { tool: 'hands', kerf: 0 }, cuts }];
    }
    return [{ do: 'crosscut', part: stockThing(piece, unit), end: geometry.mirrored ? 'far' : 'marked', trim: cuts[0]!.at > LENGTH_TOLERANCE_MM ? cuts[0]!.at : 0, saw: { tool: crosscutTool(shop), kerf }, cuts }];
  });
}

function splitStep({ context, open }: Milling): StepDraft[] {
  const works = open.filter((w) => w.split !== null);
  if (works.length === 0) return [];
  const { shop } = context;
  const saw = roughSaw(shop);
  const instructions = works.map((work): InstructionOf<'split'> => ({
    do: 'split', part: work.thing, saw, why: work.split!, parts: work.parts.map((p) => ({ part: p.thing, from: p.from, to: p.to })),
  }));
  const metal = works.some((w) => w.split === 'metal');
  return [{
    kind: 'split', title: metal ? say`Saw round the metal, before any knife` : say`Saw the rough blanks apart`, machine: TOOL_NAMES[saw.tool], instructions,
    minutes: 3 + works.reduce((sum, w) => sum + w.parts.length, 0) * 2 * shop.pace.work, lines: splitLines(instructions, flattenerLimits(shop).width),
    why: metal ? say`A nail takes the teeth off a blade and the edge off every knife; what holds it never meets the jointer or the planer.` : say`Narrower parts are flat sooner, and lose less; a rough edge never runs along a table saw's fence.`,
  }];
}

function straightenStep({ context, open }: Milling): StepDraft[] {
  const { shop } = context;
  const parts = open.flatMap((w) => w.parts).filter((p) => p.straighten > LENGTH_TOLERANCE_MM);
  if (parts.length === 0) return [];
  const tool = straightEdgeTool(shop, Math.min(...parts.map((p) => p.blank.length)), true);
  const narrow = straightEdgeTool({ ...shop, jointer: null }, 0, true);
  const groups = new Map<string, InstructionOf<'straighten'>>();
  for (const part of parts) {
    // Straight off the saw: a far edge that is straight runs along the fence, and the near one is sawn parallel.
    const alongFar = shop.schools.straightEdge === 'offSaw' && part.piece.straight === 'far' && part.from === 0 && part.toFarEdge;
    const group: InstructionOf<'straighten'> = { do: 'straighten', parts: [], by: part.straighten, tool: alongFar ? ripTool(shop) : isNarrow(part.to - part.from) ? narrow.tool : tool.tool };
    const key = `${group.tool}/${group.by}`;
    groups.set(key, { ...group, parts: [...(groups.get(key)?.parts ?? []), part.thing] });
  }
  const instructions = [...groups.values()].sort((a, b) => b.by - a.by);
  const { ways, taken } = straightEdgeWays(shop, parts.length, tool.id);
  const school = schoolOf({ ...shop.schools, straightEdge: tool.id }, 'straightEdge');
  return [{
    kind: 'jointEdge', title: say`Straighten one edge of each blank`, habit: 'stockEdgeJoint', school: 'straightEdge', machine: taken.name, ways, minutes: taken.minutes, instructions,
    lines: straightenLines(instructions, school, tool.id === shop.schools.straightEdge ? null : schoolOf(shop.schools, 'straightEdge')),
    why: say`A straight edge against the fence keeps the rip parallel and the piece from binding. ${school.why}`,
  }];
}

/** With what a rip is made, and along what it is guided. */
function ripOf(lane: Lane, context: PlanContext, parallel: number): Pick<InstructionOf<'rip'>, 'saw' | 'guide' | 'parallel'> {
  const { shop } = context;
  const thin = isThinLane(lane, context) ? thinRipOf(shop) : null;
  const saw = thin ? { tool: thin.tool, kerf: thin.kerf } : { tool: ripTool(shop), kerf: shop.saw.kerf };
  const guide = thin ? thin.guide : shop.saw.kind === 'circular' ? 'guide' : shop.saw.kind === 'hand' ? 'line' : isNarrow(lane.rip) ? 'stop' : 'fence';
  if (guide !== 'stop') return { saw, guide, parallel: null };
  return parallel < SAFE_WIDTH_MM ? { saw, guide: 'carrier', parallel: null } : { saw, guide, parallel };
}

/** The rips of a part, cut after cut from its straight edge; neighbours that are made alike are told together. */
function ripsOfPart(part: RoughPart, context: PlanContext, panels: number, whole: (lane: Lane) => boolean): InstructionOf<'rip'>[] {
  const list: InstructionOf<'rip'>[] = [];
  const lastLane = part.lanes.at(-1)!;
  let edge = part.from + part.straighten;
  let kerf = 0;
  for (const lane of part.lanes) {
    const how = ripOf(lane, context, lastLane.from + lastLane.rip - edge - kerf);
    const skip = lane.from - edge - kerf;
    const [only] = lane.strips;
    const thing = whole(lane) ? lane.thing : stripThing(only!.demand, panels);
    const cut = { part: thing, at: lane.from, width: lane.rip, skip: skip > LENGTH_TOLERANCE_MM ? skip : 0, strips: lane.strips.map((s) => s.demand.strip) };
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
  return asItIs && cuts.length === 1 && part.lanes.length === 1 && cuts[0]!.at - part.from < LENGTH_TOLERANCE_MM && part.to - cuts[0]!.at - cuts[0]!.width < LENGTH_TOLERANCE_MM;
}

function ripStep({ context, open, panels, strips }: Milling): StepDraft[] {
  const { shop, board } = context;
  const resawn = new Set(strips.filter((s) => s.resawn).map((s) => s.lane));
  const instructions = open.flatMap((w) => w.parts).flatMap((p) => ripsOfPart(p, context, panels, (lane) => resawn.has(lane)));
  const cut = instructions.filter((i) => i.saw.tool !== 'hands');
  if (instructions.length === 0) return [];
  const fat = ripFatOf(shop);
  const count = cut.reduce((sum, i) => sum + i.cuts.length, 0);
  const { ways, taken } = ripWays(shop, count);
  const kept = cut.length === 0;
  return [{
    kind: 'rip', title: kept ? say`The strips are as wide as they must be` : fat > 0 ? say`Rip the strips ${length(fat)} fat` : say`Rip the strips`, ways: kept ? [] : ways, machine: kept ? null : taken.name, minutes: kept ? 0 : taken.minutes,
    school: fat > 0 ? 'rip' : 'measuring', habit: fat > 0 ? 'ripFat' : null,
    instructions: fat > 0 ? [...instructions, { do: 'wait', parts: [], minutes: REST_MINUTES, for: 'the strips to rest' }, { do: 'fat', by: fat }] : instructions,
    settings: ripSettings(cut), lines: ripLines(instructions, { relative: shop.schools.measuring === 'relative', rest: fat > 0 }),
    ...(fat > 0 ? { waitMinutes: REST_MINUTES, waitFor: 'the strips to rest' } : {}),
    why: board.construction === 'edge'
      ? say`The rip is the panel's thickness as glued: finished ${length(board.thickness)} and what flattening and sanding take${fat > 0 ? ', and what is milled again' : ''}.`
      : say`The rip is the strip's width in the panel and what jointing takes off both edges.`,
  }];
}

/** Strips that were ripped fat lie on stickers overnight (common practice). */
const REST_MINUTES = 720;

function remillStep({ context, strips }: Milling): StepDraft[] {
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
  const instructions = [...rips].sort(([a], [b]) => b - a).map(([rip, things]): InstructionOf<'remill'> => ({ do: 'remill', parts: things, from: rip, to: rip - fat, tool: remillTool(shop, rip - fat) }));
  const count = instructions.reduce((sum, i) => sum + i.parts.length, 0);
  return [{
    kind: 'remill', title: say`Mill the rested strips to size`, school: 'rip', habit: 'ripFat', machine: TOOL_NAMES[instructions[0]!.tool], minutes: 4 + count * 2 * shop.pace.work, instructions,
    settings: instructions.map((i) => ({ label: 'To', value: { mm: i.to, rounding: 'up' } })),
    parts: instructions.map((i) => ({ part: i.parts.length === 1 ? '1 strip' : `${i.parts.length} strips`, dimension: board.construction === 'edge' ? 'thickness' : 'width', before: i.from, after: i.to, passes: null })),
    lines: remillLines(instructions), why: say`A strip that is milled after it has sprung stays straight in the panel.`,
  }];
}

/** One edge straight, the other parallel: on the jointer and the saw, or by hand. */
function remillTool(shop: Shop, width: number): ToolId {
  if (shop.jointer && width >= SAFE_WIDTH_MM) return 'jointer';
  return shop.handTools.planes ? 'handPlanes' : ripTool(shop) === 'tableSaw' ? 'carrierSled' : 'batten';
}

function isThinLane(lane: Lane, { allowances, board }: PlanContext): boolean {
  const { demand, way } = lane.strips[0]!;
  return way.shows === 'face' && isThinFace(allowances, board.strips[demand.strip - 1]!.width);
}

function resawStep(mill: Milling): StepDraft[] {
  const { context, strips } = mill;
  const { shop } = context;
  const layering = layeringOf(shop);
  const lanes = [...new Set(strips.filter((s) => s.resawn && !s.part.blank.done).map((s) => s.lane))];
  if (lanes.length === 0 || !layering) return [];
  const instructions = lanes.map((lane): InstructionOf<'resaw'> => {
    const own = strips.filter((s) => s.lane === lane);
    return {
      do: 'resaw', part: lane.thing, saw: { tool: layering.by === 'bandSaw' ? 'bandSaw' : 'tableSaw', kerf: layering.kerf }, guide: layering.by === 'bandSaw' ? 'fence' : 'stop', from: mill.planeTo.get(own[0]!.part.thing.id)!,
      layers: own.map((s) => ({ part: s.thing, setting: s.sawn, strip: s.strip.demand.strip })), rest: own[0]!.rest, clean: layering.clean,
    };
  });
  const chosen = layeringWays(shop, instructions.reduce((sum, i) => sum + i.layers.length, 0), Math.max(0, ...lanes.map((l) => l.rip)))!;
  return [{
    kind: 'resaw', title: layering.by === 'bandSaw' ? say`Resaw on the band saw` : say`Resaw on the table saw`, school: 'thin', ways: chosen.ways, machine: chosen.taken.name, minutes: chosen.taken.minutes, instructions,
    settings: [...new Set(instructions.flatMap((i) => i.layers.slice(0, i.rest > 0 ? undefined : -1).map((l) => l.setting)))].sort((a, b) => b - a).map((mm) => ({ label: layering.by === 'bandSaw' ? 'Band saw fence' : 'Stop from the blade', value: { mm, rounding: 'up' } })),
    lines: resawLines(instructions), why: say`One thick ripping gives several thin strips, their grain matches, and nothing is planed to shavings that a saw can take off whole.`,
  }];
}

/** Nobody planes less than this off, mm: it is the width of a pencil line (common practice). */
const WORTH_PLANING_MM = 0.05;

/** Strips that are thicker off the saw than they are glued. */
function thinnerStep(mill: Milling): StepDraft[] {
  const { context, strips } = mill;
  const { allowances, shop } = context;
  const thinner = strips.filter((s) => s.sawn > s.wanted + WORTH_PLANING_MM);
  if (thinner.length === 0) return [];
  const face = (s: MilledStrip): Face => ({ length: s.part.blank.length, width: s.lane.rip - (isThinLane(s.lane, context) ? 0 : ripFatOf(shop)), removal: s.sawn - s.wanted, hardness: context.species.find((k) => k.code === s.strip.demand.species)?.hardness ?? null });
  const leftFat = (s: MilledStrip) => s.strip.way.shows === 'edge' && proudBy(allowances, s.wanted) > 0;
  const jobs = new Map<string, { of: MilledStrip[]; tool: ToolId }>();
  for (const s of thinner) {
    const ways = flatteningWays([face(s)], shop, 'strip', s.wanted);
    const taken = wayTaken(ways, leftFat(s) ? 'handPlanes' : 'planer');
    const key = `${taken.id}/${s.wanted}/${s.sawn}`;
    const job = jobs.get(key) ?? { of: [], tool: flatteningTool(taken.id) };
    job.of.push(s);
    jobs.set(key, job);
  }
  const planer = shop.planer;
  const list = [...jobs.values()].sort((a, b) => b.of[0]!.wanted - a.of[0]!.wanted || b.of[0]!.sawn - a.of[0]!.sawn);
  const instructions = list.map(({ of, tool }): InstructionOf<'thickness'> => ({
    do: 'thickness', parts: of.map((s) => s.thing), from: of[0]!.sawn, to: of[0]!.wanted, tool, strips: of.map((s) => s.strip.demand.strip),
    passes: tool === 'planer' && planer ? Math.max(...of.map((s) => passesOf(passDepthFor(planer, face(s)), face(s).removal))) : null,
    carrier: tool === 'planer' && planer !== null && of[0]!.wanted < planer.leastThickness - LENGTH_TOLERANCE_MM,
  }));
  const school = schoolOf(shop.schools, 'thin');
  const tools = [...new Set(list.map((j) => j.tool))];
  return tools.map((tool): StepDraft => {
    const jobsOf = list.filter((j) => j.tool === tool);
    const own = instructions.filter((i) => i.tool === tool);
    const strips = jobsOf.flatMap((j) => j.of);
    const thin = strips.some((s) => s.wanted <= allowances.proud.below);
    const ways = flatteningWays(strips.map(face), shop, 'strip', Math.min(...strips.map((s) => s.wanted)));
    const taken = ways.find((w) => flatteningTool(w.id) === tool)!;
    return {
      kind: 'planeStrips', title: say`Bring the thinner strips to width`, machine: taken.name, ways, minutes: taken.minutes, ...(thin ? { school: 'thin' as const } : {}), instructions: own,
      settings: thicknessSettings(own), parts: partChanges(own), passes: Math.max(0, ...own.map((i) => i.passes ?? 0)) || null,
      lines: [say`Together at each setting, widest first`, ...(own.some((i) => i.carrier) ? [say`The thinnest lie on a flat carrier board through the planer: alone they shatter`] : []), ...(thin ? [say`Thin ones: ${school.name.toLowerCase()}. ${school.why}`] : [])],
      why: say`These strips share a blank with wider ones, or come off the saw with a little to clean.`,
    };
  });
}

function jointStep({ context, strips }: Milling): StepDraft[] {
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
    return [...groups].sort(([a], [b]) => b - a).map(([, of]): InstructionOf<'joint'> => ({ do: 'joint', parts: of.map((s) => s.thing), by, width: board.strips[of[0]!.strip.demand.strip - 1]!.width, tool: with_, strips: of.map((s) => s.strip.demand.strip) }));
  };
  const instructions: InstructionOf<'joint'>[] = [
    ...(asSawn || shop.habits.glueEdgeJoint <= 0 ? [] : byWidth(wide, shop.habits.glueEdgeJoint, tool.tool)),
    ...(allowances.thinFace.extra > 0 ? byWidth(thin, allowances.thinFace.extra / 2, shop.handTools.planes ? 'handPlanes' : 'sandingBlock') : []),
  ];
  if (instructions.length === 0) return [];
  const numbers = [...new Set(instructions.flatMap((i) => i.strips))];
  const count = instructions.reduce((sum, i) => sum + i.parts.length, 0);
  const { ways, taken } = straightEdgeWays(shop, 2 * count, tool.id);
  return [{
    kind: 'jointStrips', title: numbers.length === board.strips.length ? say`Joint both edges of each strip` : say`Joint both edges of ${stripList(numbers)}`, habit: 'glueEdgeJoint', school: 'edgeMarks',
    machine: taken.name, ways, minutes: taken.minutes, instructions, lines: jointLines(instructions, marks),
    why: say`A glue joint wants a fresh, straight, square edge. Narrow strips stay off every machine: they are cleaned by hand, or glued as the saw left them.`,
  }];
}
