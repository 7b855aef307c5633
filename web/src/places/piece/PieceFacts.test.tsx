import { fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import { lastOf } from '#core/lists/there.ts';
import { plainPiece } from '#core/plan/planArbitrary.ts';
import { pieceSchema, type Piece } from '#core/stock/piece.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { field, said, show, type } from '../../shownForTests.tsx';
import { PieceFacts } from './PieceFacts.tsx';

/** What is known of a piece, on a page that keeps what it is told; every state of the piece, newest last. */
function open(piece: Piece = plainPiece(), system: 'metric' | 'inch' = 'metric'): Piece[] {
  const states: Piece[] = [];
  function Kept() {
    const [now, setNow] = useState(piece);
    return (
      <PieceFacts
        piece={now}
        species={HANDBOOK_SPECIES}
        currency="EUR"
        onChange={(edit) => {
          const next = edit(now);
          states.push(next);
          setNow(next);
        }}
      />
    );
  }
  show(<Kept />, { system });
  return states;
}

describe('what is known of a piece', () => {
  it.each([
    ['Length', 'length', '6\' 6"', 1981.2],
    ['Width', 'width', '5 1/2 in', 139.7],
    ['Thickness', 'thickness', '5/4', 31.75],
  ] as const)('%s is typed in the notation of the yard', (label, key, text, mm) => {
    const states = open();
    type(label, text);
    expect(lastOf(states)[key]).toBeCloseTo(mm, 6);
    expect(pieceSchema.safeParse(lastOf(states)).success).toBe(true);
  });

  it('a piece that tapers begins with two ends alike, and forgets its far one when it does not', () => {
    const states = open();
    fireEvent.click(screen.getByRole('checkbox', { name: 'It tapers' }));
    expect(lastOf(states).farEnd).toEqual({ width: 150, thickness: 50 });
    type('Width at the far end', '130');
    expect(lastOf(states).farEnd).toEqual({ width: 130, thickness: 50 });
    type('Width at the marked end', '160');
    expect([lastOf(states).width, lastOf(states).farEnd!.width]).toEqual([160, 130]);
    fireEvent.click(screen.getByRole('checkbox', { name: 'It tapers' }));
    expect(lastOf(states).farEnd).toBeNull();
  });

  it('moisture that nobody measured is none, and not nought', () => {
    const states = open(plainPiece({ moisture: 9.5 }));
    type('Moisture', '');
    expect(lastOf(states).moisture).toBeNull();
    type('Moisture', '11.5');
    expect(lastOf(states).moisture).toBe(11.5);
    for (const text of ['-1', '900']) {
      type('Moisture', text);
      expect([text, said('Moisture')?.startsWith('Moisture')]).toEqual([text, true]);
    }
  });

  it('one measure of how it is out of true makes the others nought; not measured, all are gone', () => {
    const states = open();
    type('Bow', '4');
    expect(lastOf(states).form).toEqual({ bow: 4, cup: 0, crook: 0, twist: 0 });
    type('Twist', '1/16 in');
    expect(lastOf(states).form!.twist).toBeCloseTo(1.5875, 6);
    fireEvent.click(screen.getByRole('checkbox', { name: 'Measured' }));
    expect(lastOf(states).form).toBeNull();
  });

  it('ends are checked, sniped and sawn each for itself', () => {
    const states = open();
    type('Far end checked for', '35');
    type('Marked end sniped for', '60');
    fireEvent.click(screen.getByRole('checkbox', { name: 'Far end sawn clean' }));
    const { mark, far } = lastOf(states).ends;
    expect([mark.checked, mark.snipe, mark.sawn, far.checked, far.snipe, far.sawn]).toEqual([
      0,
      60,
      plainPiece().ends.mark.sawn,
      35,
      0,
      !plainPiece().ends.far.sawn,
    ]);
  });

  it.each([
    ['Length', ['0', '-5', 'long', '99 m', '']],
    ['Identical pieces', ['0', '1.5', '', '100000']],
    ['Mark', ['', '   ', 'x'.repeat(200)]],
    ['Bow', ['-1', 'bent', '5000']],
    ['Far end checked for', ['-1', 'all']],
  ])('%s takes none of what is none', (label, texts) => {
    const states = open();
    for (const text of texts) {
      type(label, text);
      expect([label, text, said(label)?.startsWith(label)]).toEqual([label, text, true]);
    }
    expect(states).toEqual([]);
    expect(field(label).value).toBe(lastOf(texts));
  });

  it('what is chosen from a list can be stored, whatever it is', () => {
    const states = open();
    for (const label of ['Surface', 'Straight edges', 'Rings on its end', 'Grain', 'Origin']) {
      const list = screen.getByLabelText<HTMLSelectElement>(label);
      for (const { value } of [...list.options]) {
        fireEvent.change(list, { target: { value } });
        expect([label, value, pieceSchema.safeParse(lastOf(states)).success]).toEqual([label, value, true]);
      }
    }
    expect(states.length).toBeGreaterThan(12);
  });

  it('in inches nothing that was not touched is rounded', () => {
    const odd = plainPiece({ length: 1234.567891, width: 101.010101 });
    const states = open(odd, 'inch');
    for (const label of ['Length', 'Width', 'Thickness']) {
      fireEvent.focus(field(label));
      fireEvent.blur(field(label));
    }
    expect(states).toEqual([]);
    type('Thickness', '2');
    expect([lastOf(states).length, lastOf(states).width, lastOf(states).thickness]).toEqual([
      1234.567891, 101.010101, 50.8,
    ]);
  });
});
