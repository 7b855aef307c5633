import { DOMParser } from '@xmldom/xmldom';
import DxfParser from 'dxf-parser';
import fc from 'fast-check';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { SVGPathData } from 'svg-pathdata';
import { describe, expect, it } from 'vitest';
import { NOTHING_WORKED, UNDRAWN, type Feature } from '../features/feature.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { extentOf } from '../templates/drawing.ts';
import { templatesOf } from '../templates/templates.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { drawingDxf } from './drawingDxf.ts';
import { CHECK_RULER, drawingPdf, tilesOf } from './drawingPdf.ts';
import { PAPERS } from './drawingPaper.ts';
import { drawingSvg } from './drawingSvg.ts';
import { writeGcode } from './gcode.ts';
import { jobsOf } from '../machining/job.ts';
import { runGcode } from '../machining/simulate.ts';

const FEATURES: Feature[] = [
  {
    kind: 'groove',
    id: 'groove',
    face: 'top',
    offset: 25,
    bit: 12.7,
    depth: 8,
    corner: 20,
    wells: 1,
    spout: null,
    fall: 0,
  },
  { kind: 'hole', id: 'hole', on: 'ends', length: 90, width: 28, inset: 45 },
  { kind: 'feet', id: 'feet', count: 4, inset: 60, bore: 20, boreDepth: 2, screw: 4, screwDepth: 10 },
  {
    kind: 'mark',
    id: 'mark',
    face: 'top',
    name: 'Upper Hut',
    x: 200,
    y: 125,
    length: 60,
    width: 30,
    depth: 1,
    method: 'laser',
    ...UNDRAWN,
    art: { name: 'a', length: 1000, width: 500, d: 'M0 0L1000 0L1000 500L0 500Z' },
  },
];
const board = plainBoard({
  name: 'Brotbrett "ä" <1>',
  worked: { ...NOTHING_WORKED, corners: { kind: 'round', size: 15 }, features: FEATURES },
  length: 400,
  width: 250,
});
const plan = makePlan(planInput(board, [plainPiece({ count: 4 })]));
const templates = templatesOf(board, plan.worked, plan.shop, DEFAULT_DISPLAY);

/** Box of everything in an SVG, read by another library's parser, mm. */
function svgBox(text: string) {
  const root = new DOMParser({
    onError: (_level, message) => {
      throw new Error(String(message));
    },
  }).parseFromString(text, 'image/svg+xml').documentElement!;
  const paths = Array.from(root.getElementsByTagName('path'));
  const boxes = paths.map((p) => new SVGPathData(p.getAttribute('d')!).getBounds());
  return {
    root,
    left: Math.min(...boxes.map((b) => b.minX)),
    right: Math.max(...boxes.map((b) => b.maxX)),
    top: Math.min(...boxes.map((b) => b.minY)),
    bottom: Math.max(...boxes.map((b) => b.maxY)),
  };
}

