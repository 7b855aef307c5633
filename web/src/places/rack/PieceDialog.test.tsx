import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { pieceFieldsSchema, type Piece } from '#core/stock/piece.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { ServerForTests } from '../../serverForTests.ts';
import { field, press, said, show } from '../../shownForTests.tsx';
import { PieceDialog } from './PieceDialog.tsx';

function open(start: Partial<Piece>, stored: Piece | null = null, system: 'metric' | 'inch' = 'metric') {
  const server = new ServerForTests(planInput(plainBoard(), stored ? [stored] : []));
  const onSaved = vi.fn();
  show(
    <PieceDialog
      stored={stored && { piece: stored, version: 1 }}
      start={start}
      species={HANDBOOK_SPECIES}
      currency="EUR"
      onClose={() => {}}
      onSaved={onSaved}
    />,
    { system },
  );
  return { server, onSaved };
}

/** Fields of the dialog are read when it is sent, not when they are left. */
const write = (name: string, text: string) => fireEvent.change(field(name), { target: { value: text } });

it('a piece goes into the rack as it was typed, in any notation, with all that is not asked at its plainest', async () => {
  const { server, onSaved } = open({ mark: 'W7', species: 'walnut-black' });
  write('Length', '1.8 m'.replace('1.8 m', '180 cm'));
  write('Width', '5 1/2 in');
  write('Thickness', '8/4');
  write('Note', 'first line\nsecond');
  press('Put it in the rack');
  await waitFor(() => expect(onSaved).toHaveBeenCalledTimes(1));
  const piece = pieceFieldsSchema.parse(server.writes[0]!.body);
  expect(piece).toMatchObject({
    mark: 'W7',
    species: 'walnut-black',
    length: 1800,
    surface: 'rough',
    rings: 'flat',
    price: null,
    defects: [],
    note: 'first line second',
  });
  // 5 1/2 in and 8/4, that is 2 in, by the definition of the inch.
  expect(piece.width).toBeCloseTo(139.7, 6);
  expect(piece.thickness).toBeCloseTo(50.8, 6);
});

it('everything that is wrong is said at once, each at its field, and nothing is sent or lost', () => {
  const { server } = open({ mark: '' });
  write('Length', 'long');
  write('Width', '-5');
  write('Price, EUR', '-1');
  press('Put it in the rack');
  expect(said('Mark')).toMatch(/^Mark must not be empty|must not be empty/);
  expect(said('Length')).toMatch(/^Length /);
  expect(said('Width')).toMatch(/^Width /);
  expect(said('Thickness')).toMatch(/^Thickness /);
  expect([field('Length').value, field('Width').value]).toEqual(['long', '-5']);
  expect(server.writes).toEqual([]);
});

it('a species nobody has entered is made with the piece, with figures like those of another', async () => {
  const { server, onSaved } = open({ mark: 'P1', length: 900, width: 90, thickness: 30 });
  fireEvent.click(screen.getByRole('combobox', { name: 'Species' }));
  fireEvent.click(await screen.findByText('Another species …'));
  press('Put it in the rack');
  expect(said('Its name')).toBe('The name must not be empty.');
  write('Its name', 'Plum of the yard');
  fireEvent.click(screen.getByRole('combobox', { name: 'With figures like those of' }));
  const options = await screen.findAllByRole('option', { name: 'Pear' });
  fireEvent.click(options.at(-1)!);
  press('Put it in the rack');
  await waitFor(() => expect(onSaved).toHaveBeenCalledTimes(1));
  const [species, piece] = server.writes.map(
    (w) => w.body as { code?: string; name?: string; species?: string; density?: number },
  );
  expect(species).toMatchObject({
    name: 'Plum of the yard',
    density: HANDBOOK_SPECIES.find((s) => s.code === 'pear')!.density,
  });
  expect(piece!.species).toBe(species!.code);
});

it('sizes that were not touched are sent to the last digit, whatever units they are shown in', async () => {
  const stored = plainPiece({ id: 'p9', length: 1234.567891, width: 101.010101, thickness: 33.333333 });
  const { server, onSaved } = open(stored, stored, 'inch');
  write('Note', 'looked at again');
  press('Save');
  await waitFor(() => expect(onSaved).toHaveBeenCalledTimes(1));
  expect((server.writes[0]!.body as { piece: object }).piece).toMatchObject({
    length: 1234.567891,
    width: 101.010101,
    thickness: 33.333333,
  });
});

it('what somebody else saved meanwhile is told, and put over only when asked once more', async () => {
  const stored = plainPiece({ id: 'p9', mark: 'A1' });
  const { server, onSaved } = open(stored, stored);
  const theirs = { piece: { ...stored, length: 777 }, version: 5 };
  server.refuse({ status: 409, code: 'stale', detail: 'This piece was changed elsewhere.', current: theirs });
  write('Width', '120');
  press('Save');
  expect((await screen.findByRole('alert')).textContent).toMatch(/changed elsewhere.*777/);
  expect(onSaved).not.toHaveBeenCalled();
  expect(field('Width').value).toBe('120');
  press('Save');
  await waitFor(() => expect(onSaved).toHaveBeenCalledTimes(1));
  expect(server.writes.at(-1)!.body).toMatchObject({ version: 5, piece: { width: 120 } });
});

it('a refusal that names a field stands at that field', async () => {
  const { server } = open({ mark: 'A1', species: 'pear', length: 900, width: 90, thickness: 30 });
  server.refuse({
    status: 400,
    code: 'invalid',
    detail: 'The piece is not valid.',
    fields: [{ path: 'mark', message: 'Mark A1 is in use already.' }],
  });
  press('Put it in the rack');
  await waitFor(() => expect(said('Mark')).toBe('Mark A1 is in use already.'));
});

it('a short outage is waited out: the same write goes again by the same name', async () => {
  const { server, onSaved } = open({ mark: 'A1', species: 'pear', length: 900, width: 90, thickness: 30 });
  server.refuse('gone');
  press('Put it in the rack');
  await waitFor(() => expect(onSaved).toHaveBeenCalledTimes(1));
  expect(server.writes).toHaveLength(2);
  expect(server.writes[0]!.name).toBe(server.writes[1]!.name);
  expect(server.writes[0]!.name).not.toBeNull();
});
