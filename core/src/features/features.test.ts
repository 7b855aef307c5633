import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { apart, isInside } from './apart.ts';
import { bevelMiss, bevelSetting, edgeReach, insetAt, sideLeft, sideProfile, type EdgeCut } from './edge.ts';
import type { FeatureOf } from './feature.ts';
import { depthAt, grooveLines, grooveVolume, jigOpening } from './groove.ts';
import { inlayFit } from './inlay.ts';
import { tightPlaces } from './lineSpacing.ts';
import { circle, mapOutline, outlineArea, outlineLength, outlinePoints, rectangle } from './outline.ts';
import { fenceMark, solidsOfFeature } from './solids.ts';

const mm = (least: number, greatest: number) => fc.integer({ min: least * 10, max: greatest * 10 }).map((n) => n / 10);
const roundRect = fc.record({
  x: mm(-50, 50),
  y: mm(-50, 50),
  length: mm(10, 400),
  width: mm(10, 400),
  corner: mm(0, 60),
  kind: fc.constantFrom('round' as const, 'clip' as const),
});

describe('outlines', () => {
  it('have the area and length of geometry: a circle, a rectangle less its corners', () => {
    expect(outlineArea(circle(3, 4, 20))).toBeCloseTo(Math.PI * 100, 6);
    expect(outlineLength(circle(3, 4, 20))).toBeCloseTo(Math.PI * 20, 6);
    // Four corners of radius r leave (4 - pi) r2 out.
    expect(outlineArea(rectangle(0, 0, 100, 60, 10))).toBeCloseTo(6000 - (4 - Math.PI) * 100, 6);
    expect(outlineArea(rectangle(0, 0, 100, 60, 10, 'clip'))).toBeCloseTo(6000 - 200, 6);
  });

  it('keep area and length when turned over, and their points lie on them', () => {
    fc.assert(
      fc.property(roundRect, ({ x, y, length, width, corner, kind }) => {
        const outline = rectangle(x, y, length, width, corner, kind);
        const over = mapOutline(outline, (p) => ({ x: -p.x, y: p.y }), true);
        expect(outlineArea(over)).toBeCloseTo(outlineArea(outline), 5);
        expect(outlineLength(over)).toBeCloseTo(outlineLength(outline), 5);
        // The polygon of its points holds nearly as much: shoelace, without arcs.
        const points = outlinePoints(outline);
        const polygon =
          Math.abs(
            points.reduce(
              (sum, p, i) => sum + p.x * points[(i + 1) % points.length]!.y - points[(i + 1) % points.length]!.x * p.y,
              0,
            ),
          ) / 2;
        expect(Math.abs(polygon - outlineArea(outline))).toBeLessThan(0.021 * outlineLength(outline));
        // Turned over as points or as an outline, it is the same line.
        outlinePoints(over).forEach((p, i) => {
          expect(p.x).toBeCloseTo(-points[i]!.x, 6);
          expect(p.y).toBeCloseTo(points[i]!.y, 6);
        });
      }),
    );
  });

  it('are as far apart as their nearest points, the same either way round', () => {
    expect(apart([circle(0, 0, 10)], [circle(30, 0, 10)])).toBeCloseTo(20, 2);
    expect(apart([rectangle(0, 0, 100, 100)], [circle(50, 50, 10)])).toBe(0);
    // In the hole of a ring nothing is touched.
    expect(apart([rectangle(0, 0, 100, 100), rectangle(20, 20, 60, 60)], [circle(50, 50, 20)])).toBeCloseTo(20, 2);
    fc.assert(
      fc.property(roundRect, roundRect, (a, b) => {
        const [one, other] = [a, b].map((r) => [rectangle(r.x, r.y, r.length, r.width, r.corner, r.kind)]);
        const distance = apart(one!, other!);
        expect(apart(other!, one!)).toBeCloseTo(distance, 9);
        const nearest = Math.min(
          ...outlinePoints(one![0]!, 5).flatMap((p) =>
            outlinePoints(other![0]!, 5).map((q) => Math.hypot(p.x - q.x, p.y - q.y)),
          ),
        );
        expect(distance).toBeLessThanOrEqual(nearest + 1e-9);
      }),
      { numRuns: 40 },
    );
  });
});

