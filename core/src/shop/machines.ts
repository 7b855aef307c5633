import { z } from 'zod';
import { lengthBetween } from '../units/lengthSchema.ts';

/** A saw that rips: a table saw, a circular saw on a guide, or by hand. */
export const sawSchema = z.strictObject({
  kind: z.enum(['table', 'circular', 'hand']),
  /** Width of wood the blade turns to dust. */
  kerf: lengthBetween(0.5, 8),
  /** Thickest wood the blade cuts through. */
  cutDepth: lengthBetween(20, 200),
});

/** The saw that cuts planks to length. */
export const crosscutSawSchema = z.strictObject({
  kind: z.enum(['mitre', 'sled', 'track', 'circular', 'hand']),
  kerf: lengthBetween(0, 8),
});

export const bandSawSchema = z.strictObject({
  kerf: lengthBetween(0.3, 5),
  /** Tallest piece under the guides, which is the widest strip that can be resawn. */
  resawHeight: lengthBetween(20, 600),
  /** Planed off each sawn face: the blade wanders. */
  clean: lengthBetween(0, 5),
});

export const jointerSchema = z.strictObject({
  /** Widest face it flattens. */
  width: lengthBetween(50, 1000),
  /** Greatest depth of one pass. */
  passDepth: lengthBetween(0.2, 6),
  /** Shortest piece the machine's manual allows. */
  leastLength: lengthBetween(50, 1000),
});

export const planerSchema = z.strictObject({
  /** Widest piece through the planer. */
  width: lengthBetween(80, 1500),
  /** Greatest depth of one pass at half width or less; wider pieces get less (`passDepth`). */
  passDepth: lengthBetween(0.2, 6),
  /** Shortest piece the machine's manual allows. */
  leastLength: lengthBetween(50, 1000),
  /** Narrowest piece that is flattened on its own. */
  leastWidth: lengthBetween(5, 300),
  /** Thinnest it planes without a carrier board. */
  leastThickness: lengthBetween(1, 50),
  /** How far from each end of a panel the planer digs in. */
  snipe: lengthBetween(0, 200),
  head: z.enum(['straight', 'helical'], { error: 'must be straight or helical' }),
});
export type Planer = z.infer<typeof planerSchema>;

export const drumSanderSchema = z.strictObject({
  width: lengthBetween(80, 2000),
  /** Greatest depth of one pass. */
  passDepth: lengthBetween(0.05, 2),
  leastLength: lengthBetween(20, 500),
});

/** A router on rails over the panel. */
export const routerSledSchema = z.strictObject({
  /** Widest panel under the rails. */
  width: lengthBetween(80, 3000),
  /** Diameter of the bit. */
  bit: lengthBetween(6, 80),
  passDepth: lengthBetween(0.2, 5),
});

/** A router in the hand or under a table. */
export const routerSchema = z.strictObject({
  /** Across its round base, which runs along fences and inside jigs. */
  base: lengthBetween(50, 400),
});

/** Lighter than a sled on rails: what a bench drawer holds. */
export const handToolsSchema = z.strictObject({
  planes: z.boolean(),
  beltSander: z.boolean(),
  orbitalSander: z.boolean(),
});

/** The pass at full planer width is this share of the pass at half width or less (common practice: halve it). */
const FULL_WIDTH_SHARE = 0.5;

/**
 * Greatest depth of one planer pass on a piece of a given width.
 * @param width of the piece, mm; above the planer's width the full-width figure is returned
 * @returns mm
 */
export function passDepth(planer: Pick<Planer, 'width' | 'passDepth'>, width: number): number {
  const share = Math.min(1, Math.max(0, (width / planer.width - 0.5) * 2));
  return planer.passDepth * (1 - share * (1 - FULL_WIDTH_SHARE));
}

/** Number of passes of one depth for a removal; 0 when there is nothing to take off. */
export function passesOf(depth: number, removal: number): number {
  return removal <= 1e-6 ? 0 : Math.ceil(removal / depth - 1e-9);
}

/** Number of planer passes for a removal, the last one light when there is more than one. */
export function passCount(planer: Pick<Planer, 'width' | 'passDepth'>, width: number, removal: number): number {
  return passesOf(passDepth(planer, width), removal);
}
