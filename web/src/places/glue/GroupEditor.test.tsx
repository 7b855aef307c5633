import { fireEvent, screen, waitFor } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import type { BoardStep } from '#contract/boards.ts';
import { lastOf } from '#core/lists/there.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { openBoardAt } from '../../openBoardForTests.tsx';
import type { ServerForTests } from '../../serverForTests.ts';
import { press } from '../../shownForTests.tsx';
import { GroupEditor } from './GroupEditor.tsx';

let server: ServerForTests;
let text: () => string;
beforeEach(async () => {
  ({ server, text } = await openBoardAt(GroupEditor, planInput(plainBoard(), [plainPiece({ length: 4000 })])));
});

const joint = (n: number) =>
  screen.getByRole('button', { name: new RegExp(`^Joint between strips ${n} and ${n + 1}:`) });
const together = () => [1, 2, 3, 4, 5].map((n) => joint(n).getAttribute('aria-pressed') === 'true');
/** Groups as they were saved last. */
async function saved(writes: number) {
  await waitFor(() => expect(server.writes.length).toBeGreaterThanOrEqual(writes));
  return lastOf((lastOf(server.writes).body as { steps: BoardStep[] }).steps).board.gluing.groups;
}

it('shows every joint, glued in a group or joined later, and who chose it', () => {
  expect(together()).toHaveLength(5);
  expect(text()).toContain('Chosen for the fewest hours in clamps.');
});

it('a press on a joint changes just that one; the groups are the maker’s from then on', async () => {
  const before = together();
  fireEvent.click(joint(1));
  const groups = (await saved(1))!;
  expect(groups.reduce((a, b) => a + b, 0)).toBe(6);
  await waitFor(() => expect(together()).toEqual(before.map((pressed, i) => (i === 0 ? !pressed : pressed))));
  expect(text()).toContain('Your own');
});

it('all joints pressed are one glue-up; let go, Cadenza chooses again', async () => {
  for (const n of [1, 2, 3, 4, 5]) {
    if (together()[n - 1]) continue;
    fireEvent.click(joint(n));
    await waitFor(() => expect(together()[n - 1]).toBe(true));
  }
  expect(text()).toContain('Your own way: all strips in one glue-up.');
  await waitFor(async () => expect(await saved(1)).toEqual([6]));
  press('Let Cadenza choose');
  await waitFor(async () => expect(await saved(2)).toBeNull());
  await waitFor(() => expect(text()).toContain('Chosen for the fewest hours'));
});
