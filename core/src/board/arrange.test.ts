import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainBoard } from '../plan/planArbitrary.ts';
import { duplicateStrip, insertStrip, mirrorAbout, moveJoint, moveStrip, removeStrip, reverseStrips, snapWidth } from './arrange.ts';
import { panelWidth } from './board.ts';

const layout = fc.array(fc.integer({ min: 2, max: 90 }), { minLength: 1, maxLength: 20 }).map((widths) => plainBoard({}, widths).strips);
const withIndex = layout.chain((strips) => fc.tuple(fc.constant(strips), fc.nat(strips.length - 1), fc.nat(strips.length - 1)));
const ids = (strips: readonly { id: string }[]) => strips.map((s) => s.id);

function counter() {
  let n = 0;
  return () => `new${(n += 1)}`;
}

describe('strips under the hands', () => {
  it('moving keeps every strip, and moving back undoes it', () => {
    fc.assert(fc.property(withIndex, ([strips, from, to]) => {
      const moved = moveStrip(strips, from, to);
      expect(moved[to]).toBe(strips[from]);
      expect(moveStrip(moved, to, from)).toEqual(strips);
    }));
  });

  it('mirroring makes the board symmetrical about the strip, twice changes nothing more, and ids stay unique', () => {
    fc.assert(fc.property(withIndex, ([strips, index]) => {
      const mirrored = mirrorAbout(strips, index, counter());
      const widths = mirrored.map((s) => s.width);
      expect(widths).toEqual([...widths].reverse());
      expect(mirrored.slice(0, index + 1)).toEqual(strips.slice(0, index + 1));
      expect(new Set(ids(mirrored)).size).toBe(mirrored.length);
      expect(mirrorAbout(mirrored, index, counter()).map((s) => s.width)).toEqual(widths);
    }));
  });

  it('duplicate then remove, insert then remove, reverse twice: back where it was', () => {
    fc.assert(fc.property(withIndex, ([strips, index]) => {
      expect(removeStrip(duplicateStrip(strips, index, counter()), index + 1)).toEqual(strips);
      expect(removeStrip(insertStrip(strips, index, { ...strips[0]!, id: 'x' }), index)).toEqual(strips);
      expect(reverseStrips(reverseStrips(strips))).toEqual(strips);
    }));
  });

  it('a joint dragged with the sum kept trades width between neighbours, never below the least', () => {
    fc.assert(fc.property(withIndex, fc.integer({ min: -50, max: 200 }), ([strips, index], width) => {
      const moved = moveJoint(strips, index, width, true);
      if (index < strips.length - 1) expect(panelWidth({ strips: moved })).toBeCloseTo(panelWidth({ strips }), 9);
      for (const strip of moved) expect(strip.width).toBeGreaterThanOrEqual(1);
    }));
  });

  it('a dragged width takes what the rack offers when near, else the grid', () => {
    expect(snapWidth(36, [23.8, 36.8, 48.8], 2, 'metric')).toBe(36.8);
    expect(snapWidth(42.3, [23.8, 36.8, 48.8], 2, 'metric')).toBe(42.5);
    expect(snapWidth(25, [], 2, 'inch')).toBeCloseTo(31 * (25.4 / 32), 9);
  });
});
