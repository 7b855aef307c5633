import { nth } from '#core/lists/there.ts';
import { endSpare } from '#core/board/allowances.ts';
import { stripTops } from '#core/board/board.ts';
import { grainArrow } from '#core/bodies/stripBody.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { AccentBits } from '../../drawing/AccentBits.tsx';
import { DimensionLine } from '../../drawing/DimensionLine.tsx';
import { GrainArrow } from '../../drawing/GrainArrow.tsx';
import { fitScale } from '../../drawing/scale.ts';
import { Wood } from '../../drawing/Wood.tsx';
import { LengthTspans } from '../../quantities/Length.tsx';
import classes from './SheetDrawing.module.css';
import { stripsOf } from '#core/board/recipe.ts';

/** The drawing's own units; the page scales it to its width. */
const WIDTH = 720;
const ROOM = { left: 96, right: 8, top: 26, bottom: 8, gap: 26, height: 330 };
/** Pictures of wood are painted finer for paper. */
const PRINT_DENSITY = 2;
/** A row lower than this holds its number but no width. */
const LEAST_ROW = 11;

interface SheetDrawingProps {
  /** With the marks of the edges for jointing, and of strips that are bowed. */
  marks?: boolean;
}

/** The panel with numbered strips, grain arrows and the triangle across them, as it is laid on the bench. */
export function SheetDrawing({ marks = false }: SheetDrawingProps) {
  const { board: whole, plan, input, numbersFrom = 0 } = useSettledBoard();
  const first = plan.again ?? plan.frame ?? plan.back;
  const board = first?.board ?? whole;
  const { roughLength, glueThickness } = plan.allowances;
  const { panelWidth } = plan;
  // Staggered strips reach further than the longest of them.
  const ahead = plan.recut?.panel.stagger ? plan.recut.offsets : [];
  const spread = Math.max(0, ...ahead);
  const scale = fitScale(
    [roughLength + spread + glueThickness, panelWidth],
    [WIDTH - ROOM.left - ROOM.right - ROOM.gap, ROOM.height],
    2,
  );
  const [x0, y0] = [ROOM.left, ROOM.top];
  const [w, h] = [roughLength * scale, panelWidth * scale];
  const endX = x0 + w + spread * scale + ROOM.gap;
  const trim = (first?.trim.far ?? plan.worked.shift) * scale;
  const endTrim = endSpare(board.length, { roughLength }) * scale;
  const tops = stripTops(stripsOf(board));

  const fold = plan.shop.schools.edgeMarks === 'fold';
  return (
    <>
      <svg
        className={classes.drawing}
        viewBox={`0 0 ${WIDTH} ${y0 + h + ROOM.bottom}`}
        role="img"
        aria-label="The panel with numbered strips, to scale"
      >
        <DimensionLine from={[x0 + endTrim, y0 - 8]} to={[x0 + w - endTrim, y0 - 8]} mm={board.length} />
        <DimensionLine
          from={[18, y0 + trim]}
          to={[18, y0 + h - trim]}
          mm={plan.again?.trueWidth ?? (plan.frame?.fields ?? plan.back?.tops ?? plan).ladders.width.reached}
        />
        {stripsOf(board).map((strip, i) => {
          const y = y0 + nth(tops, i) * scale;
          const x = x0 + (ahead[i] ?? 0) * scale;
          const height = strip.width * scale;
          const shared = {
            scale,
            species: input.species.find((s) => s.code === strip.species),
            body: nth(plan.bodies, i),
            stripId: strip.id,
            density: PRINT_DENSITY,
          };
          return (
            <g key={strip.id}>
              <g className={classes.wood}>
                <Wood {...shared} x={x} y={y} side="top" />
                <Wood {...shared} x={endX} y={y} side="farEnd" />
              </g>
              <rect className={classes.edge} x={x} y={y} width={w} height={height} />
              <rect className={classes.edge} x={endX} y={y} width={glueThickness * scale} height={height} />
              {height >= 8 && (
                <GrainArrow
                  x={x + w - Math.max(0, endTrim) - 26}
                  y={y + height / 2}
                  size={32}
                  reversed={!grainArrow(strip, plan.bodies[i]).forward}
                />
              )}
              <text
                className={classes.number}
                x={x + Math.max(0, endTrim) + 6}
                y={y + height / 2}
                dominantBaseline="central"
                fontSize={Math.min(13, Math.max(6, height - 1))}
              >
                {numbersFrom + i + 1}
              </text>
              {marks && height >= LEAST_ROW && (
                <EdgeMarks
                  index={i}
                  last={stripsOf(board).length - 1}
                  x={x + w * 0.22}
                  y={y}
                  height={height}
                  fold={plan.shop.schools.edgeMarks === 'fold'}
                />
              )}
              {marks && (plan.bodies[i]?.piece?.form?.bow ?? 0) > 0 && height >= LEAST_ROW && (
                <path
                  className={classes.bow}
                  d={`M${x + w * 0.74} ${y + height * 0.62}q${w * 0.05} ${-height * 0.4} ${w * 0.1} 0`}
                />
              )}
              {height >= LEAST_ROW && (
                <text
                  className={classes.width}
                  x={x0 - 8}
                  y={y + height / 2}
                  dominantBaseline="central"
                  textAnchor="end"
                >
                  <LengthTspans mm={strip.width} />
                </text>
              )}
            </g>
          );
        })}
        <AccentBits
          board={board}
          plan={plan}
          species={input.species}
          rows={stripsOf(board).map((strip, i) => ({ strip, y: y0 + nth(tops, i) * scale }))}
          x0={x0}
          length={roughLength}
          scale={scale}
        />
        {spread === 0 && (
          <rect
            className={classes.finished}
            x={x0 + endTrim}
            y={y0 + trim}
            width={board.length * scale}
            height={Math.max(0, h - 2 * trim)}
          />
        )}
        <path
          className={classes.triangle}
          d={`M${x0 + (w + spread * scale) * 0.34} ${y0 + h - 6}L${x0 + (w + spread * scale) / 2} ${y0 + 6}L${x0 + (w + spread * scale) * 0.66} ${y0 + h - 6}z`}
        />
      </svg>
      {marks && (
        <p className={classes.legend}>
          Show side up.{' '}
          {fold
            ? 'Edges with one letter are folded together like a book and jointed as one: their angles add up to flat.'
            : 'Edges marked “in” go with the marked face to the fence, “out” with it away: a fence that is a little off 90° leans one edge as much as it leans the other back, and the panel stays flat.'}{' '}
          A curved line: the piece is bowed; let all bows curve the same way.
        </p>
      )}
    </>
  );
}

/** What is pencilled along the two glue edges of a strip. */
function EdgeMarks({
  index,
  last,
  x,
  y,
  height,
  fold,
}: {
  index: number;
  last: number;
  x: number;
  y: number;
  height: number;
  fold: boolean;
}) {
  const size = Math.min(11, height * 0.42);
  // Each joint has an edge above it and one below; alternate strips turn the other face to the fence.
  const word = (joint: number) => (fold ? String.fromCharCode(97 + (joint % 26)) : index % 2 === 0 ? 'in' : 'out');
  return (
    <g className={classes.edgeMark} fontSize={size}>
      {index > 0 && (
        <text x={x} y={y + size * 0.9}>
          {word(index - 1)}
        </text>
      )}
      {index < last && (
        <text x={x} y={y + height - size * 0.2}>
          {word(index)}
        </text>
      )}
    </g>
  );
}
