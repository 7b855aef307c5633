import type { Shop } from '../shop/shop.ts';
import type { Board } from './board.ts';
import { shopFor } from './differences.ts';

/** What is read of a board in a shop, read once: the same two give the same object. @param read given the shop as the board is made in it */
export function remembered<M, T extends object>(
  read: (board: Board, made: M, shop: Shop) => T,
): (board: Board, made: M, own: Shop) => T {
  const known = new WeakMap<Board, WeakMap<Shop, T>>();
  return (board, made, own) => {
    const ofBoard = known.get(board) ?? new WeakMap<Shop, T>();
    known.set(board, ofBoard);
    const found = ofBoard.get(own) ?? read(board, made, shopFor(board, own));
    ofBoard.set(own, found);
    return found;
  };
}
