import { fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { firstOf, lastOf } from '#core/lists/there.ts';
import { CLIMATES, seasonsSchema, type Seasons } from '#core/wood/moisture.ts';
import { field, said, show, type } from '../shownForTests.tsx';
import { SeasonFields } from './SeasonFields.tsx';

/** The air of a year that keeps what it is told; every state of it, newest last. */
function open(
  system: 'metric' | 'inch' = 'metric',
  inherit?: { label: string; on: boolean; choose(): void },
): Seasons[] {
  const states: Seasons[] = [];
  function Kept() {
    const [seasons, setSeasons] = useState(firstOf(CLIMATES).seasons);
    return (
      <SeasonFields
        seasons={seasons}
        {...(inherit ? { inherit } : {})}
        onChange={(next) => {
          states.push(next);
          setSeasons(next);
        }}
      />
    );
  }
  show(<Kept />, { system });
  return states;
}

const choose = async (name: string) => {
  fireEvent.click(screen.getByRole('combobox', { name: 'Climate' }));
  fireEvent.click(lastOf(await screen.findAllByRole('option', { name, hidden: true })));
};

describe('the air through the year', () => {
  it('a climate sets all four figures; one figure typed makes it one’s own', async () => {
    const states = open();
    const other = lastOf(CLIMATES);
    await choose(other.name);
    expect(lastOf(states)).toEqual(other.seasons);
    type('Dry month, humidity', '33');
    expect(lastOf(states)).toEqual({ ...other.seasons, dry: { ...other.seasons.dry, humidity: 33 } });
    expect(screen.getByRole<HTMLInputElement>('combobox', { name: 'Climate' }).value).toBe('As typed');
  });

  it('warmth is typed in the reader’s degrees: 68 °F are 20 °C', () => {
    const states = open('inch');
    type('Damp month, warmth', '68');
    expect(lastOf(states).damp.temperature).toBeCloseTo(20, 3);
    expect(seasonsSchema.safeParse(lastOf(states)).success).toBe(true);
  });

  it.each([
    ['Dry month, humidity', ['-1', '101', '', 'dry']],
    ['Damp month, humidity', ['200']],
    ['Dry month, warmth', ['-400', '999', '']],
  ])('%s takes no air that cannot be', (label, texts) => {
    const states = open();
    const before = field(label).value;
    for (const text of texts) {
      type(label, text);
      // What is no figure at all cannot be typed; everything else is told.
      expect([label, text, said(label)?.startsWith(label) ?? field(label).value === before]).toEqual([
        label,
        text,
        true,
      ]);
    }
    for (const state of states) expect(seasonsSchema.safeParse(state).success).toBe(true);
  });

  it('as somebody else says is one choice, and says nothing of its own', async () => {
    const chosen = vi.fn();
    const states = open('metric', { label: 'As the shop has it', on: false, choose: chosen });
    await choose('As the shop has it');
    expect(chosen).toHaveBeenCalledTimes(1);
    expect(states).toEqual([]);
  });
});
