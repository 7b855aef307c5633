import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { firstOf } from '#core/lists/there.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { newSpecies } from '#core/wood/newSpecies.ts';
import { speciesSchema, type Species } from '#core/wood/species.ts';
import { ServerForTests } from '../../serverForTests.ts';
import { field, plain, press, said, show, type } from '../../shownForTests.tsx';
import { AddSpecies } from './AddSpecies.tsx';
import { SpeciesFields } from './SpeciesFields.tsx';
import { SpeciesPlace } from './SpeciesPlace.tsx';

const PLUM = newSpecies('Plum', firstOf(HANDBOOK_SPECIES), HANDBOOK_SPECIES);
const server = () => new ServerForTests(planInput(plainBoard(), [plainPiece()]));

describe('another species', () => {
  const open = () => {
    const onAdded = vi.fn();
    const s = server();
    show(<AddSpecies species={HANDBOOK_SPECIES} onAdded={onAdded} />);
    return { onAdded, server: s };
  };

  it('wants a name and one it is like, and says both at once', () => {
    const { server: s } = open();
    press('Add species');
    expect(said('Name')).toBe('Name must not be empty.');
    expect(document.body.textContent).toContain('Choose the species it is most like.');
    expect(s.writes).toEqual([]);
  });

  it('a name that is known already is told, however it is written', () => {
    open();
    fireEvent.change(field('Name'), { target: { value: '  hard MAPLE ' } });
    press('Add species');
    expect(said('Name')).toBe('Hard maple is known already.');
  });

  it('goes out with all figures of the one it is like, and the form is empty again', async () => {
    const { onAdded, server: s } = open();
    fireEvent.change(field('Name'), { target: { value: 'Plum' } });
    fireEvent.click(screen.getByRole('combobox', { name: 'Most like' }));
    fireEvent.click((await screen.findAllByRole('option', { name: 'Pear', hidden: true }))[0]!);
    press('Add species');
    await waitFor(() => expect(onAdded).toHaveBeenCalledWith('plum'));
    const sent = speciesSchema.parse(s.writes[0]!.body);
    const pear = HANDBOOK_SPECIES.find((k) => k.code === 'pear')!;
    expect([sent.name, sent.density, sent.tangential]).toEqual(['Plum', pear.density, pear.tangential]);
    expect(field('Name').value).toBe('');
  });
});

describe('the figures of a species of one’s own', () => {
  const open = (system: 'metric' | 'inch' = 'metric') => {
    const s = server();
    show(<SpeciesFields species={PLUM} />, { system });
    return s;
  };
  const sent = async (s: ServerForTests) => {
    await waitFor(() => expect(s.writes.length).toBeGreaterThan(0));
    return s.writes.at(-1)!.body as { before: Species; species: Species };
  };

  it('movement is typed in percent and kept as a share; only that figure changes', async () => {
    const s = open();
    type('Moves along the rings', '0.31');
    const { before, species } = await sent(s);
    expect(species.tangential).toBeCloseTo(0.0031, 9);
    expect({ ...species, tangential: before.tangential }).toEqual(before);
  });

  it('weight is typed in the reader’s unit', async () => {
    const s = open('inch');
    type('Weight at 12 % moisture', '45');
    const { species } = await sent(s);
    // A pound a cubic foot is 16.018463 kg/m3 (NIST SP 811, appendix B.8, from memory).
    expect(species.density).toBeCloseTo(45 * 16.018463, 0);
  });

  it.each([
    ['Moves across the rings', '-1'],
    ['Moves across the rings', '7'],
    ['Moves along the rings', ''],
    ['Weight at 12 % moisture', '0'],
    ['Weight at 12 % moisture', '99999'],
    ['Side hardness', '-5'],
    ['Trade name', '   '],
    ['With food', 'x'.repeat(2000)],
  ])('%s is not %j, and says so by its name', (label, text) => {
    const s = open();
    type(label, text);
    expect(said(label)).toMatch(new RegExp(`^${label}`));
    expect(s.writes).toEqual([]);
  });
});

describe('the place of the species', () => {
  const open = async () => {
    server();
    show(<SpeciesPlace />);
    await screen.findByRole('heading', { name: 'Species' });
  };
  const words = () => plain(document.body.textContent);

  it('lists every one, those of the rack first, and finds by either name', async () => {
    await open();
    for (const s of HANDBOOK_SPECIES) expect(words()).toContain(s.name);
    fireEvent.change(screen.getByLabelText('Search species'), { target: { value: 'juglans' } });
    await waitFor(() => expect(words()).not.toContain('Acer saccharum'));
    expect(words()).toContain('Juglans nigra');
    fireEvent.change(screen.getByLabelText('Search species'), { target: { value: 'no such wood' } });
    expect(() => words()).not.toThrow();
  });

  it('plays with movement for any width, and takes no other', async () => {
    await open();
    type('Width that moves', '600');
    expect(said('Width that moves')).toBeNull();
    type('Width that moves', '0');
    expect(said('Width that moves')).toMatch(/^Width that moves must be at least/);
  });
});
