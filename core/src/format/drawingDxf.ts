import { certain } from '../lists/there.ts';
import { extentOf, LAYERS, type Drawing, type Layer } from '../templates/drawing.ts';

/** AutoCAD colour index of each layer. */
const COLOURS: Readonly<Record<Layer | 'words', number>> = { cut: 7, mark: 5, guide: 8, words: 7 };

/**
 * A drawing as a DXF file of release 12, which every reader of the format knows: polylines whose arcs are kept as bulges, in millimetres. DXF has y upward, so the drawing is
 * turned over about its lower edge, and every bulge with it.
 */
export function drawingDxf(drawing: Drawing): string {
  const { left, top, width, height } = extentOf(drawing);
  const bottom = top + height;
  const n = (mm: number) => String(Number(mm.toFixed(6)));
  const [X, Y] = [(x: number) => n(x - left), (y: number) => n(bottom - y)];
  const layers = [...LAYERS, 'words'] as const;
  const out: (string | number)[] = [
    0,
    'SECTION',
    2,
    'HEADER',
    9,
    '$ACADVER',
    1,
    'AC1009',
    9,
    '$INSUNITS',
    70,
    4,
    9,
    '$MEASUREMENT',
    70,
    1,
    9,
    '$EXTMIN',
    10,
    0,
    20,
    0,
    9,
    '$EXTMAX',
    10,
    n(width),
    20,
    n(height),
    0,
    'ENDSEC',
    0,
    'SECTION',
    2,
    'TABLES',
    0,
    'TABLE',
    2,
    'LAYER',
    70,
    layers.length,
    ...layers.flatMap((layer) => [0, 'LAYER', 2, layer.toUpperCase(), 70, 0, 62, COLOURS[layer], 6, 'CONTINUOUS']),
    0,
    'ENDTAB',
    0,
    'ENDSEC',
    0,
    'SECTION',
    2,
    'ENTITIES',
  ];
  for (const {
    layer,
    outline: { vertices, closed },
  } of drawing.lines) {
    const name = layer.toUpperCase();
    out.push(0, 'POLYLINE', 8, name, 66, 1, 10, 0, 20, 0, 30, 0, 70, closed ? 1 : 0);
    for (const v of vertices)
      out.push(0, 'VERTEX', 8, name, 10, X(v.x), 20, Y(v.y), 30, 0, 42, n(v.bulge === 0 ? 0 : -v.bulge));
    out.push(0, 'SEQEND', 8, name);
  }
  const align = { start: 0, middle: 1, end: 2 } as const;
  for (const t of drawing.words) {
    const at = [10, X(t.x), 20, Y(t.y), 30, 0];
    out.push(
      0,
      'TEXT',
      8,
      'WORDS',
      ...at,
      40,
      t.size,
      1,
      plain(t.text),
      72,
      align[t.anchor ?? 'start'],
      ...(t.anchor ? [11, X(t.x), 21, Y(t.y), 31, 0] : []),
    );
  }
  out.push(0, 'ENDSEC', 0, 'EOF');
  return `${out.join('\r\n')}\r\n`;
}

/** Release 12 knows ASCII only: other characters go in as their code points. */
function plain(text: string): string {
  return [...text]
    .map((c) =>
      c >= ' ' && c <= '~' ? c : `\\U+${certain(c.codePointAt(0)).toString(16).toUpperCase().padStart(4, '0')}`,
    )
    .join('');
}
