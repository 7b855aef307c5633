import { useMemo } from 'react';
import { panelBoardOf } from '#core/board/again.ts';
import type { Board } from '#core/board/board.ts';
import { madeFor } from '#core/board/madeFor.ts';
import {
  stacksAsked,
  withOneAccentLess,
  withOneMoreAccent,
  withoutStack,
  withStack,
  withStackChanged,
  withStacksFitted,
  type BitWood,
} from '#core/board/stacks.ts';
import { accentOf } from '#core/board/looks.ts';
import { GREATEST_STICK_COUNT, stackSchema, stripSchema, stripsOf } from '#core/board/recipe.ts';
import { useOpenBoard } from '../../../data/openBoard.tsx';
import { useDisplay } from '../../../quantities/display.tsx';

/** What hands do with accents of bits; each is one step of undo, those with the same key together. */
export function useStacks() {
  const { board, input, session } = useOpenBoard();
  const { display } = useDisplay();
  const stacks = useMemo(
    () => stacksAsked(board, input.shop, madeFor(panelBoardOf(board, input.shop), input.facts)),
    [board, input.shop, input.facts],
  );
  const bitsOf = (id: string): BitWood[] =>
    stacks.find((s) => s.operation.id === id)?.sticks.map((s) => ({ species: s.strip.species, length: s.bit })) ?? [];
  const lay = (id: string, bits: readonly BitWood[], mergeKey?: string) => {
    // Kept to what can be: a hand that goes too far stops there.
    if (stackSchema.shape.bits.safeParse(bits.map((b) => b.length)).success)
      session.edit((b) => withStackChanged(b, id, { bits }), mergeKey);
  };
  /** As deep as its accents and their spares ask. */
  const fitted = (b: Board, id: string | null = null) => withStacksFitted(b, input.shop, id, display.system);
  const wide = (width: number) => stripSchema.shape.width.safeParse(width).success;
  return {
    stacks,
    /** One more stack, of the woods of the board. */
    add: () => {
      const edge = stripsOf(board)[0]?.species ?? '';
      session.edit((b) => fitted(withStack(b, [...new Set([accentOf(b), edge])], display.system)));
    },
    remove: (id: string) => session.edit((b) => withoutStack(b, id)),
    changeBit: (id: string, at: number, change: Partial<BitWood>, mergeKey?: string) =>
      lay(
        id,
        bitsOf(id).map((bit, i) => (i === at ? { ...bit, ...change } : bit)),
        mergeKey,
      ),
    /** One more wood in the pattern, like the one in hand, behind it. */
    addBit: (id: string, at: number) => {
      const bits = bitsOf(id);
      const like = bits[at];
      if (like && bits.length < GREATEST_STICK_COUNT) lay(id, bits.toSpliced(at + 1, 0, like));
    },
    /** The last one stays: a stack has at least one. */
    removeBit: (id: string, at: number) => {
      if (bitsOf(id).length > 1)
        lay(
          id,
          bitsOf(id).filter((_, i) => i !== at),
        );
    },
    /** The stack gets as deep as that asks. */
    more: (id: string) => session.edit((b) => fitted(withOneMoreAccent(b, id), id)),
    less: (id: string) => session.edit((b) => fitted(withOneAccentLess(b, id), id)),
    setAccents: (id: string, width: number) =>
      session.edit((b) => fitted(withStackChanged(b, id, { accents: width }), id)),
    setDepth: (id: string, depth: number, mergeKey?: string) => {
      if (wide(depth)) session.edit((b) => withStackChanged(b, id, { depth }), mergeKey);
    },
    fit: (id: string) => session.edit((b) => fitted(b, id)),
    endMerge: () => session.endMerge(),
  };
}
