import { shareStart } from '#core/trim/trimLayout.ts';
import { bitsAlong } from '#core/board/accents.ts';
import type { StripOperation } from '#core/board/recipe.ts';
import type { Board } from '#core/board/board.ts';
import type { Plan } from '#core/plan/plan.ts';
import type { Species } from '#core/wood/species.ts';
import classes from './StackBits.module.css';

interface AccentBitsProps {
  board: Board;
  plan: Plan;
  species: readonly Species[];
  rows: readonly { strip: StripOperation; y: number }[];
  /** Where the drawn panel begins, pixels; how long it is, mm; pixels per mm. */
  x0: number;
  length: number;
  scale: number;
}

/** Bits along the accents of a panel, each of its wood: of a panel for several boards those of the first. */
export function AccentBits({ board, plan, species: known, rows, x0, length, scale }: AccentBitsProps) {
  if (plan.stacks.length === 0) return null;
  const start = shareStart(board, plan.allowances, plan.trim);
  const within = (x: number) => Math.min(length, Math.max(0, x - start));
  return (
    <g pointerEvents="none" aria-hidden="true">
      {rows.flatMap(({ strip, y }) => {
        const stack = plan.stacks.find((s) => s.stack.operation.id === strip.stack)?.stack;
        return stack
          ? bitsAlong(stack, strip).map(({ species, from, to }, i) => (
              <rect
                key={`${strip.id}/${i}`}
                className={classes.bit}
                x={x0 + within(from) * scale}
                y={y}
                width={(within(to) - within(from)) * scale}
                height={strip.width * scale}
                fill={known.find((s) => s.code === species)?.colour ?? 'var(--line)'}
              />
            ))
          : [];
      })}
    </g>
  );
}
