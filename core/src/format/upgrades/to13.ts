import type { Json, VersionStep } from './step.ts';

/** Strips say whether they are resawn from a stack of bits. */
function stacked(board: Json): Json {
  // What is no board is told by its own name later.
  if (!Array.isArray((board as Json | null)?.recipe)) return board;
  return {
    ...board,
    recipe: (board.recipe as (Json | null)[]).map((o) =>
      o?.kind === 'strip' && o.stack === undefined ? { ...o, stack: null } : o,
    ),
  };
}

/** Bits may be glued end to end and resawn into accents. */
export const TO_13 = {
  version: 13,
  board: (board: Json): Json => ({
    ...stacked(board),
    ...(Array.isArray(board.versions) ? { versions: (board.versions as Json[]).map(stacked) } : {}),
  }),
} satisfies VersionStep;
