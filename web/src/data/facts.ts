import { useQuery } from '@tanstack/react-query';
import { useSyncExternalStore } from 'react';
import type { BoardFacts } from '#contract/facts.ts';
import type { Fact } from '#core/facts/fact.ts';
import { api } from './api.ts';
import type { LineState } from './editLine.ts';
import { FactLine, waitingNames } from './factLine.ts';
import { queryClient } from './queryClient.ts';

const keyOf = (board: string) => ['facts', board] as const;
const byKeyOf = (board: string) => ['facts noted by', board] as const;
const lines = new Map<string, FactLine>();

/** The line on which what happened to a board goes out. */
export function factLine(board: string): FactLine {
  const known = lines.get(board);
  if (known) return known;
  const line = new FactLine({
    name: board,
    show: (facts) => queryClient.setQueryData<Fact[]>(keyOf(board), facts),
    send: async (facts) => {
      const stored = taken(board, await api.addFacts(board, facts));
      // What is waited for follows from what was done.
      void queryClient.invalidateQueries({ queryKey: ['waits'] });
      return stored;
    },
  });
  lines.set(board, line);
  return line;
}

/** Lets go of what pages of this tab knew; what is not sent stays in the device's storage. For tests that share one document. */
export function letGoOfFacts(): void {
  for (const line of lines.values()) line.letGo();
  lines.clear();
}

// What had not arrived when the page was left goes out from whichever page comes next.
for (const name of waitingNames()) factLine(name);

/** All that happened to a board, with what is not sent yet. */
export const factsQuery = (board: string) =>
  ({
    queryKey: keyOf(board),
    queryFn: async () => factLine(board).over(taken(board, await api.facts(board))),
  }) as const;

/** Keeps who noted what beside the facts. @returns the facts */
function taken(board: string, { facts, by }: BoardFacts): Fact[] {
  queryClient.setQueryData<BoardFacts['by']>(byKeyOf(board), by);
  return facts;
}

/** Who noted what, by the ids of fact and person; empty where no device says whose it is. */
export function useNotedBy(board: string): BoardFacts['by'] {
  const { data } = useQuery<BoardFacts['by']>({
    queryKey: byKeyOf(board),
    queryFn: async () => (await api.facts(board)).by,
    // It comes with the facts.
    enabled: false,
    initialData: {},
  });
  return data;
}

/** How it stands with what was noted on this device. */
export function useFactState(board: string): LineState {
  const line = factLine(board);
  return useSyncExternalStore(line.subscribe, line.snapshot);
}
