import { keepPreviousData, useInfiniteQuery, useQuery, type InfiniteData } from '@tanstack/react-query';
import { useEffect } from 'react';
import type { SawBook } from '#core/saw/sawRecords.ts';
import type { ListedBoard } from '#contract/boards.ts';
import { api, type ListPage } from './api.ts';
import { keys, queryClient } from './queryClient.ts';
import { readRack, readShop } from './recordEdits.ts';

/** What keeps queries from having data: a refusal, or a passing trouble while it is tried again. */
export function trouble(
  ...queries: { data: unknown; error: Error | null; failureReason: Error | null }[]
): Error | null {
  for (const query of queries)
    if (query.data === undefined && (query.error ?? query.failureReason)) return query.error ?? query.failureReason;
  return null;
}

/** Boards as lists show them, the newest change first, a page at a time. */
export const useBoards = () =>
  useInfiniteQuery({
    queryKey: keys.boards,
    initialPageParam: null as string | null,
    queryFn: ({ pageParam }) => api.boards(pageParam),
    getNextPageParam: ({ next }) => next,
    select: rowsOf,
  });

/** The same to the last one: for choosing among them by name. */
export function useAllBoards() {
  const boards = useBoards();
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = boards;
  useEffect(() => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [hasNextPage, isFetchingNextPage, fetchNextPage]);
  return boards;
}

/** A board that was changed while the pages were fetched is in the first of them. */
function rowsOf({ pages }: InfiniteData<ListPage<ListedBoard>>): ListedBoard[] {
  const rows = new Map<string, ListedBoard>();
  for (const { rows: part } of pages) for (const stored of part) if (!rows.has(stored.id)) rows.set(stored.id, stored);
  return [...rows.values()];
}

/** For pages that only ask what is promised. */
export const NO_BOARDS: readonly string[] = [];

export const useRack = () => useQuery({ queryKey: keys.rack, queryFn: readRack });
export const useShop = () => useQuery({ queryKey: keys.shop, queryFn: readShop });
/** All promised wood, and what was kept and cut for these boards. */
export const useSawBook = (boards: readonly string[]) =>
  useQuery({ queryKey: [...keys.saw, ...boards], queryFn: () => api.saw(boards), placeholderData: keepPreviousData });
export const useSpecies = () => useQuery({ queryKey: keys.species, queryFn: api.species, staleTime: 60_000 });

/** Shows what a write at the saw answered to the page of a board, and has everything else look again. */
export function takeBook(board: string, book: SawBook): void {
  const mine = ({ boards }: { boards: readonly string[] }) => boards.includes(board);
  queryClient.setQueryData<SawBook>([...keys.saw, board], {
    promises: book.promises,
    plans: book.plans.filter(mine),
    cuttings: book.cuttings.filter(mine),
  });
  void queryClient.invalidateQueries({ queryKey: keys.saw });
  void queryClient.invalidateQueries({ queryKey: keys.rack });
}

/** One board as it is, with all that lists leave out and what happened to it. */
export const boardQuery = (id: string) =>
  ({
    queryKey: ['board with facts', id],
    queryFn: async (): Promise<ListedBoard> => {
      const [stored, { facts }] = await Promise.all([api.board(id), api.facts(id)]);
      return { ...stored, facts };
    },
  }) as const;
