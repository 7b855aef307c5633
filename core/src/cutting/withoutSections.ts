import { edgeRip, type Allowances } from '../board/allowances.ts';
import type { Board } from '../board/board.ts';
import type { Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import type { PromisedRange } from './cutPlan.ts';
import { LEAST_OFFERED_RIP, type Section } from './sections.ts';
import { stripsOfAll, usableSize } from './usable.ts';

/** A piece of the rack that gives this board nothing, and why. */
export interface WithoutSection {
  pieceId: string;
  mark: string;
  species: string;
  /** What is missing, mm; 0 where it is not a matter of size. */
  short: number;
  why: Phrase;
  wayOut: Phrase;
}

/** Narrowest thing that is still called a strip, mm: what `sectionsFor` begins with. */
const LEAST_STRIP = 1;

/** Pieces that offer no section for a board, those that miss it by least first. */
export function withoutSections(
  board: Board,
  allowances: Allowances,
  rack: readonly Piece[],
  shop: Shop,
  sections: readonly Section[],
  promised: readonly PromisedRange[],
): WithoutSection[] {
  const giving = new Set(sections.map((s) => s.pieceId));
  return rack
    .filter((p) => !giving.has(p.id))
    .map((piece) => ({
      pieceId: piece.id,
      mark: piece.mark,
      species: piece.species,
      ...reason(piece, board, allowances, shop, promised),
    }))
    .sort((a, b) => a.short - b.short);
}

function reason(
  piece: Piece,
  board: Board,
  allowances: Allowances,
  shop: Shop,
  promised: readonly PromisedRange[],
): Pick<WithoutSection, 'short' | 'why' | 'wayOut'> {
  const { roughLength } = allowances;
  const onEdge = allowances.glueThickness + allowances.ripExtra.edge;
  const usable = usableSize(piece, shop, { length: roughLength, width: onEdge });
  const short = roughLength - usable.length;
  if (short > LENGTH_TOLERANCE_MM) {
    const extra = roughLength - board.length;
    return {
      short,
      why: say`${length(short)} short: ${length(Math.min(short, extra))} of it is trim, kerf and creep`,
      wayOut:
        board.length - short > 0
          ? say`A board at most ${length(board.length - short)} long has it.`
          : say`No board is so short.`,
    };
  }
  const { thickness, width } = usable;
  const way =
    board.construction === 'edge'
      ? { shows: 'edge' as const, rip: edgeRip(allowances, Math.max(LEAST_STRIP, thickness)), thickness }
      : {
          shows: 'face' as const,
          rip: allowances.ripExtra.face + LEAST_STRIP,
          thickness: Math.min(thickness, allowances.glueThickness),
        };
  if (thickness < LEAST_STRIP)
    return {
      short: LEAST_STRIP - thickness,
      why: say`nothing is left of its thickness once it is flat`,
      wayOut: say`Crosscut shorter it loses less: a shorter board may have it.`,
    };
  if (board.construction === 'face' && width < LEAST_OFFERED_RIP + allowances.ripExtra.face - LENGTH_TOLERANCE_MM) {
    const narrow = LEAST_OFFERED_RIP + allowances.ripExtra.face - width;
    return {
      short: narrow,
      why: say`${length(narrow)} too narrow for a strip of ${length(LEAST_OFFERED_RIP)} lying flat`,
      wayOut: say`Thinner accents are cut on purpose: give a strip the width that is wanted.`,
    };
  }
  if (board.construction === 'edge' && width < way.rip - LENGTH_TOLERANCE_MM) {
    const narrow = way.rip - width;
    return {
      short: narrow,
      why: say`${length(narrow)} too narrow to stand on edge at this thickness`,
      wayOut: say`A board ${length(narrow)} thinner has it, or the strip rolled to lie flat.`,
    };
  }
  if (promised.some((r) => r.pieceId === piece.id) && stripsOfAll(piece, shop, roughLength, way, []) > 0)
    return { short: 0, why: say`promised to other boards`, wayOut: say`Release it in the Cuts of those boards.` };
  return {
    short: 0,
    why: say`no clear length between its bad places`,
    wayOut: say`A shorter board may fit between them; say on the piece what may stay.`,
  };
}
