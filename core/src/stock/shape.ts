import { boardFeet, MM3_PER_M3 } from '../units/volume.ts';
import type { Piece } from './piece.ts';

type Tapering = Pick<Piece, 'length' | 'width' | 'thickness' | 'farEnd'>;

/** Width at a place along the piece, mm; sides taper evenly. */
export function widthAt(piece: Tapering, x: number): number {
  return piece.width + (((piece.farEnd?.width ?? piece.width) - piece.width) * x) / piece.length;
}

/** Thickness at a place along the piece, mm. */
export function thicknessAt(piece: Tapering, x: number): number {
  return piece.thickness + (((piece.farEnd?.thickness ?? piece.thickness) - piece.thickness) * x) / piece.length;
}

/** Volume of the piece between two places, full width, mm3. Simpson's rule, exact for a product of two straight lines. */
export function volumeBetween(piece: Tapering, from: number, to: number): number {
  const section = (x: number) => widthAt(piece, x) * thicknessAt(piece, x);
  return ((to - from) / 6) * (section(from) + 4 * section((from + to) / 2) + section(to));
}

/** Volume of a ripping of even width between two places, mm3. */
export function ripVolume(piece: Tapering, from: number, to: number, width: number): number {
  return (to - from) * width * thicknessAt(piece, (from + to) / 2);
}

/**
 * What a cubic millimetre of a piece costs.
 * @param density kg/m3 of the species at 12 %, for prices per kilogram; null when unknown
 * @returns an amount in the shop's currency, or null when the piece has no price that can be used
 */
export function pricePerMm3(piece: Piece, density: number | null): number | null {
  if (!piece.price) return null;
  const { amount, per } = piece.price;
  switch (per) {
    case 'cubicMetre':
      return amount / MM3_PER_M3;
    case 'boardFoot':
      return amount * boardFeet(1);
    case 'kilogram':
      return density === null ? null : (amount * density) / MM3_PER_M3;
    case 'piece':
      return amount / volumeBetween(piece, 0, piece.length);
  }
}
