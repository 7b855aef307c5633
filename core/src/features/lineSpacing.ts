import { nth } from '../lists/there.ts';
import { outlinePoints, type Outline, type Point } from './outline.ts';

/**
 * Places where lines run nearer to each other than a tool is wide, so that it would cut them into one. Points are taken along every line a quarter of the tool apart; two of them count when they are nearer than the
 * tool is wide but further apart along their line than the way round any corner of it. Each square of the tool's size counts once.
 * @param bit width of the tool, mm
 */
export function tightPlaces(outlines: readonly Outline[], bit: number): Point[] {
  const cells = new Map<string, { x: number; y: number; line: number; along: number }[]>();
  const key = (x: number, y: number) => `${x},${y}`;
  const [tight, seen] = [[] as Point[], new Set<string>()];
  outlines.forEach((outline, line) => {
    const points = outlinePoints(outline, bit / 4);
    let along = 0;
    const total = points.reduce(
      (sum, p, i) => sum + (i > 0 ? Math.hypot(p.x - nth(points, i - 1).x, p.y - nth(points, i - 1).y) : 0),
      0,
    );
    points.forEach((p, i) => {
      if (i > 0) along += Math.hypot(p.x - nth(points, i - 1).x, p.y - nth(points, i - 1).y);
      const [cx, cy] = [Math.floor(p.x / bit), Math.floor(p.y / bit)];
      for (let dx = -1; dx <= 1; dx += 1) {
        for (let dy = -1; dy <= 1; dy += 1) {
          for (const q of cells.get(key(cx + dx, cy + dy)) ?? []) {
            const way = q.line === line ? Math.abs(q.along - along) : Infinity;
            const round = outline.closed ? Math.min(way, total - way) : way;
            if (
              Math.hypot(q.x - p.x, q.y - p.y) < bit - 1e-6 &&
              (q.line !== line || round > Math.PI * bit) &&
              !seen.has(key(cx, cy))
            ) {
              seen.add(key(cx, cy));
              tight.push(p);
            }
          }
        }
      }
      const cell = cells.get(key(cx, cy));
      if (cell) cell.push({ ...p, line, along });
      else cells.set(key(cx, cy), [{ ...p, line, along }]);
    });
  });
  return tight;
}