describe('templates read back by independent readers, to 0.01 mm', () => {
  it('there is one for all that is cut', () => {
    expect(templates.map((t) => t.id)).toEqual(['board', 'corner', 'jig-groove', 'hole-hole', 'feet-feet', 'gauge']);
  });

  it.each(templates.map((t) => [t.id, t] as const))(
    'SVG of %s: its lines are where they belong, in millimetres',
    (_, { drawing }) => {
      const { root, left, right, top, bottom } = svgBox(drawingSvg(drawing));
      const extent = extentOf(drawing);
      expect(right - left).toBeCloseTo(extent.width, 2);
      expect(bottom - top).toBeCloseTo(extent.height, 2);
      const [, , w, h] = root.getAttribute('viewBox')!.split(' ').map(Number);
      expect(root.getAttribute('width')).toBe(`${w}mm`);
      expect(root.getAttribute('height')).toBe(`${h}mm`);
    },
  );

  it('the board in SVG and DXF is as large as the board, its groove as far in as was said', () => {
    const { left, right, top, bottom } = svgBox(drawingSvg(templates[0]!.drawing));
    expect(right - left).toBeCloseTo(400, 2);
    expect(bottom - top).toBeCloseTo(250, 2);
    const dxf = new DxfParser().parseSync(drawingDxf(templates[0]!.drawing))!;
    expect(dxf.header.$INSUNITS).toBe(4);
    const lines = dxf.entities.filter((e) => e.type === 'POLYLINE') as unknown as {
      layer: string;
      shape: boolean;
      vertices: { x: number; y: number; bulge?: number }[];
    }[];
    const cut = lines.filter((l) => l.layer === 'CUT');
    const xs = cut[0]!.vertices.map((v) => v.x);
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(400, 2);
    // Rounded corners: quarter circles, whose bulge is tan(90°/4) in every book; y runs upward there, so they turn the other way.
    expect(
      cut[0]!.vertices.flatMap((v) =>
        v.bulge ? [Math.abs(Number((v.bulge + Math.tan(Math.PI / 8)).toFixed(5)))] : [],
      ),
    ).toEqual([0, 0, 0, 0]);
    // The groove's outer line: 25 in to the middle of the bit, less half a bit (8 deep is below the bit's middle).
    const outer = cut[1]!.vertices;
    expect(Math.min(...outer.map((v) => v.x))).toBeCloseTo(25 - 6.35, 2);
    expect(cut[1]!.shape).toBe(true);
    const words = dxf.entities.filter((e) => e.type === 'TEXT');
    expect(words.length).toBe(templates[0]!.drawing.words.length);
  });

  it.each(['a4', 'letter'] as const)(
    'PDF on %s: sheets of that size, every one named, crosses of neighbours on the same points, the ruler as long as it says',
    async (paper) => {
      const { drawing } = templates.find((t) => t.id === 'jig-groove')!;
      const { columns, rows, step } = tilesOf(drawing, paper);
      const pdf = await getDocument({ data: await drawingPdf(drawing, paper), verbosity: 0 }).promise;
      expect(pdf.numPages).toBe(columns * rows);
      const [short, long] = [PAPERS[paper].width, PAPERS[paper].height];
      for (let n = 1; n <= pdf.numPages; n += 1) {
        const page = await pdf.getPage(n);
        const [, , w, h] = page.view.map((points) => (points / 72) * 25.4);
        expect([w!, h!].sort((a, b) => a - b)).toEqual([expect.closeTo(short, 2), expect.closeTo(long, 2)]);
        const words = (await page.getTextContent()).items.map((item) => ('str' in item ? item.str : '')).join(' ');
        expect(words).toContain(`sheet ${n} of ${columns * rows}`);
        expect(words).toContain(`${CHECK_RULER} mm`);
      }
      // All of the drawing is on some sheet: sheets reach to its far corner, and no row of them is in vain.
      const { width, height } = extentOf(drawing);
      expect(columns * step.x + 10).toBeGreaterThanOrEqual(width);
      expect(rows * step.y + 10).toBeGreaterThanOrEqual(height);
      expect((columns - 1) * step.x).toBeLessThan(width);
      expect((rows - 1) * step.y).toBeLessThan(height);
    },
  );
});

