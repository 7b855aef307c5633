import { z } from 'zod';
import { boardSchema } from '#core/board/board.ts';
import { writtenBoardSchema } from '#core/board/writtenBoard.ts';
import { boardFileSchema } from '#core/format/boardFile.ts';
import { factsSchema } from '#core/facts/fact.ts';
import { lineOfText } from '#core/units/textSchema.ts';
import { versionSchema } from './version.ts';

/** More steps than hands take between two saves; a longer list comes in parts. */
const GREATEST_STEP_COUNT = 200;

/** One state on the way from the stored board to the saved one. Undo and redo are numbers of the revisions whose content they lead to. */
export const boardStepSchema = z.strictObject({
  board: boardSchema,
  undo: versionSchema.nullable(),
  redo: versionSchema.nullable(),
});
export type BoardStep = z.infer<typeof boardStepSchema>;

export const oneStepSchema = z.strictObject({ basedOn: versionSchema, board: writtenBoardSchema });
export const stepsSchema = z.strictObject({
  basedOn: versionSchema,
  steps: z
    .array(boardStepSchema.extend({ board: writtenBoardSchema }))
    .min(1, { error: 'must be at least one step' })
    .max(GREATEST_STEP_COUNT, { error: `must be at most ${GREATEST_STEP_COUNT} steps` }),
});
/** One new state, or every step that led to it. */
export const boardChangeSchema = z.union([oneStepSchema, stepsSchema]);

/** A board at its newest revision. */
export const storedBoardSchema = z.strictObject({
  id: z.string(),
  /** Number of the revision; a save must be based on it. */
  revision: z.int(),
  /** When the revision was made. */
  savedAt: z.iso.datetime(),
  undo: z.int().nullable(),
  redo: z.int().nullable(),
  board: boardSchema,
});
export type StoredBoard = z.infer<typeof storedBoardSchema>;

/** A board as lists show it: without versions set aside and features, with what happened to it. */
export const listedBoardSchema = storedBoardSchema.extend({ facts: factsSchema });
export type ListedBoard = z.infer<typeof listedBoardSchema>;

/** A revision as the history shows it. */
export const revisionSchema = boardStepSchema.extend({
  number: z.int(),
  madeAt: z.iso.datetime(),
  /** Given by the maker; empty when it has none. */
  name: z.string(),
});
export type Revision = z.infer<typeof revisionSchema>;
export const revisionNameSchema = z.strictObject({ name: lineOfText(0, 80) });

export const boardRemovalSchema = z.strictObject({ basedOn: versionSchema });

/** A file as it arrives: of any version that was ever written. */
export const importSchema = z.strictObject({
  file: z.unknown(),
  addPieces: z.boolean(),
});
/** The same as it is described: of the newest version. */
export const newestImportSchema = importSchema.extend({ file: boardFileSchema });
