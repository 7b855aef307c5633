import { each, isRecord, type Json, type VersionStep } from './step.ts';

/** A board is made by its recipe: the strips it had, and one glue-up that takes them in their order. Stops that were gone on with were so whatever else they were about. */
function made({ strips, ...rest }: Json): Json {
  if (!Array.isArray(strips)) return { ...rest, ...(strips === undefined ? {} : { recipe: strips }) };
  if (strips.length === 0) return { ...rest, recipe: [] };
  const ids: unknown[] = strips.map((s: unknown) => (isRecord(s) ? s.id : s));
  let id = 'panel';
  while (ids.includes(id)) id = `${id}-`;
  return {
    ...rest,
    recipe: [...(each(strips, (s) => ({ kind: 'strip', ...s })) as unknown[]), { kind: 'glue', id, takes: ids }],
  };
}

export const TO_8 = {
  version: 8,
  board: (board: Json): Json => ({
    ...made(board),
    ...('versions' in board ? { versions: each(board.versions, made) } : {}),
    ...('accepted' in board ? { accepted: each(board.accepted, (a) => ({ part: null, ...a })) } : {}),
  }),
} satisfies VersionStep;
