import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { Device, Devices } from '#contract/devices.ts';
import { plainBoard, planInput } from '#core/plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import { deviceName } from '../../data/deviceName.ts';
import { openShopAt } from '../../openBoardForTests.tsx';
import { NOW } from '../../serverForTests.ts';
import { field, plain, press, said, type } from '../../shownForTests.tsx';
import { DevicesPlace } from './DevicesPlace.tsx';

const SHOP = { ...DEFAULT_SHOP, people: [{ id: 'ada', name: 'Ada', hours: null }] };
const device = (id: string, change: Partial<Device> = {}): Device => ({
  id,
  name: `The ${id}`,
  person: null,
  may: 'work',
  madeAt: NOW,
  seenAt: NOW,
  ...change,
});
const shared = (change: Partial<Devices> = {}): Devices => ({
  asked: true,
  own: 'desk',
  may: 'work',
  devices: [device('desk'), device('phone')],
  addresses: ['http://192.0.2.1:4180'],
  ...change,
});
const open = (devices: Devices) =>
  openShopAt(DevicesPlace, planInput(plainBoard(), [], SHOP), { prepare: (server) => (server.devices = devices) });
const row = async (id: string) =>
  within((await screen.findByRole('textbox', { name: `Name of The ${id}` })).closest('tr')!);

it('on loopback says how others come to reach it, and what this device is called', async () => {
  await open(shared({ asked: false, own: null, devices: [] }));
  expect((await screen.findByText('HOST=0.0.0.0 npm start')).tagName).toBe('PRE');
  expect(field('This device is called').value).toBe('A computer');
  type('This device is called', '');
  expect(said('This device is called')).toMatch(/^This device is called must/);
  type('This device is called', 'Bench');
  expect(deviceName()).toBe('Bench');
});

describe('where others reach it', () => {
  it('shows a code that leads another device to this server, under the address it has on the network', async () => {
    const { server } = await open(shared());
    fireEvent.change(await screen.findByLabelText('It is used by'), { target: { value: 'ada' } });
    fireEvent.change(screen.getByLabelText('It may'), { target: { value: 'look' } });
    press('Show a code');
    expect(await screen.findByRole('img', { name: 'Code to scan with the other device' })).toBeDefined();
    // This page is at localhost, where no other device is.
    expect(field('Address').value).toBe('http://192.0.2.1:4180/join/a-code');
    expect(server.writes.at(-1)!.body).toEqual({ person: 'ada', may: 'look' });
    expect(screen.getByRole('button', { name: 'Another code' })).toBeDefined();
  });

  it('without an address says so', async () => {
    await open(shared({ addresses: [] }));
    expect((await screen.findByRole('alert')).textContent).toBe('This machine has no address on a network just now.');
    expect(screen.getByRole('button', { name: 'Show a code' }).hasAttribute('disabled')).toBe(true);
  });

  it('names a device, says whose it is and what it may, and lets go of it; its own right and life it leaves alone', async () => {
    const { server } = await open(shared());
    const phone = await row('phone');
    fireEvent.change(phone.getByLabelText('Whose The phone is'), { target: { value: 'ada' } });
    await waitFor(() => expect(server.devices.devices[1]).toMatchObject({ person: 'ada', may: 'work' }));
    fireEvent.change(phone.getByLabelText('What The phone may'), { target: { value: 'look' } });
    await waitFor(() => expect(server.devices.devices[1]).toMatchObject({ person: 'ada', may: 'look' }));
    const desk = await row('desk');
    expect(desk.queryByRole('button')).toBeNull();
    expect(desk.queryByLabelText('What The desk may')).toBeNull();
    fireEvent.click(phone.getByRole('button', { name: 'End The phone' }));
    await waitFor(() => expect(screen.queryByText('The phone')).toBeNull());
    expect(server.devices.devices.map((d) => d.id)).toEqual(['desk']);
  });

  it('a device that may look sees who is let in and changes nothing', async () => {
    const { text } = await open(
      shared({ own: 'phone', may: 'look', devices: [device('phone', { person: 'ada', may: 'look' })] }),
    );
    await waitFor(() => expect(text()).toContain('This device may look and change nothing.'));
    expect(plain(screen.getAllByRole('row')[1]!.textContent)).toMatch(/^The phonethis deviceAdaMay look/);
    expect(screen.queryByRole('button', { name: /code|End/ })).toBeNull();
  });
});

describe('where the passphrase is wanted once more', () => {
  it('it is asked for, a wrong one is said, and then what was wished is done', async () => {
    const { server } = await open(shared());
    await screen.findByRole('button', { name: 'Show a code' });
    server.refuse({ status: 403, code: 'confirm', detail: 'Say the passphrase once more.' });
    press('Show a code');
    const dialog = within(await screen.findByRole('dialog', { name: 'The passphrase once more' }));
    const said = dialog.getByLabelText('Passphrase');
    fireEvent.change(said, { target: { value: 'not that one' } });
    server.refuse({ status: 400, code: 'wrong-passphrase', detail: 'That is not the passphrase.' });
    fireEvent.click(dialog.getByRole('button', { name: 'Go on' }));
    expect(await dialog.findByText('That is not the passphrase.')).toBeDefined();
    fireEvent.change(said, { target: { value: 'four planed mules asleep' } });
    fireEvent.click(dialog.getByRole('button', { name: 'Go on' }));
    expect(await screen.findByRole('img', { name: 'Code to scan with the other device' })).toBeDefined();
    expect(server.writes.map((w) => w.path)).toEqual([
      '/devices/invite',
      '/devices/confirm',
      '/devices/confirm',
      '/devices/invite',
    ]);
  });

  it('whoever thinks better of it changes nothing', async () => {
    const { server } = await open(shared());
    server.refuse({ status: 403, code: 'confirm', detail: 'Say the passphrase once more.' });
    fireEvent.change((await row('phone')).getByRole('combobox', { name: 'What The phone may' }), {
      target: { value: 'look' },
    });
    const dialog = within(await screen.findByRole('dialog', { name: 'The passphrase once more' }));
    fireEvent.click(dialog.getByRole('button', { name: 'Close' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(server.devices.devices[1]!.may).toBe('work');
    expect(server.writes).toHaveLength(1);
  });
});
