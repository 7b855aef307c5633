import { isRecord, type Json, type VersionStep } from './step.ts';

/** Id of what gives the panel: the last operation of the recipe. */
function panelOf({ recipe }: Json): unknown {
  const last: unknown = Array.isArray(recipe) ? recipe.at(-1) : undefined;
  return isRecord(last) ? last.id : 'panel';
}

/** What happened is no longer among what is wished: the length of the glued panel and the bad places found on it are facts beside the board. */
export const TO_9 = {
  version: 9,
  board: (board: Json): Json => {
    if (!isRecord(board.worked)) return board;
    const { gluedLength: _length, spots: _spots, ...worked } = board.worked;
    return { ...board, worked };
  },
  facts: (before: Json, at: string): Json[] => {
    if (!isRecord(before.worked)) return [];
    const { gluedLength, spots } = before.worked;
    const about = { at, thing: panelOf(before), copy: 1 };
    const length =
      typeof gluedLength === 'number'
        ? [{ kind: 'measured', id: 'glued', ...about, dimension: 'length', value: gluedLength }]
        : [];
    const places: unknown[] = Array.isArray(spots) ? spots : [];
    return [...length, ...places.map((spot, i) => ({ kind: 'badPlace', id: `found-${i + 1}`, ...about, spot }))];
  },
} satisfies VersionStep;
