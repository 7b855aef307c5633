import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NOTHING_MADE } from '../facts/made.ts';
import { allowancesFor } from '../board/allowances.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInputArbitrary } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { sectionsFor } from './sections.ts';
import { withoutSections } from './withoutSections.ts';

describe('pieces that give a board nothing', () => {
  const told = (
    piece: Parameters<typeof plainPiece>[0],
    board = plainBoard(),
    promised: Parameters<typeof withoutSections>[5] = [],
  ) => {
    const allowances = allowancesFor(board, DEFAULT_SHOP, NOTHING_MADE);
    const rack = [plainPiece(piece)];
    return withoutSections(
      board,
      allowances,
      rack,
      DEFAULT_SHOP,
      sectionsFor(board, allowances, rack, DEFAULT_SHOP, promised),
      promised,
    ).map((w) => `${phraseText(w.why, DEFAULT_DISPLAY)} | ${phraseText(w.wayOut, DEFAULT_DISPLAY)}`);
  };

  it('say why, and what would do', () => {
    const { roughLength } = allowancesFor(plainBoard(), DEFAULT_SHOP, NOTHING_MADE);
    const trims = 2 * DEFAULT_SHOP.habits.stockEndTrim;
    const spare = roughLength - 400;
    expect(told({ length: roughLength + trims - spare - 8 })).toEqual([
      `${spare + 8} mm short: ${spare} mm of it is trim, kerf and creep | A board at most ${400 - spare - 8} mm long has it.`,
    ]);
    expect(told({ length: roughLength + trims })).toEqual([]);
    expect(told({ width: 20 })[0]).toMatch(/too narrow to stand on edge/);
    expect(told({ width: 12 }, plainBoard({ construction: 'face' }))[0]).toMatch(
      /^[\d.]+ mm too narrow for a strip of 12 mm lying flat/,
    );
    expect(told({ thickness: 4 })[0]).toMatch(/nothing is left of its thickness/);
    expect(told({ length: 500 }, plainBoard(), [{ pieceId: 'p1', unit: 0, from: 0, to: 500 }])[0]).toMatch(
      /^promised to other boards/,
    );
    expect(
      told({
        length: 500,
        defects: [
          { id: 'k', kind: 'knot', face: 'through', treatment: 'cut', from: 240, length: 20, across: 0, width: 150 },
        ],
      })[0],
    ).toMatch(/^no clear length/);
  });

  it('every piece of the rack either offers a section or is told', () => {
    fc.assert(
      fc.property(planInputArbitrary, (input) => {
        const { sections, allowances, shop } = makePlan(input);
        const without = withoutSections(input.board, allowances, input.rack, shop, sections, []);
        expect([...new Set([...sections, ...without].map((s) => s.pieceId))].sort()).toEqual(
          input.rack.map((p) => p.id).sort(),
        );
        expect(without.every((w) => w.short >= 0 && !sections.some((s) => s.pieceId === w.pieceId))).toBe(true);
      }),
      { numRuns: 40 },
    );
  });
});
