import { z } from 'zod';
import { lengthBetween } from '../units/lengthSchema.ts';
import { idSchema, lineOfText, speciesCodeSchema } from '../units/textSchema.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { ringOrientations } from '../wood/rings.ts';
import { defectSchema } from './defect.ts';

/** The largest piece a shop would carry in. */
export const GREATEST_STOCK_LENGTH = 8000;
const GREATEST_STOCK_WIDTH = 1200;
const GREATEST_STOCK_THICKNESS = 300;
/** More marks on one piece than anybody draws. */
const GREATEST_DEFECT_COUNT = 200;

/** Rough all round, or with one face, both faces, or faces and edges planed; ready is used as it is, flat, straight and to size. */
export const surfaces = ['rough', 'oneFace', 'twoFaces', 'fourSides', 'ready'] as const;
export const straightEdges = ['none', 'near', 'far', 'both'] as const;
/** Where the fibres rise to the upper face: toward the far end, toward the marked end, or nowhere. */
export const grainDirections = ['unknown', 'straight', 'toFar', 'toMark'] as const;
export const originKinds = ['bought', 'offcut', 'salvage'] as const;
export const priceUnits = ['cubicMetre', 'boardFoot', 'kilogram', 'piece'] as const;

const priceSchema = z.strictObject({
  /** In the shop's currency. */
  amount: z.number().min(0).max(1e6, { error: 'must be at most 1 000 000' }),
  per: z.enum(priceUnits),
});

/** How far the whole piece is out of true: sagittas and, for twist, the lift of the fourth corner. All mm, measured over the piece. */
const formSchema = z.strictObject({
  bow: lengthBetween(0, 300),
  cup: lengthBetween(0, 100),
  crook: lengthBetween(0, 300),
  twist: lengthBetween(0, 300),
});
export type Form = z.infer<typeof formSchema>;

/** How far an end is checked, and how far a planer has sniped it, mm from that end. A clean sawn end needs no trim. */
const endSchema = z.strictObject({
  checked: lengthBetween(0, 4000),
  snipe: lengthBetween(0, 1000),
  sawn: z.boolean(),
});

/** What a person enters about a piece of stock, field by field. Lengths in millimetres. */
export const pieceShape = z.strictObject({
  /** The mark written on its end, e.g. `B3`. */
  mark: lineOfText(1, 12),
  species: speciesCodeSchema,
  length: lengthBetween(20, GREATEST_STOCK_LENGTH),
  /** At the marked end. */
  width: lengthBetween(5, GREATEST_STOCK_WIDTH),
  thickness: lengthBetween(2, GREATEST_STOCK_THICKNESS),
  /** Width and thickness at the far end of a tapering piece; null when it does not taper. */
  farEnd: z
    .strictObject({
      width: lengthBetween(5, GREATEST_STOCK_WIDTH),
      thickness: lengthBetween(2, GREATEST_STOCK_THICKNESS),
    })
    .nullable(),
  surface: z.enum(surfaces),
  straight: z.enum(straightEdges),
  rings: z.enum(ringOrientations),
  grain: z.enum(grainDirections),
  /** Moisture content, percent; null when not measured. */
  moisture: z
    .number()
    .min(0, { error: 'must be at least 0 %' })
    .max(120, { error: 'must be at most 120 %' })
    .nullable(),
  /** Null until somebody has measured it; then the shop's habit for its surface stands in. */
  form: formSchema.nullable(),
  ends: z.strictObject({ mark: endSchema, far: endSchema }),
  defects: z
    .array(defectSchema)
    .max(GREATEST_DEFECT_COUNT, { error: `must be at most ${GREATEST_DEFECT_COUNT} places` }),
  /** Bought, offcut of which board or piece, salvaged from what. */
  origin: z.strictObject({ kind: z.enum(originKinds), of: lineOfText(0, 120) }),
  price: priceSchema.nullable(),
  shelf: lineOfText(0, 40),
  note: lineOfText(0, 500),
  /** Identical pieces under one mark. */
  count: z.int().min(1).max(999),
});
export type PieceFields = z.infer<typeof pieceShape>;

/** Whatever lies on a piece must lie inside it. */
function checkInside(piece: PieceFields, context: z.RefinementCtx): void {
  const widest = Math.max(piece.width, piece.farEnd?.width ?? 0);
  piece.defects.forEach((defect, i) => {
    const tooLong = defect.from + defect.length - piece.length;
    const tooWide = defect.across + defect.width - widest;
    if (tooLong > LENGTH_TOLERANCE_MM)
      context.addIssue({
        code: 'custom',
        path: ['defects', i, 'from'],
        message: `must leave the ${defect.kind} inside the piece; it reaches ${inMm(tooLong)} past the far end`,
      });
    if (tooWide > LENGTH_TOLERANCE_MM)
      context.addIssue({
        code: 'custom',
        path: ['defects', i, 'across'],
        message: `must leave the ${defect.kind} inside the piece; it reaches ${inMm(tooWide)} past the far edge`,
      });
  });
  if (new Set(piece.defects.map((d) => d.id)).size < piece.defects.length)
    context.addIssue({ code: 'custom', path: ['defects'], message: 'must each have an id of their own' });
  for (const end of ['mark', 'far'] as const) {
    for (const kind of ['checked', 'snipe'] as const) {
      if (piece.ends[end][kind] > piece.length)
        context.addIssue({ code: 'custom', path: ['ends', end, kind], message: 'must not be longer than the piece' });
    }
  }
}

function inMm(mm: number): string {
  return `${Math.round(mm * 10) / 10} mm`;
}

export const pieceFieldsSchema = pieceShape.superRefine(checkInside);

/** A piece of stock in the rack: the fields plus its identity. */
export const pieceSchema = pieceShape.extend({ id: idSchema }).superRefine(checkInside);
export type Piece = z.infer<typeof pieceSchema>;

/** A piece nobody has looked at closely: everything beside its sizes at its plainest. */
export const PLAIN_CONDITION = {
  farEnd: null,
  surface: 'rough',
  straight: 'none',
  rings: 'flat',
  grain: 'unknown',
  moisture: null,
  form: null,
  ends: { mark: { checked: 0, snipe: 0, sawn: false }, far: { checked: 0, snipe: 0, sawn: false } },
  defects: [],
  origin: { kind: 'bought', of: '' },
  price: null,
  shelf: '',
  note: '',
  count: 1,
} as const satisfies Partial<{ [K in keyof PieceFields]: unknown }>;
