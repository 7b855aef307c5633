import { shift, type Triple } from './motion.ts';
import { carried, type Workpiece } from './workpiece.ts';

/** What each part of a panel must measure for the panel that is wanted: as long and as high as that, mm; across they add up. */
export function glueBackward(panel: { length: number; height: number }): { length: number; height: number } {
  return panel;
}

/** What comes of parts side by side: as long as the shortest and as high as the lowest, as wide as all of them together, mm. */
export function glueForward(parts: readonly Triple[]): Triple {
  if (parts.length === 0) return [0, 0, 0];
  return [
    Math.min(...parts.map((p) => p[0])),
    parts.reduce((sum, p) => sum + p[1], 0),
    Math.min(...parts.map((p) => p[2])),
  ];
}

/**
 * The parts side by side, each shifted across to where the one before it ends.
 * @param shifts how much further along each lies, mm; the panel is then as long as all of them together reach. Left out: they lie flush
 */
export function glueWorkpiece(parts: readonly Workpiece[], shifts?: readonly number[]): Workpiece {
  let across = 0;
  const cells = parts.flatMap((part, i) => {
    const at = across;
    across += part.size[1];
    return carried(part.cells, shift([shifts?.[i] ?? 0, at, 0]));
  });
  const [flush, width, height] = glueForward(parts.map((p) => p.size));
  const length = shifts ? Math.max(0, ...parts.map((p, i) => p.size[0] + (shifts[i] ?? 0))) : flush;
  return { size: [length, width, height], cells };
}
