import { accentsGiven, depthOf } from '#core/board/accents.ts';
import { type Stack } from '#core/board/stack.ts';
import { formatLength } from '#core/units/formatLength.ts';
import { useOpenBoard, useSettledBoard } from '../../../data/openBoard.tsx';
import { FaceCells } from '../../../drawing/FaceWood.tsx';
import { fitScale, scaleWords } from '../../../drawing/scale.ts';
import { useStripSpecies } from '../../../drawing/useStripSpecies.ts';
import { useDisplay } from '../../../quantities/display.tsx';
import classes from './recut.module.css';

/** Less room than this shows nothing, pixels. */
const LEAST = 90;
/** Share of the width that the section takes; the board has the rest. */
const SHARE = 0.42;

interface StackSectionProps {
  stack: Stack;
  x: number;
  y: number;
  width: number;
  height: number;
}

/** The end of a stack with the cuts of the saw, larger, and beside it the board that its accents lie in. */
export function StackSection({ stack, x, y, width, height }: StackSectionProps) {
  const { board } = useOpenBoard();
  const { plan, input } = useSettledBoard();
  const { display } = useDisplay();
  const species = useStripSpecies(board, input.species);
  if (height < LEAST) return null;
  const { depth, flatten, spares, gap, layering, sticks } = stack;
  const accents = accentsGiven(stack);
  const high = plan.allowances.glueThickness;
  const scale = fitScale([depth, high], [width * SHARE - 40, height], 6);
  const last = accents.at(-1);
  const behind = last ? depthOf(stack, last.strip.id) + last.strip.width + gap : 0;
  const layers = [
    ...accents.map((a) => ({
      key: a.strip.id,
      at: depthOf(stack, a.strip.id),
      wide: a.strip.width,
      name: String(a.number),
    })),
    ...Array.from({ length: spares }, (_, i) => {
      const wide = accents[0]?.strip.width ?? 0;
      return { key: `spare ${i}`, at: behind + i * (wide + gap), wide, name: 'spare' };
    }),
  ];
  const face = plan.wood?.board;
  const [l, w] = face?.size ?? [0, 0];
  const faceX = width * SHARE + 20;
  const faceScale = face ? fitScale([l, w], [width - faceX, height], 2) : 0;
  return (
    <>
      <g transform={`translate(${x} ${y})`}>
        <rect
          width={depth * scale}
          height={high * scale}
          fill={species.get(sticks[0]?.strip.id ?? '')?.colour ?? 'var(--line)'}
          className={classes.small}
        />
        {layers.map(({ key, at, wide, name }) => (
          <g key={key}>
            <rect className={classes.layer} x={(flatten / 2 + at) * scale} width={wide * scale} height={high * scale} />
            <text
              className={classes.number}
              x={(flatten / 2 + at + wide / 2) * scale}
              y={(high * scale) / 2}
              textAnchor="middle"
              dominantBaseline="central"
              transform={
                name === 'spare'
                  ? `rotate(-90 ${(flatten / 2 + at + wide / 2) * scale} ${(high * scale) / 2})`
                  : undefined
              }
            >
              {name}
            </text>
          </g>
        ))}
        <text className={classes.caption} y={high * scale + 18}>
          {scaleWords(scale)}, its end: kerf {formatLength(layering.kerf, display)},{' '}
          {formatLength(layering.clean, display)} off each face
        </text>
      </g>
      {face && (
        <g transform={`translate(${x + faceX} ${y})`}>
          <FaceCells thing={face} scale={faceScale} species={species} />
          <rect className={classes.outline} width={l * faceScale} height={w * faceScale} />
          <text className={classes.caption} y={w * faceScale + 18}>
            The board
          </text>
        </g>
      )}
    </>
  );
}
