import type { Board } from '../board/board.ts';
import type { Finish } from '../shop/finishes.ts';
import type { Schools } from '../shop/schools.ts';
import type { Shop } from '../shop/shop.ts';

/** How mineral oil goes on by each school: overnight after flooding, overnight to drip, a night for each of three coats (common practice). */
const OIL_BY_SCHOOL: Readonly<
  Record<Exclude<Schools['oil'], 'none'>, Pick<Finish, 'method' | 'coats' | 'soakMinutes' | 'dryHours' | 'rubBack'>>
> = {
  flood: { method: 'flood', coats: 1, soakMinutes: 5, dryHours: 12, rubBack: false },
  bath: { method: 'bath', coats: 1, soakMinutes: 20, dryHours: 12, rubBack: false },
  coats: { method: 'wipe', coats: 3, soakMinutes: 5, dryHours: 24, rubBack: true },
};

/** A finish of a kind, with what the shop itself does. */
const ofKind = (shop: Pick<Shop, 'finishes'>, kind: Finish['kind']): Finish[] =>
  shop.finishes.filter((f) => f.kind === kind).slice(0, 1);

/**
 * What goes on a board, in order: what the board asks for, or what the shop's schools of oil and top coat say. A finish that is no longer on the shop's shelf is left out.
 * @param shop as the board is made in it
 */
export function finishesOf({ finish }: Pick<Board, 'finish'>, shop: Pick<Shop, 'finishes' | 'schools'>): Finish[] {
  if (finish !== null) return finish.flatMap((id) => shop.finishes.find((f) => f.id === id) ?? []);
  const { oil, topCoat } = shop.schools;
  // Hard-wax oil holds in bare wood.
  const first =
    oil === 'none' || topCoat === 'hardWax'
      ? []
      : ofKind(shop, 'mineralOil').map((f) => ({ ...f, ...OIL_BY_SCHOOL[oil] }));
  const last = topCoat === 'none' ? [] : ofKind(shop, topCoat === 'wax' ? 'waxOil' : 'hardWaxOil');
  return [...first, ...last];
}

/** Finishes that the board or the shop's schools ask for and that are not on the shelf: nothing goes on in their place. */
export function missingFinishes(
  { finish }: Pick<Board, 'finish'>,
  { finishes, schools: { oil, topCoat } }: Pick<Shop, 'finishes' | 'schools'>,
): string[] {
  if (finish !== null)
    return finish.some((id) => !finishes.some((f) => f.id === id)) ? ['one that this board asks for'] : [];
  const has = (kind: Finish['kind']) => finishes.some((f) => f.kind === kind);
  return [
    ...(oil !== 'none' && topCoat !== 'hardWax' && !has('mineralOil') ? ['mineral oil'] : []),
    ...(topCoat === 'wax' && !has('waxOil') ? ['wax and oil'] : []),
    ...(topCoat === 'hardWax' && !has('hardWaxOil') ? ['hard-wax oil'] : []),
  ];
}

const HOUR = 60;
const DAY = 24 * HOUR;

/** From the first coat until a board can be handled, and until it may be used, minutes. */
export function coatMinutes({ coats, dryHours, cureDays }: Pick<Finish, 'coats' | 'dryHours' | 'cureDays'>): {
  handled: number;
  used: number;
} {
  const handled = coats * dryHours * HOUR;
  return { handled, used: handled + cureDays * DAY };
}

/** Wetted wood is dry again after so long in a room of 20 °C and 50 %, minutes (common practice). */
const DRYING_MINUTES = 60;
/** Nobody waits longer or less than this, whatever the air. */
const DRYING_LIMITS = { least: 30, most: 480 };

/** How much more water vapour the air would take, hPa: Magnus' formula, from memory. */
const deficit = (temperature: number, humidity: number): number =>
  6.112 * Math.exp((17.62 * temperature) / (243.12 + temperature)) * Math.max(0.02, 1 - humidity / 100);

/** How long wetted wood takes to dry, minutes: the longer, the less water the air still takes up. @param room °C and % */
export function dryingMinutes({ temperature, humidity }: Shop['room']): number {
  const minutes = (DRYING_MINUTES * deficit(20, 50)) / deficit(temperature, humidity);
  const told = Math.round(minutes / 5) * 5;
  return Math.min(DRYING_LIMITS.most, Math.max(DRYING_LIMITS.least, told));
}
