import { act, fireEvent, screen } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { plainPiece } from '#core/plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import type { Defect } from '#core/stock/defect.ts';
import { show } from '../../shownForTests.tsx';
import { FaceEditor } from './FaceEditor.tsx';

const KNOT: Defect = {
  id: 'k',
  kind: 'knot',
  face: 'up',
  from: 100,
  across: 50,
  length: 40,
  width: 20,
  treatment: 'cut',
};
const at = (clientX: number, clientY: number) => ({ pointerId: 1, button: 0, clientX, clientY });

/** The upper face of a piece of 1000 x 120 mm at a pixel per mm. */
function open(defects: Defect[] = []) {
  let now = defects;
  const onChoose = vi.fn();
  show(
    <FaceEditor
      piece={plainPiece({ length: 1000, width: 120, defects })}
      species={undefined}
      shop={DEFAULT_SHOP}
      face="up"
      scale={1}
      kind="knot"
      chosen={null}
      onChoose={onChoose}
      onChange={(edit) => (now = edit(now))}
      newId={() => 'new'}
    />,
  );
  const face = screen.getByRole('group', { name: 'Upper face' });
  /** At once, as on a machine that is too slow to draw in between. */
  const drag = (target: Element, [x, y]: [number, number], [dx, dy]: [number, number]) =>
    act(() => {
      fireEvent.pointerDown(target, at(x, y));
      fireEvent.pointerMove(face, at(x + dx, y + dy));
      fireEvent.pointerUp(face, at(x + dx, y + dy));
    });
  return { face, drag, onChoose, defects: () => now };
}

it('a place is as large as it was drawn, and is the chosen one', () => {
  const { face, drag, defects, onChoose } = open();
  drag(face, [201, 60], [80, 25]);
  expect(defects()).toMatchObject([{ id: 'new', from: 200, length: 80, width: 25 }]);
  expect(onChoose).toHaveBeenLastCalledWith('new');
});

it('a press on bare wood adds nothing and chooses none', () => {
  const { face, drag, defects, onChoose } = open();
  drag(face, [201, 60], [1, 1]);
  expect(defects()).toEqual([]);
  expect(onChoose).toHaveBeenLastCalledWith(null);
});

it('a place that is there is moved, and stays on the face', () => {
  const { drag, defects } = open([KNOT]);
  const place = screen.getByRole('button', { name: /knot/i });
  drag(place, [110, 70], [-400, 10]);
  expect(defects()).toMatchObject([{ id: 'k', from: 0, across: 60, length: 40, width: 20 }]);
});
