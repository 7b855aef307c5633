import { describe, expect, it } from 'vitest';
import type { Defect } from '../stock/defect.ts';
import { plainPiece } from '../plan/planArbitrary.ts';
import { defectsOn, stockBody, type StripBody } from './stripBody.ts';

const knot = (change: Partial<Defect>): Defect => ({
  id: 'd',
  kind: 'knot',
  face: 'through',
  treatment: 'under',
  from: 500,
  across: 40,
  length: 58.9,
  width: 30,
  ...change,
});
const onFace = (defect: Defect, at: { x: number; y: number }): StripBody => ({
  ...stockBody(plainPiece({ defects: [defect] })),
  origin: [at.x, at.y, 0],
  size: [400, 40, 20],
});
const onEdge = (defect: Defect, edge: number): StripBody => ({
  ...stockBody(plainPiece({ defects: [defect] })),
  shows: 'edge',
  across: [0, 0, 1],
  up: [0, -1, 0],
  origin: [450, edge + 30, 0],
  size: [400, 20, 30],
});

describe('a strip that only touches a place does not hold it', () => {
  it('along: it begins where the knot ends', () => {
    expect(defectsOn(onFace(knot({}), { x: 558.9, y: 40 }), 'top')).toEqual([]);
    expect(defectsOn(onFace(knot({}), { x: 558.8, y: 40 }), 'top')).toHaveLength(1);
    expect(defectsOn(onFace(knot({}), { x: 100, y: 40 }), 'top')).toEqual([]);
  });

  it('across, on a face and on an edge', () => {
    expect(defectsOn(onFace(knot({}), { x: 450, y: 70 }), 'top')).toEqual([]);
    expect(defectsOn(onFace(knot({}), { x: 450, y: 0 }), 'top')).toEqual([]);
    expect(defectsOn(onFace(knot({}), { x: 450, y: 69 }), 'top')).toHaveLength(1);
    // On edge the show side is one cut through the piece: at 70 the knot is just behind it.
    expect(defectsOn(onEdge(knot({}), 70), 'top')).toEqual([]);
    expect(defectsOn(onEdge(knot({}), 69.9), 'top')).toHaveLength(1);
  });
});
