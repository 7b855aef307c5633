import { nth } from '../lists/there.ts';
import { layerGap, layeringOf, type Layering } from '../shop/layering.ts';
import type { Shop } from '../shop/shop.ts';
import { crosscutTool, SAFE_HOLD_MM, type Saw } from '../shop/tools.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Board } from './board.ts';
import { cutStripsOf, type Recipe, type StackOperation, type StripOperation } from './recipe.ts';

/** A strip that bits are crosscut from. Lengths in mm. */
export interface Stick {
  strip: StripOperation;
  /** On the board. */
  number: number;
  /** How long each of its bits is, and how many of them one stack has. */
  bit: number;
  count: number;
  /** Where its first bit begins, from its first end; behind each lies a kerf. */
  first: number;
  /** As it is crosscut: its bits, a kerf for each, and what is left to hold at the last cut. */
  length: number;
}

/** Bits glued end to end and resawn into accents, read backward from the panel. Lengths in mm. */
export interface Stack {
  operation: StackOperation;
  sticks: Stick[];
  /** In order from the first end: which stick it is from, which of its bits, from 0, and where it begins. */
  bits: { stick: number; of: number; at: number; length: number }[];
  accents: { strip: StripOperation; number: number }[];
  /** All bits together, and as it is cut off, as long as the strips of the panel: as much at each end. */
  glued: number;
  length: number;
  off: number;
  /** Across as it is glued, what making both sides flat takes of that, and what is resawn. */
  depth: number;
  flatten: number;
  trued: number;
  /** With what bits are crosscut. */
  saw: Saw;
  /** How it is resawn; by the usual figures, and `cannot`, where nothing in the shop does it so high. */
  layering: Layering;
  cannot: boolean;
  /** What one more accent takes beside its own width. */
  gap: number;
  /** Accents that are sawn beside those of the panel, as thick as the first. */
  spares: number;
  /** How deep it should be for all of them. */
  wantedDepth: number;
}

/** The panel that accents are for: how long its strips are crosscut, and how high they are milled, mm. */
export interface StackedFor {
  length: number;
  height: number;
}

/** The operations of a recipe that stack bits; none for most boards. */
export const stackOperationsOf = (recipe: Recipe): StackOperation[] =>
  recipe.flatMap((o) => (o.kind === 'stack' ? [o] : []));

/** The strips that a stack's bits are cut from. */
export function sticksIn({ takes }: StackOperation, recipe: Recipe): StripOperation[] {
  return takes.flatMap((id) => recipe.flatMap((o) => (o.kind === 'strip' && o.id === id ? [o] : [])));
}

/** Whether a strip is an accent, or bits are cut from it. */
export function isOfStack(
  { recipe }: { readonly recipe: Recipe },
  strip: Pick<StripOperation, 'stack' | 'id'>,
): boolean {
  return strip.stack !== null || recipe.some((o) => o.kind === 'stack' && o.takes.includes(strip.id));
}

/** A band saw as most shops have one, where this one has nothing to resaw with (common practice). */
const USUAL_LAYERING: Layering = { by: 'bandSaw', kerf: 1.2, clean: 0.8, reach: 0 };

/**
 * What the stacks of a board ask, read backward from the panel that their accents go into.
 * Check: three accents of 3.2 with a kerf of 1.2 and 0.5 cleaned off each sawn face want 3 x 3.2 + 2 x 2.2 = 14, and what flattening takes.
 * @param shop as the board is made in it
 */
export function stacksOf(board: Pick<Board, 'recipe'>, panel: StackedFor, shop: Shop): Stack[] {
  const operations = stackOperationsOf(board.recipe);
  if (operations.length === 0) return [];
  const all = cutStripsOf(board);
  const numbers = new Map(all.map((s, i) => [s.id, i + 1]));
  const saw: Saw = { tool: crosscutTool(shop), kerf: shop.crosscutSaw.kerf };
  const layering = layeringOf(shop) ?? USUAL_LAYERING;
  const cannot = layerGap(shop, panel.height) === null;
  const gap = layering.kerf + 2 * layering.clean;
  return operations.map((operation): Stack => {
    const strips = sticksIn(operation, board.recipe);
    const bits: Stack['bits'] = [];
    const counts = strips.map(() => 0);
    let glued = 0;
    while (glued < panel.length - LENGTH_TOLERANCE_MM && strips.length > 0) {
      const stick = bits.length % strips.length;
      const length = nth(operation.bits, stick);
      bits.push({ stick, of: nth(counts, stick), at: glued, length });
      counts[stick] = nth(counts, stick) + 1;
      glued += length;
    }
    const accents = all.flatMap((strip) =>
      strip.stack === operation.id ? [{ strip, number: numbers.get(strip.id) ?? 0 }] : [],
    );
    const depth = strips[0]?.width ?? 0;
    const flatten = shop.habits.panelFlatten;
    const trued = Math.max(0, depth - flatten);
    const thin = accents[0]?.strip.width ?? 0;
    const needed = accents.reduce((sum, a) => sum + a.strip.width, 0) + Math.max(0, accents.length - 1) * gap;
    const wished = thin <= shop.cutting.spareBelow ? shop.cutting.spares : 0;
    const room = Math.floor((trued - needed + LENGTH_TOLERANCE_MM) / (thin + gap));
    return {
      operation,
      sticks: strips.map((strip, k): Stick => {
        const [bit, count] = [nth(operation.bits, k), nth(counts, k)];
        return {
          strip,
          number: numbers.get(strip.id) ?? 0,
          bit,
          count,
          first: saw.kerf,
          length: saw.kerf + count * (bit + saw.kerf) + SAFE_HOLD_MM,
        };
      }),
      bits,
      accents,
      glued,
      length: panel.length,
      off: (glued - panel.length) / 2,
      depth,
      flatten,
      trued,
      saw,
      layering,
      cannot,
      gap,
      spares: Math.max(0, Math.min(wished, room)),
      wantedDepth: needed + wished * (thin + gap) + flatten,
    };
  });
}
