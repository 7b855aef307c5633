import type { Json, VersionStep } from './step.ts';

/** Slices name the panels they are sawn from: rows may come from several in turn. */
function sliced(board: Json): Json {
  // What is no board is told by its own name later.
  if (!Array.isArray((board as Json | null)?.recipe)) return board;
  return {
    ...board,
    recipe: (board.recipe as (Json | null)[]).map((o) =>
      o?.kind === 'slice' && typeof o.takes === 'string' ? { ...o, takes: [o.takes] } : o,
    ),
  };
}

/** Frames may go round a board and a back under it, and rows come from several panels in turn. */
export const TO_12 = {
  version: 12,
  board: (board: Json): Json => ({
    ...sliced(board),
    ...(Array.isArray(board.versions) ? { versions: (board.versions as Json[]).map(sliced) } : {}),
  }),
} satisfies VersionStep;
