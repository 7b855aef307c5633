import type { Section } from '#core/cutting/sections.ts';

/** Equal sections of several pieces as one thing on the shelf. */
export interface ShelfSection {
  species: string;
  width: number;
  rings: Section['rings'];
  marks: string[];
  /** Strips that all its pieces together give, before anything is cut. */
  count: number;
  tooThinBy: number;
}

/** Sections of one species and width together; by species, those thick enough first, widest first. */
export function shelfSections(sections: readonly Section[]): ShelfSection[] {
  const byKind = new Map<string, ShelfSection>();
  for (const { species, width, rings, mark, count, tooThinBy } of sections) {
    const key = `${species}|${width.toFixed(1)}|${tooThinBy.toFixed(1)}`;
    const kind = byKind.get(key);
    if (kind) {
      kind.marks.push(mark);
      kind.count += count;
    } else byKind.set(key, { species, width, rings, marks: [mark], count, tooThinBy });
  }
  return [...byKind.values()].sort((a, b) => (a.species < b.species ? -1 : a.species > b.species ? 1 : Number(a.tooThinBy > 0) - Number(b.tooThinBy > 0) || b.width - a.width));
}

/** Widths the rack gives in a species, narrowest first, each once. */
export function offeredWidths(sections: readonly Section[], species: string): number[] {
  return [...new Set(sections.filter((s) => s.species === species).map((s) => s.width))].sort((a, b) => a - b);
}
