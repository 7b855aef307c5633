import type { Turn } from '../board/recipe.ts';
import { MITRE_REACH_MM } from '../shop/tools.ts';
import type { InstructionOf, Thing } from '../steps/instruction.ts';
import { firstOf } from '../lists/there.ts';
import type { Laid, Made, Panel, Slice } from './bench.ts';
import { inTime, pressed } from './panelWork.ts';
import { FINE, TOLERANCE, type Bench } from './makersBench.ts';

type Point = readonly [number, number, number];

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** Edges of the strips across a panel as it is now, mm from its far edge. */
export function edgesOf(panel: Panel): { strip: Laid; from: number; to: number }[] {
  let at = -panel.trimmedFar;
  return panel.strips.map((strip) => {
    const from = at;
    at += strip.width;
    return { strip, from, to: at };
  });
}

/** Along the normal of the cuts: where the first lies that leaves every strip whole, so much in from the end of each, and where the last one may. */
function wholeBetween(panel: Panel, angle: number, end: number): { from: number; to: number } {
  const a = radians(angle);
  const within = (y: number) => Math.min(Math.max(y, 0), panel.width);
  const at = (inset: number) =>
    edgesOf(panel).flatMap(({ strip, from, to }) =>
      [from, to].map((y) => ((strip.ahead ?? 0) + inset) * Math.cos(a) + within(y) * Math.sin(a)),
    );
  return { from: Math.max(...at(end)), to: Math.min(...at(panel.length)) };
}

export function slicePanel(bench: Bench, i: InstructionOf<'slice'>): void {
  const panel = bench.panels.get(i.part.id);
  if (!panel || bench.used.has(i.part.id)) return bench.fail('missingPart', i, i.part);
  bench.used.add(i.part.id);
  bench.tool(i.saw.tool, i, i.part);
  if (!panel.flat) bench.fail('notFlat', i, i.part);
  const deep = panel.width / Math.cos(radians(i.angle));
  if (i.saw.tool === 'mitreSaw' && deep > MITRE_REACH_MM + FINE)
    bench.fail('tooWideForMachine', i, i.part, { is: deep, limit: MITRE_REACH_MM });
  const whole = wholeBetween(panel, i.angle, i.end);
  let from = whole.from + i.saw.kerf;
  for (const thing of i.slices) {
    if (from + i.pitch > whole.to + FINE)
      bench.fail('notEnoughLength', i, thing, { is: Math.max(0, whole.to - from), limit: i.pitch });
    bench.slices.set(thing.id, {
      thing,
      panel,
      angle: i.angle,
      from,
      pitch: i.pitch,
      turns: [],
      shift: 0,
      wiped: false,
    });
    from += i.pitch + i.saw.kerf;
  }
}

export function turnSlices(bench: Bench, i: InstructionOf<'turn'>): void {
  for (const thing of i.parts) {
    const slice = bench.slices.get(thing.id);
    if (slice) slice.turns.push(i.turn);
    else bench.fail('missingPart', i, thing);
  }
}

export function layRows(bench: Bench, i: InstructionOf<'layRows'>): void {
  bench.runs.set(i.block.id, i.runs);
  for (const { part, shift } of i.rows) {
    const slice = bench.slices.get(part.id);
    if (slice) slice.shift = shift;
    else bench.fail('missingPart', i, part);
  }
  // A single row is the block: nothing is glued.
  const only = i.rows.length === 1 ? bench.slices.get(firstOf(i.rows).part.id) : undefined;
  const block = only && blockOf(bench, i.block, [only]);
  if (block) lieAsBoard(block);
}

/** Whether rows are glued rather than strips. */
export function isOfRows(bench: Bench, { parts }: InstructionOf<'glue'>): boolean {
  return parts.some((p) => bench.slices.has(p.id) || bench.panels.get(p.id)?.rows);
}

const isUp = (slice: Slice): boolean => slice.turns.includes('up');
const slantOf = ({ pitch, angle }: Slice): number => pitch * Math.abs(Math.tan(radians(angle)));
/** What a row adds to its block. */
const addsOf = (slice: Slice): number => (isUp(slice) ? slice.panel.thickness : slice.pitch);

export function glueRows(bench: Bench, i: InstructionOf<'glue'>): void {
  inTime(bench, i);
  const slices = i.parts.flatMap((thing): Slice[] => {
    if (bench.used.has(thing.id)) bench.fail('missingPart', i, thing);
    bench.used.add(thing.id);
    const group = bench.panels.get(thing.id)?.rows;
    if (group) return group.slices;
    const slice = bench.slices.get(thing.id);
    if (!slice) {
      bench.fail('missingPart', i, thing);
      return [];
    }
    const oily = slice.panel.strips.some(({ wood }) => bench.isOily(wood));
    if (oily && !slice.wiped) bench.fail('oilyFace', i, thing);
    return [slice];
  });
  const block = blockOf(bench, i.makes, slices);
  if (!block) return;
  if (block.length > FINE && block.thickness > FINE) pressed(bench, i, block);
  lieAsBoard(block);
}

