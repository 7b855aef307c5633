/** A stored thing of an older version: plain JSON, not checked yet. */
export type Json = Record<string, unknown>;
export type Change = (json: Json) => Json;

/**
 * What a version changed in each kind of thing that is stored or written; a kind that is left out stayed as it was. Frozen once it has been used: its values are
 * written out here and never read from the defaults of today, which change.
 */
export interface VersionStep {
  version: number;
  board?: Change;
  shop?: Change;
  piece?: Change;
  species?: Change;
  /** What of a board became facts of its own, from the board as it was before the step. `at` is when that was noted, as far as anybody knows. */
  facts?: (before: Json, at: string) => Json[];
}

export function isRecord(value: unknown): value is Json {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** Each of a list's records changed; what is no list and no record is left to the schema that will refuse it. */
export function each(list: unknown, change: Change): unknown {
  return Array.isArray(list) ? list.map((one: unknown) => (isRecord(one) ? change(one) : one)) : list;
}

/** Files before version 9 do not tell when something happened. */
const NOBODY_KNOWS_WHEN = '1970-01-01T00:00:00.000Z';

/** A whole board file, brought from the version before to a step's own. */
export function upgradeFile(file: Json, { version, board, shop, piece, species, facts }: VersionStep): Json {
  return {
    ...file,
    version,
    ...(facts && isRecord(file.board) ? { facts: facts(file.board, NOBODY_KNOWS_WHEN) } : {}),
    ...(board && isRecord(file.board) ? { board: board(file.board) } : {}),
    ...(shop && isRecord(file.shop) ? { shop: shop(file.shop) } : {}),
    ...(piece ? { rack: each(file.rack ?? [], piece) } : {}),
    ...(species && 'species' in file ? { species: each(file.species, species) } : {}),
  };
}
