import type { Shop } from '#core/shop/shop.ts';

/** The time zone that the shop's clock shows: its own, or the one of this device. */
export function zoneOf({ zone }: Pick<Shop, 'zone'>): string {
  return zone ?? new Intl.DateTimeFormat().resolvedOptions().timeZone;
}
