import { nth } from '#core/lists/there.ts';
import { stripTops, type Board } from '#core/board/board.ts';
import type { Blank, CutPlan } from '#core/cutting/cutPlan.ts';
import type { Species } from '#core/wood/species.ts';
import classes from './cuts.module.css';
import { cutStripsOf, stripsOf } from '#core/board/recipe.ts';

interface StripBarProps {
  plan: CutPlan;
  /** What is cut already. */
  done: readonly Blank[];
  board: Board;
  /** The board's key in the plan. */
  boardKey: string;
  species: readonly Species[];
  width: number;
  lit: string | null;
  onLight(key: string | null): void;
}

const HEIGHT = 34;
const APART_MM = 16;

/** The panel's strips in order, to scale across it: pointing at one shows where it is cut, and the other way round. */
export function StripBar({ plan, done, board, boardKey, species, width, lit, onLight }: StripBarProps) {
  const strips = cutStripsOf(board);
  const inPanel = stripsOf(board).length;
  // What is put in later stands apart.
  const apart = (i: number) => (i < inPanel ? 0 : APART_MM);
  const total = strips.reduce((sum, s) => sum + s.width, 0) + apart(strips.length - 1);
  const scale = Math.min(2.2, Math.max(0.2, (width - 2) / Math.max(1, total)));
  const onBench = new Set(done.flatMap((b) => b.strips.map((s) => s.demand.stripId)));
  const met = new Map(
    [...plan.blanks, ...done].flatMap((b) =>
      b.strips
        .filter((s) => s.demand.board === boardKey && s.demand.spare === 0)
        .map((s) => [s.demand.stripId, b] as const),
    ),
  );
  const [, litStrip] = lit?.startsWith(`${boardKey}/`) ? lit.split('/') : [];
  const tops = stripTops(strips);
  return (
    <svg width={total * scale + 2} height={HEIGHT + 2} role="group" aria-label="Strips of the board in order">
      {strips.map((strip, i) => {
        const x = 1 + (nth(tops, i) + apart(i)) * scale;
        const w = strip.width * scale;
        // An accent is made of bits of other strips.
        const ofBits = strip.stack !== null;
        const found = ofBits || met.has(strip.id);
        return (
          <g
            key={strip.id}
            className={classes.cell}
            data-lit={litStrip === strip.id || undefined}
            data-missing={found ? undefined : true}
            onPointerEnter={() => onLight(`${boardKey}/${strip.id}`)}
            onPointerLeave={() => onLight(null)}
          >
            <title>{`Strip ${i + 1}${ofBits ? ', of bits' : found ? (onBench.has(strip.id) ? ', cut' : '') : ', not in the plan'}`}</title>
            <rect
              x={x}
              y={1}
              width={w}
              height={HEIGHT}
              fill={found ? (species.find((s) => s.code === strip.species)?.colour ?? '#b9bec4') : 'none'}
            />
            {w > 12 && (
              <text x={x + w / 2} y={HEIGHT / 2 + 1} textAnchor="middle" dominantBaseline="central">
                {i + 1}
                {onBench.has(strip.id) && w > 24 ? ' ✓' : ''}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}
