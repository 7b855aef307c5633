import { firstOf, nth } from '#core/lists/there.ts';
import { CAUL_MM, CLAMP_BAR_MM } from '#core/gluing/clamping.ts';
import type { GlueUp } from '#core/gluing/glueUps.ts';
import { stripTops } from '#core/board/board.ts';
import { useId } from 'react';
import { useOpenBoard, useSettledBoard } from '../../data/openBoard.tsx';
import { FaceCells } from '../../drawing/FaceWood.tsx';
import { useStripSpecies } from '../../drawing/useStripSpecies.ts';
import { glueOrder } from '#core/plan/blocks.ts';
import type { Plan } from '#core/plan/plan.ts';
import { useGluedStage } from './gluedWords.ts';
import { DimensionLine } from '../../drawing/DimensionLine.tsx';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { Length } from '../../quantities/Length.tsx';
import { Measured } from '../../quantities/Measured.tsx';
import classes from './ClampDrawing.module.css';
import { stripsOf } from '#core/board/recipe.ts';

const WIDTH = 640;
const ROOM = { left: 54, right: 14, top: 34, bottom: 34, height: 250 };
/** How far a clamp's head stands out beyond the pad, and the pad itself, mm. */
const HEAD_MM = 26;
const PAD_MM = 13;

/** A glue-up from above, to scale: joints, clamps below and above, pads and cauls where they stand. Places come from the core, which lets none of them meet. */
export function ClampDrawing({ glueUp }: { glueUp: GlueUp }) {
  const { board, plan, input, numbersFrom = 0 } = useSettledBoard();
  const { length } = firstOf(plan.allowances.panels);
  const strips = stripsOf(board).slice(glueUp.firstStrip - 1, glueUp.lastStrip);
  const out = PAD_MM + HEAD_MM;
  const scale = fitScale([length, glueUp.width + 2 * out], [WIDTH - ROOM.left - ROOM.right, ROOM.height], 1.6);
  const [x0, y0] = [ROOM.left, ROOM.top + out * scale];
  const [w, h] = [length * scale, glueUp.width * scale];
  const tops = stripTops(strips);
  const { clamps } = glueUp;
  const { whole } = useGluedStage();
  const ofBlock = whole === 'block' ? blockInClamps(plan, glueUp) : null;
  const species = useStripSpecies(useOpenBoard().board, input.species);
  const clip = useId();
  const joints = new Set(glueUp.jointsAt.map((j) => Math.round(j * 100)));
  return (
    <figure className={classes.figure}>
      <svg
        viewBox={`0 0 ${WIDTH} ${y0 + h + out * scale + ROOM.bottom}`}
        role="img"
        className={classes.drawing}
        aria-label={`${clamps.placed.length} clamps, ${clamps.placed.filter((c) => c.side === 'below').length} below and ${clamps.placed.filter((c) => c.side === 'above').length} above, ${clamps.cauls.length} pairs of cauls`}
      >
        <defs>
          <pattern id="caul" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0V6" stroke="var(--ink)" strokeWidth="1" />
          </pattern>
        </defs>
        {clamps.placed
          .filter((c) => c.side === 'below')
          .map((c) => (
            <Clamp key={c.at} x={x0 + c.at * scale} y={y0} h={h} scale={scale} side="below" />
          ))}
        {ofBlock && (
          <>
            <clipPath id={clip}>
              <rect x={x0} y={y0} width={w} height={h} />
            </clipPath>
            <g clipPath={`url(#${clip})`}>
              <g
                transform={`translate(${x0 + ((length - ofBlock.joint) / 2) * scale} ${y0 - ofBlock.before * scale})${ofBlock.turned ? ` matrix(0 1 -1 0 ${ofBlock.joint * scale} 0)` : ''}`}
              >
                <FaceCells thing={ofBlock.block} scale={scale} species={species} />
              </g>
            </g>
          </>
        )}
        {strips.map((strip, i) => {
          const colour = input.species.find((s) => s.code === strip.species)?.colour ?? 'var(--line)';
          const y = y0 + nth(tops, i) * scale;
          return (
            <g key={strip.id}>
              <rect
                x={x0}
                y={y}
                width={w}
                height={strip.width * scale}
                fill={ofBlock ? 'none' : colour}
                className={ofBlock?.slanted ? undefined : classes.strip}
              />
              {i > 0 && !ofBlock?.slanted && (
                <path
                  className={classes.joint}
                  data-glued={joints.has(Math.round(nth(tops, i) * 100)) || undefined}
                  d={`M${x0} ${y}h${w}`}
                />
              )}
              {strip.width * scale > 9 && (
                <text
                  x={x0 + 12}
                  y={y + (strip.width * scale) / 2}
                  dominantBaseline="central"
                  textAnchor="middle"
                  className={classes.number}
                >
                  {numbersFrom + glueUp.firstStrip + i}
                </text>
              )}
            </g>
          );
        })}
        {clamps.cauls.map((at) => (
          <rect
            key={at}
            className={classes.caul}
            x={x0 + (at - CAUL_MM / 2) * scale}
            y={y0 - 8}
            width={CAUL_MM * scale}
            height={h + 16}
            fill="url(#caul)"
          />
        ))}
        {clamps.placed
          .filter((c) => c.side === 'above')
          .map((c) => (
            <Clamp key={c.at} x={x0 + c.at * scale} y={y0} h={h} scale={scale} side="above" />
          ))}
        <DimensionLine from={[x0, ROOM.top - 16]} to={[x0 + w, ROOM.top - 16]} mm={length} />
        <DimensionLine from={[20, y0]} to={[20, y0 + h]} mm={glueUp.width} />
        {clamps.placed.map((c, i) => (
          <text
            key={c.at}
            className={classes.place}
            x={x0 + c.at * scale}
            y={y0 + h + out * scale + 16}
            textAnchor="middle"
          >
            {i + 1}
          </text>
        ))}
      </svg>
      <figcaption>
        {scaleWords(scale)}. Solid bars above, dashed ones below; blocks at the edges are pads; hatched are taped cauls,
        a pair above and below. Clamps at{' '}
        {clamps.placed.map((c, i) => (
          <span key={c.at}>
            {i > 0 && ', '}
            <Length mm={c.at} bare={i < clamps.placed.length - 1} />
          </span>
        ))}{' '}
        from the first end.{' '}
        {clamps.placed.length === 0 ? (
          'No clamp of the shop goes round it.'
        ) : (
          <>
            Pressure <Measured quantity="pressure" value={clamps.pressure} /> of{' '}
            <Measured quantity="pressure" value={clamps.wantedPressure} /> wanted;{' '}
            {clamps.byPressure > clamps.bySpacing
              ? `${clamps.byPressure} clamps for the pressure`
              : `${clamps.bySpacing} clamps for the spacing`}
            .
          </>
        )}{' '}
        <Measured quantity="amount" value={Math.ceil(glueUp.grams)} /> of glue.
      </figcaption>
    </figure>
  );
}

