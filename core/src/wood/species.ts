import { z } from 'zod';
import { lineOfText, speciesCodeSchema } from '../units/textSchema.ts';

/** How the pores of a hardwood lie; open pores hold dirt on a board that meets food. */
export const poreStructures = ['diffuse', 'semiRing', 'ring'] as const;

/** usual: harmful as all wood dust is; irritant: to eyes, skin and airways; sensitiser: some people become allergic to it. */
export const dustCautions = ['usual', 'irritant', 'sensitiser'] as const;

const coefficient = z.number().min(0).max(0.01);

/**
 * A wood species with the figures the plan needs. Density follows from the specific gravity (`densityAt12`).
 */
export const speciesSchema = z.strictObject({
  /** Short stable code, e.g. `beech-european`. */
  code: speciesCodeSchema,
  name: lineOfText(1, 60),
  botanical: lineOfText(1, 80),
  /** Mass at 12 % moisture over volume at 12 %, kg/m3. */
  density: z
    .number()
    .min(80, { error: 'must be at least 80 kg/m3' })
    .max(1400, { error: 'must be at most 1400 kg/m3' }),
  /** Side hardness (Janka), newton; null when no figure is known. */
  hardness: z.number().min(100).max(25000).nullable(),
  pores: z.enum(poreStructures),
  /** Oily species are wiped before gluing. */
  oily: z.boolean(),
  /** Dimensional change coefficients, share of the measure per percent of moisture, across the rings and along them; null when not known. */
  radial: coefficient.nullable(),
  tangential: coefficient.nullable(),
  /** What its dust does beyond what any wood dust does. */
  dust: z.enum(dustCautions),
  /** Its coloured dust or its extractives stain pale neighbours. */
  bleeds: z.boolean(),
  /** What to know where it meets food; empty when there is nothing. */
  foodNote: lineOfText(0, 200),
  /** Drawing colours of the dry wood, `#rrggbb`: the body, its late-wood lines and its sapwood. */
  colour: z.string().regex(/^#[0-9a-f]{6}$/),
  lineColour: z.string().regex(/^#[0-9a-f]{6}$/),
  sapColour: z.string().regex(/^#[0-9a-f]{6}$/),
  /** Where density and hardness come from. */
  source: lineOfText(1, 200),
  movementSource: lineOfText(0, 200),
  cautionSource: lineOfText(0, 200),
});

/** A wood species; see `speciesSchema`. */
export type Species = z.infer<typeof speciesSchema>;

/** Extra mass that the water of 12 % moisture adds to the oven-dry mass over the same volume. */
const WATER_AT_12_PERCENT = 1.12;

/**
 * Density at 12 % moisture from the specific gravity at 12 % (oven-dry mass over volume at 12 %).
 * Source: *Wood Handbook*, FPL-GTR-282 (2021), chapter 4 (from memory).
 * @returns kg/m3
 */
export function densityAt12(specificGravity: number): number {
  return WATER_AT_12_PERCENT * specificGravity * 1000;
}
