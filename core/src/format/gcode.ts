import { firstOf } from '../lists/there.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { formatQuantity } from '../units/quantity.ts';
import { isSide, SIDE_NAMES } from '../features/edge.ts';
import type { Job } from '../machining/job.ts';

/** Feeds, mm a minute, and turns a minute of the spindle (common practice for hardwood and a small router); height at which the tool travels, mm. */
export const FEEDS = {
  router: { cut: 1500, plunge: 400, spindle: 16_000 },
  engraver: { cut: 1200, plunge: 1200, spindle: 600 },
} as const;
export const TRAVEL_HEIGHT = 5;

/**
 * A job as G-code (the common core of RS-274: G0, G1, G17, G21, G90, M3, M5, M30), millimetres, absolute; zero at the left near corner of the board on the face that lies up.
 * An engraver keeps its height and is switched on for cutting only.
 */
export function writeGcode({ name, machine, tool, face, size, lines }: Job): string {
  const n = (mm: number) => mm.toFixed(3).replace(/^-0\.000$/, '0.000');
  const { cut, plunge, spindle } = FEEDS[machine];
  const out = [
    `(${plain(name)}, ${lies(face)})`,
    `(${plain(tool.map((part) => (typeof part === 'string' ? part : 'mm' in part ? `${n(part.mm)} mm` : formatQuantity(part, DEFAULT_DISPLAY))).join(''))}; board ${n(size.length)} x ${n(size.width)} x ${n(size.thickness)})`,
    '(Zero: left near corner of the board, on the face that lies up. Read it through, run it in the air first; the manual of the machine comes first.)',
    'G21 G90 G17',
    ...(machine === 'router' ? [`G0 Z${n(TRAVEL_HEIGHT)}`, `M3 S${spindle}`] : ['G0 Z0.000']),
  ];
  for (const line of lines) {
    const first = firstOf(line);
    out.push(`G0 X${n(first.x)} Y${n(first.y)}`);
    if (machine === 'router') out.push(`G1 Z${n(first.z)} F${plunge}`);
    else out.push(`M3 S${spindle}`);
    line
      .slice(1)
      .forEach((p, i) =>
        out.push(`G1 X${n(p.x)} Y${n(p.y)}${machine === 'router' ? ` Z${n(p.z)}` : ''}${i === 0 ? ` F${cut}` : ''}`),
      );
    out.push(machine === 'router' ? `G0 Z${n(TRAVEL_HEIGHT)}` : 'M5');
  }
  return `${[...out, ...(machine === 'router' ? ['M5'] : []), 'G0 X0.000 Y0.000', 'M30'].join('\n')}\n`;
}

/** How the board lies. */
const lies = (face: Job['face']): string =>
  face === 'top'
    ? 'show side up'
    : isSide(face)
      ? `${SIDE_NAMES[face]} up, show side away`
      : 'underside up, turned over about its length';

/** Comments hold no brackets and no letters that old controllers choke on. */
const plain = (text: string) =>
  text
    .normalize('NFKD')
    .replace(/[^\u0020-\u007e]/g, '')
    .replace(/[()]/g, '');
