import { nth } from '#core/lists/there.ts';
import type { Stack } from '#core/board/stack.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { fitScale } from '../../drawing/scale.ts';
import { StackBits } from '../../drawing/StackBits.tsx';
import { Length } from '../../quantities/Length.tsx';
import classes from './FaceMap.module.css';

/** The drawing's own units; the page scales it to its width. */
const WIDTH = 720;
const ROOM = { left: 8, top: 24, right: 40, bottom: 8 };

/** A stack of bits: which bit comes where, and which accents come out of it. @param number of the stack, null where there is only one */
export function StackMap({ stack, number }: { stack: Stack; number: number | null }) {
  const { input } = useSettledBoard();
  const { glued, depth, sticks, bits, accents, spares, length } = stack;
  const scale = fitScale([glued, depth], [WIDTH - ROOM.left - ROOM.right, 90], 3);
  const name = (k: number) =>
    input.species.find((s) => s.code === nth(sticks, k).strip.species)?.name.toLowerCase() ?? '';
  return (
    <section>
      <h3>Bits{number !== null && `, stack ${number}`}</h3>
      <svg
        className={classes.map}
        viewBox={`0 0 ${WIDTH} ${ROOM.top + depth * scale + ROOM.bottom}`}
        role="img"
        aria-label={`${bits.length} bits end to end, with the accents that they are resawn into, to scale`}
      >
        <g transform={`translate(${ROOM.left} ${ROOM.top})`}>
          <StackBits stack={stack} species={input.species} scale={scale} cuts />
        </g>
      </svg>
      <ul className={classes.turns}>
        {sticks.map((s, k) => (
          <li key={s.strip.id}>
            Strip {s.number}, {name(k)}: {s.count} of <Length mm={s.bit} />
          </li>
        ))}
        <li>
          In turn, <Length mm={glued} /> together, cut off to <Length mm={length} />
        </li>
        <li>
          Resawn into {accents.length === 1 ? 'strip' : 'strips'} {accents.map((a) => a.number).join(', ')}
          {spares > 0 && ` and ${spares} spare`}
        </li>
      </ul>
    </section>
  );
}
