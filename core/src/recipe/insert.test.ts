import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { insetBoard } from '../board/recutForTests.ts';
import { insetOf } from '../board/inset.ts';
import { plainBoard } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { insertWorkpiece } from './insertOperation.ts';
import { AT_REST } from './motion.ts';
import { bounds, box, volume } from './solid.ts';
import { stripWorkpiece } from './stripOperation.ts';
import type { Workpiece } from './workpiece.ts';

const tenths = (least: number, most: number) => fc.integer({ min: least * 10, max: most * 10 }).map((n) => n / 10);
const wood = ({ cells }: Workpiece) => cells.reduce((sum, c) => sum + volume(c.solid), 0);
const plank = (length: number, width: number, height: number): Workpiece => ({
  size: [length, width, height],
  cells: [{ strip: 'plank', solid: box([length, width, height]), piece: null, unit: 0, inPiece: AT_REST }],
});

describe('a strip put in', () => {
  it('no wood is lost but the kerf, and all of the strip is there: 1,000 panels, angles -60 to 60', () => {
    fc.assert(
      fc.property(
        fc.record({ angle: fc.oneof(fc.constant(0), tenths(-60, 60)), jog: tenths(-20, 20), width: tenths(2, 60) }),
        tenths(60, 300),
        tenths(10, 60),
        ({ angle, jog, width }, wide, height) => {
          // Long enough that any cut runs from long edge to long edge.
          const board = insetBoard(plainBoard({ length: 1500, width: wide, thickness: 20 }, [wide]), [
            { species: 'maple-hard', width, at: 750, angle, jog },
          ]);
          const inset = insetOf(board, DEFAULT_SHOP)!;
          const [insert] = inset.inserts;
          const panel = plank(inset.panelLength, inset.trueWidth, height);
          const strip = stripWorkpiece(insert!.strip, [insert!.length, width, height], {
            piece: null,
            unit: 0,
            inPiece: AT_REST,
          });
          const made = insertWorkpiece(panel, strip, insert!, inset.trueWidth);
          const kerf = ((insert!.kerf * inset.trueWidth) / Math.cos((angle * Math.PI) / 180)) * height;
          expect(Math.abs(wood(made) - (wood(panel) - kerf + wood(strip))) / wood(made)).toBeLessThan(1e-9);
          // What lies before stays, what lies behind moves as one, and its end is as square as it was.
          const parts = made.cells.filter((c) => c.strip === 'plank').map((c) => bounds(c.solid));
          expect(parts).toHaveLength(2);
          const [first, second] =
            parts[0]!.least[0] < parts[1]!.least[0] ? [parts[0]!, parts[1]!] : [parts[1]!, parts[0]!];
          expect(first.least).toEqual([0, 0, 0]);
          expect(second.greatest[0]).toBeCloseTo(inset.block.length, 6);
          expect([second.least[1], second.greatest[1]].map((y) => y - jog)).toEqual([
            expect.closeTo(0, 6),
            expect.closeTo(inset.trueWidth, 6),
          ]);
        },
      ),
      { numRuns: 1000 },
    );
  });
});
