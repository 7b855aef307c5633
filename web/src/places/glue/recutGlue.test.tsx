import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { END_GRAIN, recutBoard } from '#core/board/recutForTests.ts';
import { stripsOf, withStrips } from '#core/board/recipe.ts';
import { makePlan, type RecutPlan } from '#core/plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import { openBoardAt } from '../../openBoardForTests.tsx';
import { plain } from '../../shownForTests.tsx';
import { durationWords } from '../../quantities/duration.ts';
import { GluePlace } from './GluePlace.tsx';

const RACK = [plainPiece({ length: 3000, width: 220, thickness: 56, count: 4 })];
const endGrain = (widths = [45, 45, 45, 45, 45, 45]): PlanInput =>
  planInput(recutBoard(plainBoard({ length: 330, width: 220, thickness: 35 }, widths), {}, END_GRAIN), RACK);
const recutOf = (input: PlanInput): RecutPlan => makePlan(input).recut!;
/** Opens the glue-ups of the rows. */
async function openRows(input: PlanInput) {
  const opened = await openBoardAt(GluePlace, input, 'metric');
  fireEvent.click(screen.getByRole('radio', { name: 'The rows' }));
  await screen.findByRole('heading', { name: 'Making the block flat' });
  return opened;
}
/** The line of the table of glues that is taken: at once, glue-ups, in clamps. */
const taken = () => {
  const row = screen.getByRole('rowheader', { name: /, taken$/ }).closest('tr')!;
  return within(row)
    .getAllByRole('cell')
    .slice(1)
    .map((cell) => plain(cell.textContent));
};

describe('the glue-ups of a board that is cut again', () => {
  it('of its panel and of its rows are told apart, each with the figures of its own plan', async () => {
    const input = endGrain();
    const { panelGluing, gluing } = recutOf(input);
    await openBoardAt(GluePlace, input, 'metric');
    const figures = ({ mostParts, glueUps, clampMinutes }: typeof gluing) => [
      String(mostParts),
      String(glueUps.length),
      plain(durationWords(clampMinutes)),
    ];
    expect(taken()).toEqual(figures(panelGluing));
    fireEvent.click(screen.getByRole('radio', { name: 'The rows' }));
    await waitFor(() => expect(taken()).toEqual(figures(gluing)));
    expect(figures(gluing)).not.toEqual(figures(panelGluing));
  });

  it('every row is rehearsed and glued under its own name; groups of strips are chosen for the panel alone', async () => {
    const input = endGrain();
    const { text } = await openRows(input);
    const { gluing } = recutOf(input);
    for (const { firstStrip, lastStrip } of gluing.glueUps) expect(text()).toContain(`${firstStrip}–${lastStrip}`);
    expect(text()).toMatch(/Rows \d+ to \d+ in order/);
    expect(screen.queryByRole('group', { name: /Strips and their joints/ })).toBeNull();
    fireEvent.click(screen.getByRole('radio', { name: 'The panel of strips' }));
    await screen.findByRole('group', { name: /Strips and their joints/ });
    expect(text()).toContain('Making the panel flat');
  });

  it('what is wrong with rows is told beside the rows, what is wrong with strips beside their panel', async () => {
    const input = endGrain([46, 45, 45, 45, 45, 44]);
    const { text } = await openBoardAt(GluePlace, input, 'metric');
    expect(text()).not.toContain('beside the corner');
    fireEvent.click(screen.getByRole('radio', { name: 'The rows' }));
    await waitFor(() => expect(text()).toContain('beside the corner'));
  });

  it('one oily strip makes every row oily: the rehearsal asks for acetone', async () => {
    const input = endGrain();
    const strips = stripsOf(input.board).map((s, i) => (i === 3 ? { ...s, species: 'teak' } : s));
    const teak = plainPiece({ id: 'teak', mark: 'T1', species: 'teak', length: 3000, width: 220, thickness: 56 });
    const { text } = await openRows({ ...input, board: withStrips(input.board, strips), rack: [...RACK, teak] });
    expect(text()).toContain('Acetone');
  });
});
