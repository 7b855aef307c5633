import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { auditCut } from '../cutting/auditCut.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from '../plan/planArbitrary.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { demandKey } from './demandKey.ts';
import { moveStrip, piecesThatGive, withBan, withPin } from './moveStrip.ts';

const piece = (id: string, change: Parameters<typeof plainPiece>[0] = {}) =>
  plainPiece({ id, mark: id.toUpperCase(), ...change });
const rack = [
  piece('a', { length: 1300 }),
  piece('b', { length: 1300 }),
  piece('thin', { thickness: 20 }),
  piece('pear', { species: 'pear' }),
];
const input = planInput(plainBoard(), rack);
const { cutting } = makePlan(input);
const all = cutting.blanks.flatMap((b) => b.strips.map((strip) => ({ strip, pieceId: b.pieceId })));
const [first] = all;
const move = (target: Parameters<typeof moveStrip>[2], board = '') =>
  moveStrip(cutting, first!.strip, target, board, input);
const why = (moved: ReturnType<typeof moveStrip>) =>
  moved?.kind === 'refused' ? phraseText(moved.why, DEFAULT_DISPLAY) : moved;

describe('a strip laid elsewhere', () => {
  it('on another piece is to come from there; on its own, or on one that is gone, nothing changes', () => {
    const other = ['a', 'b'].find((id) => id !== first!.pieceId)!;
    expect(move({ pieceId: other, strip: null })).toEqual({ kind: 'pinned', pieceId: other });
    expect(move({ pieceId: first!.pieceId, strip: null })).toBeNull();
    expect(move({ pieceId: 'gone', strip: null })).toBeNull();
    // A strip of another board is told where to come from on that board.
    expect(move({ pieceId: other, strip: null }, 'another')).toBeNull();
  });

  it('where it cannot be had it says why, by mark and number', () => {
    expect(why(move({ pieceId: 'pear', strip: null }))).toBe(
      `Strip ${first!.strip.demand.strip} is of another species than PEAR.`,
    );
    expect(why(move({ pieceId: 'thin', strip: null }))).toBe(
      `THIN is too thin for strip ${first!.strip.demand.strip} once planed.`,
    );
  });

  it('on another strip the two change places, each still cut from wood that is there', () => {
    fc.assert(
      fc.property(planInputArbitrary, fc.nat(40), fc.nat(40), (random, i, k) => {
        const plan = makePlan(random).cutting;
        const strips = plan.blanks.flatMap((b) => b.strips.map((strip) => ({ strip, pieceId: b.pieceId })));
        if (strips.length < 2) return;
        const [one, two] = [strips[i % strips.length]!, strips[k % strips.length]!];
        const key = demandKey(two.strip.demand);
        const moved = moveStrip(plan, one.strip, { pieceId: two.pieceId, strip: key }, '', random);
        if (moved?.kind !== 'swapped') return;
        expect(auditCut(moved.plan.blanks, random.rack, [], random.shop)).toEqual([]);
        const keys = (blanks: typeof plan.blanks) =>
          blanks.flatMap((b) => b.strips.map((s) => demandKey(s.demand))).sort();
        expect(keys(moved.plan.blanks)).toEqual(keys(plan.blanks));
        const pieceOf = (wanted: string) =>
          moved.plan.blanks.find((b) => b.strips.some((s) => demandKey(s.demand) === wanted))!.pieceId;
        expect([pieceOf(demandKey(one.strip.demand)), pieceOf(key)]).toEqual([two.pieceId, one.pieceId]);
      }),
    );
  });

  it('only pieces of its species that still give it are offered', () => {
    const { demand } = first!.strip;
    expect(piecesThatGive(demand, rack, input.shop, []).map((p) => p.id)).toEqual(['a', 'b']);
    const promised = [{ pieceId: 'a', unit: 0, from: 0, to: 1300 }];
    expect(piecesThatGive(demand, rack, input.shop, promised).map((p) => p.id)).toEqual(['b']);
  });
});

describe('wishes about where strips come from', () => {
  it('a pin takes the place of the one before, and goes away alone', () => {
    const pinned = withPin(withPin(withPin(plainBoard(), 's1', 'a'), 's2', 'b'), 's1', 'b');
    expect(pinned.cutting.pins).toEqual([
      { strip: 's2', piece: 'b' },
      { strip: 's1', piece: 'b' },
    ]);
    expect(withPin(pinned, 's1', null).cutting.pins).toEqual([{ strip: 's2', piece: 'b' }]);
  });

  it('a piece is left alone once, and then nothing comes from it', () => {
    const board = withBan(withBan(plainBoard(), 'a'), 'a');
    expect(board.cutting.bans).toEqual(['a']);
    const { blanks } = makePlan({ ...input, board }).cutting;
    expect(blanks.length).toBeGreaterThan(0);
    expect(blanks.some((b) => b.pieceId === 'a')).toBe(false);
  });
});
