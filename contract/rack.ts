import { z } from 'zod';
import { GREATEST_CSV_ROWS } from '#core/format/rackCsv.ts';
import { pieceFieldsSchema, pieceSchema } from '#core/stock/piece.ts';
import { speciesSchema } from '#core/wood/species.ts';
import { versionSchema } from './version.ts';

export const storedPieceSchema = z.strictObject({
  piece: pieceSchema,
  version: z.int(),
  /** Since when it lies in the rack; a page that has just changed it leaves it out until it is stored. */
  since: z.iso.datetime({ precision: 3 }).optional(),
});
export type StoredPiece = z.infer<typeof storedPieceSchema>;

export const pieceChangeSchema = z.strictObject({ version: versionSchema, piece: pieceFieldsSchema });
export const pieceVersionSchema = z.strictObject({ version: versionSchema });

/** A pile at once: everything or nothing. Species nobody knew come along. */
export const pileSchema = z.strictObject({
  pieces: z
    .array(pieceFieldsSchema)
    .min(1, { error: 'must hold at least one piece' })
    .max(GREATEST_CSV_ROWS, { error: `must be at most ${GREATEST_CSV_ROWS} pieces` }),
  species: z.array(speciesSchema).max(200, { error: 'must be at most 200 species' }),
});
export const pileAddedSchema = z.strictObject({ added: z.int() });
