import { isRecord, type Json, type VersionStep } from './step.ts';

/** Strips say whether they are resawn from a stack of bits, slices where the first cut lies. */
function stacked(board: Json): Json {
  // What is no board is told by its own name later.
  if (!Array.isArray((board as Json | null)?.recipe)) return board;
  return {
    ...board,
    recipe: (board.recipe as (Json | null)[]).map((o) =>
      o?.kind === 'strip' && o.stack === undefined
        ? { ...o, stack: null }
        : o?.kind === 'slice' && o.first === undefined
          ? { ...o, first: 0 }
          : o,
    ),
  };
}

/** Bits may be glued end to end and resawn into accents; a shop says how glue goes on sawn ends. */
export const TO_13 = {
  version: 13,
  board: (board: Json): Json => ({
    ...stacked(board),
    ...(Array.isArray(board.versions) ? { versions: (board.versions as Json[]).map(stacked) } : {}),
  }),
  shop: (shop: Json): Json =>
    isRecord(shop.schools) ? { ...shop, schools: { endCoat: 'sized', ...shop.schools } } : shop,
} satisfies VersionStep;
