import { nth } from '#core/lists/there.ts';
import { CLAMP_BAR_MM } from '#core/gluing/clamping.ts';
import type { GlueUp } from '#core/gluing/glueUps.ts';
import { stripsOf } from '#core/board/recipe.ts';
import { stripTops } from '#core/board/board.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { DimensionLine } from '../../drawing/DimensionLine.tsx';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { Measured } from '../../quantities/Measured.tsx';
import classes from './ClampDrawing.module.css';

const WIDTH = 640;
const ROOM = { left: 54, right: 14, top: 34, bottom: 20, height: 200 };
/** A pad, and how far a clamp's head stands beyond it; the bars run clear of the wood by so much, mm. */
const PAD_MM = 13;
const HEAD_MM = 26;
const CLEAR_MM = 12;

/** Bits end to end in their clamps, from the side, to scale: the bars run along them, above and below. */
export function StackClamps({ glueUp }: { glueUp: GlueUp }) {
  const { board, plan, input } = useSettledBoard();
  const bits = stripsOf(board).slice(glueUp.firstStrip - 1, glueUp.lastStrip);
  const at = stripTops(bits);
  const high = plan.allowances.glueThickness;
  const out = PAD_MM + HEAD_MM;
  const bar = CLAMP_BAR_MM / 2;
  const tall = high + 2 * (CLEAR_MM + bar);
  const scale = fitScale([glueUp.width + 2 * out, tall], [WIDTH - ROOM.left - ROOM.right, ROOM.height], 2);
  const [x0, y0] = [ROOM.left + out * scale, ROOM.top + (CLEAR_MM + bar) * scale];
  const [w, h] = [glueUp.width * scale, high * scale];
  const { clamps } = glueUp;
  const sides = new Set(clamps.placed.map((c) => c.side));
  return (
    <figure className={classes.figure}>
      <svg
        viewBox={`0 0 ${WIDTH} ${ROOM.top + tall * scale + ROOM.bottom}`}
        role="img"
        className={classes.drawing}
        aria-label={`${bits.length} bits end to end under ${clamps.placed.length} clamps along them`}
      >
        {bits.map((bit, i) => (
          <g key={bit.id}>
            <rect
              className={classes.strip}
              x={x0 + nth(at, i) * scale}
              y={y0}
              width={bit.width * scale}
              height={h}
              fill={input.species.find((s) => s.code === bit.species)?.colour ?? 'var(--line)'}
            />
            {bit.width * scale > 16 && (
              <text
                className={classes.number}
                x={x0 + (nth(at, i) + bit.width / 2) * scale}
                y={y0 + h / 2}
                textAnchor="middle"
                dominantBaseline="central"
              >
                {glueUp.firstStrip + i}
              </text>
            )}
          </g>
        ))}
        <g className={classes.clamp}>
          {[x0 - PAD_MM * scale, x0 + w].map((x) => (
            <rect key={x} className={classes.pad} x={x} y={y0} width={PAD_MM * scale} height={h} />
          ))}
          {[...sides].map((side) => {
            const y = side === 'above' ? y0 - (CLEAR_MM + bar) * scale : y0 + h + CLEAR_MM * scale;
            // The jaw reaches from the bar to the middle of the wood.
            const [top, bottom] = side === 'above' ? [y, y0 + h / 2] : [y0 + h / 2, y + bar * scale];
            return (
              <g key={side}>
                <rect
                  className={classes.bar}
                  x={x0 - out * scale}
                  y={y}
                  width={w + 2 * out * scale}
                  height={bar * scale}
                />
                {[x0 - out * scale, x0 + w + PAD_MM * scale].map((x) => (
                  <rect key={x} className={classes.head} x={x} y={top} width={HEAD_MM * scale} height={bottom - top} />
                ))}
              </g>
            );
          })}
        </g>
        <DimensionLine from={[x0, 16]} to={[x0 + w, 16]} mm={glueUp.width} />
        <DimensionLine from={[20, y0]} to={[20, y0 + h]} mm={high} />
      </svg>
      <figcaption>
        {scaleWords(scale)}, from the side.{' '}
        {clamps.placed.length === 0 && 'No clamp of the shop is long enough for it. '}
        Hand tight: joints so small want little, and starve under the whole force of a clamp.{' '}
        <Measured quantity="amount" value={Math.ceil(glueUp.grams)} /> of glue.
      </figcaption>
    </figure>
  );
}