const cutArbitrary: fc.Arbitrary<EdgeCut> = fc.oneof(
  fc.constant<EdgeCut>({ kind: 'straight' }),
  fc.record({ kind: fc.constant('chamfer' as const), reach: mm(1, 10), angle: fc.integer({ min: 20, max: 70 }) }),
  fc.record({ kind: fc.constant('roundOver' as const), radius: mm(1, 10) }),
  fc.record({ kind: fc.constant('underBevel' as const), angle: fc.integer({ min: 20, max: 60 }), reveal: mm(5, 25) }),
  fc.record({ kind: fc.constant('thumbnail' as const), reach: mm(2, 20), drop: mm(3, 10), step: mm(0, 3) }),
);

describe('edges', () => {
  it('an under-bevel is where two planes say, and neighbours meet at the corner', () => {
    // Independent: planes through the line that stays of the side, leaning by the tilt; their line of crossing by the cross product.
    for (const [thickness, angle, reveal] of [
      [30, 45, 12],
      [38, 30, 20],
      [25, 60, 5],
    ] as const) {
      const lean = (angle * Math.PI) / 180;
      const [one, two] = [
        [Math.cos(lean), 0, -Math.sin(lean)],
        [0, Math.cos(lean), -Math.sin(lean)],
      ];
      const at = (n: readonly number[], p: readonly number[]) => n[0]! * p[0]! + n[1]! * p[1]! + n[2]! * p[2]!;
      // z runs down from the show side; both planes hold the corner's point at the reveal's depth.
      const offset = at(one, [0, 0, reveal]);
      const { reach, face } = bevelSetting({ kind: 'underBevel', angle, reveal }, thickness);
      expect(at(one, [reach, 0, thickness])).toBeCloseTo(offset, 9);
      expect(Math.hypot(reach, thickness - reveal)).toBeCloseTo(face, 9);
      const along = [
        one[1]! * two[2]! - one[2]! * two[1]!,
        one[2]! * two[0]! - one[0]! * two[2]!,
        one[0]! * two[1]! - one[1]! * two[0]!,
      ];
      const down = (thickness - reveal) / along[2]!;
      expect(along[0]! * down).toBeCloseTo(reach, 9);
      expect(along[1]! * down).toBeCloseTo(reach, 9);
    }
    expect(
      bevelMiss({ kind: 'underBevel', angle: 45, reveal: 12 }, { kind: 'underBevel', angle: 45, reveal: 12 }),
    ).toBe(0);
    expect(
      bevelMiss({ kind: 'underBevel', angle: 45, reveal: 12 }, { kind: 'underBevel', angle: 45, reveal: 15 }),
    ).toBe(3);
  });

  it('a round-over of 1/8 in takes the square less the quarter circle (common practice: 1/16 and 1/8 in)', () => {
    const radius = 25.4 / 8;
    let taken = 0;
    for (let i = 0; i < 2000; i += 1)
      taken += (insetAt({ kind: 'roundOver', radius }, 30, ((i + 0.5) / 2000) * radius) * radius) / 2000;
    expect(taken).toBeCloseTo(radius ** 2 * (1 - Math.PI / 4), 3);
  });

  it('never add wood: inward everywhere, all of the reach at the face, nothing below the drop', () => {
    fc.assert(
      fc.property(cutArbitrary, mm(26, 60), (cut, thickness) => {
        const { reach, drop } = edgeReach(cut, thickness);
        // Deeper than the board is refused elsewhere.
        fc.pre(drop < thickness);
        expect(insetAt(cut, thickness, 0)).toBeCloseTo(reach, 9);
        expect(insetAt(cut, thickness, drop + 0.01)).toBe(0);
        let before = Infinity;
        for (let i = 0; i <= 50; i += 1) {
          const inset = insetAt(cut, thickness, (i / 50) * drop);
          expect(inset).toBeGreaterThanOrEqual(0);
          expect(inset).toBeLessThanOrEqual(before + 1e-9);
          before = inset;
        }
        const profile = sideProfile({ top: cut, bottom: { kind: 'straight' } }, thickness);
        profile.slice(1).forEach(([, depth], i) => expect(depth).toBeGreaterThanOrEqual(profile[i]![1] - 1e-9));
        expect(sideLeft({ top: cut, bottom: { kind: 'straight' } }, thickness)).toBeCloseTo(thickness - drop, 9);
      }),
    );
  });
});

