import { firstOf, nth } from '../lists/there.ts';
import { SaxesParser, type SaxesTagPlain } from 'saxes';
import svgpath from 'svgpath';
import { ART_BOX, MOST_ART_CHARACTERS, type Art } from '../features/art.ts';

/** Larger files are refused unread. */
export const GREATEST_SVG_BYTES = 10_000_000;
/** More nodes than any engraver follows in reasonable time. */
export const MOST_NODES = 40_000;
/** Groups in groups, deeper than any drawing program makes them. */
export const DEEPEST_GROUP = 100;
/** More elements than a drawing for a mark has. */
export const MOST_ELEMENTS = 60_000;
/** No drawing is as large as this in any unit. */
const GREATEST_COORDINATE = 1e9;

export type ReadSvg = { ok: true; art: Art; nodes: number; told: string[] } | { ok: false; problem: string };

/** What is inside these is never drawn. */
const UNDRAWN = new Set([
  'defs',
  'clippath',
  'mask',
  'symbol',
  'pattern',
  'marker',
  'lineargradient',
  'radialgradient',
  'metadata',
  'title',
  'desc',
  'style',
  'script',
  'foreignobject',
  'filter',
]);
/** Left out, and said so. */
const LEFT_OUT: Readonly<Record<string, string>> = {
  script: 'Scripts in it were left out; they are never run.',
  foreignobject: 'Foreign content in it was left out.',
  image: 'Pictures in it were left out: only lines are engraved.',
  use: 'References in it were left out: turn clones into paths first.',
  text: 'Words in it were left out: turn text into paths first.',
  style: 'Its style sheet was left out: only lines matter here.',
};

/** What ends the reading of a file before its end, in a sentence. */
class TooMuch extends Error {}

type Segment = [string, ...number[]];

/**
 * Reads the lines of an SVG file. Nothing in it is run, fetched or expanded: what is not a line is left out and told, and a file that declares entities is refused.
 * @param name of the drawing, for its list
 */
