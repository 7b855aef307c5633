import { certain } from '../lists/there.ts';
import type { Shop } from '../shop/shop.ts';
import type { Purchase } from './cutPlan.ts';
import { partsAcross } from './rips.ts';

const MM_PER_QUARTER = 25.4 / 4;
/** Thicknesses yards sell rough, in quarters of an inch (common practice). */
const QUARTERS = [4, 5, 6, 8, 10, 12, 16];
/** Usual widths of yard stock, mm (common practice: 4 to 8 in). */
const USUAL_WIDTHS = [100, 150, 200];
/** Yard lengths go up in steps of about a foot, mm; nobody carries longer ones home. */
const LENGTH_STEP = 300;
const LONGEST = 3000;

type Sizes = { length: number; rip: number; thickness: number };

/**
 * The least rough stock that gives a number of strips: thickness to the next yard size that still planes to it, the usual width that wastes
 * least, length to the next 300 mm.
 * @param strip length, rip and planed thickness of each, mm
 */
export function purchaseFor(species: string, strip: Sizes, parts: number, shop: Shop): Purchase {
  const [least] = quartersFor(strip, shop);
  const wood = ({ width, length, pieces }: Purchase) => width * length * pieces;
  return widthsOf(species, strip, parts, shop, certain(least)).reduce((best, option) =>
    wood(option) < wood(best) ? option : best,
  );
}

/** Every way to buy them: all usual widths of the least thickness, and of the next one. */
export function purchasesFor(species: string, strip: Sizes, parts: number, shop: Shop): Purchase[] {
  return quartersFor(strip, shop)
    .slice(0, 2)
    .flatMap((quarters) => widthsOf(species, strip, parts, shop, quarters));
}

/** Yard thicknesses that still plane to it, the least first, in quarters of an inch. */
function quartersFor(strip: Sizes, { habits }: Shop): number[] {
  const rough = strip.thickness + habits.flattenRough + 2 * habits.skimRough;
  const fitting = QUARTERS.filter((q) => q * MM_PER_QUARTER >= rough - 1e-6);
  return fitting.length > 0 ? fitting : [Math.ceil(rough / MM_PER_QUARTER / 4) * 4];
}

function widthsOf(species: string, strip: Sizes, parts: number, shop: Shop, quarters: number): Purchase[] {
  const { habits, saw, crosscutSaw } = shop;
  const ends = 2 * habits.stockEndTrim;
  const least = strip.rip + habits.stockEdgeJoint;
  // Wider than yards usually sell: then exactly that wide, to the next centimetre.
  const widths = least > Math.max(...USUAL_WIDTHS) ? [Math.ceil(least / 10) * 10] : USUAL_WIDTHS;
  return widths.flatMap((width) => {
    const rips = partsAcross(width - habits.stockEdgeJoint, strip.rip, saw.kerf);
    if (rips === 0) return [];
    const blanks = Math.ceil(parts / rips);
    const perPiece = Math.max(1, Math.min(blanks, partsAcross(LONGEST - ends, strip.length, crosscutSaw.kerf)));
    const length =
      Math.ceil((ends + perPiece * strip.length + (perPiece - 1) * crosscutSaw.kerf) / LENGTH_STEP - 1e-9) *
      LENGTH_STEP;
    return [
      {
        species,
        thickness: quarters * MM_PER_QUARTER,
        quarters: `${quarters}/4`,
        width,
        length,
        pieces: Math.ceil(blanks / perPiece),
      },
    ];
  });
}
