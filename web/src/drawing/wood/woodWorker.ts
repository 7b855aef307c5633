import { bitmapFile } from './bitmap.ts';
import { logOf, type Log } from './log.ts';
import { paintWood, type Cut } from './paintWood.ts';

export interface PaintRequest {
  key: string;
  log: Log;
  cut: Cut;
  scale: number;
  oiled: boolean;
  /** Painted before others that wait: what is looked at first. */
  first: boolean;
  /** A coarse picture to be shown until the real one is there. */
  sketch?: boolean;
}

export interface PaintAnswer {
  key: string;
  sketch: boolean;
  file: Uint8Array<ArrayBuffer>;
}

/** Long enough for the painter to be compiled for speed before the first real picture is asked for. */
const WARM_UP_MS = 90;

/** Paints what nobody sees. */
function warmUp(): void {
  const knot = { id: 'k', kind: 'knot', face: 'through', from: 10, across: 10, length: 20, width: 10, treatment: 'harmless' } as const;
  const log = logOf({ key: 'warm', rings: 'flat', size: [100, 30], defects: [knot] }, undefined);
  const start = performance.now();
  while (performance.now() - start < WARM_UP_MS) bitmapFile(paintWood(log, { corner: [0, 0, 5], right: [1, 0, 0], down: [0, 1, 0], size: [150, 12] }, 2, false));
}

warmUp();

self.addEventListener('message', ({ data }: MessageEvent<PaintRequest[]>) => {
  const answers = data.map(({ key, sketch = false, log, cut, scale, oiled }): PaintAnswer => ({ key, sketch, file: bitmapFile(paintWood(log, cut, scale, oiled)) }));
  self.postMessage(answers, { transfer: answers.map((a) => a.file.buffer) });
});
