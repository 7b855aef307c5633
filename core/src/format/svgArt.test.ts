import { SVGPathData } from 'svg-pathdata';
import { describe, expect, it } from 'vitest';
import { artSchema, artLines } from '../features/art.ts';
import { artOutlines } from '../features/artPlace.ts';
import { boundsOf } from '../features/outline.ts';
import { readSvg } from './svgArt.ts';

const svg = (inside: string, attributes = 'viewBox="0 0 100 100"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inside}</svg>`;
const art = (text: string) => {
  const read = readSvg(text, 'Test');
  if (!read.ok) throw new Error(read.problem);
  return read;
};

describe('drawings from SVG', () => {
  it('come in with their proportions, shapes and transforms, as another reader measures them', () => {
    const d = 'M10 10 C 20 -30 60 90 80 20 S 90 80 40 70 Q 30 60 20 65 T 12 40 A 8 5 30 1 0 10 10 Z';
    const { minX, maxX, minY, maxY } = new SVGPathData(d).getBounds();
    const { art: read } = art(svg(`<path d="${d}"/>`));
    expect(read.length / read.width).toBeCloseTo((maxX - minX) / (maxY - minY), 2);
    // Placed, it fills its mark to 0.01 of its length, in the middle.
    const bounds = boundsOf(artOutlines({ x: 100, y: 50, length: 40, width: 40, mirror: false, face: 'top' }, read));
    expect(Math.max(bounds.right - bounds.left, bounds.near - bounds.far)).toBeCloseTo(40, 1);
    expect((bounds.left + bounds.right) / 2).toBeCloseTo(100, 1);
    const moved = art(
      svg(
        '<g transform="translate(5 5) scale(2 1)"><rect x="0" y="0" width="10" height="10"/><circle cx="5" cy="5" r="5"/></g>',
      ),
    ).art;
    expect([moved.length, moved.width]).toEqual([1000, 500]);
    expect(artLines(moved).map((l) => l.closed)).toEqual([true, true]);
  });

  it('are mirrored for a stamp, and read right from below', () => {
    const { art: read } = art(svg('<path d="M0 0 L100 0 L0 50 Z"/>'));
    const mark = { x: 0, y: 0, length: 100, width: 100, mirror: false, face: 'top' as const };
    const corner = (change: Partial<{ mirror: boolean; face: 'top' | 'bottom' }>) =>
      artOutlines({ ...mark, ...change }, read)[0]!.vertices[0]!;
    expect(corner({})).toMatchObject({ x: -50, y: -25 });
    expect(corner({ mirror: true })).toMatchObject({ x: 50, y: -25 });
    expect(corner({ face: 'bottom' })).toMatchObject({ x: -50, y: 25 });
  });

  it.each([
    ['scripts', '<script>alert(1)</script>', /Scripts/],
    ['event handlers', '<rect width="1" height="1" onload="alert(1)"/>', /handlers/],
    ['pictures and what they point to', '<image href="https://example.org/a.png"/>', /other files/],
    ['words', '<text>Hut</text>', /text into paths/],
    ['foreign content', '<foreignObject><b>x</b></foreignObject>', /Foreign/],
    ['clones', '<use href="#a"/>', /clones/],
  ])('without %s, and it is told', (_, bad, sentence) => {
    const { art: read, told } = art(svg(`<path d="M0 0L10 0L10 5"/>${bad}`));
    expect(told.join(' ')).toMatch(sentence);
    // Whatever was in the file, only lines are kept.
    expect(artSchema.safeParse(read).success).toBe(true);
    expect(read.d).not.toMatch(/[^MLCZ\d. -]/);
  });

  it.each([
    ['declares entities', '<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]><svg>&x;</svg>', /entities/],
    ['is 20 MB', svg(' '.repeat(20_000_000)), /larger than 10 MB/],
    ['is no SVG', 'a,b,c', /not an SVG/],
    ['is empty', ' ', /empty/],
    ['is cut off', '<svg><path d="M0 0L1 1"/>', /cut off/],
    ['holds no lines', svg('<rect width="0" height="5"/>'), /no lines/],
    ['has too many nodes', svg(`<path d="M0 0${'l1 1'.repeat(41_000)}"/>`), /nodes/],
    ['is one point', svg('<path d="M5 5L5 5"/>'), /one point/],
    [
      'has groups in groups without end',
      svg(`${'<g transform="translate(1 1)">'.repeat(150_000)}<path d="M0 0L1 1"/>${'</g>'.repeat(150_000)}`),
      /more than 100 deep/,
    ],
    ['has elements without end', svg('<path d="M0 0L1 1"/>'.repeat(70_000)), /more than 60000 elements/],
    [
      'reaches further than any drawing',
      svg('<path d="M0 0L1e308 1"/><path d="M0 0L1 1"/>'),
      /coordinates that no drawing can have/,
    ],
    [
      'is made so by a transform',
      svg('<g transform="scale(1e300)"><g transform="scale(1e300)"><path d="M0 0L1 1"/></g></g>'),
      /coordinates that no drawing can have/,
    ],
  ])('a file that %s is refused with a reason', (_, text, sentence) => {
    const read = readSvg(text, 'Test');
    expect(read.ok ? '' : read.problem).toMatch(sentence);
  });

  it('has no size of its own: its lines are measured', () => {
    const { art: read, told } = art('<svg><path d="M5 5h20v10h-20z"/></svg>');
    expect(told.join()).toMatch(/no size/);
    expect([read.length, read.width]).toEqual([1000, 500]);
  });
});
