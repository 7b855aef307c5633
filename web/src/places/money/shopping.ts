import type { ShoppingDocument, StoredShopping } from '#contract/money.ts';
import { api, ApiProblem } from '../../data/api.ts';
import { queryClient } from '../../data/queryClient.ts';
import { showProblem } from '../../shell/notices.tsx';

export const shoppingQuery = { queryKey: ['shopping'], queryFn: api.shopping } as const;

/** So often another device may be first. */
const MOST_TRIES = 4;
/** Changes go out one after the other. */
let sending = Promise.resolve();

/** Changes the list: shown at once, stored one change after the other, on top of what other devices changed meanwhile. */
export function changeShopping(change: (shopping: ShoppingDocument) => ShoppingDocument): void {
  const { queryKey } = shoppingQuery;
  const shown = queryClient.getQueryData<StoredShopping>(queryKey);
  if (!shown) return;
  // What was asked for before must not come back over it.
  void queryClient.cancelQueries({ queryKey });
  queryClient.setQueryData<StoredShopping>(queryKey, { ...shown, shopping: change(shown.shopping) });
  sending = sending
    .then(() => stored(change))
    .catch((error: unknown) => {
      showProblem(error);
      void queryClient.invalidateQueries({ queryKey });
    });
}

/** @throws ApiProblem */
async function stored(change: (shopping: ShoppingDocument) => ShoppingDocument): Promise<void> {
  for (let again = 0; ; again += 1) {
    const newest = await api.shopping();
    try {
      const saved = await api.saveShopping(newest.version, change(newest.shopping));
      queryClient.setQueryData<StoredShopping>(shoppingQuery.queryKey, saved);
      return;
    } catch (error) {
      if (!(error instanceof ApiProblem && error.code === 'stale') || again === MOST_TRIES) throw error;
    }
  }
}