export function readSvg(text: string, name: string): ReadSvg {
  if (text.length > GREATEST_SVG_BYTES)
    return {
      ok: false,
      problem: `The file is larger than ${GREATEST_SVG_BYTES / 1e6} MB; simplify the drawing first.`,
    };
  if (text.trim() === '') return { ok: false, problem: 'The file is empty.' };
  if (/<!ENTITY/i.test(text))
    return { ok: false, problem: 'The file declares entities, which drawings have no use for; save it as plain SVG.' };
  const told = new Set<string>();
  const parts: string[] = [];
  const open: { hidden: boolean; transform: string }[] = [];
  let [isSvg, sized, wrong, elements] = [false, false, '', 0];
  const parser = new SaxesParser({ xmlns: false, position: false });
  parser.on('error', (error) => {
    wrong ||= error.message;
  });
  parser.on('opentag', (tag: SaxesTagPlain) => {
    elements += 1;
    if (elements > MOST_ELEMENTS)
      throw new TooMuch(`It has more than ${MOST_ELEMENTS} elements. Simplify the drawing first.`);
    if (open.length > DEEPEST_GROUP)
      throw new TooMuch(`Its groups lie more than ${DEEPEST_GROUP} deep in each other. Ungroup the drawing first.`);
    const kind = tag.name.replace(/^.*:/, '').toLowerCase();
    const a = tag.attributes;
    if (kind === 'svg' && open.length === 0) {
      isSvg = true;
      sized = a.viewBox !== undefined || (a.width !== undefined && a.height !== undefined);
    }
    if (Object.keys(a).some((key) => /^on/i.test(key)))
      told.add('Event handlers in it were left out; they are never run.');
    if (Object.entries(a).some(([key, value]) => /href$/i.test(key) && !/^#/.test(value) && kind !== 'a'))
      told.add('References to other files were left out; nothing is fetched.');
    const said = LEFT_OUT[kind];
    if (said) told.add(said);
    const above = open.at(-1) ?? { hidden: false, transform: '' };
    const hidden =
      above.hidden || UNDRAWN.has(kind) || a.display === 'none' || /display\s*:\s*none/.test(a.style ?? '');
    const transform = `${above.transform} ${a.transform ?? ''}`.trim();
    open.push({ hidden, transform });
    const d = hidden ? null : pathOf(kind, a);
    if (d) parts.push(toLines(d, transform));
  });
  parser.on('closetag', () => open.pop());
  try {
    parser.write(text.replace(/^\uFEFF/, '')).close();
  } catch (error) {
    if (error instanceof TooMuch) return { ok: false, problem: error.message };
    wrong ||= (error as Error).message;
  }
  if (!isSvg) return { ok: false, problem: 'This is not an SVG file.' };
  if (wrong) return { ok: false, problem: 'The file is not complete SVG; it may have been cut off or edited by hand.' };
  if (!sized) told.add('It gives no size of its own: its lines are measured instead.');
  return artOf(
    parts.filter((p) => p !== ''),
    name,
    [...told],
  );
}

const number = (value: string | undefined) => (value === undefined ? 0 : Number.parseFloat(value) || 0);

/** Path data of a shape; null for what is none. */
function pathOf(kind: string, a: Record<string, string>): string | null {
  const [x, y, w, h] = [number(a.x), number(a.y), number(a.width), number(a.height)];
  switch (kind) {
    case 'path':
      return a.d ?? null;
    case 'rect':
      return w > 0 && h > 0 ? `M${x} ${y}h${w}v${h}h${-w}z` : null;
    case 'circle':
    case 'ellipse': {
      const [rx, ry] = kind === 'circle' ? [number(a.r), number(a.r)] : [number(a.rx), number(a.ry)];
      return rx > 0 && ry > 0
        ? `M${number(a.cx) - rx} ${number(a.cy)}a${rx} ${ry} 0 1 1 ${2 * rx} 0a${rx} ${ry} 0 1 1 ${-2 * rx} 0z`
        : null;
    }
    case 'line':
      return `M${number(a.x1)} ${number(a.y1)}L${number(a.x2)} ${number(a.y2)}`;
    case 'polyline':
    case 'polygon':
      return a.points?.trim() ? `M${a.points.trim()}${kind === 'polygon' ? 'z' : ''}` : null;
    default:
      return null;
  }
}

/** Path data with transforms applied, as absolute M, L, C and Z; empty when it is none. */
function toLines(d: string, transform: string): string {
  const path = svgpath(d);
  if ((path as unknown as { err: string }).err) return '';
  const out: string[] = [];
  path
    .transform(transform)
    .abs()
    .unarc()
    .unshort()
    .iterate((segment, _i, x, y) => {
      const [letter, ...n] = segment as Segment;
      if (n.some((value) => !(Math.abs(value) <= GREATEST_COORDINATE)))
        throw new TooMuch('It has coordinates that no drawing can have. Save it again from a drawing program.');
      if (letter === 'H') out.push(`L${n[0]} ${y}`);
      else if (letter === 'V') out.push(`L${x} ${n[0]}`);
      // A quadratic curve is the cubic one with its handle two thirds of the way (a fact of geometry).
      else if (letter === 'Q')
        out.push(
          `C${x + (2 / 3) * (firstOf(n) - x)} ${y + (2 / 3) * (nth(n, 1) - y)} ${nth(n, 2) + (2 / 3) * (firstOf(n) - nth(n, 2))} ${nth(n, 3) + (2 / 3) * (nth(n, 1) - nth(n, 3))} ${n[2]} ${n[3]}`,
        );
      else out.push(letter === 'Z' || letter === 'z' ? 'Z' : `${letter}${n.join(' ')}`);
    });
  return out.join('');
}

/** Lines moved to the corner of their box and scaled to its size. */
function artOf(parts: readonly string[], name: string, told: string[]): ReadSvg {
  const commands = parts.join('').match(/[MLCZ][^MLCZ]*/g) ?? [];
  const read = commands.map((c) => ({
    letter: firstOf(c),
    n: (c.match(/-?\d*\.?\d+(?:e[-+]?\d+)?/gi) ?? []).map(Number),
  }));
  const nodes = read.filter((c) => c.letter !== 'Z').length;
  if (nodes < 2) return { ok: false, problem: 'There are no lines in it that could be engraved.' };
  if (nodes > MOST_NODES)
    return { ok: false, problem: `It has ${nodes} nodes; at most ${MOST_NODES} are taken. Simplify its paths first.` };
  const { left, right, top, bottom } = boundsOf(read);
  const longer = Math.max(right - left, bottom - top);
  if (!(longer > 0)) return { ok: false, problem: 'All its lines lie on one point.' };
  const scale = ART_BOX / longer;
  // A tenth of a unit: finer than any bit on a mark of any size.
  const fit = (value: number, from: number) => Number(((value - from) * scale).toFixed(1));
  const d = read
    .map(({ letter, n }) => `${letter}${n.map((value, i) => fit(value, i % 2 === 0 ? left : top)).join(' ')}`)
    .join('');
  if (d.length > MOST_ART_CHARACTERS)
    return { ok: false, problem: 'The drawing is too detailed to keep with the board; simplify its paths first.' };
  return {
    ok: true,
    art: {
      name: name.slice(0, 80) || 'Drawing',
      length: Math.max(0.1, fit(right, left)),
      width: Math.max(0.1, fit(bottom, top)),
      d,
    },
    nodes,
    told,
  };
}

/** The box of lines and curves, curves by what they reach and not by their handles. */
function boundsOf(commands: readonly { letter: string; n: number[] }[]) {
  const [xs, ys] = [
    [Infinity, -Infinity],
    [Infinity, -Infinity],
  ];
  const take = (range: number[], value: number) => {
    range[0] = Math.min(firstOf(range), value);
    range[1] = Math.max(nth(range, 1), value);
  };
  let at = [0, 0];
  for (const { letter, n } of commands) {
    if (n.length < 2) continue;
    const end = n.slice(-2);
    for (const [axis, range] of [xs, ys].entries()) {
      take(range, nth(end, axis));
      if (letter === 'C')
        for (const value of turnsOf(nth(at, axis), nth(n, axis), nth(n, axis + 2), nth(end, axis))) take(range, value);
    }
    at = end;
  }
  return { left: firstOf(xs), right: nth(xs, 1), top: firstOf(ys), bottom: nth(ys, 1) };
}

/** Where one coordinate of a cubic curve turns back, if it does: at the roots of its derivative. */
function turnsOf(p: number, q: number, r: number, w: number): number[] {
  const [a, b, c] = [w - 3 * r + 3 * q - p, 2 * (r - 2 * q + p), q - p];
  const roots =
    Math.abs(a) < 1e-12
      ? b === 0
        ? []
        : [-c / b]
      : b * b - 4 * a * c < 0
        ? []
        : [(-b + Math.sqrt(b * b - 4 * a * c)) / (2 * a), (-b - Math.sqrt(b * b - 4 * a * c)) / (2 * a)];
  return roots
    .filter((t) => t > 0 && t < 1)
    .map((t) => (1 - t) ** 3 * p + 3 * (1 - t) ** 2 * t * q + 3 * (1 - t) * t * t * r + t ** 3 * w);
}
