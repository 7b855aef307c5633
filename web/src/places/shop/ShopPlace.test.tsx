import { fireEvent, screen, waitFor } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { describe, expect, it } from 'vitest';
import { plainBoard, planInput } from '#core/plan/planArbitrary.ts';
import { DEFAULT_SHOP, shopSchema, type Shop } from '#core/shop/shop.ts';
import { DEFAULT_DISPLAY } from '#core/units/formatLength.ts';
import { phraseText } from '#core/units/phrase.ts';
import { ServerForTests } from '../../serverForTests.ts';
import { plain, said, show, type } from '../../shownForTests.tsx';
import { CUTTING_FIGURES, HABIT_FIGURES, PACE_FIGURES } from './figures.ts';
import { findFigures, roomIds, SHOP_ROOMS } from './shopRooms.ts';
import { ShopPlace } from './ShopPlace.tsx';

/** A shop that has every machine. */
const RICH: Shop = {
  ...DEFAULT_SHOP,
  drumSander: { width: 400, passDepth: 0.5, leastLength: 60 },
  routerSled: { width: 500, bit: 40, passDepth: 2 },
};

/** Opens a room of a shop. */
async function open(room: string, shop: Shop = DEFAULT_SHOP, system: 'metric' | 'inch' = 'metric') {
  const server = new ServerForTests(planInput(plainBoard(), [], shop));
  const shown = show(
    <Routes>
      <Route path="/shop/:room" element={<ShopPlace />} />
      <Route path="/shop" element={<ShopPlace />} />
    </Routes>,
    { path: `/shop/${room}`, system },
  );
  await screen.findByRole('heading', { name: 'Shop' });
  return { server, ...shown };
}

it.each(roomIds)(
  'the room %s says what it is for and what is in it, and every figure it is searched by stands in it',
  async (room) => {
    await open(room, RICH);
    // What is seldom wanted comes a little later.
    await waitFor(() => expect(screen.queryByText('Loading …')).toBeNull());
    const { title, about, glance, fields } = SHOP_ROOMS[room];
    expect(screen.getByRole('heading', { name: title })).toBeDefined();
    const text = plain(document.body.textContent);
    expect(text).toContain(plain(about));
    expect(text).toContain(plain(phraseText(glance(RICH), DEFAULT_DISPLAY)));
    const named = new Set(
      [
        ...document.querySelectorAll('label, [aria-label], legend, h3, th, dt, span, b, .mantine-InputWrapper-label'),
      ].flatMap((e) => [plain(e.textContent).trim(), e.getAttribute('aria-label') ?? '']),
    );
    const missing = [...new Set(fields)].filter((f) => ![...named].some((n) => n === f || n.includes(f)));
    expect(missing).toEqual([]);
  },
);

describe('what is typed in the shop', () => {
  const all = [
    ['allowances', HABIT_FIGURES],
    ['pace', PACE_FIGURES],
    ['pieces', CUTTING_FIGURES],
  ] as const;

  it.each(all)(
    'no figure of the room %s takes words, nothing or less than nothing; each says so by its name',
    async (room, specs) => {
      const { server } = await open(room);
      for (const [, , label] of specs)
        for (const text of ['much', '', '-4']) {
          type(label, text);
          expect([label, text, said(label)?.startsWith(label)]).toEqual([label, text, true]);
        }
      expect(server.writes).toEqual([]);
    },
  );

  it.each(all)('each figure of the room %s goes out alone, in a shop that can be stored', async (room, specs) => {
    const { server } = await open(room);
    for (const [group, key, label, unit] of specs) {
      const was = (DEFAULT_SHOP[group] as Record<string, number>)[key]!;
      const schema = shopSchema.shape[group].shape as unknown as Record<
        string,
        { safeParse(n: number): { success: boolean } }
      >;
      const near = [was + 1, was + 0.1, was - 1, was / 2].map((n) => Number(n.toFixed(3)));
      const next = near.find((n) => n !== was && schema[key]!.safeParse(n).success);
      expect([label, next === undefined]).toEqual([label, false]);
      const before = server.writes.length;
      type(label, unit === 'length' ? `${next} mm` : String(next));
      await waitFor(() => expect(server.writes.length).toBe(before + 1));
      const { shop } = server.writes.at(-1)!.body as { shop: Shop };
      expect(shopSchema.safeParse(shop).success).toBe(true);
      expect((shop[group] as Record<string, number>)[key]).toBeCloseTo(next!, 6);
    }
  });

  it('a refusal is said, and the figure stays as typed', async () => {
    const { server } = await open('pace');
    server.refuse({ status: 400, code: 'invalid', detail: 'The pace is not one that hands can have.' });
    const [, , label] = PACE_FIGURES[0]!;
    type(label, '1.5');
    await waitFor(() => expect(plain(document.body.textContent)).toContain('Not saved: The pace is not one'));
  });

  it('a name that is only blanks is none', async () => {
    const { server } = await open('about');
    type('Name of the shop', '   ');
    expect(said('Name of the shop')).toBe('Name of the shop must not be empty.');
    expect(server.writes).toEqual([]);
  });
});

describe('the search over the shop', () => {
  it('finds every figure by its own name, first where it begins so', () => {
    for (const room of roomIds)
      for (const label of SHOP_ROOMS[room].fields) expect(findFigures(label)).toContainEqual({ room, label });
    expect(findFigures('rip kerf')[0]).toEqual({ room: 'machines', label: 'Rip kerf' });
  });

  it('words in any order, any case; nothing for nothing, and for what no shop has', () => {
    expect(findFigures('KERF rip')).toContainEqual({ room: 'machines', label: 'Rip kerf' });
    expect(findFigures('   ')).toEqual([]);
    expect(findFigures('lathe chuck')).toEqual([]);
  });

  it('says so where nothing is called so', async () => {
    await open('machines');
    fireEvent.change(screen.getByRole('textbox', { name: 'Find a figure' }), { target: { value: 'lathe chuck' } });
    expect(document.body.textContent).toContain('No figure of the shop is called so.');
  });
});

it('in inches the same room reads and takes inches', async () => {
  const { server } = await open('allowances', DEFAULT_SHOP, 'inch');
  const label = HABIT_FIGURES.find(([, key]) => key === 'panelEdgeTrim')![2];
  type(label, '1/4');
  await waitFor(() => expect(server.writes.length).toBe(1));
  expect((server.writes[0]!.body as { shop: Shop }).shop.habits.panelEdgeTrim).toBeCloseTo(6.35, 6);
});
