import { useState } from 'react';
import { MOST_SPOTS, type Spot } from '#core/features/feature.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { OtherBoards } from './OtherBoards.tsx';
import { SpotList } from './SpotList.tsx';
import { SquareCheck } from './SquareCheck.tsx';
import { TrimDrawing } from './TrimDrawing.tsx';
import { freshId, useWorked } from './useWorked.ts';

/** The panel with what comes out of it, its bad places, and whether the boards came out square and flat. */
export function PanelSize() {
  const [spot, setSpot] = useState<string | null>(null);
  const { plan } = useSettledBoard();
  const { worked, change } = useWorked();
  const mark = (place: Pick<Spot, 'x' | 'y' | 'length' | 'width'>) => {
    if (worked.spots.length >= MOST_SPOTS) return;
    const id = freshId(worked.spots, 'spot');
    // A place can be bad only on a panel that is there: from now on it is as long as it is.
    change((w) => ({
      ...w,
      gluedLength: w.gluedLength ?? Math.round(plan.trim.length * 10) / 10,
      spots: [...w.spots, { id, ...place, what: 'Gap' }],
    }));
    setSpot(id);
  };
  return (
    <>
      <section>
        <h2>The panel</h2>
        <TrimDrawing chosen={spot} onChoose={setSpot} onMark={mark} />
        <SpotList chosen={spot} onChoose={setSpot} onMark={mark} />
        <OtherBoards />
      </section>
      <section>
        <h2>Is it square and flat?</h2>
        <SquareCheck />
      </section>
    </>
  );
}
