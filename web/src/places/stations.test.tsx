import { act, waitFor } from '@testing-library/react';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { workshopArbitrary } from '#core/follow/workshopArbitrary.ts';
import { makePlan } from '#core/plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import { stationOf } from '#core/steps/operation.ts';
import { DEFAULT_DISPLAY, formatLength } from '#core/units/formatLength.ts';
import { phraseText } from '#core/units/phrase.ts';
import { keys, queryClient } from '../data/queryClient.ts';
import { openBoardAt } from '../openBoardForTests.tsx';
import { plain, press } from '../shownForTests.tsx';
import { CHEVRON, END_GRAIN, recutBoard } from '#core/board/recutForTests.ts';
import type { Fact } from '#core/facts/fact.ts';
import { BriefPlace } from './brief/BriefPlace.tsx';
import { CutsPlace } from './cuts/CutsPlace.tsx';
import { GluePlace } from './glue/GluePlace.tsx';
import { MillPlace } from './mill/MillPlace.tsx';
import { SheetPlace } from './sheet/SheetPlace.tsx';
import { TrimPlace } from './trim/TrimPlace.tsx';

const PLACES = {
  brief: BriefPlace,
  mill: MillPlace,
  glue: GluePlace,
  trim: TrimPlace,
  sheet: SheetPlace,
};
const openAt = (place: keyof typeof PLACES, input: PlanInput, system: 'metric' | 'inch' = 'metric') =>
  openBoardAt(PLACES[place], input, system);

describe.each(['metric', 'inch'] as const)('in a shop of %s', (system) => {
  const display = { ...DEFAULT_DISPLAY, system };

  it.each([
    ['edge grain', plainBoard({ width: 260 })],
    ['face grain', plainBoard({ construction: 'face', width: 150, thickness: 24 }, [80, 76])],
    ['a batch', plainBoard({ count: 3, perPanel: 2 })],
    ['end grain', recutBoard(plainBoard({ length: 300, width: 150, thickness: 30 }, [40, 40, 40, 40]))],
    ['a chevron', recutBoard(plainBoard({ length: 260, width: 140, thickness: 28 }, Array(8).fill(40)), {}, CHEVRON)],
  ])('the sheet has every step of %s with its title, its lines and its cautions, in order', async (_, board) => {
    const input = planInput(board, [
      plainPiece({ length: 4000, thickness: 56 }),
      plainPiece({ id: 'p2', mark: 'P2', length: 4000, thickness: 56 }),
    ]);
    const { text } = await openAt('sheet', input, system);
    const { operations } = makePlan(input);
    await waitFor(() => expect(text()).toContain(plain(phraseText(operations.at(-1)!.title, display))));
    const all = text();
    let from = 0;
    for (const step of operations) {
      const title = plain(phraseText(step.title, display));
      const at = all.indexOf(title, from);
      expect([title, at >= from]).toEqual([title, true]);
      from = at;
      for (const line of step.lines) {
        // Notes on one line may be put together with others; what is cut and set stands there letter for letter.
        const words = plain(phraseText(line, display)).slice(0, 30);
        expect([title, words, all.includes(words)]).toEqual([title, words, true]);
      }
    }
  });

  it('each station tells its own steps', async () => {
    const input = planInput(plainBoard(), [plainPiece({ length: 4000 })]);
    const { operations } = makePlan(input);
    for (const place of ['mill', 'glue'] as const) {
      const { text, unmount } = await openAt(place, input, system);
      const own = operations.filter((o) => stationOf(o.kind) === place);
      expect(own.length).toBeGreaterThan(2);
      for (const step of own) await waitFor(() => expect(text()).toContain(plain(phraseText(step.title, display))));
      unmount();
    }
  });

  it('the brief shows the sizes as they are wished for', async () => {
    const { container } = await openAt(
      'brief',
      planInput(plainBoard({ length: 412.75, width: 260, thickness: 30 }), []),
      system,
    );
    const values = [...container.querySelectorAll('input')].map((i) => i.value);
    expect(values).toContain('Test board');
    expect(formatLength(412.75, display)).toMatch(system === 'metric' ? /^412\.[78] mm$/ : /^16 1\/4"$/);
  });
});

it('how thick and long a board could be follows the rack once it is asked for, also when that gives nothing any more', async () => {
  const { server, text } = await openAt('mill', planInput(plainBoard({}, [46]), [plainPiece({ length: 500 })]));
  press('How thick and long could it be?');
  // By hand: 150 wide less 2 of jointing and 2 of flattening; 500 long less 2 x 10 of ends and 29 of creep, snipe and trims, in steps of 5.
  await waitFor(() => expect(text()).toContain('the thickest board is 146 mm, the longest 450 mm'));
  const shorter = server.rack.map((r) => ({ ...r, piece: { ...r.piece, length: 480 } }));
  for (const [rack, words] of [
    [shorter, 'the thickest board is 146 mm, the longest 430 mm'],
    [[], 'these strips cannot be had at any size: see Cuts for what is missing.'],
    [server.rack, 'the longest 450 mm'],
  ] as const) {
    server.rack = [...rack];
    await act(() => queryClient.invalidateQueries({ queryKey: keys.rack }));
    await waitFor(() => expect(text()).toContain(words));
  }
});

it('cuts ask for no wood of strips that are glued, and say that nobody booked their cuts', async () => {
  const input = planInput(plainBoard(), []);
  const glue = makePlan(input).operations.filter((o) => o.glueUp !== null);
  const facts = glue.map(({ id: step }, i): Fact => ({
    kind: 'done',
    id: `d${i}`,
    at: '2026-11-28T08:00:00.000Z',
    step,
    copy: 1,
    minutes: null,
  }));
  const { text } = await openBoardAt(CutsPlace, { ...input, facts });
  await waitFor(() => expect(text()).toContain('already, glued: 1–6. Their cuts were not booked.'));
  expect(text()).not.toContain('cannot be had');
});

it('whatever the board, the rack and the shop, no page of it shows a figure that is none, a hole in a sentence or a thing of the machine', async () => {
  const flat = fc.sample(workshopArbitrary, { numRuns: 24, seed: 20261127 });
  // Every second one cut and glued again, by turns as end grain and as a chevron.
  const samples = flat.flatMap((input, i) => [
    input,
    ...(i % 2 === 0 ? [{ ...input, board: recutBoard(input.board, {}, i % 4 === 0 ? END_GRAIN : CHEVRON) }] : []),
  ]);
  for (const [i, input] of samples.entries()) {
    const places = Object.keys(PLACES) as (keyof typeof PLACES)[];
    const place = places[i % places.length]!;
    const { text, unmount } = await openAt(place, input, i % 2 === 0 ? 'metric' : 'inch');
    const words = text();
    expect(words).not.toMatch(/Failed:|Loading/);
    const wrong = /NaN|undefined|null|Infinity|\[object|\(\)| ,|,,| \.(?!\d)|\.\.(?!\.)/.exec(words);
    expect([place, wrong && words.slice(Math.max(0, wrong.index - 40), wrong.index + 40)]).toEqual([place, null]);
    unmount();
  }
}, 120_000);
