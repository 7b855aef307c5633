import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { Inside, StoreContents } from '#contract/backup.ts';
import { plainBoard, planInput } from '#core/plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import { openShopAt } from '../../openBoardForTests.tsx';
import { NOW, type ServerForTests } from '../../serverForTests.ts';
import { press, said, type } from '../../shownForTests.tsx';
import { BackupRoom } from './BackupRoom.tsx';

const contents = (change: Partial<StoreContents> = {}): StoreContents => ({
  shop: 'The Tram Shed',
  boards: 8,
  removedBoards: 0,
  revisions: 20,
  pieces: 22,
  plans: 1,
  cuttings: 2,
  runs: 0,
  facts: 9,
  finished: 3,
  shopsAside: 0,
  newest: NOW,
  ...change,
});
const inside = (change: Partial<Inside> = {}): Inside => ({
  token: 't1',
  madeAt: NOW,
  checksum: true,
  holds: contents({ boards: 7 }),
  here: contents(),
  ...change,
});
const COPY = { name: 'cadenza-2026-11-27T030000Z.sql', size: 1_234_567, madeAt: '2026-11-27T03:00:00.000Z' };
const open = (prepare: (server: ServerForTests) => void = () => {}) =>
  openShopAt(BackupRoom, planInput(plainBoard(), [], DEFAULT_SHOP), { prepare });
const dialog = () => screen.findByRole('dialog', { name: 'What is in it' });

describe('copies', () => {
  it('are told with their size; how many are kept, and whether they are made, is saved', async () => {
    const { server } = await open((s) => (s.copies = { ...s.copies, copies: [COPY] }));
    expect((await screen.findByRole('listitem')).textContent).toContain('1.2 MB');
    expect(screen.getByText('/copies').tagName).toBe('CODE');
    type('Copies kept', '0');
    expect(said('Copies kept')).toBe('Copies kept must be at least 1 copy.');
    type('Copies kept', '30');
    await waitFor(() => expect(server.writes.at(-1)?.body).toEqual({ daily: true, keep: 30 }));
    fireEvent.click(await screen.findByRole('checkbox', { name: 'Make a copy every day' }));
    await waitFor(() => expect(server.copies).toMatchObject({ daily: false, keep: 30 }));
  });

  it.each([
    [{ old: true }, /^The last good copy is too old: /],
    [{ trouble: 'The disk is full.' }, /^The last one could not be made\. The disk is full\.$/],
  ])('that went wrong are said: %j', async (change, sentence) => {
    await open((s) => (s.copies = { ...s.copies, ...change }));
    expect((await screen.findByRole('alert')).textContent.trim()).toMatch(sentence);
  });

  it('that cannot be made now say why', async () => {
    const { server } = await open();
    await screen.findByRole('button', { name: 'Copy now' });
    server.refuse({ status: 409, code: 'backup', detail: 'The disk is full: /copies cannot be written.' });
    press('Copy now');
    expect(await screen.findByText('The disk is full: /copies cannot be written.')).toBeDefined();
  });
});

describe('a look inside', () => {
  it('shows what is in a copy beside what is here, and leaves everything as it is', async () => {
    const { server } = await open((s) => {
      s.copies = { ...s.copies, copies: [COPY] };
      s.inside = inside();
    });
    fireEvent.click(await screen.findByRole('button', { name: /^Look inside the copy of/ }));
    const row = within(await dialog()).getByRole('row', { name: /^Boards 7/ });
    expect([...row.querySelectorAll('td')].map((cell) => cell.textContent)).toEqual(['7', '8']);
    expect(row.dataset.differs).toBe('true');
    expect(within(await dialog()).getByRole('row', { name: /^Cuts/ }).dataset.differs).toBeUndefined();
    press('Leave everything as it is');
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(server.writes.map((w) => w.path)).toEqual([`/backups/copies/${COPY.name}/look`]);
  });

  it('of a file from an earlier Cadenza says that it carries no checksum; a refusal is said and nothing is lost', async () => {
    const { server } = await open((s) => {
      s.inside = inside({ checksum: false, madeAt: null, holds: contents({ shop: null, newest: null }) });
    });
    await screen.findByRole('button', { name: 'Open a backup …' });
    const field = document.querySelector<HTMLInputElement>('input[type=file]')!;
    fireEvent.change(field, { target: { files: [new File(['-- Cadenza backup'], 'old.sql')] } });
    const shown = await dialog();
    expect(shown.textContent).toContain('old.sql');
    expect(shown.textContent).toContain('carries no checksum');
    // Without a shop in it there is nothing to come in.
    expect(within(shown).getByRole<HTMLButtonElement>('button', { name: 'Bring its shop in' }).disabled).toBe(true);
    server.refuse({ status: 409, code: 'look-again', detail: 'Open it once more.' });
    press('Replace what is here');
    expect(await screen.findByText('Open it once more.')).toBeDefined();
    expect(server.writes.at(-1)).toMatchObject({ path: '/backups/restore', body: { token: 't1' } });
    expect(await dialog()).toBeDefined();
  });
});
