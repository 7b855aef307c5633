import { grouped } from '../lists/grouped.ts';
import { certain, entryOf, firstOf } from '../lists/there.ts';
import { alongPiece, unitGeometry } from '../cutting/unitGeometry.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import { passesOf } from '../shop/machines.ts';
import { schoolOf } from '../shop/schools.ts';
import type { Shop } from '../shop/shop.ts';
import { crosscutTool, ripTool, roughSaw, TOOL_NAMES } from '../shop/tools.ts';
import { thicknessAt } from '../stock/shape.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import { blankThing, stockThing, type Face, type InstructionOf, type Thing } from './instruction.ts';
import type { Milling } from './millingPlan.ts';
import {
  crosscutLines,
  flattenLines,
  partChanges,
  splitLines,
  straightenLines,
  thicknessSettings,
} from './millingWords.ts';
import type { StepDraft } from './operation.ts';
import { settingsOf } from './sawSettings.ts';
import { isNarrow, type BlankWork } from './stockWork.ts';
import { crosscutWays, straightEdgeWays } from './toolWays.ts';
import { flatteningWays, toolOf, passDepthFor, straightEdgeTool, wayTaken } from './ways.ts';

/** Stock of which anything is flattened at full length is flattened whole. */
function flattenedWhole(works: readonly BlankWork[]): ReadonlySet<string> {
  const full = works.filter(({ blank }) => blank.strips.some((s) => s.order === 'fullLength'));
  return new Set(full.map(stockOf));
}

const stockOf = ({ piece, blank }: BlankWork): string => stockThing(piece, blank.unit).id;

export function flattenSteps(mill: Milling, when: 'fullLength' | 'blanks'): StepDraft[] {
  const { context } = mill;
  const { board, shop } = context;
  const whole = flattenedWhole(mill.open);
  const mine = mill.open.filter((w) => whole.has(stockOf(w)) === (when === 'fullLength'));
  const jobs = flattenJobs(mine, mill, when === 'fullLength');
  if (jobs.length === 0) return [];
  const ways = flatteningWays(
    jobs.flatMap((j) => j.faces),
    shop,
    'stock',
  );
  const taken = wayTaken(ways, 'planer');
  const tool = toolOf(taken);
  const instructions = jobs
    .map(({ things, from, to, faces }): InstructionOf<'flatten'> => {
      const passes =
        tool === 'planer' && shop.planer
          ? Math.max(...faces.map((f) => passesOf(passDepthFor(certain(shop.planer), f), f.removal)))
          : null;
      return {
        do: 'flatten',
        parts: things,
        faces,
        from,
        to,
        passes,
        tool,
        first: tool !== 'planer' ? 'asItIs' : taken.name.startsWith('Jointer') ? 'jointer' : 'sled',
      };
    })
    .sort((a, b) => b.to - a.to);
  return [
    {
      kind: 'flatten',
      about: when,
      title: when === 'fullLength' ? say`Flatten at full length` : say`Flatten one face, make the other parallel`,
      taken,
      ways,
      passes: taken.passes,
      instructions,
      settings: thicknessSettings(instructions),
      parts: partChanges(instructions),
      lines: flattenLines(instructions, taken.name),
      why:
        when === 'fullLength'
          ? say`Cut to length these parts would be too short for the machine, or lose more.`
          : board.construction === 'edge'
            ? say`Turned on edge, these faces are the glue joints, and their distance is the width that shows.`
            : say`All strips are planed to the one thickness the panel is glued at.`,
    },
  ];
}

/** What is flattened as one job: parts of a piece to one thickness. Parts that are flat and thin enough already are left alone. */
function flattenJobs(
  works: readonly BlankWork[],
  { planeTo, context }: Milling,
  whole: boolean,
): { things: Thing[]; from: number; to: number; faces: Face[] }[] {
  const jobs = new Map<string, { things: Thing[]; from: number; to: number; faces: Face[] }>();
  const begun = new Set<string>();
  for (const work of works) {
    const { piece, blank } = work;
    const hardness = context.species.find((s) => s.code === piece.species)?.hardness ?? null;
    for (const part of work.parts) {
      const to = entryOf(planeTo, part.thing.id);
      const ends: [number, number] = whole ? [0, piece.length] : [blank.from, blank.from + blank.length];
      const from = Math.max(thicknessAt(piece, ends[0]), thicknessAt(piece, ends[1]));
      if (from - to < LENGTH_TOLERANCE_MM && piece.surface === 'ready') continue;
      const thing = whole ? stockThing(piece, blank.unit) : part.thing;
      // Whole stock is flattened once, to what the thickest of its strips wants.
      const key = whole ? thing.id : `${piece.id}/${to}`;
      const job = jobs.get(key) ?? { things: [], from: 0, to, faces: [] };
      jobs.set(key, job);
      if (begun.has(`${key} ${thing.id}`)) {
        job.to = Math.max(job.to, to);
        continue;
      }
      begun.add(`${key} ${thing.id}`);
      job.things.push(thing);
      job.from = Math.max(job.from, from);
      job.faces.push({
        length: ends[1] - ends[0],
        width: whole ? piece.width : part.to - part.from,
        removal: from - to,
        hardness,
      });
    }
  }
  return [...jobs.values()];
}

