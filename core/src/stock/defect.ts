import { z } from 'zod';
import { lengthBetween } from '../units/lengthSchema.ts';
import { idSchema } from '../units/textSchema.ts';

/** What may be wrong with a place on a piece. */
export const defectKinds = [
  'knot',
  'check',
  'bark',
  'sapwood',
  'screw',
  'nail',
  'worm',
  'veneer',
  'paint',
  'stain',
] as const;
export type DefectKind = (typeof defectKinds)[number];

/** Must be cut out; may go underneath, where it is not seen; or does no harm. */
export const treatments = ['cut', 'under', 'harmless'] as const;
export type Treatment = (typeof treatments)[number];

/** On the face that lies up when the marked end is at the left, on the face below, or right through. */
export const defectFaces = ['up', 'down', 'through'] as const;
export type DefectFace = (typeof defectFaces)[number];

/** A rectangle on a piece's face, mm: `from` along the piece from its marked end, `across` from its near edge. */
export const defectSchema = z.strictObject({
  id: idSchema,
  kind: z.enum(defectKinds),
  face: z.enum(defectFaces),
  from: lengthBetween(0, 8000),
  across: lengthBetween(0, 1200),
  length: lengthBetween(1, 8000),
  width: lengthBetween(1, 1200),
  treatment: z.enum(treatments),
});
export type Defect = z.infer<typeof defectSchema>;

/** How a defect is usually treated when nobody has decided yet (common practice: sound stain and worm-free sapwood stay). */
export const USUAL_TREATMENT: Readonly<Record<DefectKind, Treatment>> = {
  knot: 'cut',
  check: 'cut',
  bark: 'cut',
  sapwood: 'under',
  screw: 'cut',
  nail: 'cut',
  worm: 'cut',
  veneer: 'cut',
  paint: 'cut',
  stain: 'under',
};

/** Metal ruins blades and knives, and throws their pieces. */
export function isMetal({ kind }: Pick<Defect, 'kind'>): boolean {
  return kind === 'nail' || kind === 'screw';
}
