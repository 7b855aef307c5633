import { readSvg, type ReadSvg } from '#core/format/svgArt.ts';

/** A file to be read as a drawing, beside the page, so that a large one does not hold it up. */
export interface SvgRequest {
  text: string;
  name: string;
}

self.addEventListener('message', (event: MessageEvent<SvgRequest>) => {
  self.postMessage(readSvg(event.data.text, event.data.name) satisfies ReadSvg);
});
