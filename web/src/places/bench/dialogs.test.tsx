import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import type { Measure } from '#core/bench/measures.ts';
import { firstMishaps } from '#core/bench/mishaps.ts';
import { looksAfter } from '#core/bench/inspection.ts';
import type { Fact } from '#core/facts/fact.ts';
import { makePlan } from '#core/plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { queryClient } from '../../data/queryClient.ts';
import type { Noted } from '../../data/factLine.ts';
import { openBoardAt } from '../../openBoardForTests.tsx';
import { plain, press, show } from '../../shownForTests.tsx';
import { BenchPlace } from './BenchPlace.tsx';
import { InspectCard } from './InspectCard.tsx';
import { MeasureDialog } from './MeasureDialog.tsx';
import { MishapCards } from './MishapCards.tsx';
import { PartTicks } from './PartTicks.tsx';
import { TroubleDialog } from './TroubleDialog.tsx';

const input = planInput(plainBoard(), [plainPiece({ length: 4000 })]);
const { operations } = makePlan(input);
const flatten = operations.find((o) => o.kind === 'flattenPanel')!;
const thickness: Measure = {
  thing: 'panel',
  copy: 1,
  stage: 'flat',
  dimension: 'thickness',
  expected: 30.5,
  before: 32,
  label: 'the panel',
};
const weight: Measure = {
  ...thickness,
  dimension: 'weight',
  stage: 'finished',
  expected: null,
  before: null,
  label: 'the board',
};

const figure = () => screen.getByRole<HTMLInputElement>('textbox');
/** Types on the big keys, one sign after another. */
const typed = (signs: string) => {
  for (const sign of signs) fireEvent.click(screen.getByRole('button', { name: sign === '.' ? 'Point' : sign }));
};
const enter = (text: string) => {
  fireEvent.change(figure(), { target: { value: text } });
  press('Note it');
};

function measuring(measures: readonly Measure[], system: 'metric' | 'inch' = 'metric') {
  vi.stubGlobal('fetch', () => Promise.resolve(Response.json({ last: 0, readings: [] })));
  const noted: [string, number][] = [];
  const closed = vi.fn();
  show(<MeasureDialog measures={measures} onNote={(m, value) => noted.push([m.dimension, value])} onClose={closed} />, {
    system,
  });
  return { noted, closed };
}

