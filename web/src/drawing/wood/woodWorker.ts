import { nth } from '#core/lists/there.ts';
import { bitmapFile } from './bitmap.ts';
import { logOf, type Log } from './log.ts';
import { paintMosaic, type Mosaic } from './mosaic.ts';
import { paintWood, type Cut } from './paintWood.ts';

export interface PaintRequest {
  key: string;
  log: Log;
  cut: Cut;
  scale: number;
  oiled: boolean;
  /** Painted before others that wait: what is looked at first. */
  first: boolean;
  /** A face glued of many cells: painted instead of the one cut, whose size is that of the face. */
  mosaic?: Mosaic;
  /** A coarse picture to be shown until the real one is there. */
  sketch?: boolean;
}

export interface PaintAnswer {
  key: string;
  /** The address of the picture. Made here: the page would wait several milliseconds for each. A sketch is its own address and is small. */
  url: string;
  /** The file; null for a sketch. */
  blob: Blob | null;
}

/** What a painter is asked: pictures to paint, or the address of one that nobody shows any more. */
export type PainterRequest = PaintRequest[] | { forget: string };

/** Long enough for the painter to be compiled for speed before the first real picture is asked for. */
const WARM_UP_MS = 160;

/** Paints what nobody sees, of every kind that comes: with and without a knot, faces and ends, sketches and real pictures. */
function warmUp(): void {
  const knot = {
    id: 'k',
    kind: 'knot',
    face: 'through',
    from: 10,
    across: 10,
    length: 20,
    width: 10,
    treatment: 'harmless',
  } as const;
  const logs = [[], [knot]].map((defects, i) =>
    logOf({ key: `warm${i}`, rings: 'flat', size: [100, 30], defects }, undefined),
  );
  const cuts: Cut[] = [
    { corner: [0.5, 0.5, 5], right: [1, 0, 0], down: [0, 1, 0], size: [150.5, 12.5] },
    { corner: [0.5, 0.5, 30], right: [0, 0, -1], down: [0, 1, 0], size: [30.5, 12.5] },
  ];
  const start = performance.now();
  for (let n = 0; performance.now() - start < WARM_UP_MS; n += 1) {
    for (const cut of cuts) for (const scale of [0.4, 2.1]) bitmapFile(paintWood(nth(logs, n % 2), cut, scale, false));
  }
}

warmUp();

/** More bytes than this are not taken in one call: the face of a whole board has more than a call may have arguments. */
const MOST_AT_ONCE = 8192;

function asText(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += MOST_AT_ONCE)
    text += String.fromCharCode(...bytes.subarray(i, i + MOST_AT_ONCE));
  return text;
}

function painted({ key, sketch = false, log, cut, mosaic, scale, oiled }: PaintRequest): PaintAnswer {
  const file = bitmapFile(mosaic ? paintMosaic(mosaic, cut.size, scale, oiled) : paintWood(log, cut, scale, oiled));
  if (sketch) return { key, url: `data:image/bmp;base64,${btoa(asText(file))}`, blob: null };
  const blob = new Blob([file], { type: 'image/bmp' });
  return { key, url: URL.createObjectURL(blob), blob };
}

self.addEventListener('message', ({ data }: MessageEvent<PainterRequest>) => {
  if ('forget' in data) URL.revokeObjectURL(data.forget);
  else self.postMessage(data.map(painted));
});
