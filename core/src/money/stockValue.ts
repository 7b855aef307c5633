import Big from 'big.js';
import { pricePerMm3, volumeBetween } from '../stock/shape.ts';
import type { Piece } from '../stock/piece.ts';
import type { Species } from '../wood/species.ts';
import { cubicMetres } from '../units/volume.ts';
import { amountOf, sumOf, type Amount } from './amount.ts';

/** A piece with what it is worth and since when it lies. */
export interface ValuedPiece {
  piece: Piece;
  /** All alike under its mark; null without a price. */
  value: Amount | null;
  /** Milliseconds since 1970. */
  since: number;
}

export interface StockValue {
  total: Amount;
  /** By species, the most valuable first. */
  species: { code: string; name: string; value: Amount; cubicMetres: number; pieces: number; unpriced: number }[];
  /** What lies longest, the oldest first. */
  oldest: ValuedPiece[];
  /** What goes by the name of an offcut or of salvage: how many, and what they have come to. */
  leftovers: { pieces: number; value: Amount; cubicMetres: number };
  unpriced: number;
}

const MOST_OLD = 10;

/** What the rack is worth: each mark rounded to the coin, and summed. */
export function stockValue(
  rack: readonly { piece: Piece; since: number }[],
  species: readonly Species[],
  currency: string,
): StockValue {
  const known = new Map(species.map((s) => [s.code, s]));
  const valued = rack.map(({ piece, since }): ValuedPiece & { volume: number } => {
    const volume = volumeBetween(piece, 0, piece.length) * piece.count;
    const price = pricePerMm3(piece, known.get(piece.species)?.density ?? null);
    return { piece, since, volume, value: price === null ? null : amountOf(new Big(price).times(volume), currency) };
  });
  const worth = (all: readonly ValuedPiece[]) => sumOf(all.flatMap((v) => v.value ?? []));
  const count = (all: readonly ValuedPiece[]) => all.reduce((sum, v) => sum + v.piece.count, 0);
  const volumeOf = (all: readonly { volume: number }[]) => cubicMetres(all.reduce((sum, v) => sum + v.volume, 0));
  const left = valued.filter((v) => v.piece.origin.kind !== 'bought');
  return {
    total: worth(valued),
    species: [...new Set(rack.map((r) => r.piece.species))]
      .map((code) => {
        const own = valued.filter((v) => v.piece.species === code);
        return {
          code,
          name: known.get(code)?.name ?? code,
          value: worth(own),
          cubicMetres: volumeOf(own),
          pieces: count(own),
          unpriced: count(own.filter((v) => v.value === null)),
        };
      })
      .sort((a, b) => b.value.cmp(a.value) || (a.name < b.name ? -1 : 1)),
    oldest: [...valued].sort((a, b) => a.since - b.since || (a.piece.mark < b.piece.mark ? -1 : 1)).slice(0, MOST_OLD),
    leftovers: { pieces: count(left), value: worth(left), cubicMetres: volumeOf(left) },
    unpriced: count(valued.filter((v) => v.value === null)),
  };
}
