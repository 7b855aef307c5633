import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lastOf } from '../lists/there.ts';
import { plainPiece } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { blankSpace, laneKind, nextLane, orderFor, unitGeometry } from './unitGeometry.ts';
import { stripsFrom, usableSize, usableZones } from './usable.ts';

const PART = { length: 429, width: 32 };
const knot = (change: Partial<Piece['defects'][number]> = {}): Piece['defects'][number] => ({
  id: 'd1',
  kind: 'knot',
  face: 'through',
  from: 800,
  across: 60,
  length: 40,
  width: 30,
  treatment: 'cut',
  ...change,
});
const piecesWithKnots = fc
  .array(
    fc.record({
      from: fc.integer({ min: 0, max: 1900 }),
      across: fc.integer({ min: 0, max: 110 }),
      length: fc.integer({ min: 5, max: 100 }),
      width: fc.integer({ min: 5, max: 40 }),
    }),
    { maxLength: 6 },
  )
  .map((places) => plainPiece({ defects: places.map((p, i) => knot({ id: `d${i}`, ...p })) }));

describe('what a piece gives', () => {
  it('worked by hand: 2000 x 150 x 50 rough', () => {
    const { length, width, thickness, clear } = usableSize(plainPiece(), DEFAULT_SHOP, PART);
    // 10 mm off each end, 2 mm off one edge; 1.6 to flatten and 0.8 off each face (habits of the usual shop).
    expect([length, width, clear]).toEqual([1980, 148, true]);
    expect(thickness).toBeCloseTo(50 - 1.6 - 1.6, 9);
  });

  it('an end that is checked further than the usual trim loses that, one that was just sawn loses nothing', () => {
    const ends = (mark: Partial<Piece['ends']['mark']>) =>
      plainPiece({
        ends: { mark: { checked: 0, snipe: 0, sawn: false, ...mark }, far: { checked: 0, snipe: 0, sawn: false } },
      });
    const long = (piece: Piece) => usableSize(piece, DEFAULT_SHOP, PART).length;
    expect(long(ends({ checked: 60 }))).toBe(2000 - 60 - 10);
    expect(long(ends({ checked: 4 }))).toBe(1980);
    expect(long(ends({ sawn: true }))).toBe(1990);
  });

  it('measured, a short part loses less to bow and twist than a long one, by the square of its share (geometry of shallow arcs)', () => {
    const piece = plainPiece({ form: { bow: 8, cup: 0, crook: 0, twist: 0 } });
    const loss = (length: number) => 50 - usableSize(piece, DEFAULT_SHOP, { length, width: 32 }).thickness;
    const skim = 2 * DEFAULT_SHOP.habits.skimRough;
    expect(loss(500) - skim).toBeCloseTo(8 * (500 / 2000) ** 2, 9);
    expect(loss(1000) - skim).toBeCloseTo(8 * (1000 / 2000) ** 2, 9);
  });

  it('one that grows wider as it grows thinner gives as many strips side by side as the best place of a fine grid', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 120, max: 160 }),
        fc.integer({ min: 5, max: 60 }),
        fc.integer({ min: 100, max: 170 }),
        fc.integer({ min: 8, max: 40 }),
        fc.integer({ min: 42, max: 47 }),
        fc.constantFrom('cut' as const, 'under' as const),
        (width, wider, across, rip, thickness, treatment) => {
          const piece = plainPiece({
            length: 1500,
            width,
            farEnd: { width: width + wider, thickness: 46 },
            defects: [knot({ from: 900, across, length: 60, width: 6, face: 'down', treatment })],
          });
          // Longer than half of it: one blank, wherever it gives most.
          const [length, way] = [800, { shows: 'face' as const, rip, thickness }];
          const geometry = unitGeometry(piece, DEFAULT_SHOP, []);
          const kind = laneKind([way], DEFAULT_SHOP.saw.kerf);
          const loss = orderFor(geometry, length, rip).loss.total;
          let most = 0;
          for (let x = geometry.start; x + length <= geometry.end; x += 1) {
            const space = blankSpace(geometry, x, length);
            if (!space || space.thickness - loss < thickness) continue;
            let count = 0;
            for (
              let y = nextLane(space, kind, 0);
              y !== null;
              y = nextLane(space, kind, y + rip + DEFAULT_SHOP.saw.kerf)
            )
              count += 1;
            most = Math.max(most, count);
          }
          expect(stripsFrom(piece, DEFAULT_SHOP, length, way)).toBeGreaterThanOrEqual(most);
        },
      ),
    );
  });

  it('what its owner calls ready is used as it is', () => {
    expect(usableSize(plainPiece({ surface: 'ready' }), DEFAULT_SHOP, PART).thickness).toBe(50);
  });

  it('a piece shorter than its two trims gives nothing, and nothing negative', () => {
    const { length, width, thickness } = usableSize(plainPiece({ length: 15 }), DEFAULT_SHOP, PART);
    expect([length, width, thickness]).toEqual([0, 0, 0]);
  });

  it('only what must be cut out or hidden makes it unclear', () => {
    const clear = (treatment: Piece['defects'][number]['treatment']) =>
      usableSize(plainPiece({ defects: [knot({ treatment })] }), DEFAULT_SHOP, PART).clear;
    expect([clear('harmless'), clear('under'), clear('cut')]).toEqual([true, false, false]);
  });
});

