import { certain, nth } from '#core/lists/there.ts';
import { endSpare } from '#core/board/allowances.ts';
import { stripTops, type Board } from '#core/board/board.ts';
import { escapeXml } from '#core/format/drawingSvg.ts';
import type { Plan } from '#core/plan/plan.ts';
import { formatLength, type LengthDisplay } from '#core/units/formatLength.ts';
import type { Species } from '#core/wood/species.ts';
import { woodPictures } from './wood/woodPictures.ts';
import { drawnCells, faceRequest } from './wood/faceRequest.ts';
import { cutOf, logSource, paintRequest } from './wood/woodSide.ts';
import { cutStripsOf, stripsOf } from '#core/board/recipe.ts';

export interface BoardSvgOptions {
  /** Paper millimetres for one of the board. */
  scale: number;
  dimensions: boolean;
  stripWidths: boolean;
  oiled: boolean;
  display: LengthDisplay;
}

/** Room for dimension lines and figures around the board, and the size of figures, mm on paper. */
const MARGIN = { plain: 4, left: 26, top: 16, bottom: 12, right: 6 };
const TEXT_MM = 3.4;
/** Pixels of the wood's pictures for a millimetre of paper: 150 to the inch. */
const PICTURE_PX_PER_MM = 150 / 25.4;
/** More pixels than this for a millimetre of wood show nothing more. */
const MOST_PX_PER_BOARD_MM = 6;

export interface BoardSvg {
  text: string;
  /** On paper, mm. */
  width: number;
  height: number;
}

/**
 * The finished board from above as an SVG file of its own, true to scale: its units are millimetres on paper.
 * @throws Error when a picture of wood cannot be made
 */
export async function boardSvg(
  board: Board,
  plan: Plan,
  species: readonly Species[],
  options: BoardSvgOptions,
): Promise<BoardSvg> {
  const { scale, dimensions, stripWidths, display } = options;
  const reached = plan.ladders.width.reached;
  const long = plan.lastly ? plan.ladders.length.reached : board.length;
  const [w, h] = [long * scale, reached * scale];
  const left = dimensions || stripWidths ? MARGIN.left : MARGIN.plain;
  const top = dimensions ? MARGIN.top : MARGIN.plain;
  const [width, height] = [left + w + MARGIN.right, top + h + MARGIN.bottom];
  const pictures = await stripPictures(board, plan, species, options);
  const trim = plan.worked.shift;
  const endTrim = endSpare(board.length, plan.allowances);
  const tops = stripTops(stripsOf(board));
  const n = (mm: number) => Number(mm.toFixed(3));
  const figure = (mm: number) => escapeXml(formatLength(mm, display));
  const text = (x: number, y: number, said: string, more = '') =>
    `<text x="${n(x)}" y="${n(y)}" ${more}>${said}</text>`;
  const made = plan.lastly ? plan.wood?.board : undefined;
  const strips = made
    ? [
        `<image href="${nth(pictures, 0)}" x="${n(left)}" y="${n(top)}" width="${n(w)}" height="${n(h)}" preserveAspectRatio="none"/>`,
      ]
    : stripsOf(board).map((strip, i) => {
        const y = top + (nth(tops, i) - trim) * scale;
        return `<image href="${nth(pictures, i)}" x="${n(left - endTrim * scale)}" y="${n(y)}" width="${n(plan.allowances.roughLength * scale)}" height="${n(strip.width * scale)}" preserveAspectRatio="none"/>`;
      });
  const joints = made
    ? drawnCells(made, 'top').map(
        ({ polygon }) =>
          `<path fill="none" d="M${polygon.map(([x, y]) => `${n(left + x * scale)} ${n(top + y * scale)}`).join('L')}Z"/>`,
      )
    : stripsOf(board)
        .slice(1)
        .map((_, i) => `<path d="M${n(left)} ${n(top + (nth(tops, i + 1) - trim) * scale)}h${n(w)}"/>`);
  const dimension = (d: string) => `<path d="${d}" fill="none" stroke="#333" stroke-width="0.2"/>`;
  const parts = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(width)}mm" height="${n(height)}mm" viewBox="0 0 ${n(width)} ${n(height)}" font-family="Fira Sans, Helvetica, Arial, sans-serif" font-size="${TEXT_MM}" fill="#222">`,
    `<title>${escapeXml(board.name)}</title>`,
    `<rect width="100%" height="100%" fill="#fff"/>`,
    `<clipPath id="board"><rect x="${n(left)}" y="${n(top)}" width="${n(w)}" height="${n(h)}"/></clipPath>`,
    `<g clip-path="url(#board)">${strips.join('')}<g stroke="#2a2018" stroke-width="0.15" stroke-opacity="0.6">${joints.join('')}</g></g>`,
    `<rect data-board="" x="${n(left)}" y="${n(top)}" width="${n(w)}" height="${n(h)}" fill="none" stroke="#222" stroke-width="0.25"/>`,
    ...(dimensions
      ? [
          dimension(`M${n(left)} ${n(top - 6)}h${n(w)}M${n(left)} ${n(top - 8)}v6M${n(left + w)} ${n(top - 8)}v6`),
          text(left + w / 2, top - 7.5, figure(long), 'text-anchor="middle"'),
          dimension(`M${n(left - 18)} ${n(top)}v${n(h)}M${n(left - 20)} ${n(top)}h6M${n(left - 20)} ${n(top + h)}h6`),
          text(
            left - 19.5,
            top + h / 2,
            figure(reached),
            `text-anchor="middle" transform="rotate(-90 ${n(left - 19.5)} ${n(top + h / 2)})"`,
          ),
        ]
      : []),
    ...(stripWidths && !made
      ? plan.strips.map((s, i) => {
          const y = top + Math.max(0, (nth(tops, i) - trim) * scale) + (s.finished.width * scale) / 2;
          return s.finished.width * scale < TEXT_MM
            ? ''
            : text(left - 2, y + TEXT_MM * 0.35, figure(s.finished.width), 'text-anchor="end"');
        })
      : []),
    text(
      left,
      top + h + 6,
      `${escapeXml(board.name)}, ${figure(long)} × ${figure(reached)} × ${figure(plan.ladders.thickness.reached)}, scale 1:${Number((1 / scale).toFixed(2))}`,
    ),
    '</svg>',
  ];
  return { text: parts.join('\n'), width, height };
}

