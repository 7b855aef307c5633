import { nth } from '#core/lists/there.ts';
import { accentsGiven, depthOf } from '#core/board/accents.ts';
import { type Stack } from '#core/board/stack.ts';
import type { Species } from '#core/wood/species.ts';
import classes from './StackBits.module.css';

interface StackBitsProps {
  stack: Stack;
  species: readonly Species[];
  /** Pixels per mm. */
  scale: number;
  /** Whether bits are numbered, and the saw cuts drawn in. */
  cuts?: boolean;
}

/** Narrower than this a number has no room, pixels. */
const LEAST_NUMBERED = 18;

/** Bits end to end as they are glued, seen from above, to scale: each of its wood, the accents between the cuts of the saw. */
export function StackBits({ stack, species, scale, cuts = false }: StackBitsProps) {
  const { bits, sticks, depth, glued, length, off, flatten } = stack;
  const colourOf = (k: number) => species.find((s) => s.code === nth(sticks, k).strip.species)?.colour ?? 'var(--line)';
  const accents = accentsGiven(stack);
  return (
    <>
      {bits.map((bit, i) => (
        <rect
          key={i}
          className={classes.bit}
          x={bit.at * scale}
          width={bit.length * scale}
          height={depth * scale}
          fill={colourOf(bit.stick)}
        />
      ))}
      {cuts && (
        <>
          {accents.map(({ strip }) => (
            <rect
              key={strip.id}
              className={classes.accent}
              x={off * scale}
              y={(flatten / 2 + depthOf(stack, strip.id)) * scale}
              width={length * scale}
              height={strip.width * scale}
            />
          ))}
          <text className={classes.number} x={glued * scale + 8} y={-6}>
            {accents.map((a) => a.number).join(', ')}
          </text>
          {bits.map(
            (bit, i) =>
              bit.length * scale >= LEAST_NUMBERED && (
                <text
                  key={i}
                  className={classes.number}
                  x={(bit.at + bit.length / 2) * scale}
                  y={-6}
                  textAnchor="middle"
                >
                  {i + 1}
                </text>
              ),
          )}
        </>
      )}
      <rect className={classes.outline} width={glued * scale} height={depth * scale} />
    </>
  );
}
