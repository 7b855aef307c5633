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
}

export function isRecord(value: unknown): value is Json {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** Each of a list's records changed; what is no list and no record is left to the schema that will refuse it. */
export function each(list: unknown, change: Change): unknown {
  return Array.isArray(list) ? list.map((one: unknown) => (isRecord(one) ? change(one) : one)) : list;
}

/** A whole board file, brought from the version before to a step's own. */
export function upgradeFile(file: Json, { version, board, shop, piece, species }: VersionStep): Json {
  return {
    ...file,
    version,
    ...(board && isRecord(file.board) ? { board: board(file.board) } : {}),
    ...(shop && isRecord(file.shop) ? { shop: shop(file.shop) } : {}),
    ...(piece ? { rack: each(file.rack ?? [], piece) } : {}),
    ...(species && 'species' in file ? { species: each(file.species, species) } : {}),
  };
}
