import { useQuery } from '@tanstack/react-query';
import { useMemo, useSyncExternalStore } from 'react';
import type { ShoppingDocument, StoredShopping } from '#contract/money.ts';
import { api, ApiProblem } from '../../data/api.ts';
import { queryClient } from '../../data/queryClient.ts';
import { showProblem } from '../../shell/notices.tsx';

type Change = (shopping: ShoppingDocument) => ShoppingDocument;

/** Made here and not stored yet, oldest first. They go out one after the other. */
let waiting: readonly Change[] = [];
let sending = Promise.resolve();
const watchers = new Set<() => void>();

function letWait(changes: readonly Change[]): void {
  waiting = changes;
  for (const watcher of watchers) watcher();
}

const changed = (stored: StoredShopping, changes: readonly Change[]): StoredShopping => ({
  ...stored,
  shopping: changes.reduce((shopping, change) => change(shopping), stored.shopping),
});

/** The list as it is stored, with what was changed here since: an answer that was on its way does not take a tick back. */
export const shoppingQuery = {
  queryKey: ['shopping'],
  queryFn: async () => changed(await api.shopping(), waiting),
} as const;

function watch(watcher: () => void): () => void {
  watchers.add(watcher);
  return () => void watchers.delete(watcher);
}

/** The list as it is shown; null until it is there. A change is in it within the very event that made it: what is read goes to the page a moment later, and a tick would go out and come back. */
export function useShopping(): ShoppingDocument | null {
  const { data } = useQuery(shoppingQuery);
  const changes = useSyncExternalStore(watch, () => waiting);
  return useMemo(() => (data ? changed(data, changes).shopping : null), [data, changes]);
}

/** So often another device may be first. */
const MOST_TRIES = 4;

/** Changes the list: shown at once, stored one change after the other, on top of what other devices changed meanwhile. Doing a change twice must be the same as once. */
export function changeShopping(change: Change): void {
  const { queryKey } = shoppingQuery;
  const shown = queryClient.getQueryData<StoredShopping>(queryKey);
  if (!shown) return;
  letWait([...waiting, change]);
  show(changed(shown, [change]));
  sending = sending
    .then(() => stored(change))
    .catch((error: unknown) => {
      showProblem(error);
      return null;
    })
    .then((saved) => {
      letWait(waiting.filter((w) => w !== change));
      if (saved) show(changed(saved, waiting));
      else void queryClient.invalidateQueries({ queryKey });
    });
}

function show(shopping: StoredShopping): void {
  const { queryKey } = shoppingQuery;
  // What was asked for before must not come back over it.
  void queryClient.cancelQueries({ queryKey });
  queryClient.setQueryData<StoredShopping>(queryKey, shopping);
}

/** @throws ApiProblem */
async function stored(change: Change): Promise<StoredShopping> {
  for (let again = 0; ; again += 1) {
    const newest = await api.shopping();
    try {
      return await api.saveShopping(newest.version, change(newest.shopping));
    } catch (error) {
      if (!(error instanceof ApiProblem && error.code === 'stale') || again === MOST_TRIES) throw error;
    }
  }
}