/** The panels that rows come from, of those alike one. */
function unlike(slices: readonly Slice[]): Panel[] {
  const numbers = ({ strips }: Panel) => strips.map((s) => s.wood.thing.id.replace(/\/.*$/, '')).join();
  return [...new Map(slices.map((s) => [numbers(s.panel), s.panel])).values()];
}

const lengthOf = (slice: Slice): number => slice.panel.width / Math.cos(radians(slice.angle));

/** From where the last of rows begins to where the first of them ends, once all are whole there, mm. */
function wholeOf(slices: readonly Slice[]): number {
  const ends = slices.map((s) => s.shift + lengthOf(s));
  return Math.max(0, Math.min(...ends) - Math.max(...slices.map((s) => s.shift)) - slantOf(firstOf(slices)));
}

/** Rows side by side, as they lie in the clamps: as long as one is, as wide as all together. */
function blockOf(bench: Bench, thing: Thing, slices: readonly Slice[]): Panel | null {
  const [one] = slices;
  if (!one) return null;
  const heights = slices.map((s) => (isUp(s) ? s.pitch : s.panel.thickness));
  const height = Math.min(...heights);
  const block: Panel = {
    thing,
    strips: unlike(slices).flatMap((p) => p.strips.map((s) => ({ ...s }))),
    length: Math.min(...slices.map(lengthOf)),
    width: slices.reduce((sum, s) => sum + addsOf(s), 0),
    trimmedFar: 0,
    trimmedNear: 0,
    thickness: height,
    proud: Math.max(...heights) - height,
    flat: false,
    hardGlue: slices.length > 1,
    rows: { slices: [...slices], runs: bench.runs.get(thing.id) ?? 'along' },
  };
  bench.panels.set(thing.id, block);
  return block;
}

/** Out of the clamps a block is measured as the board lies, as far as all of its rows reach. */
function lieAsBoard(block: Panel): void {
  if (!block.rows) return;
  const { slices, runs } = block.rows;
  const whole = wholeOf(slices);
  [block.length, block.width] = runs === 'across' ? [block.width, whole] : [whole, block.width];
}

/** The size of a slice as it came from the saw: along the cut, across and up, mm. */
function sizeOf(slice: Slice): Point {
  return [slice.panel.width / Math.cos(radians(slice.angle)) + slantOf(slice), slice.pitch, slice.panel.thickness];
}

/** Where a point of a turned slice lay before it was turned; the size is that before. */
const UNTURNED: Readonly<Record<Turn, (p: Point, size: Point) => Point>> = {
  up: ([x, y, z], [, across]) => [x, across - z, y],
  over: ([x, y, z], [, across, up]) => [x, across - y, up - z],
  endForEnd: ([x, y, z], [along, across]) => [along - x, across - y, z],
};
const turnedSize = (turn: Turn, [x, y, z]: Point): Point => (turn === 'up' ? [x, z, y] : [x, y, z]);

/** A point of a row, as a point of the panel it was sawn from: along, from its far edge as it is now, and up. */
function inPanel(slice: Slice, point: Point): Point {
  const sizes = slice.turns.reduce<Point[]>(
    (all, turn) => [...all, turnedSize(turn, all.at(-1) as Point)],
    [sizeOf(slice)],
  );
  const [r, s, z] = slice.turns.reduceRight<Point>((p, turn, k) => UNTURNED[turn](p, sizes[k] as Point), point);
  const a = radians(slice.angle);
  const cut = slice.from + s;
  // The corner that a slice begins at lies at the near edge, on the cut face that comes first along the cut.
  const least = (slice.from + (a < 0 ? slice.pitch : 0)) * Math.tan(a) - slice.panel.width / Math.cos(a);
  const y = (cut * Math.tan(a) - (r + least)) * Math.cos(a);
  return [(cut - y * Math.sin(a)) / Math.cos(a), y, z];
}

/**
 * Which strip a point of a board was, and where along its piece: everything that was done undone, the last first.
 * @param at mm from the board's left end, its far edge and its underside
 */
export function woodAt(board: Made, at: Point): { strip: Laid; along: number } | null {
  const { panel } = board;
  if (!panel.rows) return null;
  const { slices, runs } = panel.rows;
  const [x, y] = [at[0] + board.x, at[1] + board.y];
  const z = at[2] + (heightOf(slices) - board.thickness) / 2;
  const [stacked, lying] = runs === 'across' ? [x, y] : [y, x];
  const adds = addsOf(firstOf(slices));
  const slice = slices[Math.floor(stacked / adds)];
  if (!slice) return null;
  const shifts = slices.map((s) => s.shift);
  const whole = wholeOf(slices);
  const r = (runs === 'across' ? whole - lying : lying) + slantOf(slice) + Math.max(...shifts) - slice.shift;
  const [px, py] = inPanel(slice, [r, stacked % adds, z]);
  const found = edgesOf(slice.panel).find(({ from, to }) => py >= from - TOLERANCE && py < to);
  if (!found) return null;
  const { strip } = found;
  const own = px - (strip.ahead ?? 0);
  return { strip, along: strip.endForEnd ? strip.wood.x.to - own : strip.wood.x.from + own };
}

/** As high as rows were when they were glued. */
function heightOf(slices: readonly Slice[]): number {
  return Math.min(...slices.map((s) => (isUp(s) ? s.pitch : s.panel.thickness)));
}
