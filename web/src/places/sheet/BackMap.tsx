import type { BackPlan } from '#core/plan/plan.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { Length } from '../../quantities/Length.tsx';
import { FaceMap } from './FaceMap.tsx';

/** The back from below, and how it is laid. */
export function BackMap({ back }: { back: BackPlan }) {
  const { plan } = useSettledBoard();
  const numbers = back.strips.map((s) => s.number);
  return (
    plan.wood && (
      <FaceMap
        title="Back"
        label={`The back of ${numbers.length} strips from below, to scale`}
        thing={plan.wood.board}
        side="under"
        height={200}
      >
        <li>
          Strips {numbers[0]} to {numbers.at(-1)} side by side, lying {back.operation.runs} the board, made flat to{' '}
          <Length mm={back.thickness} />
        </li>
        <li>
          {back.operation.runs === 'along'
            ? `Strip ${numbers[0]} at the far edge`
            : `Strip ${numbers[0]} at the right end, seen from above`}
        </li>
      </FaceMap>
    )
  );
}