const groove = (change: Partial<FeatureOf<'groove'>> = {}): FeatureOf<'groove'> => ({
  kind: 'groove',
  id: 'g',
  face: 'top',
  offset: 25,
  bit: 12.7,
  depth: 8,
  corner: 20,
  wells: 1,
  spout: null,
  fall: 0,
  ...change,
});
const BOARD = { length: 400, width: 250, thickness: 35 };

describe('juice groove', () => {
  it.each([
    ['one well', groove()],
    ['two wells, a flat bottom of the bit not reached', groove({ wells: 2, depth: 4 })],
    ['falling to the left', groove({ spout: 'left', fall: 4, depth: 9 })],
    ['level, with a spout', groove({ spout: 'left', depth: 5 })],
  ])('holds what a numerical integration says: %s', (_, feature) => {
    // Independent: the depth under every point of a fine grid, from its distance to the line of the bit's middle.
    const small = { length: 200, width: 140, thickness: 35 };
    const lines = grooveLines(feature, small).map((o) => outlinePoints(o));
    const [step, r] = [0.5, feature.bit / 2];
    let volume = 0;
    for (let x = step / 2; x < small.length; x += step) {
      for (let y = step / 2; y < small.width; y += step) {
        let [least, at] = [Infinity, x];
        for (const line of lines) {
          for (let i = 0; i < line.length; i += 1) {
            const [a, b] = [line[i]!, line[(i + 1) % line.length]!];
            const [dx, dy] = [b.x - a.x, b.y - a.y];
            const t = Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / (dx * dx + dy * dy)));
            const d = Math.hypot(x - a.x - t * dx, y - a.y - t * dy);
            if (d < least) [least, at] = [d, a.x + t * dx];
          }
        }
        const cut = (deep: number, beside: number) =>
          beside < r ? Math.max(0, deep - r + Math.sqrt(r * r - beside * beside)) : 0;
        // The channel of the spout runs from the edge to the groove's own line; what both cut is there once.
        const channel = feature.spout && x < feature.offset ? cut(feature.depth, Math.abs(y - small.width / 2)) : 0;
        volume += Math.max(channel, cut(depthAt(feature, small, at), least)) * step * step;
      }
    }
    expect(Math.abs(grooveVolume(feature, small) - volume) / volume).toBeLessThan(0.007);
  });

  it('worked example of its jig: a board of 400 by 250, 25 in, a base of 150: an opening of 500 by 350 with corners of 95, 50 beyond the board', () => {
    expect(jigOpening(groove(), BOARD, 150)).toEqual({ length: 500, width: 350, corner: 95, beyond: 50 });
    expect(jigOpening(groove({ offset: 126 }), BOARD, 150)).toBeNull();
  });
});