describe('job files', () => {
  const setup = {
    machine: 'router' as const,
    size: plan.worked.size,
    beyond: 20,
    deepest: plan.worked.size.thickness + 1,
  };

  it('are run by the simulated machine as they were meant: every line at its depth, nothing refused', () => {
    const jobs = jobsOf(plan.worked);
    expect(jobs.map((j) => [j.id, j.machine])).toEqual([
      ['groove', 'router'],
      ['hole', 'router'],
      ['mark', 'engraver'],
    ]);
    for (const job of jobs) {
      const run = runGcode(writeGcode(job), { ...setup, machine: job.machine });
      expect(run.refused).toEqual([]);
      const length = job.lines.reduce(
        (sum, l) =>
          sum + l.slice(1).reduce((s, p, i) => s + Math.hypot(p.x - l[i]!.x, p.y - l[i]!.y, p.z - l[i]!.z), 0),
        0,
      );
      expect(run.cutLength).toBeCloseTo(length, -1);
      expect(run.minutes).toBeGreaterThan(0);
    }
    // The groove is 8 deep once 0.25 is sanded off, as its step says, and lies 25 in: its ways are a rectangle of 350 by 200.
    const ways = runGcode(writeGcode(jobs[0]!), setup).moves.filter((m) => !m.rapid);
    expect(Math.min(...ways.map((m) => m.to.z))).toBeCloseTo(-8.25, 3);
    expect(
      plan.operations.find((o) => o.kind === 'groove')!.settings.find((s) => s.label === 'Depth')!.value.mm,
    ).toBeCloseTo(8.25, 9);
    // A slot goes through what is not sanded yet.
    const slot = runGcode(writeGcode(jobs[1]!), setup).moves.filter((m) => !m.rapid);
    expect(Math.min(...slot.map((m) => m.to.z))).toBeCloseTo(-(plan.worked.size.thickness + 0.5), 3);
    expect([Math.min(...ways.map((m) => m.to.x)), Math.max(...ways.map((m) => m.to.x))]).toEqual([25, 375]);
    expect([Math.min(...ways.map((m) => m.to.y)), Math.max(...ways.map((m) => m.to.y))]).toEqual([25, 225]);
  });

  it.each([
    ['travels through the wood', 'G21 G90\nM3 S1\nG1 Z-3 F100\nG0 X50 Y50\nM30', /travel through the wood/],
    ['cuts outside the board', 'G21 G90\nM3 S1\nG1 Z-3 F100\nG1 X900 Y50\nM30', /outside the board/],
    ['goes too deep', 'G21 G90\nM3 S1\nG1 Z-90 F100\nM30', /deeper than/],
    ['cuts with the spindle off', 'G21 G90\nG1 Z-3 F100\nM30', /spindle off/],
    ['gives no unit', 'G1 Z5 F100\nM30', /G21/],
    ['is cut off', 'G21 G90\nM3 S1\nG0 X5', /cut off/],
    ['says what nobody knows', 'G21 G90\nG68 X1\nM30', /G68 is not known/],
    ['is no job at all', 'Dear all,', /cannot be read/],
  ])('a file that %s is refused with its line', (_, text, sentence) => {
    const { refused } = runGcode(text, setup);
    expect(refused.some((r) => sentence.test(r.what) && r.line >= 1)).toBe(true);
  });

  it('whatever text comes, the machine answers', () => {
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.stringMatching(/^([GMXYZF]-?\d{0,3}[ \n]?){0,20}$/)), (text) => {
        const run = runGcode(text, setup);
        expect(Number.isFinite(run.minutes)).toBe(true);
        expect(run.refused.length).toBeLessThanOrEqual(21);
      }),
    );
  });
});

it("two of a kind have names of their own, files too; a bit is told in the reader's unit and exactly in the file; a spout is cut out over the edge", () => {
  const twice = plainBoard({
    length: 400,
    width: 250,
    worked: {
      ...NOTHING_WORKED,
      features: [FEATURES[0]!, { ...FEATURES[0]!, id: 'second', offset: 60, spout: 'left', bit: 9.525 } as Feature],
    },
  });
  const { worked, shop } = makePlan(planInput(twice, [plainPiece({ count: 4 })]));
  const jobs = jobsOf(worked);
  expect(jobs.map((j) => j.name)).toEqual(['Juice groove 1', 'Juice groove 2']);
  const names = templatesOf(twice, worked, shop, DEFAULT_DISPLAY).map((t) => t.name);
  expect(new Set(names).size).toBe(names.length);
  expect(phraseText(jobs[1]!.tool, { system: 'inch', denominator: 32, metricStep: 0.1 })).toBe('Round-nose bit 3/8"');
  expect(writeGcode(jobs[1]!)).toContain('Round-nose bit 9.525 mm');
  // From the groove's own line at 60 to half a bit beyond the left edge, as deep as the groove, in the middle of the board.
  const spout = jobs[1]!.lines.at(-1)!;
  expect(spout.map((p) => [p.x, p.y])).toEqual([
    [60, 125],
    [-9.525 / 2, 125],
  ]);
  expect(Math.min(...spout.map((p) => p.z))).toBeCloseTo(Math.min(...jobs[1]!.lines.flat().map((p) => p.z)), 6);
  expect(jobs[0]!.lines.flat().every((p) => p.x >= 25 - 1e-9)).toBe(true);
});
