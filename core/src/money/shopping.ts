import type { Purchase, Shortage } from '../cutting/cutPlan.ts';
import { purchasesFor } from '../cutting/purchase.ts';
import type { Shop } from '../shop/shop.ts';
import type { Species } from '../wood/species.ts';
import { amountOf, times, type Amount } from './amount.ts';
import { finishNamed, glueNamed, type Uses } from './uses.ts';

/** A board that is bought for: what its rack lacks, and what it takes beside wood. */
export interface BoardNeeds {
  id: string;
  name: string;
  shortages: readonly Shortage[];
  uses: Uses;
}

/** Another way to buy the same: another width or thickness, or another species. */
export interface Alternative {
  buy: Purchase;
  name: string;
  /** Wood of it against what is listed first, as a factor. */
  wood: number;
}

/** One line of the list. */
export type ShoppingLine =
  | { id: string; kind: 'wood'; name: string; buy: Purchase; boards: string[]; alternatives: Alternative[] }
  | {
      id: string;
      kind: 'glue' | 'finish' | 'paper' | 'feet' | 'fittings';
      /** Id of the glue or finish; empty for what there is one of. */
      what: string;
      name: string;
      unit: 'g' | 'ml' | 'sheets' | 'pieces';
      needed: number;
      /** What is there; null where nobody counted. */
      shelf: number | null;
      /** What is missing; all of it where nobody counted. */
      buy: number;
      /** What that costs; null without a price. */
      cost: Amount | null;
      boards: string[];
    };

/** So many other ways are told for one line. */
const MOST_ALTERNATIVES = 4;
/** Species whose colours are so near stand in for one another, of 765. */
const LIKE_COLOUR = 150;
/** And whose hardness is at least this share. */
const LIKE_HARDNESS = 0.75;

/** What is to be bought for some boards: wood as yards sell it, and what runs short on the shelf. @param boards whose plans were made one after the other */
export function shoppingList(boards: readonly BoardNeeds[], shop: Shop, species: readonly Species[]): ShoppingLine[] {
  return [...woodLines(boards, shop, species), ...shelfLines(boards, shop)];
}

function woodLines(boards: readonly BoardNeeds[], shop: Shop, species: readonly Species[]): ShoppingLine[] {
  const lines = new Map<string, Extract<ShoppingLine, { kind: 'wood' }>>();
  const named = (code: string) => species.find((s) => s.code === code)?.name ?? code;
  for (const { name, shortages } of boards)
    for (const shortage of shortages) {
      const { buy } = shortage;
      const id = `wood ${buy.species} ${buy.quarters} ${buy.width} ${buy.length}`;
      const known = lines.get(id);
      if (known) {
        known.buy = { ...known.buy, pieces: known.buy.pieces + buy.pieces };
        if (!known.boards.includes(name)) known.boards.push(name);
        continue;
      }
      const area = (p: Purchase) => p.pieces * p.length * p.width * p.thickness;
      const sizes = purchasesFor(shortage.species, shortage, shortage.parts, shop)
        .filter((p) => p.width !== buy.width || p.thickness !== buy.thickness)
        .map((p) => ({ buy: p, name: named(p.species), wood: area(p) / area(buy) }));
      const woods = likeSpecies(shortage.species, species).map((code) => ({
        buy: { ...buy, species: code },
        name: named(code),
        wood: 1,
      }));
      lines.set(id, {
        id,
        kind: 'wood',
        name: named(buy.species),
        buy,
        boards: [name],
        alternatives: [...sizes, ...woods].slice(0, MOST_ALTERNATIVES),
      });
    }
  return [...lines.values()];
}

/** Species that look and wear like one, the nearest in colour first. */
function likeSpecies(code: string, species: readonly Species[]): string[] {
  const own = species.find((s) => s.code === code);
  if (!own) return [];
  return species
    .filter((s) => s.code !== code && (s.hardness ?? 0) >= LIKE_HARDNESS * (own.hardness ?? 0) && s.pores === own.pores)
    .map((s) => ({ code: s.code, far: apart(s.colour, own.colour) }))
    .filter((s) => s.far <= LIKE_COLOUR)
    .sort((a, b) => a.far - b.far)
    .slice(0, 2)
    .map((s) => s.code);
}

/** How far two colours are from one another, channel by channel. */
function apart(a: string, b: string): number {
  return [1, 3, 5].reduce(
    (sum, i) => sum + Math.abs(parseInt(a.slice(i, i + 2), 16) - parseInt(b.slice(i, i + 2), 16)),
    0,
  );
}

function shelfLines(boards: readonly BoardNeeds[], shop: Shop): ShoppingLine[] {
  const { currency } = shop;
  const needs = new Map<string, { amount: number; boards: string[] }>();
  const need = (key: string, amount: number, board: string) => {
    if (amount <= 0) return;
    const own = needs.get(key) ?? { amount: 0, boards: [] };
    own.amount += amount;
    if (!own.boards.includes(board)) own.boards.push(board);
    needs.set(key, own);
  };
  for (const { name, uses } of boards) {
    for (const [id, grams] of uses.glue) need(`glue ${id}`, grams, name);
    for (const [id, { ml }] of uses.finish) need(`finish ${id}`, ml, name);
    need('paper ', uses.sheets, name);
    need('feet ', uses.feet, name);
    need('fittings ', uses.fittings, name);
  }
  return [...needs].flatMap(([key, { amount, boards: of }]): ShoppingLine[] => {
    const [kind = '', what = ''] = [key.slice(0, key.indexOf(' ')), key.slice(key.indexOf(' ') + 1)];
    const known = detailsOf(kind as 'glue', what, shop);
    const needed = Math.ceil(amount - 1e-9);
    const buy = Math.max(0, needed - (known.shelf ?? 0));
    if (buy === 0) return [];
    return [
      {
        id: key.trim(),
        kind: kind as 'glue',
        what,
        name: known.name,
        unit: known.unit,
        needed,
        shelf: known.shelf,
        buy,
        cost: known.price === null ? null : amountOf(times(known.price, buy, currency), currency),
        boards: of,
      },
    ];
  });
}

/** What is known of something on the shelf; the price is of one unit. */
function detailsOf(
  kind: Exclude<ShoppingLine['kind'], 'wood'>,
  what: string,
  shop: Shop,
): { name: string; unit: 'g' | 'ml' | 'sheets' | 'pieces'; shelf: number | null; price: number | null } {
  const { prices } = shop;
  switch (kind) {
    case 'glue': {
      const { name, shelfGrams, pricePerKg } = glueNamed(shop, what);
      return { name, unit: 'g', shelf: shelfGrams, price: pricePerKg === null ? null : pricePerKg / 1000 };
    }
    case 'finish': {
      const finish = finishNamed(shop, what);
      const litre = finish?.pricePerLitre ?? null;
      return {
        name: finish?.name ?? what,
        unit: 'ml',
        shelf: finish?.shelfMl ?? null,
        price: litre === null ? null : litre / 1000,
      };
    }
    case 'paper':
      return { name: 'Paper', unit: 'sheets', shelf: prices.paperShelf, price: prices.paperSheet };
    case 'feet':
      return { name: 'Feet', unit: 'pieces', shelf: prices.footShelf, price: prices.foot };
    case 'fittings':
      return { name: 'Handles and loops', unit: 'pieces', shelf: prices.fittingShelf, price: prices.fitting };
  }
}