describe('features', () => {
  it('stay inside the board that has room for them, and mirror each other', () => {
    const features = fc.oneof(
      fc.record({
        kind: fc.constant('groove' as const),
        id: fc.constant('f'),
        face: fc.constantFrom('top' as const, 'bottom' as const),
        offset: mm(12, 60),
        bit: mm(6, 20),
        depth: mm(1, 12),
        corner: mm(0, 40),
        wells: fc.constantFrom(1 as const, 2 as const),
        spout: fc.constantFrom(null, 'left' as const),
        fall: fc.constant(0),
      }),
      fc.record({
        kind: fc.constant('finger' as const),
        id: fc.constant('f'),
        on: fc.constantFrom('ends' as const, 'sides' as const),
        shape: fc.constantFrom('cove' as const, 'bevel' as const),
        bit: mm(6, 14),
        length: mm(20, 150),
        depth: mm(2, 12),
        up: mm(8, 20),
      }),
      fc.record({
        kind: fc.constant('hole' as const),
        id: fc.constant('f'),
        on: fc.constantFrom('ends' as const, 'sides' as const),
        length: mm(60, 120),
        width: mm(20, 35),
        inset: mm(5, 40),
      }),
      fc.record({
        kind: fc.constant('handle' as const),
        id: fc.constant('f'),
        on: fc.constantFrom('ends' as const, 'sides' as const),
        bores: fc.constantFrom(1 as const, 2 as const),
        spacing: mm(60, 140),
        bore: mm(4, 8),
        inset: mm(15, 40),
        counterbore: mm(10, 14),
        sinkTop: mm(0, 8),
        sinkBottom: mm(0, 8),
      }),
      fc.record({
        kind: fc.constant('feet' as const),
        id: fc.constant('f'),
        count: fc.constantFrom(4 as const, 6 as const),
        inset: mm(15, 60),
        bore: mm(12, 25),
        boreDepth: mm(0, 4),
        screw: mm(3, 5),
        screwDepth: mm(5, 15),
      }),
    );
    fc.assert(
      fc.property(features, mm(240, 600), mm(180, 400), (feature, length, width) => {
        const size = { length, width, thickness: 35 };
        const solids = solidsOfFeature(feature, size);
        expect(solids.length).toBeGreaterThan(0);
        for (const s of solids) {
          expect(s.to).toBeGreaterThan(s.from);
          expect(s.from).toBeGreaterThanOrEqual(-1e-9);
          expect(s.to).toBeLessThanOrEqual(35 + 1e-9);
          for (const o of s.outlines)
            for (const p of outlinePoints(o))
              expect(p.x >= -1e-6 && p.x <= length + 1e-6 && p.y >= -1e-6 && p.y <= width + 1e-6).toBe(true);
        }
        // As much on one half of the board as on the other.
        const area = (far: boolean) =>
          solids
            .filter((s) => s.part !== 'spout')
            .reduce(
              (sum, s) =>
                sum +
                outlinePoints(s.outlines[0]!, 2).filter((p) => (far ? p.y < width / 2 - 1e-6 : p.y > width / 2 + 1e-6))
                  .length,
              0,
            );
        expect(Math.abs(area(true) - area(false))).toBeLessThanOrEqual(4 * solids.length);
      }),
    );
  });

  it('fence marks stand half a bit outside the hollow: 90 long in an end of 250, 1/2 in bit (common practice)', () => {
    expect(
      fenceMark({ kind: 'finger', id: 'f', on: 'ends', shape: 'cove', bit: 12.7, length: 90, depth: 8, up: 15 }, BOARD),
    ).toBeCloseTo(80 + 6.35, 9);
    // Less than half of the bit deep, it opens at the edge by its chord: 2 sqrt(2 r d - d²).
    const shallow = fenceMark(
      { kind: 'finger', id: 'f', on: 'ends', shape: 'cove', bit: 20, length: 80, depth: 3, up: 15 },
      BOARD,
    );
    expect(BOARD.width - 2 * shallow + 2 * Math.sqrt(2 * 10 * 3 - 9)).toBeCloseTo(80, 9);
  });

  it('a plug goes in until its walls touch those of the pocket: by vector, at every depth', () => {
    const inlay = { depth: 2.5, angle: 60, plugStart: 1.5, plugDepth: 1.2 };
    const { glueGap, faceGap, lean } = inlayFit(inlay);
    const t = Math.tan(Math.PI / 6);
    // The pocket's wall stands in by z tan(30) at depth z. The plug's outline is that of the pocket's mouth where its V begins, 1.5 below its face, and leans as the pocket does: pushed in by 1.5 they coincide.
    for (const z of [0, 0.5, 1, 1.5]) expect((inlay.plugStart - (inlay.plugStart - z)) * t).toBeCloseTo(z * t, 12);
    expect(lean).toBeCloseTo(2.5 * t, 9);
    expect(glueGap).toBeCloseTo(1, 9);
    expect(faceGap).toBe(1.2);
  });

  it('lines nearer than the bit are found, and no others', () => {
    const two = (gap: number) => [rectangle(0, 0, 40, 10), rectangle(0, 10 + gap, 40, 10)];
    expect(tightPlaces(two(0.5), 1).length).toBeGreaterThan(20);
    expect(tightPlaces(two(1.5), 1)).toEqual([]);
    expect(tightPlaces([circle(0, 0, 20)], 3)).toEqual([]);
    expect(isInside({ x: 5, y: 5 }, two(1))).toBe(true);
  });
});
