import { GREATEST_SVG_BYTES, type ReadSvg } from '#core/format/svgArt.ts';
import type { SvgRequest } from './svgWorker.ts';

/** Reads the drawing in an SVG file, in a worker. Never rejects: what is wrong comes back as a sentence. */
export async function readSvgFile(file: File): Promise<ReadSvg> {
  if (file.size > GREATEST_SVG_BYTES)
    return {
      ok: false,
      problem: `${file.name} is ${Math.round(file.size / 1e6)} MB; at most ${GREATEST_SVG_BYTES / 1e6} MB are read. Simplify the drawing first.`,
    };
  let text: string;
  try {
    text = await file.text();
  } catch {
    return { ok: false, problem: `${file.name} could not be read; choose it again.` };
  }
  return new Promise((resolve) => {
    const worker = new Worker(new URL('./svgWorker.ts', import.meta.url), { type: 'module' });
    const done = (answer: ReadSvg) => {
      worker.terminate();
      resolve(answer);
    };
    worker.addEventListener('message', (event: MessageEvent<ReadSvg>) => done(event.data));
    worker.addEventListener('error', () =>
      done({ ok: false, problem: `${file.name} could not be read as a drawing.` }),
    );
    worker.postMessage({ text, name: file.name.replace(/\.svg$/i, '') } satisfies SvgRequest);
  });
}
