import { describe, expect, it } from 'vitest';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import type { Defect } from '../stock/defect.ts';
import type { Piece } from '../stock/piece.ts';
import { auditCut } from './auditCut.ts';
import type { Blank } from './cutPlan.ts';

const good = makePlan(planInput(plainBoard(), [plainPiece()])).cutting.blanks;
const knot = (change: Partial<Defect>): Defect => ({
  id: 'd1',
  kind: 'knot',
  face: 'through',
  from: 100,
  across: 10,
  length: 20,
  width: 20,
  treatment: 'cut',
  ...change,
});
const faults = (blanks: Blank[], piece: Partial<Piece> = {}, promised: Parameters<typeof auditCut>[2] = []) => [
  ...new Set(auditCut(blanks, [plainPiece(piece)], promised, DEFAULT_SHOP).map((f) => f.fault)),
];
const first = (change: Partial<Blank>): Blank[] => [{ ...good[0]!, ...change }, ...good.slice(1)];
const strip = (index: number, change: Partial<Blank['strips'][number]>) =>
  first({ strips: good[0]!.strips.map((s, i) => (i === index ? { ...s, ...change } : s)) });

describe('auditCut finds every fault, so that a plan without one means something', () => {
  it('nothing on a good plan', () => {
    expect(good.length).toBe(2);
    expect(faults(good)).toEqual([]);
  });

  it.each<[string, string, Blank[], Partial<Piece>, Parameters<typeof auditCut>[2]]>([
    ['a piece that is not there', 'noPiece', first({ pieceId: 'p2' }), {}, []],
    ['one more than there are of it', 'noPiece', first({ unit: 1 }), {}, []],
    ['a blank in the end trim', 'outside', first({ from: 9 }), {}, []],
    [
      'a blank in a checked end',
      'outside',
      good,
      { ends: { mark: { checked: 30, snipe: 0, sawn: false }, far: { checked: 0, snipe: 0, sawn: false } } },
      [],
    ],
    ['blanks nearer than a kerf', 'blanksOverlap', first({ from: 12 }), {}, []],
    ['rips nearer than a kerf', 'stripsOverlap', strip(1, { from: good[0]!.strips[1]!.from - 1 }), {}, []],
    ['a rip past the far edge', 'outside', good, { width: 100 }, []],
    ['a rip past a tapering edge', 'outside', good, { farEnd: { width: 90, thickness: 50 } }, []],
    ['a strip of another species', 'species', good, { species: 'pear' }, []],
    ['a knot that must go', 'defect', good, { defects: [knot({})] }, []],
    [
      'stain on both edges that could show',
      'noCleanSide',
      good,
      { defects: [knot({ treatment: 'under', across: 0, width: 60 })] },
      [],
    ],
    ['thickness the piece has not', 'tooThin', good, { thickness: 45 }, []],
    ['wood promised to another', 'promised', good, {}, [{ pieceId: 'p1', unit: 0, from: 430, to: 500 }]],
    [
      'two layers where one fits',
      'tooThin',
      strip(1, { from: good[0]!.strips[0]!.from, layer: 2, layers: 2 }).map((b, i) =>
        i === 0 ? { ...b, strips: [{ ...b.strips[0]!, layers: 2 }, b.strips[1]!] } : b,
      ),
      {},
      [],
    ],
  ])('%s', (_, fault, blanks, piece, promised) => {
    expect(faults(blanks, piece, promised)).toContain(fault);
  });

  it('lets harmless marks and a hidden one inside a strip be', () => {
    expect(
      faults(good, {
        defects: [knot({ treatment: 'harmless' }), knot({ id: 'd2', treatment: 'under', across: 10, width: 12 })],
      }),
    ).toEqual([]);
  });
});
