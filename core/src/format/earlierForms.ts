type Json = Record<string, unknown>;

/**
 * Versions 2 and 6 were written in several forms while they were made: early ones lack fields that later ones have. This fills them in with the values of then,
 * and leaves alone what is there. Frozen: the values are written out, and stay what they are.
 */
export function completeShop(shop: Json): Json {
  return isRecord(shop.planer) ? { ...shop, planer: { leastWidth: 20, leastThickness: 6, ...shop.planer } } : shop;
}

/** The same for a board: marks without a drawing, panels that were only planned, no other boards from them. */
export function completeBoard(board: Json): Json {
  if (!isRecord(board.worked)) return board;
  const { features } = board.worked;
  const complete = (feature: unknown) =>
    isRecord(feature) && feature.kind === 'mark'
      ? { art: null, mirror: false, filled: false, bit: 1, angle: 60, plugStart: 1.5, plugDepth: 1.5, ...feature }
      : feature;
  return {
    ...board,
    worked: {
      gluedLength: null,
      others: [],
      ...board.worked,
      ...(Array.isArray(features) ? { features: features.map(complete) } : {}),
    },
  };
}

export function completeFile(file: Json): Json {
  return {
    ...file,
    ...(isRecord(file.board) ? { board: completeBoard(file.board) } : {}),
    ...(isRecord(file.shop) ? { shop: completeShop(file.shop) } : {}),
  };
}

function isRecord(value: unknown): value is Json {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