describe('its clear zones', () => {
  it('without a defect there is one, all that is usable', () => {
    expect(usableZones(plainPiece(), DEFAULT_SHOP)).toEqual([{ from: 10, to: 1990, near: 2, far: 150 }]);
  });

  it('a knot in the middle leaves the lengths before and behind it, and the lanes beside it', () => {
    const zones = usableZones(plainPiece({ defects: [knot()] }), DEFAULT_SHOP);
    const has = (zone: object) => expect(zones).toContainEqual(zone);
    has({ from: 840, to: 1990, near: 2, far: 150 });
    has({ from: 10, to: 800, near: 2, far: 150 });
    has({ from: 10, to: 1990, near: 2, far: 60 });
    has({ from: 10, to: 1990, near: 90, far: 150 });
    expect(zones).toHaveLength(4);
  });

  it('none lies inside another or over a knot that is cut out, all lie in the piece, the largest comes first', () => {
    fc.assert(
      fc.property(piecesWithKnots, (piece) => {
        const zones = usableZones(piece, DEFAULT_SHOP);
        const area = (z: (typeof zones)[number]) => (z.to - z.from) * (z.far - z.near);
        zones.forEach((z, i) => {
          expect(z.from >= 10 - 1e-9 && z.to <= 1990 + 1e-9 && z.near >= 2 - 1e-9 && z.far <= 150 + 1e-9).toBe(true);
          for (const d of piece.defects) {
            const beside =
              z.to <= d.from + 1e-6 ||
              z.from >= d.from + d.length - 1e-6 ||
              z.far <= d.across + 1e-6 ||
              z.near >= d.across + d.width - 1e-6;
            expect(beside).toBe(true);
          }
          for (const [k, o] of zones.entries())
            if (k !== i) expect(z.from >= o.from && z.to <= o.to && z.near >= o.near && z.far <= o.far).toBe(false);
          if (i > 0) expect(area(z)).toBeLessThanOrEqual(area(zones[i - 1]!) + 1e-6);
        });
        if (zones.length > 0) expect(area(lastOf(zones))).toBeGreaterThan(0);
      }),
      { numRuns: 150 },
    );
  });

  it('every clear place of a fine grid lies in one of them', () => {
    fc.assert(
      fc.property(piecesWithKnots, (piece) => {
        const zones = usableZones(piece, DEFAULT_SHOP);
        for (let x = 15; x < 1985; x += 61)
          for (let y = 5; y < 148; y += 13) {
            const bad = piece.defects.some(
              (d) =>
                x > d.from - 1e-6 &&
                x < d.from + d.length + 1e-6 &&
                y > d.across - 1e-6 &&
                y < d.across + d.width + 1e-6,
            );
            if (bad) continue;
            expect(zones.some((z) => x >= z.from && x <= z.to && y >= z.near && y <= z.far)).toBe(true);
          }
      }),
      { numRuns: 40 },
    );
  });
});
