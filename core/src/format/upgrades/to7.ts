import { each, type Json, type VersionStep } from './step.ts';

/** Whoever turned a strip had chosen the side that shows. */
const strips = (list: unknown) => each(list, (s) => ({ sideKept: s.turned === true, ...s }));

/**
 * Grits of the shop's own, none so far; strips say whether their maker chose the side that shows; a stop that was gone on with was so wherever it stood.
 */
export const TO_7 = {
  version: 7,
  board: (board: Json): Json => ({
    ...board,
    ...('strips' in board ? { strips: strips(board.strips) } : {}),
    ...('versions' in board ? { versions: each(board.versions, (v) => ({ ...v, strips: strips(v.strips) })) } : {}),
    ...('accepted' in board ? { accepted: each(board.accepted, (a) => ({ strips: null, ...a })) } : {}),
  }),
  shop: (shop: Json): Json => ({ grits: null, ...shop }),
} satisfies VersionStep;
