import { QueryClient } from '@tanstack/react-query';
import { ApiProblem } from './api.ts';

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

export const keys = {
  boards: ['boards'],
  rack: ['rack'],
  shop: ['shop'],
  species: ['species'],
  saw: ['saw'],
  schedule: ['schedule'],
} as const;
