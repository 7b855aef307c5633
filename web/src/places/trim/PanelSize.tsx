import { nanoid } from 'nanoid';
import { useState } from 'react';
import { MOST_SPOTS } from '#core/facts/factsThatHold.ts';
import type { Spot } from '#core/facts/fact.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { OtherBoards } from './OtherBoards.tsx';
import { SpotList } from './SpotList.tsx';
import { SquareCheck } from './SquareCheck.tsx';
import { TrimDrawing } from './TrimDrawing.tsx';
import { useMade } from './useMade.ts';

/** The panel with what comes out of it, its bad places, and whether the boards came out square and flat. */
export function PanelSize() {
  const [spot, setSpot] = useState<string | null>(null);
  const { plan } = useSettledBoard();
  const { made, noteLength, noteSpot } = useMade();
  const mark = (place: Pick<Spot, 'x' | 'y' | 'length' | 'width'>) => {
    if (made.spots.length >= MOST_SPOTS) return;
    const id = nanoid(10);
    // A place can be bad only on a panel that is there: from now on it is as long as it is.
    if (made.panelLength === null && !plan.lastly) noteLength(Math.round(plan.trim.length * 10) / 10);
    noteSpot({ id, ...place, what: 'Gap' });
    setSpot(id);
  };
  return (
    <>
      <section>
        <h2>
          {plan.back ? 'The backed board' : plan.frame ? 'The framed board' : plan.again ? 'The block' : 'The panel'}
        </h2>
        <TrimDrawing chosen={spot} onChoose={setSpot} onMark={mark} />
        <SpotList chosen={spot} onChoose={setSpot} onMark={mark} />
        {!plan.lastly && <OtherBoards />}
      </section>
      <section>
        <h2>Is it square and flat?</h2>
        <SquareCheck />
      </section>
    </>
  );
}
