import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { equilibriumMoisture } from '../wood/moisture.ts';
import { makePlan } from './plan.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from './planArbitrary.ts';
import { sectionKey, sectionsLeft } from './sectionsLeft.ts';
import { defectsOn, grainArrow, inPiece } from '../bodies/stripBody.ts';
import { switchConstruction } from './switchConstruction.ts';
import { flatRecipe, stripsOf, withStrips } from '../board/recipe.ts';

const counter = () => {
  let n = 0;
  return () => `n${(n += 1)}`;
};

describe('a board through the seasons', () => {
  it('moves by its finished widths, its coefficients and the moisture between its two months', () => {
    const seasons = { dry: { temperature: 21.1, humidity: 30 }, damp: { temperature: 21.1, humidity: 65 } };
    const { movement } = makePlan(
      planInput({ ...plainBoard({ width: 270 }), seasons }, [plainPiece({ length: 4000 })]),
    );
    // Flat-sawn hard maple on edge moves radially: 270 mm x 0.00165 x (12.0 - 6.2).
    expect(movement.dampMoisture - movement.dryMoisture).toBeCloseTo(5.8, 1);
    expect(movement.across).toBeCloseTo(270 * 0.00165 * (movement.dampMoisture - movement.dryMoisture), 9);
    expect(movement.otherWay / movement.across).toBeCloseTo(0.00353 / 0.00165, 9);
    expect([movement.own, movement.holds]).toEqual([true, true]);
  });

  it("is the sum of its strips, never negative from dry to damp, and the shop's when nothing else is said", () => {
    fc.assert(
      fc.property(planInputArbitrary, (input) => {
        const { movement } = makePlan(input);
        expect(movement.across).toBeCloseTo(
          movement.strips.reduce((sum, s) => sum + (s.across ?? 0), 0),
          9,
        );
        expect(movement.across).toBeGreaterThanOrEqual(0);
        expect(movement.dryMoisture).toBe(equilibriumMoisture(input.shop.seasons.dry));
      }),
      { numRuns: 60 },
    );
  });
});

describe('strips in their pieces', () => {
  it('lie inside the piece they are cut from, and no two overlap', () => {
    fc.assert(
      fc.property(planInputArbitrary, (input) => {
        const { bodies, strips, allowances } = makePlan(input);
        const boxes = bodies.flatMap((body, i) => {
          // A strip that is planed thinner than the panel is drawn as thick as the panel: only whole ones can be compared.
          if (!body.piece || strips[i]!.milled.thickness < allowances.glueThickness - 1e-6) return [];
          const [a, b] = [inPiece(body, [0, 0, 0]), inPiece(body, [...body.size])];
          return [
            {
              key: `${body.piece.id}/${body.unit}`,
              piece: body.piece,
              from: a.map((v, k) => Math.min(v, b[k]!)),
              to: a.map((v, k) => Math.max(v, b[k]!)),
            },
          ];
        });
        for (const { piece, from, to } of boxes) {
          expect(from[0]).toBeGreaterThan(-1e-6);
          expect(to[0]).toBeLessThan(piece.length + 1e-6);
          expect(from[1]).toBeGreaterThan(-1e-6);
          expect(to[1]).toBeLessThan(Math.max(piece.width, piece.farEnd?.width ?? 0) + 1e-6);
        }
        boxes.forEach((a, i) =>
          boxes.slice(i + 1).forEach((b) => {
            if (a.key === b.key)
              expect([0, 1, 2].some((k) => a.to[k]! <= b.from[k]! + 1e-6 || b.to[k]! <= a.from[k]! + 1e-6)).toBe(true);
          }),
        );
      }),
      { numRuns: 300 },
    );
  });

  it('turned over, the other face shows and its fibres rise the other way; end for end only the arrow turns', () => {
    const stain = {
      id: 'd',
      kind: 'stain',
      face: 'up',
      from: 50,
      across: 20,
      length: 200,
      width: 50,
      treatment: 'under',
    } as const;
    const bodyOf = (change: object) => {
      const board = plainBoard({
        construction: 'face',
        width: 100,
        thickness: 20,
        recipe: flatRecipe(stripsOf(plainBoard({}, [110])).map((s) => ({ ...s, sideKept: true, ...change }))),
      });
      return {
        strip: stripsOf(board)[0]!,
        body: makePlan(planInput(board, [plainPiece({ length: 500, grain: 'toFar', defects: [stain] })])).bodies[0]!,
      };
    };
    const seen = ({ body }: ReturnType<typeof bodyOf>) => [
      defectsOn(body, 'top').length,
      defectsOn(body, 'under').length,
    ];
    expect([seen(bodyOf({})), seen(bodyOf({ turned: true })), seen(bodyOf({ endForEnd: true }))]).toEqual([
      [1, 0],
      [0, 1],
      [1, 0],
    ]);
    // Unless the maker chose the side, the plan puts the clean one up.
    expect([seen(bodyOf({ sideKept: false })), seen(bodyOf({ sideKept: false, turned: true }))]).toEqual([
      [0, 1],
      [0, 1],
    ]);
    const arrow = (change: object) => grainArrow(bodyOf(change).strip, bodyOf(change).body);
    expect(
      [arrow({}), arrow({ turned: true }), arrow({ endForEnd: true }), arrow({ turned: true, endForEnd: true })].map(
        (a) => a.forward,
      ),
    ).toEqual([true, false, false, true]);
    expect(arrow({}).known).toBe(true);
  });
});

