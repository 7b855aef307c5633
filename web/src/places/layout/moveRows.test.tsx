import { expect, it } from 'vitest';
import { moveJoint } from '#core/board/arrange.ts';
import { AS_IT_LIES, type Strip } from '#core/board/recipe.ts';
import { grip, RowMover } from './moveRows.ts';

const WIDTHS = [30, 40, 50, 60];
const STRIPS: Strip[] = WIDTHS.map((width, i) => ({ id: `s${i}`, species: 'maple-hard', width, ...AS_IT_LIES }));
const [TOP, SCALE] = [56, 2];

/** A drawing of four strips as the page has it: rows, joints, chains, widths and the outline of the one in hand. */
function drawing(): SVGSVGElement {
  const host = document.createElement('div');
  const rows = WIDTHS.map(
    (w, i) =>
      `<g data-strip="${i}" transform="translate(0 ${TOP})"><rect data-tall height="${w * SCALE}"/><rect data-tall height="${w * SCALE}"/><path data-chain="90" d=""/><text data-width>${w}</text></g>`,
  );
  const joints = WIDTHS.map((_, i) => `<rect data-joint="${i}" y="0"/>`);
  host.innerHTML = `<svg>${rows.join('')}${joints.join('')}<g data-in-hand><rect/></g><text data-live-width><tspan/><tspan/><tspan/></text><text data-live-width><tspan/><tspan/><tspan/></text></svg>`;
  document.body.replaceChildren(host);
  return host.querySelector('svg')!;
}

const tops = (svg: SVGSVGElement) =>
  [...svg.querySelectorAll('[data-strip]')].map((g) =>
    Number(/translate\(0 ([-\d.]+)\)/.exec(g.getAttribute('transform')!)![1]),
  );
const heights = (svg: SVGSVGElement, row: number) =>
  [...svg.querySelectorAll(`[data-strip="${row}"] [data-tall]`)].map((r) => Number(r.getAttribute('height')));
const live = (svg: SVGSVGElement) => [...svg.querySelectorAll('[data-live-width]')].map((t) => t.textContent);
const mover = (svg: SVGSVGElement, index: number) => new RowMover(svg, index, TOP, SCALE, (mm) => [String(mm), '', '']);

it('a joint that moves pushes every row behind it, and only those, just where the board will have them', () => {
  const svg = drawing();
  mover(svg, 1).move(STRIPS, 45.5, false);
  const moved = moveJoint(STRIPS, 1, 45.5, false);
  let at = TOP;
  const expected = moved.map(({ width }) => {
    const top = at;
    at += width * SCALE;
    return top;
  });
  // The rows before it were not touched.
  expect(tops(svg).slice(1)).toEqual(expected.slice(1));
  expect(heights(svg, 1)).toEqual([91, 91]);
  expect(heights(svg, 2)).toEqual([100, 100]);
  expect(live(svg)).toEqual(['45.5', '']);
});

it('traded with its neighbour the sum stays: nothing behind the two moves, and both widths are told', () => {
  const svg = drawing();
  const before = TOP + (30 + 40 + 50) * SCALE;
  mover(svg, 1).move(STRIPS, 45.5, true);
  expect(tops(svg)[3]).toBe(before);
  expect([heights(svg, 1), heights(svg, 2)]).toEqual([
    [91, 91],
    [89, 89],
  ]);
  expect(live(svg)).toEqual(['45.5', '44.5']);
});

it('the handle goes with the joint and says its width; what React wrote is hidden until it is given back', () => {
  const svg = drawing();
  const rows = mover(svg, 0);
  rows.move(STRIPS, 33.333, false);
  const joint = svg.querySelector('[data-joint="0"]')!;
  expect(Number(joint.getAttribute('y'))).toBeCloseTo(TOP + 33.333 * SCALE - grip(33.333 * SCALE) / 2, 9);
  expect(joint.getAttribute('aria-valuenow')).toBe('33.33');
  const written = svg.querySelector('[data-strip="0"] [data-width]')!;
  expect(written.getAttribute('visibility')).toBe('hidden');
  rows.end();
  expect(written.hasAttribute('visibility')).toBe(false);
  expect(live(svg)).toEqual(['', '']);
});

it('a handle leaves room to take up the strip itself, however narrow that is', () => {
  const grips = [2, 10, 12, 200].map(grip);
  [3, 4, 4.8, 8].forEach((high, i) => expect(grips[i]).toBeCloseTo(high, 9));
});
