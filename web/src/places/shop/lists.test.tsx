import { fireEvent, screen, within } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { lastOf } from '#core/lists/there.ts';
import { BARE_SHOP, DEFAULT_SHOP, shopSchema, type Shop } from '#core/shop/shop.ts';
import { plain, press, said, show, type } from '../../shownForTests.tsx';
import { ClampList, GlueList, HourList } from './ClampAndGlueLists.tsx';
import { FinishRoom } from './FinishRoom.tsx';
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
    show(<GritField field="Own grits" description="First to last." grits={grits} onCommit={told} />);
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

describe('finishes and papers', () => {
  it('a finish is added, changed and removed; the last one stays; every state can be stored', () => {
    const [oil, ...rest] = DEFAULT_SHOP.finishes;
    const states = open(FinishRoom, { ...DEFAULT_SHOP, finishes: [oil!] });
    expect(screen.queryByRole('button', { name: 'Remove Mineral oil' })).toBeNull();
    press('Add a finish');
    const added = within(screen.getByRole('group', { name: 'Another finish' }));
    fireEvent.change(added.getByLabelText('End grain takes'), { target: { value: '512' } });
    fireEvent.blur(added.getByLabelText('End grain takes'));
    fireEvent.click(added.getByRole('checkbox', { name: 'Rags can ignite' }));
    expect(lastOf(states).finishes[1]).toMatchObject({ end: 512, ignites: true, kind: oil!.kind });
    press('Remove Another finish');
    expect(lastOf(states).finishes).toEqual([oil]);
    expect(rest.length).toBeGreaterThan(2);
    for (const state of states) expect(shopSchema.safeParse(state).success).toBe(true);
  });

  it('figures that nobody knows stay empty, and nonsense in them is refused by name', () => {
    const states = open(FinishRoom, { ...DEFAULT_SHOP, finishes: DEFAULT_SHOP.finishes.slice(0, 1) });
    type('On the shelf', '750');
    expect(lastOf(states).finishes[0]!.shelfMl).toBe(750);
    type('On the shelf', '');
    expect(lastOf(states).finishes[0]!.shelfMl).toBeNull();
    const before = states.length;
    type('Keeps, once opened', '0.5');
    expect(said('Keeps, once opened')).toBe('Keeps, once opened must be a whole number.');
    type('A litre costs', '-3');
    expect(said('A litre costs')).toBe('A litre costs must not be negative.');
    expect(states).toHaveLength(before);
  });

  it('papers are read as they are written; a tray comes with usual sizes and goes again', () => {
    const states = open(FinishRoom);
    type('Papers in the drawer', '80 120, 180; 220');
    expect(lastOf(states).papers).toEqual([80, 120, 180, 220]);
    type('Papers in the drawer', '220, 80');
    expect(said('Papers in the drawer')).toMatch(/from coarse to fine/);
    fireEvent.click(screen.getByRole('checkbox', { name: 'A tray for soaking' }));
    type('Tray, depth', '120');
    expect(lastOf(states).bath).toEqual({ length: 600, width: 400, depth: 120 });
    type('Tray, depth', '3');
    expect(said('Tray, depth')).toMatch(/^Tray, depth/);
    fireEvent.click(screen.getByRole('checkbox', { name: 'A tray for soaking' }));
    expect(lastOf(states).bath).toBeNull();
  });

  it('words of 5,000 characters are too many for a card, and what was typed stays', () => {
    const states = open(FinishRoom);
    type('On every care card', 'x'.repeat(5000));
    expect(said('On every care card')).toBe('On every care card must be at most 2000 characters.');
    expect(states).toEqual([]);
    expect(screen.getByLabelText<HTMLTextAreaElement>('On every care card').value).toHaveLength(5000);
    type('On every care card', 'Bring it back.\nWe oil it.');
    expect(lastOf(states).careWords).toBe('Bring it back.\nWe oil it.');
  });
});
