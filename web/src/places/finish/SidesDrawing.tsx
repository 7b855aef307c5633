import type { KeyboardEvent } from 'react';
import type { BoardSide } from '#core/facts/fact.ts';
import type { Sanded, SidePlan } from '#core/finish/sanding.ts';
import { useDisplay } from '../../quantities/display.tsx';
import { SIDE_WORDS } from '../bench/FactWords.tsx';
import { fineDepth } from './fineDepth.ts';
import classes from './FinishPlace.module.css';

interface SidesDrawingProps {
  sides: readonly SidePlan[];
  /** Finished size, mm. */
  size: { length: number; width: number; thickness: number };
  shown: Sanded;
  /** Where the deepest place of a side lies, from its left and far corner as it is drawn, mm. */
  spots: readonly { side: BoardSide; x: number; y: number }[];
  /** Pressing a side marks its deepest place instead of showing its papers. */
  marking: boolean;
  onMark(side: BoardSide, x: number, y: number): void;
  onShow(side: BoardSide): void;
}

const ROOM = { width: 720, gap: 5, rim: 8, label: 13 };
/** A side is drawn at least so wide, pixels, that it can be pressed. */
const LEAST = 16;
/** Words stand so far beneath a mark in the middle, pixels. */
const BESIDE = 26;

/** The board unfolded to scale: the show side with its edges and ends around it, the underside beside. Each says how deep its worst place is. */
export function SidesDrawing({
  sides,
  size: { length, width, thickness },
  shown,
  spots,
  marking,
  onMark,
  onShow,
}: SidesDrawingProps) {
  const { display } = useDisplay();
  const scale = (ROOM.width - 2 * ROOM.rim - 4 * ROOM.gap) / (2 * length + 2 * thickness);
  const [l, w] = [length * scale, width * scale];
  const t = Math.max(LEAST, thickness * scale);
  const left = ROOM.rim + t + ROOM.gap;
  const top = ROOM.rim + t + ROOM.gap;
  const right = left + l + ROOM.gap + t + 2 * ROOM.gap;
  const places: Record<BoardSide, [number, number, number, number]> = {
    top: [left, top, l, w],
    far: [left, ROOM.rim, l, t],
    near: [left, top + w + ROOM.gap, l, t],
    left: [ROOM.rim, top, t, w],
    right: [left + l + ROOM.gap, top, t, w],
    bottom: [right, top, l, w],
  };
  const height = top + w + ROOM.gap + t + ROOM.rim;
  const deepest = Math.max(...sides.map((s) => s.deepest));
  return (
    <svg
      className={classes.net}
      viewBox={`0 0 ${right + l + ROOM.rim} ${height}`}
      role="group"
      aria-label="The board unfolded"
    >
      {sides.map(({ side, deepest: depth, pit, run }) => {
        // Edges and grooves are on these sides, and have no place of their own.
        if (side === 'edges' || side === 'groove') return null;
        const [x, y, wide, high] = places[side];
        const upright = side === 'left' || side === 'right';
        const isEdge = side === 'far' || side === 'near';
        const spot = spots.find((s) => s.side === side);
        const reach = { along: upright ? thickness : length, down: isEdge ? thickness : width };
        const [mx, my] = [x + wide / 2, y + high / 2];
        const said = `${SIDE_WORDS[side]}: ${fineDepth(depth, display)} deep${pit === null ? '' : ', a pit'}, papers ${run.steps.map((s) => s.grit).join(', ')}`;
        const press = (event: KeyboardEvent) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          if (!marking) return onShow(side);
          // By keyboard it is marked in the middle; its depth is typed below.
          onMark(side, reach.along / 2, reach.down / 2);
        };
        return (
          <g
            key={side}
            role="button"
            tabIndex={0}
            aria-label={said}
            aria-pressed={side === shown}
            onClick={(event) => {
              if (!marking) return onShow(side);
              const drawn = event.currentTarget.querySelector('rect')?.getBoundingClientRect();
              if (!drawn) return;
              const of = (at: number, from: number, across: number) => Math.min(1, Math.max(0, (at - from) / across));
              const [along, down] = [
                of(event.clientX, drawn.left, drawn.width),
                of(event.clientY, drawn.top, drawn.height),
              ];
              onMark(side, along * reach.along, down * reach.down);
            }}
            onKeyDown={press}
            data-narrow={(side !== 'top' && side !== 'bottom') || undefined}
            data-shown={side === shown || undefined}
            data-pit={pit !== null || undefined}
          >
            <title>{said}</title>
            <rect
              x={x}
              y={y}
              width={wide}
              height={high}
              data-marking={marking || undefined}
              style={{ fillOpacity: 0.25 + (0.6 * depth) / deepest }}
            />
            <text
              x={mx}
              y={spot && pit !== null && Math.abs(spot.y / reach.down - 0.5) < 0.15 ? my + BESIDE : my}
              dominantBaseline="central"
              textAnchor="middle"
              transform={upright ? `rotate(-90 ${mx} ${my})` : undefined}
              fontSize={side === 'top' || side === 'bottom' ? 16 : ROOM.label}
            >
              {side === 'top' || side === 'bottom' ? `${SIDE_WORDS[side]}, ` : ''}
              {fineDepth(depth, display)}
            </text>
            {spot && pit !== null && (
              <circle cx={x + (spot.x / reach.along) * wide} cy={y + (spot.y / reach.down) * high} r={6} />
            )}
          </g>
        );
      })}
    </svg>
  );
}
