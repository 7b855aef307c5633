import { fireEvent, screen, waitFor } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { pieceFieldsSchema, type PieceFields } from '#core/stock/piece.ts';
import { ServerForTests } from '../../serverForTests.ts';
import { plain, press, show } from '../../shownForTests.tsx';
import { PilePlace } from './PilePlace.tsx';

let server: ServerForTests;
beforeEach(async () => {
  server = new ServerForTests(planInput(plainBoard(), [plainPiece({ mark: 'A1' })]));
  show(<PilePlace />);
  await screen.findByRole('heading', { name: 'A whole pile' });
  await cell('Mark', 1);
});

const cell = (column: string, line: number) => screen.findByLabelText<HTMLInputElement>(`${column}, line ${line}`);
const words = () => plain(document.body.textContent);
async function write(column: string, line: number, text: string) {
  const input = await cell(column, line);
  fireEvent.change(input, { target: { value: text } });
  fireEvent.blur(input);
}
const paste = async (text: string) =>
  fireEvent.paste(await cell('Mark', 1), { clipboardData: { getData: () => text } });
const sent = () =>
  (server.writes.at(-1)!.body as { pieces: PieceFields[] }).pieces.map((p) => pieceFieldsSchema.parse(p));

it('a size in one cell is taken apart, thickness first, in the notation of the yard', async () => {
  await write('Mark', 1, 'Y1');
  await write('Species', 1, 'Hard maple');
  await write('Thickness', 1, "4/4 x 7 1/2 in x 8'");
  await waitFor(() =>
    expect(screen.getByRole('button', { name: 'Put 1 piece in the rack' })).toHaveProperty('disabled', false),
  );
  press('Put 1 piece in the rack');
  await waitFor(() => expect(server.writes).toHaveLength(1));
  const [piece] = sent();
  // 1 in, 7 1/2 in and 8 ft.
  expect([piece!.thickness, piece!.width, piece!.length].map((mm) => Math.round(mm * 1000) / 1000)).toEqual([
    25.4, 190.5, 2438.4,
  ]);
  expect([piece!.mark, piece!.species]).toEqual(['Y1', 'maple-hard']);
});

it('a mark that is taken and a size that is none are told at their line; nothing goes out', async () => {
  await write('Mark', 1, 'A1');
  await write('Species', 1, 'Hard maple');
  await write('Length', 1, 'long');
  await write('Width', 1, '90');
  await write('Thickness', 1, '30');
  await waitFor(() => expect(screen.getByRole('alert').textContent).toMatch(/Line 1/));
  expect(words()).toMatch(/Length/);
  expect((await cell('Length', 1)).getAttribute('aria-invalid')).toBe('true');
  expect(screen.getByRole('button', { name: /^Put / })).toHaveProperty('disabled', true);
  expect(server.writes).toEqual([]);
});

it('a table from a spreadsheet with headings comes in whole, columns nobody knows are named', async () => {
  await paste(
    'mark\tspecies\tlength\twidth\tthickness\tshelf colour\nP1\tPear\t900\t90\t30\tred\nP2\tPear\t800\t80\t30\tblue\n',
  );
  await waitFor(() => expect(words()).toContain('Columns left out: shelf colour.'));
  press('Put 2 pieces in the rack');
  await waitFor(() => expect(server.writes).toHaveLength(1));
  expect(sent().map((p) => [p.mark, p.species, p.length, p.width, p.thickness])).toEqual([
    ['P1', 'pear', 900, 90, 30],
    ['P2', 'pear', 800, 80, 30],
  ]);
});

it('a species nobody knows is made from one it is like, and goes along', async () => {
  await paste('mark,species,length,width,thickness\nQ1,Plum,900,90,30\n');
  await waitFor(() => expect(words()).toContain('Nobody knows Plum yet.'));
  fireEvent.click(screen.getByRole('combobox', { name: 'Figures for Plum' }));
  fireEvent.click((await screen.findAllByRole('option', { name: 'Pear', hidden: true }))[0]!);
  await waitFor(() => expect(words()).not.toContain('Nobody knows Plum'));
  press('Put 1 piece in the rack');
  await waitFor(() => expect(server.writes).toHaveLength(1));
  const body = server.writes[0]!.body as { pieces: PieceFields[]; species: { code: string; name: string }[] };
  expect(body.species).toMatchObject([{ name: 'Plum' }]);
  expect(body.pieces[0]!.species).toBe(body.species[0]!.code);
});

it('a refusal is told, and every line stays as it was', async () => {
  await paste('mark,species,length,width,thickness\nQ1,Pear,900,90,30\n');
  server.refuse({ status: 409, code: 'mark-taken', detail: 'Mark Q1 was taken meanwhile.' });
  await waitFor(() =>
    expect(screen.getByRole('button', { name: 'Put 1 piece in the rack' })).toHaveProperty('disabled', false),
  );
  press('Put 1 piece in the rack');
  await waitFor(() => expect(words()).toContain('Mark Q1 was taken meanwhile. Nothing was stored.'));
  expect((await cell('Mark', 1)).value).toBe('Q1');
});

it('by keys: the next line with Enter, a cell or a line from above, and a line taken out', async () => {
  await write('Mark', 1, 'Z1');
  await write('Species', 1, 'Pear');
  fireEvent.keyDown(await cell('Mark', 1), { key: 'Enter' });
  expect((await cell('Mark', 2)).value).toBe('Z2');
  expect((await cell('Species', 2)).value).toBe('Pear');
  await write('Length', 1, '900');
  fireEvent.keyDown(await cell('Length', 2), { key: 'd', ctrlKey: true });
  expect((await cell('Length', 2)).value).toBe('900');
  fireEvent.keyDown(await cell('Mark', 2), { key: 'Delete', ctrlKey: true });
  await waitFor(() => expect(screen.queryByLabelText('Mark, line 2')).toBeNull());
});
