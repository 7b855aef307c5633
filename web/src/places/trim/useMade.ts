import { useMemo } from 'react';
import { madeFor } from '#core/board/madeFor.ts';
import { factsThatHold, thingOf, type HeldFact } from '#core/facts/factsThatHold.ts';
import type { Spot } from '#core/facts/fact.ts';
import type { Noted } from '../../data/factLine.ts';
import { factLine, useFactState } from '../../data/facts.ts';
import { useOpenBoard } from '../../data/openBoard.tsx';
import { showProblem } from '../../shell/notices.tsx';

/** What is there already of the open board's panel, and how more of it is noted. Facts are never edited: what is looked at again is noted again, and the last counts. */
export function useMade() {
  const { id, board, facts } = useOpenBoard();
  const state = useFactState(id);
  const line = factLine(id);
  const panel = board.recipe.at(-1)?.id ?? 'panel';
  const made = useMemo(() => madeFor(board, facts), [board, facts]);
  const about = { thing: panel, copy: 1 };
  const things = new Set(board.recipe.map((o) => o.id));
  /** What Trim notes: how long the first panel came out, and where it is bad. */
  const isAboutPanel = (fact: HeldFact) =>
    ((fact.kind === 'badPlace' && fact.side === undefined) ||
      (fact.kind === 'measured' && fact.dimension === 'length')) &&
    fact.thing === panel &&
    fact.copy === 1;
  /** Facts that hold about the panel, or about one bad place on it. */
  const held = (spot?: string) =>
    factsThatHold(facts)
      .filter((f) => isAboutPanel(f) && (spot === undefined || (f.kind === 'badPlace' && f.spot.id === spot)))
      .map((f) => f.id);
  const note = (noted: Noted, mergeKey?: string) => {
    try {
      line.note(noted, mergeKey);
    } catch (error) {
      showProblem(error);
    }
  };
  return {
    made,
    state,
    /** Facts about things that the recipe no longer has: they decide nothing. */
    elsewhere: factsThatHold(facts).filter((f) => {
      const about = thingOf(f);
      return about !== null && !things.has(about.thing);
    }),
    noteLength: (value: number) => note({ kind: 'measured', ...about, dimension: 'length', value }),
    noteSpot: (spot: Spot, mergeKey?: string) => note({ kind: 'badPlace', ...about, spot }, mergeKey),
    forgetSpot: (spot: string) => line.takeBack(held(spot)),
    forgetPanel: () => line.takeBack(held()),
    forget: (ids: readonly string[]) => line.takeBack(ids),
    endMerge: () => line.endMerge(),
  };
}
