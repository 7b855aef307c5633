import { grouped } from '../lists/grouped.ts';
import { certain, entryOf, firstOf, nth } from '../lists/there.ts';
import { isThinFace, proudBy, ripFatOf } from '../board/allowances.ts';
import { layeringOf } from '../shop/layering.ts';
import { passesOf } from '../shop/machines.ts';
import { schoolOf } from '../shop/schools.ts';
import type { ToolId } from '../shop/tools.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { say } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { Face, InstructionOf, Thing } from './instruction.ts';
import type { Milling } from './millingPlan.ts';
import { partChanges, resawLines, thicknessSettings } from './millingWords.ts';
import type { StepDraft } from './operation.ts';
import type { Lane } from './stockWork.ts';
import { settingsOf } from './sawSettings.ts';
import { layeringWays } from './toolWays.ts';
import { flatteningWays, toolOf, passDepthFor, wayTaken } from './ways.ts';
import { cutStripsOf } from '../board/recipe.ts';

export function isThinLane(lane: Lane, { allowances, board }: PlanContext): boolean {
  const { demand, way } = firstOf(lane.strips);
  return way.shows === 'face' && isThinFace(allowances, nth(cutStripsOf(board), demand.strip - 1).width);
}

export function resawStep(mill: Milling): StepDraft[] {
  const { context, strips } = mill;
  const { shop } = context;
  const layering = layeringOf(shop);
  const lanes = grouped(strips, (s) => s.lane);
  const resawn = [...lanes].filter(([, own]) => own.some((s) => s.resawn && !s.part.blank.done));
  if (resawn.length === 0 || !layering) return [];
  const instructions = resawn.map(([lane, own]): InstructionOf<'resaw'> => {
    return {
      do: 'resaw',
      part: lane.thing,
      saw: { tool: layering.by === 'bandSaw' ? 'bandSaw' : 'tableSaw', kerf: layering.kerf },
      guide: layering.by === 'bandSaw' ? 'fence' : 'stop',
      height: lane.rip,
      from: entryOf(mill.planeTo, firstOf(own).part.thing.id),
      layers: own.map((s) => ({ part: s.thing, setting: s.sawn, strip: s.strip.demand.strip })),
      rest: firstOf(own).rest,
      clean: layering.clean,
    };
  });
  const chosen = certain(layeringWays(shop, instructions));
  return [
    {
      kind: 'resaw',
      title: firstOf(instructions).saw.tool === 'bandSaw' ? say`Resaw on the band saw` : say`Resaw on the table saw`,
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

/** A strip that comes off the saw thicker than it is glued, mm. */
export interface ToWidth {
  thing: Thing;
  strip: number;
  face: Face;
  sawn: number;
  wanted: number;
  /** Planed by hand: it is left taller than any setting. */
  byHand?: boolean;
}

/** Strips that are thicker off the saw than they are glued. */
export function thinnerStep({ context, strips }: Milling): StepDraft[] {
  const { allowances, shop } = context;
  return bringToWidth(
    context,
    strips.map((s) => ({
      thing: s.thing,
      strip: s.strip.demand.strip,
      face: {
        length: s.part.blank.length,
        width: s.lane.rip - (isThinLane(s.lane, context) ? 0 : ripFatOf(shop)),
        removal: s.sawn - s.wanted,
        hardness: context.species.find((k) => k.code === s.strip.demand.species)?.hardness ?? null,
      },
      sawn: s.sawn,
      wanted: s.wanted,
      byHand: s.strip.way.shows === 'edge' && proudBy(allowances, s.wanted) > 0,
    })),
  );
}

/** Strips off the saw brought to the width that they are glued at, a step for each tool. @param about what of the board they are; left out for strips out of the rack */
export function bringToWidth(context: PlanContext, strips: readonly ToWidth[], about?: string): StepDraft[] {
  const { allowances, shop } = context;
  const thinner = strips.filter((s) => s.sawn > s.wanted + WORTH_PLANING_MM);
  if (thinner.length === 0) return [];
  const jobs = new Map<string, { of: ToWidth[]; tool: ToolId }>();
  for (const s of thinner) {
    const ways = flatteningWays([s.face], shop, 'strip', s.wanted);
    const taken = wayTaken(ways, s.byHand ? 'handPlanes' : 'planer');
    const key = `${taken.id}/${s.wanted}/${s.sawn}`;
    const job = jobs.get(key) ?? { of: [], tool: toolOf(taken) };
    job.of.push(s);
    jobs.set(key, job);
  }
  const planer = shop.planer;
  const list = [...jobs.values()].sort(
    (a, b) => firstOf(b.of).wanted - firstOf(a.of).wanted || firstOf(b.of).sawn - firstOf(a.of).sawn,
  );
  const instructions = list.map(({ of, tool }): InstructionOf<'thickness'> => ({
    do: 'thickness',
    parts: of.map((s) => s.thing),
    faces: of.map((s) => s.face),
    from: firstOf(of).sawn,
    to: firstOf(of).wanted,
    tool,
    strips: of.map((s) => s.strip),
    passes:
      tool === 'planer' && planer
        ? Math.max(...of.map((s) => passesOf(passDepthFor(planer, s.face), s.face.removal)))
        : null,
    carrier: tool === 'planer' && planer !== null && firstOf(of).wanted < planer.leastThickness - LENGTH_TOLERANCE_MM,
  }));
  const school = schoolOf(shop.schools, 'thin');
  const tools = [...new Set(list.map((j) => j.tool))];
  return tools.map((tool): StepDraft => {
    const jobsOf = list.filter((j) => j.tool === tool);
    const own = instructions.filter((i) => i.tool === tool);
    const of = jobsOf.flatMap((j) => j.of);
    const thin = of.some((s) => s.wanted <= allowances.proud.below);
    const ways = flatteningWays(
      own.flatMap((i) => i.faces),
      shop,
      'strip',
      Math.min(...of.map((s) => s.wanted)),
    );
    const taken = certain(ways.find((w) => toolOf(w) === tool));
    return {
      kind: 'planeStrips',
      about: about === undefined ? tool : `${about} ${tool}`,
      title: about === undefined ? say`Bring the thinner strips to width` : say`Bring the accents to width`,
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
      why:
        about === undefined
          ? say`These strips share a blank with wider ones, or come off the saw with a little to clean.`
          : say`Their sawn faces become glue faces.`,
    };
  });
}
