import { boundsOf, type Outline } from '../features/outline.ts';

/** What a line of a drawing is for: wood is cut there, or it is only marked; or it helps the eye. */
export const LAYERS = ['cut', 'mark', 'guide'] as const;
export type Layer = (typeof LAYERS)[number];

/** A drawing at full size: lines and words on a sheet, mm, y down. */
export interface Drawing {
  title: string;
  lines: { layer: Layer; outline: Outline }[];
  /** `size` is the height of the letters, mm; the words begin at x, or end or have their middle there. */
  words: { x: number; y: number; size: number; text: string; anchor?: 'middle' | 'end' }[];
}

/** Room a drawing takes, its words not counted, mm. */
export function extentOf(drawing: Drawing): { left: number; top: number; width: number; height: number } {
  const { left, right, far, near } = boundsOf(drawing.lines.map((l) => l.outline));
  return { left, top: far, width: right - left, height: near - far };
}
