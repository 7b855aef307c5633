import fc from 'fast-check';
import type { Board } from '../board/board.ts';
import { DEFAULT_SHOP, type Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { HANDBOOK_SPECIES } from '../wood/handbookSpecies.ts';
import type { PlanInput } from './context.ts';

const CODES = ['maple-hard', 'beech-european', 'walnut-black'];

/** A piece with nothing special about it; tests change what they are about. */
export function plainPiece(change: Partial<Piece> = {}): Piece {
  return {
    id: 'p1', mark: 'P1', species: 'maple-hard', length: 2000, width: 150, thickness: 50, surface: 'rough', rings: 'flat', price: null, note: '', ...change,
  };
}

/** A board of equal strips of one species. */
export function plainBoard(change: Partial<Board> = {}, widths: readonly number[] = [46, 46, 46, 46, 46, 46]): Board {
  return {
    name: 'Test board', use: '', construction: 'edge', length: 400, width: 260, thickness: 30, count: 1,
    strips: widths.map((width, i) => ({ id: `s${i + 1}`, species: 'maple-hard', width, endForEnd: false })), ...change,
  };
}

export function planInput(board: Board, rack: readonly Piece[], shop: Shop = DEFAULT_SHOP): PlanInput {
  return { board, rack, shop, species: HANDBOOK_SPECIES };
}

const tenths = (least: number, greatest: number) => fc.integer({ min: least * 10, max: greatest * 10 }).map((n) => n / 10);

const pieceArbitrary = fc.record({
  species: fc.constantFrom(...CODES), length: tenths(200, 2500), width: tenths(40, 260), thickness: tenths(8, 60),
  surface: fc.constantFrom<Piece['surface']>('rough', 'surfaced'), rings: fc.constantFrom<Piece['rings']>('flat', 'rift', 'quarter'),
});

/** Boards and racks of all kinds, good and hopeless, for the properties every plan must have. */
export const planInputArbitrary: fc.Arbitrary<PlanInput> = fc.record({
  construction: fc.constantFrom<Board['construction']>('edge', 'face'),
  length: tenths(150, 900), width: tenths(80, 500), thickness: tenths(10, 60), count: fc.integer({ min: 1, max: 3 }),
  strips: fc.array(fc.record({ species: fc.constantFrom(...CODES), width: tenths(2, 90), endForEnd: fc.boolean() }), { maxLength: 16 }),
  rack: fc.array(pieceArbitrary, { maxLength: 12 }),
  kerf: tenths(1, 4),
}).map(({ strips, rack, kerf, ...size }) => planInput(
  plainBoard({ ...size, strips: strips.map((s, i) => ({ id: `s${i}`, ...s })) }),
  rack.map((piece, i) => plainPiece({ ...piece, id: `p${i}`, mark: `P${i}` })),
  { ...DEFAULT_SHOP, saw: { ...DEFAULT_SHOP.saw, kerf } },
));