describe('what is left on the shelf', () => {
  it('is what the rack gives less what this board and promised wood take', () => {
    const input = planInput(plainBoard(), [plainPiece()]);
    const plan = makePlan(input);
    const [section] = plan.sections;
    // 16 rips of 46.8 in four lengths; six strips of 46 take two lengths.
    expect(section).toMatchObject({ width: 46.8, count: 16 });
    expect(sectionsLeft(plan, input).get(sectionKey(section!))).toBe(8);
    expect(
      sectionsLeft(plan, {
        ...input,
        saw: { key: '', promised: [{ pieceId: 'p1', unit: 0, from: 1100, to: 1990 }], chosen: null, done: [] },
      }).get(sectionKey(section!)),
    ).toBe(0);
  });
});

describe('switching the construction', () => {
  const words = (changes: readonly Parameters<typeof phraseText>[0][]) =>
    changes.map((c) => phraseText(c, DEFAULT_DISPLAY)).join(' ');

  it('to face grain keeps widths that rip from the same stock, and says what thickness is left', () => {
    const input = planInput(plainBoard({ width: 270 }), [plainPiece({ length: 4000, thickness: 30 })]);
    const { board, changes } = switchConstruction(
      {
        ...input,
        board: withStrips(
          input.board,
          stripsOf(input.board).map((s) => ({ ...s, width: 26 })),
        ),
      },
      'face',
      counter(),
    );
    expect(stripsOf(board).map((s) => s.width)).toEqual([26, 26, 26, 26, 26, 26]);
    expect(words(changes)).toMatch(/Face grain: .* Thickness that can be reached: 30 mm before, 24\.8 mm now\./);
  });

  it('to edge grain makes of a wide strip as many as its thickness asks for', () => {
    const input = planInput(plainBoard({ construction: 'face', width: 180, thickness: 20 }, [95, 95]), [
      plainPiece({ length: 3000, thickness: 35 }),
    ]);
    const { board, changes } = switchConstruction(input, 'edge', counter());
    // 35 rough planes to 31.8: three of them come nearest to 95.
    expect(stripsOf(board).map((s) => s.width)).toEqual([31.8, 31.8, 31.8, 31.8, 31.8, 31.8]);
    expect(words(changes)).toContain('Strip 1 of 95 mm becomes 3 strips of 31.8 mm from P1.');
    expect(words(changes)).toContain('2 strips before, 6 now.');
  });

  it('always gives a valid board, and the same way round changes nothing', () => {
    fc.assert(
      fc.property(planInputArbitrary, (input) => {
        const other = input.board.construction === 'edge' ? 'face' : 'edge';
        const { board } = switchConstruction(input, other, counter());
        expect(board.construction).toBe(other);
        expect(new Set(stripsOf(board).map((s) => s.id)).size).toBe(stripsOf(board).length);
        expect(stripsOf(board).every((s) => s.width >= 1 && !s.rolled)).toBe(true);
        expect(switchConstruction(input, input.board.construction, counter()).board).toBe(input.board);
      }),
      { numRuns: 60 },
    );
  });
});
