import { fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { edgesSchema, EDGE_NAMES, edgeCutSchema, SIDES, type EdgeCut, type Edges } from '#core/features/edge.ts';
import { featureSchema, type Feature, type FeatureKind } from '#core/features/feature.ts';
import { grooveVolume } from '#core/features/groove.ts';
import { field, plain, said, show, type } from '../../shownForTests.tsx';
import { EdgeFields, type EdgePlace } from './EdgeFields.tsx';
import { FEATURE_FIELDS, newFeature } from './featureFields.ts';
import { FeatureFields } from './FeatureFields.tsx';

const SIZE = { length: 400, width: 260, thickness: 30 };
const KINDS = Object.keys(FEATURE_FIELDS) as FeatureKind[];

/** The fields of a feature that keeps what it is told. */
function Kept({ start, told }: { start: Feature; told(feature: Feature): void }) {
  const [feature, setFeature] = useState(start);
  return (
    <FeatureFields
      feature={feature}
      size={SIZE}
      base={150}
      byHabit={false}
      crossed=""
      onRemove={() => {}}
      onChange={(next) => {
        setFeature(next);
        told(next);
      }}
    />
  );
}

describe.each(KINDS)('the fields of a %s', (kind) => {
  const feature = newFeature(kind, 'f1', SIZE);
  const shown = FEATURE_FIELDS[kind].filter((f) => f.when?.(feature) ?? true);
  const lengths = shown.filter((f) => 'schema' in f);

  it('a new one is a feature of usual size, smaller on a small board, and never none', () => {
    expect(featureSchema.parse(feature)).toEqual(feature);
    for (const size of [SIZE, { length: 120, width: 60, thickness: 12 }, { length: 900, width: 500, thickness: 60 }])
      expect(featureSchema.parse(newFeature(kind, 'f1', size)).kind).toBe(kind);
  });

  it('every length of it is typed in any notation and kept to the last digit', () => {
    const told = vi.fn();
    show(<Kept start={feature} told={told} />);
    for (const f of lengths) {
      told.mockClear();
      type(f.label, '1/2 in');
      const problem = said(f.label);
      // What half an inch is too much or too little for says so, and names itself.
      if (problem !== null) {
        expect(problem.startsWith(f.label)).toBe(true);
        fireEvent.keyDown(field(f.label), { key: 'Escape' });
        continue;
      }
      const changed = told.mock.calls.at(-1)?.[0] as Record<string, number> | undefined;
      // Half an inch already.
      if (!changed) expect((feature as unknown as Record<string, number>)[f.key]).toBeCloseTo(12.7, 6);
      else expect([f.key, changed[f.key]]).toEqual([f.key, 12.7]);
    }
    expect(lengths.length + Number(kind === 'mark')).toBeGreaterThan(2);
  });

  it('no length of it takes words, less than nothing or a board as long as a house', () => {
    const told = vi.fn();
    show(<Kept start={feature} told={told} />);
    for (const f of lengths)
      for (const text of ['deep', '-1', '99999', '']) {
        type(f.label, text);
        expect([f.label, text, said(f.label)?.startsWith(f.label) ?? false]).toEqual([f.label, text, true]);
        fireEvent.keyDown(field(f.label), { key: 'Escape' });
      }
    expect(told).not.toHaveBeenCalled();
  });

  it('every choice of it gives a feature that can be stored', async () => {
    const told = vi.fn();
    show(<Kept start={feature} told={told} />);
    for (const f of shown) {
      if (!('choices' in f)) continue;
      for (const { label } of f.choices) {
        const box = screen.queryByRole('combobox', { name: f.label });
        // Another choice before may have made this one meaningless.
        if (!box) continue;
        fireEvent.click(box);
        const options = await screen.findAllByRole('option', { name: label, hidden: true });
        fireEvent.click(options.at(-1)!);
      }
    }
    for (const [changed] of told.mock.calls) expect(featureSchema.safeParse(changed).success).toBe(true);
  });
});

it('a groove says what it holds and what wood is left beneath', () => {
  const groove = newFeature('groove', 'g', SIZE);
  if (groove.kind !== 'groove') throw new Error('no groove');
  const { container } = show(<Kept start={groove} told={() => {}} />);
  const text = plain(container.textContent);
  expect(text).toContain(`Holds ${Math.round(grooveVolume(groove, SIZE) / 1000)} ml`);
  expect(text).toContain(`${SIZE.thickness - groove.depth} mm of wood beneath`);
});

/** The edges of a board that keep what they are told. */
function KeptEdges({ start, told }: { start: Edges; told(edges: Edges | null): void }) {
  const [edges, setEdges] = useState(start);
  const [place, setPlace] = useState<EdgePlace>('all');
  return (
    <EdgeFields
      edges={edges}
      thickness={30}
      place={place}
      byHabit={false}
      onPlace={setPlace}
      onChange={(next) => {
        if (next) setEdges(next);
        told(next);
      }}
    />
  );
}

const allRound = (cut: EdgeCut): Edges => Object.fromEntries(SIDES.map((s) => [s, { top: cut, bottom: cut }])) as Edges;

describe('the fields of the edges', () => {
  it.each(Object.entries(EDGE_NAMES))(
    'chosen all round, %s is on every side above, and below stays as it was',
    async (kind, name) => {
      const told = vi.fn<(edges: Edges | null) => void>();
      const start = allRound({ kind: 'straight' });
      show(<KeptEdges start={start} told={told} />);
      if (kind === 'straight') return;
      fireEvent.click(screen.getByRole('combobox', { name: 'Above' }));
      fireEvent.click((await screen.findAllByRole('option', { name, hidden: true }))[0]!);
      const edges = edgesSchema.parse(told.mock.calls[0]![0]);
      for (const side of SIDES) {
        expect(edges[side].top.kind).toBe(kind);
        expect(edges[side].bottom).toEqual({ kind: 'straight' });
      }
    },
  );

  it('one side by itself: the other three keep theirs, and all round then says that they differ', () => {
    const told = vi.fn<(edges: Edges | null) => void>();
    show(<KeptEdges start={allRound({ kind: 'chamfer', reach: 3.2, angle: 45 })} told={told} />);
    fireEvent.click(screen.getByRole('radio', { name: 'Right end' }));
    type('In on the face above', '1/4 in');
    const edges = edgesSchema.parse(told.mock.calls[0]![0]);
    expect(edges.right.top).toMatchObject({ reach: 6.35 });
    for (const side of SIDES.filter((s) => s !== 'right')) expect(edges[side].top).toMatchObject({ reach: 3.2 });
    fireEvent.click(screen.getByRole('radio', { name: 'All round' }));
    expect(document.body.textContent).toContain('Sides differ: this is the far edge');
  });

  it('an angle has its limits, a reach its own', () => {
    const told = vi.fn();
    show(<KeptEdges start={allRound({ kind: 'chamfer', reach: 3.2, angle: 45 })} told={told} />);
    type('In on the face above', '-2');
    expect(said('In on the face above')).toMatch(/^In on the face above /);
    const angle = screen.getAllByRole<HTMLInputElement>('textbox').find((i) => i.value.includes('45'))!;
    fireEvent.change(angle, { target: { value: '95' } });
    fireEvent.blur(angle);
    expect(angle.getAttribute('aria-invalid')).toBe('true');
    expect(told).not.toHaveBeenCalled();
    const limits = edgeCutSchema.options[1].shape.angle;
    expect([limits.safeParse(95).success, limits.safeParse(45).success]).toEqual([false, true]);
  });

  it('goes back to what the shop has', () => {
    const told = vi.fn();
    show(<KeptEdges start={allRound({ kind: 'straight' })} told={told} />);
    fireEvent.click(screen.getByRole('button', { name: 'As the shop has it' }));
    expect(told).toHaveBeenCalledWith(null);
  });
});
