import { nth } from '#core/lists/there.ts';
import QRCode from 'qrcode';
import { useEffect, useState } from 'react';

/** A square code as the path of its dark modules, and how many modules it is wide. */
export interface Code {
  path: string;
  modules: number;
}

/** Work goes on for so long before the page gets a turn, ms. */
const PORTION_MS = 12;

/** The code of a text, each run of dark modules in a row as one line of the path. */
export function codeOf(text: string): Code {
  const { data, size } = QRCode.create(text, { errorCorrectionLevel: 'M' }).modules;
  let path = '';
  for (let row = 0; row < size; row += 1) {
    for (let column = 0; column < size; column += 1) {
      if (!data[row * size + column]) continue;
      const from = column;
      while (column + 1 < size && data[row * size + column + 1]) column += 1;
      path += `M${from} ${row}h${column + 1 - from}v1h${from - column - 1}z`;
    }
  }
  return { path, modules: size };
}

/** Codes of many texts, made a portion at a time so that the page stays alive. @returns those that are made so far, in order */
export function useCodes(texts: readonly string[]): readonly Code[] {
  const [made, setMade] = useState<{ of: readonly string[]; codes: readonly Code[] }>({ of: [], codes: [] });
  useEffect(() => {
    const codes: Code[] = [];
    let timer: ReturnType<typeof setTimeout>;
    const portion = () => {
      const until = performance.now() + PORTION_MS;
      while (codes.length < texts.length && performance.now() < until) codes.push(codeOf(nth(texts, codes.length)));
      setMade({ of: texts, codes: [...codes] });
      if (codes.length < texts.length) timer = setTimeout(portion, 0);
    };
    timer = setTimeout(portion, 0);
    return () => clearTimeout(timer);
  }, [texts]);
  return made.of === texts ? made.codes : [];
}
