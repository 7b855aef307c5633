import { z } from 'zod';
import { boardFeet } from '../units/volume.ts';
import { lengthBetween, lineOfText } from '../units/lengthSchema.ts';

/** The largest piece a shop would carry in. */
export const GREATEST_STOCK_LENGTH = 8000;
const GREATEST_STOCK_WIDTH = 1200;
const GREATEST_STOCK_THICKNESS = 300;

export const surfaces = ['rough', 'surfaced'] as const;
export const ringOrientations = ['flat', 'rift', 'quarter'] as const;

/** Flat: rings lie along the broad face; quarter: they stand on it; rift: between. */
export type RingOrientation = (typeof ringOrientations)[number];

const priceSchema = z.strictObject({
  /** In the shop's currency. */
  amount: z.number({ error: 'must be a number' }).min(0, { error: 'must not be negative' }).max(1e6, { error: 'must be at most 1 000 000' }),
  per: z.enum(['boardFoot', 'cubicMetre', 'piece']),
});

/** What a person enters about a piece of stock. Lengths in millimetres. */
export const pieceFieldsSchema = z.strictObject({
  /** The mark written on its end, e.g. `B3`. */
  mark: lineOfText(1, 12),
  species: z.string({ error: 'must be chosen' }).min(1, { error: 'must be chosen' }).max(40),
  length: lengthBetween(20, GREATEST_STOCK_LENGTH),
  width: lengthBetween(5, GREATEST_STOCK_WIDTH),
  thickness: lengthBetween(2, GREATEST_STOCK_THICKNESS),
  surface: z.enum(surfaces),
  rings: z.enum(ringOrientations),
  price: priceSchema.nullable(),
  note: lineOfText(0, 500),
});
export type PieceFields = z.infer<typeof pieceFieldsSchema>;

/** A piece of stock in the rack: the fields plus its identity. */
export const pieceSchema = pieceFieldsSchema.extend({ id: z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, { error: 'must be 1 to 40 letters, digits, _ or -' }) });
export type Piece = z.infer<typeof pieceSchema>;

/**
 * The price of a volume cut from a piece.
 * @param mm3 volume taken, cubic millimetres
 * @returns an amount in the shop's currency, or null when the piece has no price
 */
export function priceOfVolume(piece: Piece, mm3: number): number | null {
  if (!piece.price) return null;
  const { amount, per } = piece.price;
  if (per === 'cubicMetre') return (amount * mm3) / 1e9;
  if (per === 'boardFoot') return amount * boardFeet(mm3);
  return amount * (mm3 / (piece.length * piece.width * piece.thickness));
}