it('without wood the bench says before its first step what is missing, and no longer once something was done or the wood is there', async () => {
  const { text } = await openBoardAt(BenchPlace, planInput(plainBoard(), []));
  const before = await screen.findByRole('region', { name: 'Before you begin' });
  expect(plain(before.textContent)).toMatch(/Stop .* strips missing \(number 1.*The rack holds none of this species/);
  expect(text()).toContain('Lay out and mark');
  press('Done, go on');
  await waitFor(() => expect(text()).toContain('Step 2 of'));
  expect(screen.queryByRole('region', { name: 'Before you begin' })).toBeNull();
  cleanup();
  queryClient.clear();
  await openBoardAt(BenchPlace, input);
  expect(await screen.findByRole('heading', { name: /Crosscut/ })).toBeDefined();
  expect(screen.queryByRole('region', { name: 'Before you begin' })).toBeNull();
});

it('a figure typed on the big keys is noted, and the next one asked for', () => {
  const { noted, closed } = measuring([thickness, weight]);
  expect(plain(screen.getByRole('dialog').textContent)).toContain('The plan expects 30.5 mm');
  typed('30.4');
  fireEvent.click(screen.getByRole('button', { name: 'Take the last sign away' }));
  typed('2');
  press('Note it');
  expect(noted).toEqual([['thickness', 30.2]]);
  expect(screen.getByRole('radio', { checked: true }).textContent).toBe('the board, weight');
  enter('2350');
  expect(noted[1]).toEqual(['weight', 2350]);
  expect(closed).toHaveBeenCalledOnce();
});

it.each([
  ['0', 'at least 0.5 mm'],
  ['-3', 'The thickness'],
  ['10 m', 'at most 400 mm'],
  ['thick', 'The thickness'],
  ['', 'The thickness'],
])('%j is refused in a sentence that names the field', (text, why) => {
  const { noted } = measuring([thickness]);
  enter(text);
  expect(noted).toEqual([]);
  expect(plain(screen.getByRole('dialog').textContent)).toContain(why);
  expect(figure().value).toBe(text);
});

it('28,3 is 28.3; an inch in a shop of millimetres is asked back, and taken as it was meant', () => {
  const { noted } = measuring([thickness, { ...thickness, copy: 2 }]);
  enter('28,3');
  expect(noted).toEqual([['thickness', 28.3]]);
  enter('1.2');
  const doubt = screen.getByRole('alert');
  expect(plain(doubt.textContent)).toContain('1.2 mm? That would be right in inches. Was it 30.5 mm?');
  press('Yes, 30.5 mm');
  expect(noted[1]![1]).toBeCloseTo(30.48, 6);
});

it('more than there was before the step is asked back too; who is sure of it is believed', () => {
  const { noted } = measuring([thickness]);
  enter('33');
  expect(plain(screen.getByRole('alert').textContent)).toContain('work takes wood off');
  press('Type it again');
  enter('33');
  press('It is 33 mm');
  expect(noted).toEqual([['thickness', 33]]);
});

it('in inches there are keys for fractions', () => {
  const { noted } = measuring([thickness], 'inch');
  typed('1');
  fireEvent.click(screen.getByRole('button', { name: 'Space' }));
  typed('3');
  fireEvent.click(screen.getByRole('button', { name: 'Fraction bar' }));
  typed('16');
  press('Note it');
  expect(noted[0]![1]).toBeCloseTo(1.1875 * 25.4, 6);
});

it('a reading of an instrument comes into the field; one that cannot be believed says why', async () => {
  const answers = [
    { last: 1, readings: [] },
    { last: 2, readings: [{ id: 2, instrument: 'caliper', value: 1.2, unit: 'in', flat: false }] },
    { last: 3, readings: [{ id: 3, instrument: 'scale', value: 5, unit: 'g', flat: false }] },
  ];
  const asked: string[] = [];
  vi.stubGlobal('fetch', (path: string) => {
    asked.push(path);
    return Promise.resolve(Response.json(answers[Math.min(asked.length, answers.length) - 1]));
  });
  show(<MeasureDialog measures={[thickness]} onNote={() => {}} onClose={() => {}} />);
  await waitFor(() => expect(figure().value).toBe('30.48'), { timeout: 5000 });
  await waitFor(() => expect(screen.getByRole('dialog').textContent).toContain('The scale measures weight'), {
    timeout: 5000,
  });
  expect(asked.slice(0, 2)).toEqual(['/api/readings', '/api/readings?after=1']);
});

it('trouble is said in two presses: which strip, and what is the matter with it', async () => {
  const noted: Noted[] = [];
  await openBoardAt(
    () => (
      <TroubleDialog
        step={flatten}
        copy={1}
        onNote={(fact) => {
          noted.push(fact);
          return true;
        }}
        onClose={() => {}}
      />
    ),
    input,
  );
  await screen.findByRole('dialog');
  fireEvent.change(screen.getByLabelText('Which strip'), { target: { value: 's3' } });
  press('Torn out');
  expect(noted.at(-1)).toEqual({
    kind: 'failed',
    what: 'strip',
    thing: 's3',
    copy: 1,
    why: 'torn out',
    step: 'flattenPanel',
  });
  fireEvent.click(screen.getByRole('radio', { name: 'A joint' }));
  fireEvent.change(screen.getByLabelText('Something else'), { target: { value: 'rocks' } });
  press('Note it');
  expect(noted.at(-1)).toMatchObject({ what: 'glueLine', thing: 'panel', why: 'rocks' });
  fireEvent.click(screen.getByRole('radio', { name: 'A bad place' }));
  fireEvent.change(screen.getByLabelText('From the left end'), { target: { value: '120' } });
  fireEvent.blur(screen.getByLabelText('From the left end'));
  press('Knot');
  expect(noted.at(-1)).toMatchObject({ kind: 'badPlace', spot: { x: 120, y: 0, what: 'Knot' } });
  fireEvent.click(screen.getByRole('radio', { name: 'Ran out of' }));
  press('Glue');
  expect(noted.at(-1)).toEqual({ kind: 'usedUp', what: 'glue', step: 'flattenPanel' });
  fireEvent.click(screen.getByRole('radio', { name: 'Note or picture' }));
  fireEvent.change(screen.getByLabelText('Note'), { target: { value: 'smells  of\nresin' } });
  press('Keep the note');
  expect(noted.at(-1)).toEqual({ kind: 'note', text: 'smells of resin', step: 'flattenPanel' });
});

it('what went otherwise stands there in one sentence, its ways to be pressed, and that it was a slip', () => {
  const facts: Fact[] = [
    { kind: 'failed', id: 'f', at: '2026-11-27T08:00:00.000Z', what: 'strip', thing: 's2', copy: 1, why: 'sprang' },
  ];
  const given = { ...input, facts };
  const taken: string[] = [];
  show(
    <MishapCards
      mishaps={firstMishaps(given, makePlan(given))}
      onDecide={(fact, way) => taken.push(`${fact} ${way.way}`)}
      onTakeBack={(fact) => taken.push(`${fact} back`)}
    />,
  );
  expect(plain(screen.getByRole('region').textContent)).toContain('Strip 2 is no good: sprang.');
  press(/^Leave it out/);
  press(/^That was a slip/);
  expect(taken).toEqual(['f shorten', 'f back']);
});

it('what was just done is looked at: what is not so is noted, what is good goes on', () => {
  const said: string[] = [];
  show(
    <InspectCard
      step={flatten}
      looks={looksAfter('flattenPanel')}
      measures
      onMeasure={() => said.push('measure')}
      onFinding={(look) => said.push(look.finding ?? '')}
      onGood={() => said.push('good')}
    />,
  );
  const notSo = screen.getAllByRole('button', { name: 'Not so' });
  expect(notSo).toHaveLength(2);
  for (const button of notSo) fireEvent.click(button);
  press('Measure it');
  press('All is good');
  expect(said).toEqual(['glueLine', 'badPlace', 'measure', 'good']);
});

it('what is ticked off stays so on this device, of this step and panel alone', () => {
  localStorage.clear();
  const ticks = () => screen.getAllByRole<HTMLInputElement>('checkbox').map((box) => box.checked);
  const first = show(<PartTicks board="b" step={flatten} copy={1} />);
  fireEvent.click(screen.getAllByRole('checkbox')[1]!);
  expect(ticks().slice(0, 2)).toEqual([false, true]);
  first.unmount();
  const again = show(<PartTicks board="b" step={flatten} copy={1} />);
  expect(ticks().slice(0, 2)).toEqual([false, true]);
  again.unmount();
  show(<PartTicks board="b" step={flatten} copy={2} />);
  expect(ticks()).not.toContain(true);
});
