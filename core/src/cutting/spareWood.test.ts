import fc from 'fast-check';
import { expect, it } from 'vitest';
import { workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { makePlan } from '../plan/plan.ts';
import { plainPiece } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { spareWood } from './spareWood.ts';

const wanted = { length: 60, width: 20, thickness: 8 };
const any = () => true;
const nothingCut = { blanks: [], leftovers: [] };

it('takes the offcut beside the rips before the end of the plank, and either before a piece that is whole', () => {
  const rack = [plainPiece({ id: 'a', mark: 'A' }), plainPiece({ id: 'b', mark: 'B', width: 60 })];
  const blank = { number: 1, pieceId: 'a', unit: 0, from: 20, length: 400, strips: [], leftoverWidth: 0, done: false };
  const end = { pieceId: 'a', unit: 0, from: 423, length: 500, across: 0, width: 150, side: false, kept: true };
  const beside = { pieceId: 'a', unit: 0, from: 20, length: 400, across: 120, width: 25, side: true, kept: false };
  const from = (leftovers: (typeof end)[]) =>
    spareWood({ rack, cutting: { blanks: [blank], leftovers }, promised: [], shop: DEFAULT_SHOP }, wanted, any)!;
  expect([from([end, beside]).place.across, from([end]).place.from, from([]).piece.id]).toEqual([120, 423, 'b']);
});

it('goes round a knot, leaves promised wood alone, and says when nothing gives it', () => {
  const knot = {
    id: 'k',
    kind: 'knot' as const,
    face: 'through' as const,
    from: 40,
    across: 0,
    length: 30,
    width: 60,
    treatment: 'cut' as const,
  };
  const piece = plainPiece({
    id: 'a',
    surface: 'ready',
    length: 200,
    width: 60,
    ends: { mark: { checked: 0, snipe: 0, sawn: true }, far: { checked: 0, snipe: 0, sawn: true } },
    defects: [knot],
  });
  const of = (change: object, promised: { pieceId: string; unit: number; from: number; to: number }[] = []) =>
    spareWood({ rack: [{ ...piece, ...change }], cutting: nothingCut, promised, shop: DEFAULT_SHOP }, wanted, any)
      ?.place.from ?? null;
  expect([
    of({}),
    of({ defects: [{ ...knot, treatment: 'harmless' }] }),
    of({ defects: [{ ...knot, from: 100 }] }),
  ]).toEqual([70, 0, 0]);
  expect([
    of({ thickness: 7 }),
    of({ width: 19 }),
    of({ length: 120 }),
    of({}, [{ pieceId: 'a', unit: 0, from: 150, to: 200 }]),
  ]).toEqual([null, null, null, null]);
});

it('what it finds lies in its piece, sound, and beside every strip of any plan', () => {
  let found = 0;
  fc.assert(
    fc.property(workshopArbitrary, (input) => {
      const { cutting, shop } = makePlan(input);
      const spare = spareWood({ rack: input.rack, cutting, promised: [], shop }, wanted, any);
      if (!spare) return;
      found += 1;
      const { piece, unit, place } = spare;
      const meets = (from: number, length: number, across: number, width: number) =>
        from < place.from + place.length - 1e-6 &&
        from + length > place.from + 1e-6 &&
        across < place.across + place.width - 1e-6 &&
        across + width > place.across + 1e-6;
      expect(place.from + place.length).toBeLessThanOrEqual(piece.length + 1e-6);
      const cut = cutting.blanks
        .filter((b) => b.pieceId === piece.id && b.unit === unit)
        .flatMap((b) => b.strips.filter((s) => meets(b.from, b.length, s.from, s.way.rip)));
      expect(cut).toEqual([]);
      expect(
        piece.defects.filter((d) => d.treatment !== 'harmless' && meets(d.from, d.length, d.across, d.width)),
      ).toEqual([]);
    }),
    { numRuns: 300 },
  );
  expect(found).toBeGreaterThan(100);
});

it('two parts never come out of the same place, and the second is a cut further along', () => {
  const rack = [plainPiece({ id: 'a', surface: 'ready', length: 400, width: 60 })];
  const find = (taken: NonNullable<ReturnType<typeof spareWood>>[]) =>
    spareWood({ rack, cutting: nothingCut, promised: [], taken, shop: DEFAULT_SHOP }, wanted, any);
  const first = find([])!;
  const second = find([first])!;
  expect(second.place.from - first.place.from).toBe(wanted.length + DEFAULT_SHOP.crosscutSaw.kerf);
  // As many as there is room for, and then none.
  const all = [first];
  for (let next = find(all); next; next = find(all)) all.push(next);
  const each = wanted.length + DEFAULT_SHOP.crosscutSaw.kerf;
  expect(all).toHaveLength(Math.floor((400 - first.place.from) / each));
});