function Clamp({ x, y, h, scale, side }: { x: number; y: number; h: number; scale: number; side: 'above' | 'below' }) {
  const bar = Math.max(3, CLAMP_BAR_MM * 0.5 * scale);
  const head = CLAMP_BAR_MM * scale;
  const pad = PAD_MM * scale;
  const stand = HEAD_MM * scale;
  return (
    <g className={classes.clamp} data-side={side}>
      <rect className={classes.pad} x={x - head * 0.7} y={y - pad} width={head * 1.4} height={pad} />
      <rect className={classes.pad} x={x - head * 0.7} y={y + h} width={head * 1.4} height={pad} />
      <rect className={classes.bar} x={x - bar / 2} y={y - pad - stand} width={bar} height={h + 2 * (pad + stand)} />
      <rect className={classes.head} x={x - head / 2} y={y - pad - stand} width={head} height={stand} />
      <rect className={classes.head} x={x - head / 2} y={y + h + pad} width={head} height={stand} />
    </g>
  );
}

/** The block of a board as it lies in the clamps: its joints along the page. */
function blockInClamps({ again }: Plan, glueUp: GlueUp) {
  if (!again?.glued) return null;
  const skipped = glueUp.firstStrip - 1;
  if (again.how === 'rows')
    return {
      block: again.glued,
      joint: again.rowLength,
      before: skipped * again.row,
      turned: again.last.runs === 'across',
      slanted: false,
    };
  const order = glueOrder(again);
  return {
    block: again.glued,
    joint: again.block.width,
    before: order.slice(0, skipped).reduce((sum, p) => sum + p.along, 0),
    turned: true,
    // Drawn by its cells alone where joints are not level on the page.
    slanted: again.inserts.some((i) => i.angle !== 0),
  };
}
