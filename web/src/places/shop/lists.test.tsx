import { fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { lastOf } from '#core/lists/there.ts';
import { BARE_SHOP, DEFAULT_SHOP, shopSchema, type Shop } from '#core/shop/shop.ts';
import { plain, press, said, show, type } from '../../shownForTests.tsx';
import { ClampList, GlueList, HourList } from './ClampAndGlueLists.tsx';
import { GritField } from './GritField.tsx';
import { MachineList } from './MachineList.tsx';
import { MACHINES } from './machines.ts';
import type { EditShop } from './editShop.ts';

type List = (props: { shop: Shop; onChange: EditShop }) => React.ReactNode;

/** A list of the shop that keeps what it is told; every state of the shop it went through, newest last. */
function open(Body: List, shop: Shop = DEFAULT_SHOP, system: 'metric' | 'inch' = 'metric') {
  const states: Shop[] = [];
  function Kept() {
    const [now, setNow] = useState(shop);
    return (
      <Body
        shop={now}
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
const words = () => plain(document.body.textContent);

describe('machines', () => {
  it.each(MACHINES.map((m) => [m.name, m] as const))(
    '%s: taken away and put back it has usual figures, in a shop that can be stored',
    (name, { key }) => {
      const states = open(MachineList);
      const there = screen.getByRole('switch', { name: `There is a ${name.toLowerCase()}` });
      const had = DEFAULT_SHOP[key] !== null;
      fireEvent.click(there);
      expect(lastOf(states)[key] === null).toBe(had);
      fireEvent.click(there);
      expect(lastOf(states)[key] === null).toBe(!had);
      for (const state of states) expect(shopSchema.safeParse(state).success).toBe(true);
    },
  );

  it.each(MACHINES.map((m) => [m.name, m] as const))(
    'no figure of the %s takes words, nothing or less than nothing',
    (_, { key, fields }) => {
      const shop = shopSchema.parse({
        ...DEFAULT_SHOP,
        drumSander: { width: 400, passDepth: 0.5, leastLength: 60 },
        routerSled: { width: 500, bit: 40, passDepth: 2 },
      });
      const states = open(MachineList, shop);
      for (const [field, label] of fields) {
        for (const text of ['much', '', '-1']) {
          type(label, text);
          expect([label, text, said(label)?.startsWith(label)]).toEqual([label, text, true]);
        }
        expect(states).toEqual([]);
        fireEvent.keyDown(screen.getByLabelText(label, { selector: 'input' }), { key: 'Escape' });
        expect((shop[key] as unknown as Record<string, number>)[field]).toBeGreaterThanOrEqual(0);
      }
    },
  );

  it('a saw is another one by one choice, its kerf by one figure, and each says its own name', async () => {
    const states = open(MachineList);
    type('Rip kerf', '1/8 in');
    expect(lastOf(states).saw.kerf).toBeCloseTo(3.175, 6);
    type('Rip kerf', 'thin');
    expect(said('Rip kerf')).toMatch(/^Rip kerf /);
    type('Crosscut saw kerf', '2.5');
    expect(lastOf(states).crosscutSaw.kerf).toBe(2.5);
    fireEvent.click(screen.getByRole('combobox', { name: 'Ripping' }));
    fireEvent.click((await screen.findAllByRole('option', { name: /circular/i, hidden: true }))[0]!);
    expect(lastOf(states).saw.kind).toBe('circular');
  });

  it('nothing but a kitchen table: asked first, then the tools go and everything else stays', () => {
    const states = open(MachineList, { ...DEFAULT_SHOP, name: 'Kitchen', room: { temperature: 17, humidity: 61 } });
    press(/Begin with a circular saw/);
    press('Keep mine');
    expect(states).toEqual([]);
    press(/Begin with a circular saw/);
    press('Replace them');
    const bare = shopSchema.parse(lastOf(states));
    expect([bare.planer, bare.jointer, bare.clamps.length]).toEqual([null, null, BARE_SHOP.clamps.length]);
    expect([bare.name, bare.room]).toEqual(['Kitchen', { temperature: 17, humidity: 61 }]);
  });
});

describe('clamps', () => {
  it('none at all says what that means; one more kind is one press', () => {
    const states = open(ClampList, { ...DEFAULT_SHOP, clamps: [] });
    expect(words()).toContain('No clamps: no glue-up can be planned without them.');
    press('Add clamps');
    press('Add clamps');
    const { clamps } = shopSchema.parse(lastOf(states));
    expect(clamps).toHaveLength(2);
    expect(new Set(clamps.map((c) => c.id)).size).toBe(2);
  });

  it('each row changes its own clamps and no others, and goes out of the list alone', () => {
    const clamps = [600, 900].map((opening, i) => ({
      id: `c${i}`,
      kind: 'pipe' as const,
      opening,
      reach: 45,
      force: 4.5,
      count: 4,
    }));
    const states = open(ClampList, { ...DEFAULT_SHOP, clamps });
    const second = screen.getByRole('group', { name: 'Clamps 2' });
    const count = [...second.querySelectorAll('input')].find((i) => i.value === '4')!;
    fireEvent.change(count, { target: { value: '7' } });
    fireEvent.blur(count);
    expect(lastOf(states).clamps.map((c) => c.count)).toEqual([4, 7]);
    press('Remove clamps 1');
    expect(lastOf(states).clamps.map((c) => c.id)).toEqual(['c1']);
  });

  it('a force is typed as the reader has it: 1000 pounds are 4.448 kN (NIST SP 811, appendix B, from memory)', () => {
    const states = open(ClampList, { ...DEFAULT_SHOP, clamps: DEFAULT_SHOP.clamps.slice(0, 1) }, 'inch');
    type('Force', '1000');
    expect(lastOf(states).clamps[0]!.force).toBeCloseTo(4.448, 2);
    type('Force', '-1');
    expect(said('Force')).toMatch(/^Force /);
  });

  it.each([
    ['Opens to', '0'],
    ['Opens to', 'wide'],
    ['Reach', '-1'],
    ['Count', '2.5'],
    ['Count', ''],
    ['Count', '-3'],
  ])('%s is not %j', (label, text) => {
    const states = open(ClampList, { ...DEFAULT_SHOP, clamps: DEFAULT_SHOP.clamps.slice(0, 1) });
    type(label, text);
    // A minus that a field cannot take is not typed at all.
    expect([label, said(label)?.startsWith(label) ?? states.length === 0]).toEqual([label, true]);
    for (const state of states) expect(shopSchema.safeParse(state).success).toBe(true);
  });
});

describe('glues', () => {
  const one = { ...DEFAULT_SHOP, glues: DEFAULT_SHOP.glues.slice(0, 1), glue: DEFAULT_SHOP.glues[0]!.id };

  it('the one the shop glues with cannot be taken away, the others can', () => {
    const states = open(GlueList);
    const used = DEFAULT_SHOP.glues.find((g) => g.id === DEFAULT_SHOP.glue)!;
    expect(screen.queryByRole('button', { name: `Remove ${used.name}` })).toBeNull();
    const other = DEFAULT_SHOP.glues.find((g) => g.id !== DEFAULT_SHOP.glue)!;
    press(`Remove ${other.name}`);
    expect(shopSchema.parse(lastOf(states)).glues.map((g) => g.id)).not.toContain(other.id);
  });

  it('another one begins with the figures of the first, under a name of its own', () => {
    const states = open(GlueList, one);
    press('Add a glue');
    const { glues } = shopSchema.parse(lastOf(states));
    expect(glues).toHaveLength(2);
    expect([glues[1]!.name, glues[1]!.openMinutes]).toEqual(['Another glue', glues[0]!.openMinutes]);
    expect(glues[1]!.id).not.toBe(glues[0]!.id);
  });

  it('another one is the shop’s by one press', () => {
    const states = open(GlueList);
    const other = DEFAULT_SHOP.glues.find((g) => g.id !== DEFAULT_SHOP.glue)!;
    fireEvent.click(screen.getByRole('radio', { name: `Glue with ${other.name}` }));
    expect(lastOf(states).glue).toBe(other.id);
  });

  it.each([
    ['Open', '0'],
    ['Open', ''],
    ['Until pressed', '-1'],
    ['In clamps', 'long'],
    ['Spread', '0'],
    ['Glue', '   '],
  ])('%s is not %j', (label, text) => {
    const states = open(GlueList, one);
    type(label, text);
    expect([label, said(label)?.startsWith(label) ?? states.length === 0]).toEqual([label, true]);
    for (const state of states) expect(shopSchema.safeParse(state).success).toBe(true);
  });

  it('the least warmth is typed in the reader’s degrees', () => {
    const states = open(GlueList, one, 'inch');
    // 50 °F are 10 °C, 59 °F are 15 °C.
    type('At least', '59');
    expect(lastOf(states).glues[0]!.leastTemperature).toBeCloseTo(15, 3);
  });
});

describe('hours', () => {
  const at = (name: string) => screen.getByLabelText<HTMLInputElement>(name, { selector: 'input' });

  it('a day is closed and opened again by one press, with usual hours', () => {
    const states = open(HourList);
    fireEvent.click(screen.getByRole('checkbox', { name: 'Monday' }));
    expect(lastOf(states).hours[0]).toBeNull();
    fireEvent.click(screen.getByRole('checkbox', { name: 'Monday' }));
    expect(lastOf(states).hours[0]).toEqual({ from: '09:00', to: '18:00' });
  });

  it('halves and quarters of an hour are minutes', () => {
    const states = open(HourList);
    fireEvent.change(at('Tuesday from'), { target: { value: '8.75' } });
    expect(lastOf(states).hours[1]).toEqual({ from: '08:45', to: '18:00' });
    expect(lastOf(states).hours[0]).toEqual(DEFAULT_SHOP.hours[0]);
    // Just before a full hour it is that hour, never 60 minutes past.
    fireEvent.change(at('Tuesday from'), { target: { value: '9.999' } });
    expect(lastOf(states).hours[1]!.from).toBe('10:00');
    fireEvent.change(at('Tuesday to'), { target: { value: '23.999' } });
    expect(lastOf(states).hours[1]!.to).toBe('23:59');
    for (const state of states) expect(shopSchema.safeParse(state).success).toBe(true);
  });
});

describe('own grits', () => {
  const openGrits = (grits: Shop['grits'] = null) => {
    const told = vi.fn();
    show(<GritField grits={grits} onCommit={told} />);
    return told;
  };

  it.each([
    ['80, 120, 220', [80, 120, 220]],
    ['80 120;220', [80, 120, 220]],
    ['', null],
  ])('%j are %j', (text, grits) => {
    const told = openGrits([60, 100]);
    type('Own grits', text);
    expect(told).toHaveBeenCalledWith(grits);
  });

  it.each(['220, 120', 'fine', '80, x', '0', '1e9'])('%j are none, and it says how to write them', (text) => {
    const told = openGrits();
    type('Own grits', text);
    expect(said('Own grits')).toMatch(/^Own grits .*; write them as 80, 120, 220\.$/);
    expect(told).not.toHaveBeenCalled();
  });
});
