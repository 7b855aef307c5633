import type { OfferedWidth } from '#core/board/snapJoint.ts';
import { roundLength, type LengthDisplay } from '#core/units/formatLength.ts';
import { storedLength } from '#core/units/lengthSchema.ts';
import type { Section } from '#core/cutting/sections.ts';
import type { Strip } from '#core/board/recipe.ts';

/** Equal sections of several pieces as one thing on the shelf. */
export interface ShelfSection {
  species: string;
  width: number;
  resawn: boolean;
  /** The pieces that give it, first the one it is drawn from. */
  pieces: { id: string; mark: string }[];
  /** Strips that all its pieces together give, before anything is cut. */
  count: number;
  tooThinBy: number;
}

/** A width on the grid that the reader sees, rounded down; one that is narrower than the grid's first line stays. */
function onGrid(width: number, display: LengthDisplay): number {
  return storedLength(roundLength(width, display, 'down') || width);
}

/** Sections of one species and width together; by species, those thick enough first, widest first. @param display widths come on its grid, rounded down: a strip may be narrower than its piece gives */
export function shelfSections(sections: readonly Section[], display: LengthDisplay): ShelfSection[] {
  const byKind = new Map<string, ShelfSection>();
  for (const { species, width: gives, resawn, pieceId, mark, count, tooThinBy } of sections) {
    const width = onGrid(gives, display);
    const key = `${species}|${width.toFixed(1)}|${tooThinBy.toFixed(1)}|${resawn}`;
    const kind = byKind.get(key);
    if (kind) {
      kind.pieces.push({ id: pieceId, mark });
      kind.count += count;
    } else byKind.set(key, { species, width, resawn, pieces: [{ id: pieceId, mark }], count, tooThinBy });
  }
  return [...byKind.values()].sort((a, b) =>
    a.species < b.species
      ? -1
      : a.species > b.species
        ? 1
        : Number(a.tooThinBy > 0) - Number(b.tooThinBy > 0) || b.width - a.width,
  );
}

/** Widths the rack gives in a species on the reader's grid, narrowest first, each once; one that a piece gives whole is not told as resawn. */
export function offeredWidths(sections: readonly Section[], species: string, display: LengthDisplay): OfferedWidth[] {
  const widths = new Map<number, boolean>();
  for (const s of sections) {
    const width = onGrid(s.width, display);
    if (s.species === species) widths.set(width, s.resawn && (widths.get(width) ?? true));
  }
  return [...widths].map(([width, resawn]) => ({ width, resawn })).sort((a, b) => a.width - b.width);
}

/** Widest strip the rack gives in a strip's species, mm; what lies the other way than the sections is taken as it is. */
export function widestOffered(sections: readonly Section[], strip: Strip, display: LengthDisplay): number {
  return strip.rolled
    ? strip.width
    : Math.max(0, ...offeredWidths(sections, strip.species, display).map((o) => o.width));
}
