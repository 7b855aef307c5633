import type { Drawing } from '../templates/drawing.ts';
import { drawingDxf } from './drawingDxf.ts';
import type { Paper } from './drawingPaper.ts';
import { drawingSvg } from './drawingSvg.ts';

export const drawingFormatIds = ['svg', 'dxf', 'pdf'] as const;
export type DrawingFormatId = (typeof drawingFormatIds)[number];

/** A form in which a drawing leaves at full size. */
export interface DrawingFormat {
  name: string;
  mime: string;
  /** @throws RangeError with a sentence when it would take too many sheets */
  write(drawing: Drawing, paper: Paper): Promise<string | Uint8Array<ArrayBuffer>>;
}

/** Every form a drawing leaves in: a new one is one more entry here. What is large to load is loaded when it is asked for. */
export const DRAWING_FORMATS: Readonly<Record<DrawingFormatId, DrawingFormat>> = {
  svg: { name: 'SVG', mime: 'image/svg+xml', write: (drawing) => Promise.resolve(drawingSvg(drawing)) },
  dxf: { name: 'DXF', mime: 'image/vnd.dxf', write: (drawing) => Promise.resolve(drawingDxf(drawing)) },
  pdf: {
    name: 'PDF',
    mime: 'application/pdf',
    write: async (drawing, paper) => {
      const { drawingPdf } = await import('./drawingPdf.ts');
      return new Uint8Array(await drawingPdf(drawing, paper));
    },
  },
};
