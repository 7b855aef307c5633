import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { shopSchema, type Shop } from '#core/shop/shop.ts';
import { api, ApiProblem, type StoredShop } from './api.ts';
import { keys, queryClient } from './queries.ts';

/** Changes figures of the shop, each saved as it is left; every plan follows. */
export function useShopEdit() {
  return useMutation({
    // One after the other, each on top of what the one before stored: quick fingers are not a conflict.
    scope: { id: 'shop' },
    mutationFn: async (edit: (shop: Shop) => Shop) => {
      const { shop, version } = queryClient.getQueryData<StoredShop>(keys.shop)!;
      const checked = shopSchema.safeParse(edit(shop));
      if (!checked.success) throw new Error(`Not saved: ${checked.error.issues[0]?.message ?? 'the figure is not valid'}.`);
      return api.saveShop(version, checked.data);
    },
    onSuccess: (saved) => queryClient.setQueryData(keys.shop, saved),
    onError: (error) => {
      const stale = error instanceof ApiProblem && error.code === 'stale';
      if (stale) queryClient.setQueryData(keys.shop, error.current);
      notifications.show({ color: 'red', message: stale ? `${error.message} The newer figures are shown now; make your change again.` : error.message });
    },
  });
}