/** The strips' faces as PNG data, fine enough for paper. */
async function stripPictures(
  board: Board,
  plan: Plan,
  species: readonly Species[],
  { scale, oiled }: BoardSvgOptions,
): Promise<string[]> {
  const pixels = Math.min(MOST_PX_PER_BOARD_MM, PICTURE_PX_PER_MM * scale);
  const speciesOf = (id: string) =>
    species.find((s) => s.code === cutStripsOf(board).find((strip) => strip.id === id)?.species);
  const requests =
    plan.lastly && plan.wood
      ? [faceRequest(plan.wood.board, 'top', speciesOf, pixels, oiled)]
      : stripsOf(board).map((strip, i) =>
          paintRequest(
            logSource(nth(plan.bodies, i), strip.id),
            species.find((s) => s.code === strip.species),
            cutOf(nth(plan.bodies, i), 'top'),
            pixels,
            oiled,
          ),
        );
  const release = requests.map((request) => woodPictures.use(request, () => {}));
  try {
    await woodPictures.allPainted();
    return await Promise.all(
      requests.map(async ({ key }) => {
        const blob = woodPictures.blob(key);
        if (!blob) throw new Error('The wood could not be painted; try again.');
        return asPng(await createImageBitmap(blob));
      }),
    );
  } finally {
    for (const letGo of release) letGo();
  }
}

function asPng(bitmap: ImageBitmap): string {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [bitmap.width, bitmap.height];
  certain(canvas.getContext('2d')).drawImage(bitmap, 0, 0);
  return canvas.toDataURL('image/png');
}

/** An SVG file as a PNG of so many pixels to the millimetre of paper. */
export async function svgAsPng({ text, width, height }: BoardSvg, pxPerMm: number): Promise<Blob> {
  const url = URL.createObjectURL(new Blob([text], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [Math.round(width * pxPerMm), Math.round(height * pxPerMm)];
    certain(canvas.getContext('2d')).drawImage(image, 0, 0, canvas.width, canvas.height);
    return await new Promise((resolve, reject) =>
      canvas.toBlob(
        (blob) =>
          blob
            ? resolve(blob)
            : reject(new Error('The picture is too large for this browser; choose a smaller scale.')),
        'image/png',
      ),
    );
  } finally {
    URL.revokeObjectURL(url);
  }
}
