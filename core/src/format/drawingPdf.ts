import { PAPERS, type Paper } from './drawingPaper.ts';
import {
  clip as clipHere,
  endPath,
  LineCapStyle,
  PDFDocument,
  popGraphicsState,
  pushGraphicsState,
  rectangle as box,
  rgb,
  StandardFonts,
  type PDFFont,
  type PDFPage,
} from 'pdf-lib';
import { svgPath } from '../features/outline.ts';
import { extentOf, type Drawing, type Layer } from '../templates/drawing.ts';

/** What a printer leaves white on every side, mm, and how far neighbouring sheets repeat each other. */
const WHITE = 10;
const OVERLAP = 10;
/** Room below the drawing on each sheet for the words and the ruler. */
const FOOT = 16;
const POINTS_PER_MM = 72 / 25.4;
/** The ruler by which a print is checked, mm. */
export const CHECK_RULER = 100;
/** More sheets than this are a mistake. */
export const MOST_SHEETS = 200;
const COLOURS: Readonly<Record<Layer, ReturnType<typeof rgb>>> = {
  cut: rgb(0, 0, 0),
  mark: rgb(0.12, 0.38, 0.72),
  guide: rgb(0.5, 0.5, 0.5),
};

/** How a drawing is spread over sheets: columns and rows of the paper's inside, upright or across, whichever takes fewer. */
export function tilesOf(
  drawing: Drawing,
  paper: Paper,
): { columns: number; rows: number; page: { width: number; height: number }; step: { x: number; y: number } } {
  const { width, height } = extentOf(drawing);
  const { width: a, height: b } = PAPERS[paper];
  const spread = (page: { width: number; height: number }) => {
    const inside = { x: page.width - 2 * WHITE, y: page.height - 2 * WHITE - FOOT };
    const step = { x: inside.x - OVERLAP, y: inside.y - OVERLAP };
    const count = (size: number, room: number, by: number) => Math.max(1, Math.ceil((size - room) / by - 1e-9) + 1);
    return { columns: count(width, inside.x, step.x), rows: count(height, inside.y, step.y), page, step };
  };
  const [upright, across] = [spread({ width: a, height: b }), spread({ width: b, height: a })];
  return across.columns * across.rows < upright.columns * upright.rows ? across : upright;
}

/**
 * A drawing as a PDF at full size, spread over sheets that repeat each other by 10 mm, with crosses that come to lie on each other and a ruler to check the print by.
 * @throws RangeError when it would take more sheets than anybody glues together
 */
export async function drawingPdf(drawing: Drawing, paper: Paper): Promise<Uint8Array> {
  const { columns, rows, page: size, step } = tilesOf(drawing, paper);
  if (columns * rows > MOST_SHEETS)
    throw new RangeError(`${drawing.title} would take ${columns * rows} sheets; at most ${MOST_SHEETS} are made.`);
  const { left, top } = extentOf(drawing);
  const document = await PDFDocument.create();
  document.setTitle(drawing.title);
  document.setProducer('Cadenza');
  const font = await document.embedFont(StandardFonts.Helvetica);
  const inside = { x: step.x + OVERLAP, y: step.y + OVERLAP };
  for (let row = 0; row < rows; row += 1) {
    for (let column = 0; column < columns; column += 1) {
      const page = document.addPage([size.width * POINTS_PER_MM, size.height * POINTS_PER_MM]);
      // Where the drawing's origin comes to lie on this sheet, mm from its upper left corner.
      const shift = { x: WHITE - left - column * step.x, y: WHITE - top - row * step.y };
      sheet(page, drawing, shift, inside, size, font);
      crosses(page, inside, size.height);
      foot(
        page,
        `${drawing.title}: sheet ${row * columns + column + 1} of ${columns * rows}, column ${column + 1}, row ${row + 1}`,
        size,
        font,
      );
    }
  }
  return document.save();
}

const pt = (mm: number) => mm * POINTS_PER_MM;
/** Glyphs the standard fonts do not have are left out rather than refused. */
const known = (text: string) => text.replace(/[^\u0020-\u007e\u00a0-\u00ff]/g, '?');

function sheet(
  page: PDFPage,
  drawing: Drawing,
  shift: { x: number; y: number },
  inside: { x: number; y: number },
  size: { height: number },
  font: PDFFont,
): void {
  const down = (y: number) => pt(size.height - y);
  // What reaches beyond the inside of the sheet is on its neighbour.
  page.pushOperators(
    pushGraphicsState(),
    box(pt(WHITE), down(WHITE + inside.y), pt(inside.x), pt(inside.y)),
    clipHere(),
    endPath(),
  );
  for (const { layer, outline } of drawing.lines) {
    page.drawSvgPath(svgPath(outline), {
      x: pt(shift.x),
      y: down(shift.y),
      scale: POINTS_PER_MM,
      borderColor: COLOURS[layer],
      borderWidth: 0.25,
      borderLineCap: LineCapStyle.Round,
      ...(layer === 'guide' ? { borderDashArray: [3, 2] } : {}),
    });
  }
  for (const t of drawing.words) {
    const text = known(t.text);
    const wide = font.widthOfTextAtSize(text, pt(t.size));
    page.drawText(text, {
      x: pt(t.x + shift.x) - (t.anchor === 'middle' ? wide / 2 : t.anchor === 'end' ? wide : 0),
      y: down(t.y + shift.y),
      size: pt(t.size),
      font,
    });
  }
  page.pushOperators(popGraphicsState());
}

/** Four crosses in the middle of the overlap: those of neighbouring sheets are the same points of the drawing. */
function crosses(page: PDFPage, inside: { x: number; y: number }, height: number): void {
  const half = OVERLAP / 2;
  for (const x of [WHITE + half, WHITE + inside.x - half]) {
    for (const y of [WHITE + half, WHITE + inside.y - half]) {
      const lines: [[number, number], [number, number]][] = [
        [
          [x - 3, y],
          [x + 3, y],
        ],
        [
          [x, y - 3],
          [x, y + 3],
        ],
      ];
      for (const [from, to] of lines)
        page.drawLine({
          start: { x: pt(from[0]), y: pt(height - from[1]) },
          end: { x: pt(to[0]), y: pt(height - to[1]) },
          thickness: 0.4,
          color: rgb(0.7, 0.15, 0.12),
        });
    }
  }
}

function foot(page: PDFPage, text: string, size: { width: number }, font: PDFFont): void {
  const y = pt(WHITE + 4);
  page.drawText(known(text), { x: pt(WHITE), y: pt(WHITE - 4), size: 8, font });
  for (let mm = 0; mm <= CHECK_RULER; mm += 10)
    page.drawLine({
      start: { x: pt(WHITE + mm), y },
      end: { x: pt(WHITE + mm), y: y + pt(mm % 50 === 0 ? 5 : 3) },
      thickness: 0.4,
    });
  page.drawLine({ start: { x: pt(WHITE), y }, end: { x: pt(WHITE + CHECK_RULER), y }, thickness: 0.4 });
  page.drawText(`${CHECK_RULER} mm: measure it; print at 100 %, never "fit to page"`, {
    x: pt(Math.min(WHITE + CHECK_RULER + 4, size.width - 100)),
    y,
    size: 8,
    font,
  });
}
