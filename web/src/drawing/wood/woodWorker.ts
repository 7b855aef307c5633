import { bitmapFile } from './bitmap.ts';
import type { Log } from './log.ts';
import { paintWood, type Cut } from './paintWood.ts';

export interface PaintRequest {
  key: string;
  log: Log;
  cut: Cut;
  scale: number;
  oiled: boolean;
}

export interface PaintAnswer {
  key: string;
  file: Uint8Array<ArrayBuffer>;
}

self.addEventListener('message', ({ data }: MessageEvent<PaintRequest>) => {
  const file = bitmapFile(paintWood(data.log, data.cut, data.scale, data.oiled));
  self.postMessage({ key: data.key, file } satisfies PaintAnswer, { transfer: [file.buffer] });
});
