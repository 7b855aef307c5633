import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from '../plan/planArbitrary.ts';
import { sectionsFor, widestStrip } from './sections.ts';

const sectionsOf = (board: Parameters<typeof planInput>[0], rack: Parameters<typeof planInput>[1]) => makePlan(planInput(board, rack)).sections;

describe('sectionsFor', () => {
  it('every width that is offered can be cut, as often as is said', () => {
    fc.assert(fc.property(planInputArbitrary, fc.nat(40), (input, pick) => {
      const { sections } = makePlan(input);
      const section = sections[pick % Math.max(1, sections.length)];
      if (!section || section.count > 60) return;
      const strips = Array.from({ length: section.count }, (_, i) => ({ id: `s${i}`, species: section.species, width: section.width, endForEnd: false }));
      const alone = makePlan({ ...input, board: { ...input.board, count: 1, strips }, rack: input.rack.filter((p) => p.id === section.pieceId) });
      expect(alone.cutting.shortages).toEqual([]);
      expect(alone.ladders.thickness.shortBy > 0).toBe(section.tooThinBy > 1e-6);
    }), { numRuns: 300 });
  });

  it('edge grain offers the planed thickness, as many as lengths times rips', () => {
    // 50 rough planes to 46.8; (1980 + 3) / (429 + 3) = 4 lengths, (148 + 3) / (32 + 3) = 4 rips.
    expect(sectionsOf(plainBoard(), [plainPiece()])).toEqual([{ pieceId: 'p1', mark: 'P1', species: 'maple-hard', rings: 'flat', width: 46.8, count: 16, tooThinBy: 0 }]);
  });

  it('face grain offers the width whole and in equal parts, and says how much too thin a piece is', () => {
    const face = plainBoard({ construction: 'face', thickness: 30 });
    const sections = sectionsOf(face, [plainPiece({ thickness: 30 })]);
    // Usable width 148: whole 148 - 1 for jointing, halves (148 + 3) / 2 - 3 - 1 = 71.5, thirds 46.3 ...
    expect(sections.slice(0, 3).map((s) => s.width)).toEqual([147, 71.5, 46.3]);
    expect(sections[0]!.tooThinBy).toBeCloseTo(32 - 26.8, 9);
    expect(widestStrip(sections, 'maple-hard')).toBe(147);
    expect(widestStrip(sections, 'pear')).toBe(0);
  });

  it('offers nothing from a piece too short or too narrow for one strip', () => {
    const board = plainBoard();
    const { allowances } = makePlan(planInput(board, []));
    const rack = [plainPiece({ length: 440 }), plainPiece({ width: 33 })];
    expect(sectionsFor(board, allowances, rack, planInput(board, []).shop)).toEqual([]);
  });
});
