import { QueryClient, useQuery } from '@tanstack/react-query';
import { api, ApiProblem } from './api.ts';

/** What the server knows, cached; refetched when the window comes back into view. */
export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 2000,
      // What may pass is tried until it works; `trouble` tells about it meanwhile.
      retry: (_failures, error) => error instanceof ApiProblem && error.passing,
      retryDelay: (attempt) => Math.min(4000, 400 * 2 ** attempt),
    },
  },
});

/** What keeps queries from having data: a refusal, or a passing trouble while it is tried again. */
export function trouble(...queries: { data: unknown; error: Error | null; failureReason: Error | null }[]): Error | null {
  for (const query of queries) if (query.data === undefined && (query.error ?? query.failureReason)) return query.error ?? query.failureReason;
  return null;
}

export const keys = { boards: ['boards'], rack: ['rack'], shop: ['shop'], species: ['species'], saw: ['saw'] } as const;

export const useBoards = () => useQuery({ queryKey: keys.boards, queryFn: api.boards });
export const useRack = () => useQuery({ queryKey: keys.rack, queryFn: api.rack });
export const useShop = () => useQuery({ queryKey: keys.shop, queryFn: api.shop });
export const useSawBook = () => useQuery({ queryKey: keys.saw, queryFn: api.saw });
export const useSpecies = () => useQuery({ queryKey: keys.species, queryFn: api.species, staleTime: 60_000 });
