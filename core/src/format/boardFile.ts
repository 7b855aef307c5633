import { z } from 'zod';
import { boardSchema } from '../board/board.ts';
import type { Recipe } from '../board/recipe.ts';
import { factsSchema } from '../facts/fact.ts';
import { shopSchema } from '../shop/shop.ts';
import { pieceSchema } from '../stock/piece.ts';
import { speciesSchema } from '../wood/species.ts';
import { upgradeToNewest } from './upgrades.ts';
import { type FieldProblem, fieldProblems } from './fieldProblems.ts';
import { BOARD_FILE_VERSION } from './version.ts';

/** Name that opens every board file. */
export const BOARD_FILE_FORMAT = 'cadenza-board';
export { BOARD_FILE_VERSION };
/** Largest file that is read, bytes: a board of 200 strips with a rack of thousands is far below. */
export const GREATEST_FILE_BYTES = 10_000_000;

/**
 * A board with all it was planned with, so that the plan can be made again anywhere. Lengths in millimetres.
 * The JSON Schema in docs/format is generated from this.
 */
export const boardFileSchema = z
  .strictObject({
    format: z.literal(BOARD_FILE_FORMAT, { error: `must be "${BOARD_FILE_FORMAT}"` }),
    version: z.literal(BOARD_FILE_VERSION, { error: `must be ${BOARD_FILE_VERSION}` }),
    board: boardSchema,
    /** What happened to it at the bench. */
    facts: factsSchema,
    /** The rack it was planned with. */
    rack: z.array(pieceSchema).max(20_000, { error: 'must be at most 20 000 pieces' }),
    /** The species that board and rack name. */
    species: z.array(speciesSchema).max(1000, { error: 'must be at most 1000 species' }),
    shop: shopSchema,
  })
  .superRefine((file, context) => {
    const known = new Set(file.species.map((s) => s.code));
    const checkSpecies = (recipe: Recipe, path: (string | number)[]) =>
      recipe.forEach((operation, i) => {
        if (operation.kind === 'strip' && !known.has(operation.species))
          context.addIssue({
            code: 'custom',
            path: [...path, 'recipe', i, 'species'],
            message: "must be one of the file's species",
          });
      });
    checkSpecies(file.board.recipe, ['board']);
    file.board.versions.forEach((version, v) => checkSpecies(version.recipe, ['board', 'versions', v]));
    file.rack.forEach((piece, i) => {
      if (!known.has(piece.species))
        context.addIssue({
          code: 'custom',
          path: ['rack', i, 'species'],
          message: "must be one of the file's species",
        });
    });
  });
export type BoardFile = z.infer<typeof boardFileSchema>;

export type ReadBoardFile = { ok: true; file: BoardFile } | { ok: false; problems: FieldProblem[] };

/** Writes a board file: keys in the schema's order, two spaces, so that versions compare line by line. */
export function writeBoardFile(content: Pick<BoardFile, 'board' | 'facts' | 'rack' | 'species' | 'shop'>): string {
  const file: BoardFile = { format: BOARD_FILE_FORMAT, version: BOARD_FILE_VERSION, ...content };
  return `${JSON.stringify(boardFileSchema.parse(file), null, 2)}\n`;
}

/**
 * Reads a board file. Never throws: what is wrong comes back as sentences that name the field.
 * @param text the file's text, a byte-order mark allowed
 */
export function readBoardFile(text: string): ReadBoardFile {
  if (text.length > GREATEST_FILE_BYTES)
    return wholeFile(`The file is larger than ${GREATEST_FILE_BYTES / 1e6} MB; that is not a board file.`);
  let json: unknown;
  try {
    json = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return wholeFile(
      text.trim() === '' ? 'The file is empty.' : 'The file is not complete JSON; it may have been cut off.',
    );
  }
  return readBoardJson(json);
}

/** The same for JSON already parsed, as it arrives over the API. */
export function readBoardJson(json: unknown): ReadBoardFile {
  if (typeof json !== 'object' || json === null || (json as Record<string, unknown>).format !== BOARD_FILE_FORMAT) {
    return {
      ok: false,
      problems: [
        { path: 'format', message: `Format must be "${BOARD_FILE_FORMAT}"; this is not a Cadenza board file.` },
      ],
    };
  }
  const record = json as Record<string, unknown>;
  const { version } = record;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    return { ok: false, problems: [{ path: 'version', message: 'Version must be a whole number from 1.' }] };
  }
  if (version > BOARD_FILE_VERSION) {
    return {
      ok: false,
      problems: [
        {
          path: 'version',
          message: `Version ${version} is newer than this Cadenza reads (${BOARD_FILE_VERSION}). Update Cadenza to open it.`,
        },
      ],
    };
  }
  const parsed = boardFileSchema.safeParse(upgradeToNewest(record, version));
  return parsed.success ? { ok: true, file: parsed.data } : { ok: false, problems: fieldProblems(parsed.error) };
}

function wholeFile(message: string): ReadBoardFile {
  return { ok: false, problems: [{ path: '', message }] };
}