export function crosscutStep({ context, open }: Milling): StepDraft[] {
  if (open.length === 0) return [];
  const { allowances, board, shop } = context;
  const instructions = crosscuts(open, shop);
  const { ways, taken } = crosscutWays(shop, instructions);
  return [
    {
      kind: 'crosscut',
      title: say`Crosscut the blanks`,
      habit: 'stockEndTrim',
      ways,
      taken,
      instructions,
      settings: settingsOf(instructions),
      lines: instructions.flatMap(crosscutLines),
      why: say`Short blanks lose less thickness to bow than a whole plank. The length carries ${length(allowances.roughLength - board.length)} for creep, snipe and both end cuts.`,
    },
  ];
}

/** One instruction a piece of stock; places from the end that is cut first. */
function crosscuts(open: readonly BlankWork[], shop: Shop): InstructionOf<'crosscut'>[] {
  const { kerf } = shop.crosscutSaw;
  const stocks = grouped(open, stockOf);
  return [...stocks.values()].flatMap((works): InstructionOf<'crosscut'>[] => {
    const {
      piece,
      blank: { unit },
    } = firstOf(works);
    const geometry = unitGeometry(piece, shop, []);
    const placed = works
      .map(({ blank }) => ({
        part: blankThing(piece, unit, blank.number),
        at: alongPiece(geometry, blank.from, blank.length),
        length: blank.length,
      }))
      .sort((a, b) => a.at - b.at);
    let next = 0;
    const cuts = placed.map((cut, i) => {
      const gap = i === 0 ? 0 : Math.max(0, cut.at - next);
      next = cut.at + cut.length + kerf;
      return { ...cut, gap: gap > LENGTH_TOLERANCE_MM ? gap : 0 };
    });
    // Ready stock as long as it is wanted is not cut at all.
    if (
      cuts.length === 1 &&
      firstOf(cuts).at < LENGTH_TOLERANCE_MM &&
      firstOf(cuts).length > piece.length - LENGTH_TOLERANCE_MM
    ) {
      return [
        {
          do: 'crosscut',
          part: stockThing(piece, unit),
          end: 'marked',
          trim: 0,
          saw: { tool: 'hands', kerf: 0 },
          cuts,
        },
      ];
    }
    return [
      {
        do: 'crosscut',
        part: stockThing(piece, unit),
        end: geometry.mirrored ? 'far' : 'marked',
        trim: firstOf(cuts).at > LENGTH_TOLERANCE_MM ? firstOf(cuts).at : 0,
        saw: { tool: crosscutTool(shop), kerf },
        cuts,
      },
    ];
  });
}

export function splitStep({ context, open }: Milling): StepDraft[] {
  const works = open.filter((w) => w.split !== null);
  if (works.length === 0) return [];
  const { shop } = context;
  const saw = roughSaw(shop);
  const instructions = works.map((work): InstructionOf<'split'> => ({
    do: 'split',
    part: work.thing,
    saw,
    why: certain(work.split),
    parts: work.parts.map((p) => ({ part: p.thing, from: p.from, to: p.to })),
  }));
  const metal = works.some((w) => w.split === 'metal');
  return [
    {
      kind: 'split',
      title: metal ? say`Saw round the metal, before any knife` : say`Saw the rough blanks apart`,
      machine: TOOL_NAMES[saw.tool],
      instructions,
      lines: splitLines(instructions, flattenerLimits(shop).width),
      why: metal
        ? say`A nail takes the teeth off a blade and the edge off every knife; what holds it never meets the jointer or the planer.`
        : say`Narrower parts are flat sooner, and lose less; a rough edge never runs along a table saw's fence.`,
    },
  ];
}

export function straightenStep({ context, open }: Milling): StepDraft[] {
  const { shop } = context;
  const parts = open.flatMap((w) => w.parts).filter((p) => p.straighten > LENGTH_TOLERANCE_MM);
  if (parts.length === 0) return [];
  const tool = straightEdgeTool(shop, Math.min(...parts.map((p) => p.blank.length)), true);
  const narrow = straightEdgeTool({ ...shop, jointer: null }, 0, true);
  const groups = new Map<string, InstructionOf<'straighten'>>();
  for (const part of parts) {
    // Straight off the saw: a far edge that is straight runs along the fence, and the near one is sawn parallel.
    const alongFar =
      shop.schools.straightEdge === 'offSaw' && part.piece.straight === 'far' && part.from === 0 && part.toFarEdge;
    const by = part.straighten;
    const with_ = alongFar ? ripTool(shop) : isNarrow(part.to - part.from) ? narrow.tool : tool.tool;
    const group = groups.get(`${with_}/${by}`) ?? { do: 'straighten', parts: [], by, tool: with_ };
    group.parts.push(part.thing);
    groups.set(`${with_}/${by}`, group);
  }
  const instructions = [...groups.values()].sort((a, b) => b.by - a.by);
  const { ways, taken } = straightEdgeWays(shop, instructions, tool.id);
  const school = schoolOf({ ...shop.schools, straightEdge: tool.id }, 'straightEdge');
  return [
    {
      kind: 'jointEdge',
      title: say`Straighten one edge of each blank`,
      habit: 'stockEdgeJoint',
      school: 'straightEdge',
      taken,
      ways,
      instructions,
      lines: straightenLines(
        instructions,
        school,
        tool.id === shop.schools.straightEdge ? null : schoolOf(shop.schools, 'straightEdge'),
      ),
      why: say`A straight edge against the fence keeps the rip parallel and the piece from binding. ${school.why}`,
    },
  ];
}
