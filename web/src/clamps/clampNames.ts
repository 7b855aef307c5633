import type { Clamp } from '#core/shop/gluing.ts';

/** What kinds of clamps are called. */
export const CLAMP_NAMES: Readonly<Record<Clamp['kind'], string>> = {
  pipe: 'Pipe clamp',
  bar: 'Bar clamp',
  parallel: 'Parallel clamp',
  f: 'F clamp',
};
