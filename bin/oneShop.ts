import { isDeepStrictEqual } from 'node:util';
import { firstOf } from '#core/lists/there.ts';
import type { BoardFile } from '#core/format/boardFile.ts';
import type { Shop } from '#core/shop/shop.ts';
import type { Piece } from '#core/stock/piece.ts';
import type { Species } from '#core/wood/species.ts';
import { readBoard, Refusal } from './boardArguments.ts';

/** Several board files that are made together. */
export interface Together {
  files: BoardFile[];
  rack: Piece[];
  shop: Shop;
  species: Species[];
}

/** One rack out of several files: a piece that two files know must be the same piece. */
function oneRack(files: readonly BoardFile[], paths: readonly string[]): Piece[] {
  const rack = new Map<string, Piece>();
  files.forEach((file, i) =>
    file.rack.forEach((piece) => {
      const known = rack.get(piece.id);
      if (known && !isDeepStrictEqual(known, piece))
        throw new Refusal(
          `${paths[i]}: rack: piece ${piece.mark} differs from the one in ${paths[0]}; boards that are cut together need one rack.`,
        );
      rack.set(piece.id, piece);
    }),
  );
  return [...rack.values()];
}

/** Reads boards that are made in one shop from one rack. @throws Refusal that names the file and what is wrong in it */
export function readTogether(paths: readonly string[]): Together {
  const files = paths.map(readBoard);
  const rack = oneRack(files, paths);
  const { shop } = firstOf(files);
  files.forEach((file, i) => {
    if (!isDeepStrictEqual(file.shop, shop))
      throw new Refusal(
        `${paths[i]}: shop: differs from the one in ${paths[0]}; boards that are cut together need one shop.`,
      );
  });
  return { files, rack, shop, species: [...new Map(files.flatMap((f) => f.species).map((s) => [s.code, s])).values()] };
}
