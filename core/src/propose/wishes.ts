import { z } from 'zod';
import { constructions } from '../board/board.ts';
import type { Piece } from '../stock/piece.ts';
import { MM_PER_INCH, type UnitSystem } from '../units/length.ts';
import { lengthBetween } from '../units/lengthSchema.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import type { Species } from '../wood/species.ts';

const codes = z.array(z.string().min(1).max(40)).max(100, { error: 'must be fewer' });
const percent = z.number().min(0, { error: 'must be at least 0 %' }).max(100, { error: 'must be at most 100 %' });
const yesNoEither = z.enum(['yes', 'no', 'either'], { error: 'must be yes, no or either' });

function range(least: number, greatest: number) {
  return z.strictObject({ least: lengthBetween(least, greatest), greatest: lengthBetween(least, greatest) });
}

/** What proposals should be like. Lengths in mm, finished sizes. */
export const wishesSchema = z.strictObject({
  length: range(50, 3000),
  width: range(30, 1500),
  thickness: range(5, 150),
  construction: z.enum([...constructions, 'either'], { error: 'must be edge, face or either' }),
  /** Species to choose from; empty for all in the rack. */
  only: codes,
  never: codes,
  /** Share of the board's width that a species takes, percent. */
  shares: z
    .array(z.strictObject({ species: z.string().min(1).max(40), least: percent, most: percent }))
    .max(20, { error: 'must be fewer' }),
  symmetry: yesNoEither,
  /** Thin strips between wide ones. */
  accents: yesNoEither,
  /** Fewer strips and pieces rather than more. */
  fewestCuts: z.boolean(),
  /** A piece to be used as far as it goes; null for none. */
  useUp: z.string().max(40).nullable(),
  /** Pieces to choose from; null for the whole rack. */
  pieces: z.array(z.string().max(40)).max(20_000).nullable(),
});
export type Wishes = z.infer<typeof wishesSchema>;

const inches = (least: number, greatest: number) => ({ least: least * MM_PER_INCH, greatest: greatest * MM_PER_INCH });

/** A common board from whatever there is, in round figures of the maker's units (sizes common practice). */
export function openWishes(system: UnitSystem): Wishes {
  return {
    ...(system === 'metric'
      ? {
          length: { least: 350, greatest: 450 },
          width: { least: 220, greatest: 300 },
          thickness: { least: 28, greatest: 35 },
        }
      : { length: inches(14, 18), width: inches(9, 12), thickness: inches(1.125, 1.375) }),
    construction: 'either',
    only: [],
    never: [],
    shares: [],
    symmetry: 'either',
    accents: 'either',
    fewestCuts: false,
    useUp: null,
    pieces: null,
  };
}

export const OPEN_WISHES: Wishes = openWishes('metric');

/** The pieces that proposals may take. */
export function piecesFor(wishes: Wishes, rack: readonly Piece[]): Piece[] {
  const chosen = wishes.pieces && new Set(wishes.pieces);
  const only = new Set(wishes.only);
  const never = new Set(wishes.never);
  return rack.filter(
    (p) => (!chosen || chosen.has(p.id)) && (only.size === 0 || only.has(p.species)) && !never.has(p.species),
  );
}

/** Wishes that cannot all be met, each as a sentence; empty when nothing speaks against them. */
export function contradictions(wishes: Wishes, rack: readonly Piece[], species: readonly Species[]): Phrase[] {
  const found: Phrase[] = [];
  const name = (code: string) => species.find((s) => s.code === code)?.name ?? code;
  const names = { length: 'Length', width: 'Width', thickness: 'Thickness' } as const;
  for (const side of ['length', 'width', 'thickness'] as const) {
    const { least, greatest } = wishes[side];
    if (least > greatest)
      found.push(
        say`${names[side]}: from ${length(least)} to ${length(greatest)} leaves nothing; the first must be the smaller.`,
      );
  }
  for (const code of wishes.only)
    if (wishes.never.includes(code)) found.push(say`${name(code)} is both wanted and not wanted. Choose one.`);
  for (const { species: code, least, most } of wishes.shares) {
    if (least > most) found.push(say`${name(code)}: at least ${least} % and at most ${most} % cannot both be.`);
    if (least > 0 && (wishes.never.includes(code) || (wishes.only.length > 0 && !wishes.only.includes(code))))
      found.push(say`${name(code)} should be at least ${least} % of the board, but is not among the species allowed.`);
  }
  const sum = wishes.shares.reduce((total, s) => total + s.least, 0);
  if (sum > 100) found.push(say`The shares asked for come to ${sum} %; together they must be at most 100 %.`);
  if (found.length > 0) return found;
  if (rack.length === 0)
    return [say`There is no free wood in the rack. Add pieces, or release what is promised to other boards.`];
  const pieces = piecesFor(wishes, rack);
  if (pieces.length === 0)
    return [
      say`None of the ${rack.length} pieces in the rack is of a species allowed. Allow more species, or choose other pieces.`,
    ];
  if (wishes.useUp !== null && !pieces.some((p) => p.id === wishes.useUp))
    found.push(say`The piece to be used up is not in the rack any more, or its species is not allowed.`);
  for (const { species: code, least } of wishes.shares)
    if (least > 0 && !pieces.some((p) => p.species === code))
      found.push(say`There is no ${name(code)} in the rack to be at least ${least} % of the board.`);
  return found;
}
