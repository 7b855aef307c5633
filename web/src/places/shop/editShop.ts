import type { Shop } from '#core/shop/shop.ts';

/** Changes the shop; saved as a field is left. */
export type EditShop = (edit: (shop: Shop) => Shop) => void;
