import { act, fireEvent, render } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { SpotMarking } from './SpotMarking.tsx';

/** A panel at two pixels per mm whose corner is the page's. */
function open() {
  const onMark = vi.fn();
  const { container } = render(
    <svg>
      <SpotMarking
        panel={{ length: 300, width: 200 }}
        scale={2}
        place={({ clientX, clientY }) => ({ x: clientX / 2, y: clientY / 2 })}
        onMark={onMark}
      />
    </svg>,
  );
  const draw = (from: [number, number], to: [number, number], end: 'pointerUp' | 'pointerCancel' = 'pointerUp') => {
    const rect = container.querySelector('rect')!;
    const at = ([clientX, clientY]: [number, number]) => ({
      pointerId: 1,
      button: 0,
      pointerType: 'mouse',
      clientX,
      clientY,
    });
    fireEvent.pointerDown(rect, at(from));
    // At once, as on a machine that is too slow to draw in between.
    act(() => {
      fireEvent.pointerMove(rect, at(to));
      fireEvent[end](rect, at(to));
    });
  };
  return { draw, onMark };
}

it('a bad place reaches to where the pointer let go, from whichever corner, and never off the panel', () => {
  const { draw, onMark } = open();
  draw([40, 20], [100, 60]);
  draw([100, 60], [40, 20]);
  draw([500, 380], [900, 900]);
  expect(onMark.mock.calls).toEqual([
    [{ x: 20, y: 10, length: 30, width: 20 }],
    [{ x: 20, y: 10, length: 30, width: 20 }],
    [{ x: 250, y: 190, length: 50, width: 10 }],
  ]);
});

it('a click, a hair line and what is broken off mark nothing', () => {
  const { draw, onMark } = open();
  draw([40, 20], [40, 20]);
  draw([40, 20], [200, 24]);
  draw([40, 20], [200, 100], 'pointerCancel');
  expect(onMark).not.toHaveBeenCalled();
});
