import { screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { checkPlan } from '#core/checks/checkPlan.ts';
import type { Fact } from '#core/facts/fact.ts';
import { lastOf, nth } from '#core/lists/there.ts';
import { stackedBoard } from '#core/board/recutForTests.ts';
import { makePlan } from '#core/plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { DEFAULT_DISPLAY } from '#core/units/formatLength.ts';
import { phraseText } from '#core/units/phrase.ts';
import { openBoardAt } from '../openBoardForTests.tsx';
import { plain, show } from '../shownForTests.tsx';
import { BoardSteps } from './BoardSteps.tsx';
import { StepList } from './StepList.tsx';

/** A board whose strips are resawn from thick stock, and whose accents are resawn from a stack: two steps of one kind. */
const input = planInput(
  stackedBoard(plainBoard({ length: 400, width: 240, thickness: 25 }), [
    {
      bits: [
        { species: 'walnut-black', length: 30 },
        { species: 'maple-hard', length: 20 },
      ],
      depth: 20,
      accents: [
        { at: 1, width: 3 },
        { at: 3, width: 3 },
      ],
    },
  ]),
  [
    plainPiece({ length: 2400, width: 220, thickness: 56, count: 4 }),
    plainPiece({ id: 'w', mark: 'W1', species: 'walnut-black', length: 2400, width: 220, thickness: 56 }),
  ],
);

describe('steps with what was found', () => {
  it('what belongs to one of two steps of a kind stands there, and nowhere else', () => {
    const plan = makePlan(input);
    const findings = checkPlan(plan, input);
    const resaws = plan.operations.filter((o) => o.kind === 'resaw');
    expect(resaws).toHaveLength(2);
    const breaks = findings.filter((f) => f.rule === 'stack-breaks');
    expect(breaks.map((f) => f.step)).toEqual([lastOf(resaws).id]);
    show(<StepList operations={plan.operations} findings={findings} forPaper />);
    const items = screen.getAllByRole('listitem').filter((li) => li.querySelector('h3'));
    const said = plain(phraseText(nth(breaks, 0).what, DEFAULT_DISPLAY));
    const where = items.flatMap((li, i) => (plain(li.textContent).includes(said) ? [nth(plan.operations, i).id] : []));
    expect(where).toEqual([lastOf(resaws).id]);
  });

  it('everything found at a step that is listed is said once', () => {
    const plan = makePlan(input);
    const findings = checkPlan(plan, input).filter((f) => plan.operations.some((o) => o.kind === f.at));
    expect(findings.length).toBeGreaterThan(0);
    const { container } = show(<StepList operations={plan.operations} findings={findings} forPaper />);
    expect(container.querySelectorAll('h3 ~ p[class*="caution"]').length).toBeGreaterThanOrEqual(findings.length);
    for (const f of findings)
      expect(plain(container.textContent).split(plain(phraseText(f.what, DEFAULT_DISPLAY)))).toHaveLength(2);
  });
});

it('what is done at the bench is marked, and ticked on paper; nothing else is', async () => {
  const input = planInput(plainBoard(), [plainPiece({ length: 4000 })]);
  const plan = makePlan(input);
  const [first] = plan.operations;
  const facts: Fact[] = [
    { kind: 'done', id: 'd', at: '2026-11-27T08:00:00.000Z', step: first!.id, copy: 1, minutes: null },
  ];
  const marked = (root: Element) =>
    [...root.querySelectorAll('ol > li')].flatMap((step, i) => (step.hasAttribute('data-done') ? [i + 1] : []));
  const { text } = await openBoardAt(() => <BoardSteps operations={plan.operations} />, { ...input, facts });
  expect(marked(document.body)).toEqual([1]);
  expect(text().match(/✓ done/g)).toHaveLength(1);
  const { container } = show(
    <StepList operations={plan.operations} done={new Set(plan.operations.map((o) => o.id))} forPaper />,
  );
  expect(marked(container)).toHaveLength(plan.operations.length);
});
