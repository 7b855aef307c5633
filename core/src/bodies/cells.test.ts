import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { flatRecipe, stripsOf } from '../board/recipe.ts';
import { readBackward, readForward } from '../recipe/evaluate.ts';
import { stripWorkpiece } from '../recipe/stripOperation.ts';
import { AT_REST } from '../recipe/motion.ts';
import { bounds, moved, volume } from '../recipe/solid.ts';
import { workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { cutOut } from '../recipe/workpiece.ts';
import { bodiesOfPanel, boardInCells, panelInCells } from './cells.ts';
import { panelContextOf } from '../plan/panelContext.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, planInputArbitrary } from '../plan/planArbitrary.ts';

const wood = { piece: null, unit: 0, inPiece: AT_REST };
const woodIn = (cells: readonly { solid: Parameters<typeof volume>[0] }[]) =>
  cells.reduce((sum, c) => sum + volume(c.solid), 0);

describe('a recipe read both ways', () => {
  it('backward: every strip as long and high as the panel, as wide as it says; forward: the panel again, and all its wood', () => {
    fc.assert(
      fc.property(planInputArbitrary, ({ board }) => {
        const strips = stripsOf(board);
        const wanted = readBackward(board.recipe, { length: 500, height: 32 });
        expect([...wanted.values()]).toEqual([...strips].reverse().map((s) => [500, s.width, 32]));
        const panel = readForward(board.recipe, (strip) => stripWorkpiece(strip, wanted.get(strip.id)!, wood));
        expect(panel === null).toBe(strips.length === 0);
        if (!panel) return;
        const width = strips.reduce((sum, s) => sum + s.width, 0);
        expect([panel.size[0], panel.size[2]]).toEqual([500, 32]);
        expect(panel.size[1]).toBeCloseTo(width, 9);
        expect(woodIn(panel.cells) / (500 * width * 32)).toBeCloseTo(1, 9);
      }),
    );
  });

  it('a panel is as long as its shortest strip and as high as its lowest (by hand)', () => {
    const sizes = { a: [400, 30, 20], b: [390, 40, 22] } as const;
    const recipe = flatRecipe(stripsOf(plainBoard({}, [30, 40])).map((s, i) => ({ ...s, id: 'ab'[i]! })));
    const panel = readForward(recipe, (strip) => stripWorkpiece(strip, sizes[strip.id as 'a' | 'b'], wood))!;
    expect(panel.size).toEqual([390, 70, 20]);
    // A board out of the middle: 300 by 50 by 15, 20 of it of the first strip.
    const board = cutOut(panel, [50, 10, 2], [350, 60, 17]);
    expect([board.size, board.cells.map((c) => Math.round(volume(c.solid)))]).toEqual([
      [300, 50, 15],
      [300 * 20 * 15, 300 * 30 * 15],
    ]);
  });

  it('what a board weighs is the wood in its cells: strips trimmed away weigh nothing, and nothing is counted twice', () => {
    fc.assert(
      fc.property(planInputArbitrary, (input) => {
        const { strips, worked, materials } = makePlan(input);
        const across = strips.reduce((sum, s) => sum + s.finished.width, 0);
        if (strips.length > 0) expect(across).toBeCloseTo(worked.size.width, 6);
        for (const s of strips)
          expect(s.finished.width).toBeLessThanOrEqual(stripsOf(input.board)[s.number - 1]!.width + 1e-9);
        expect(materials.finished.cubicMetres * 1e9).toBeCloseTo(
          worked.size.length * (strips.length > 0 ? worked.size.width : 0) * worked.size.thickness,
          2,
        );
      }),
    );
  });
});

describe('boards of a batch', () => {
  it('each lies inside its pieces, all of it, whichever panel it comes from', () => {
    let boards = 0;
    fc.assert(
      fc.property(workshopArbitrary, (input) => {
        const plan = makePlan(input);
        if (plan.cutting.shortages.length > 0 || plan.cutting.blanks.length === 0) return;
        const context = panelContextOf(plan, input);
        plan.trim.panels.forEach((places, k) => {
          const panel = panelInCells(context, bodiesOfPanel(context, k + 1), k + 1)!;
          for (const place of places) {
            boards += 1;
            for (const cell of boardInCells(panel, place, plan.ladders.thickness.reached).cells) {
              const { least, greatest } = bounds(moved(cell.solid, cell.inPiece));
              const piece = cell.piece!;
              const width = Math.max(piece.width, piece.farEnd?.width ?? 0);
              const thickness = Math.max(piece.thickness, piece.farEnd?.thickness ?? 0);
              expect(Math.min(...least)).toBeGreaterThan(-1e-6);
              expect(greatest[0]).toBeLessThan(piece.length + 1e-6);
              expect(greatest[1]).toBeLessThan(width + 1e-6);
              expect(greatest[2]).toBeLessThan(thickness + 1e-6);
            }
          }
        });
      }),
      { numRuns: 300 },
    );
    expect(boards).toBeGreaterThan(100);
  });
});
