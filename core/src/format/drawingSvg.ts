import { certain } from '../lists/there.ts';
import { svgPath } from '../features/outline.ts';
import { extentOf, LAYERS, type Drawing, type Layer } from '../templates/drawing.ts';

/** Room round a drawing, mm: its words stand there. */
const MARGIN = 12;
const COLOURS: Readonly<Record<Layer, string>> = { cut: '#000000', mark: '#1f62b8', guide: '#888888' };

/** A drawing as an SVG file at full size: its units are millimetres, one group for each layer. */
export function drawingSvg(drawing: Drawing): string {
  const { left, top, width, height } = extentOf(drawing);
  const n = (mm: number) => Number(mm.toFixed(4));
  const [w, h] = [n(width + 2 * MARGIN), n(height + 2 * MARGIN)];
  const groups = LAYERS.map(
    (layer) =>
      `<g id="${layer}" fill="none" stroke="${COLOURS[layer]}" stroke-width="0.2"${layer === 'guide' ? ' stroke-dasharray="3 2"' : ''}>${drawing.lines
        .filter((l) => l.layer === layer)
        .map((l) => `<path d="${svgPath(l.outline)}"/>`)
        .join('')}</g>`,
  );
  const words = drawing.words.map(
    (t) =>
      `<text x="${n(t.x)}" y="${n(t.y)}" font-size="${t.size}" text-anchor="${t.anchor ?? 'start'}">${escapeXml(t.text)}</text>`,
  );
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="${n(left - MARGIN)} ${n(top - MARGIN)} ${w} ${h}">`,
    `<title>${escapeXml(drawing.title)}</title>`,
    ...groups,
    `<g id="words" font-family="Helvetica, Arial, sans-serif" fill="#000000">${words.join('')}</g>`,
    '</svg>',
    '',
  ].join('\n');
}

/** Text as it may stand in XML. */
export function escapeXml(text: string): string {
  return text.replace(/[&<>"]/g, (c) => certain({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }[c]));
}
