import { firstOf, nth } from '#core/lists/there.ts';
import { NARROW_SIDES, sideUp } from '#core/recipe/face.ts';
import type { Triple } from '#core/recipe/motion.ts';
import { endSpare } from '#core/board/allowances.ts';
import { ActionIcon } from '@mantine/core';
import { IconArrowDown, IconArrowLeft, IconArrowRight, IconArrowUp, IconHome } from '@tabler/icons-react';
import {
  useMemo,
  useRef,
  useState,
  type CSSProperties,
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
} from 'react';
import { stripTops } from '#core/board/board.ts';
import type { Side } from '#core/features/edge.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import type { Side as WoodSide } from '../../drawing/wood/woodSide.ts';
import { steadyBody } from '../../drawing/wood/steadyBody.ts';
import { FaceWood } from '../../drawing/FaceWood.tsx';
import { useStripSpecies } from '../../drawing/useStripSpecies.ts';
import { Wood } from '../../drawing/Wood.tsx';
import { WorkedFace } from '../../drawing/WorkedFace.tsx';
import { WorkedSide } from '../../drawing/WorkedSide.tsx';
import classes from './Turntable.module.css';
import { stripsOf } from '#core/board/recipe.ts';

interface TurntableProps {
  width: number;
  height: number;
  oiled: boolean;
}

interface Turn {
  /** Degrees about the lying and about the standing axis. */
  tilt: number;
  spin: number;
}

const HOME: Turn = { tilt: 52, spin: -28 };
const STEP_DEGREES = 10;
/** Degrees a pixel of dragging turns. */
const DRAG_DEGREES = 0.4;
/** Where the light comes from, as a direction towards it: right, down, to the viewer. */
const LIGHT = [-0.35, -0.62, 0.7];

/** The finished board as a box in the round, each side with its real wood. Plain transforms: it needs no graphics hardware. */
export function Turntable({ width, height, oiled }: TurntableProps) {
  const { board, plan, input } = useSettledBoard();
  const [turn, setTurn] = useState(HOME);
  const drag = useRef<{ pointer: number; x: number; y: number; from: Turn } | null>(null);
  const { roughLength, glueThickness } = plan.allowances;
  const size = {
    l: plan.lastly ? plan.ladders.length.reached : board.length,
    w: plan.ladders.width.reached,
    t: plan.ladders.thickness.reached,
  };
  const scale = fitScale(
    [Math.hypot(size.l, size.w), Math.hypot(size.l, size.w)],
    [width * 0.8, Math.max(120, height) * 1.05],
    2,
  );
  const [l, w, t] = [size.l * scale, size.w * scale, size.t * scale];
  const trims = {
    end: endSpare(size.l, { roughLength }) * scale,
    far: plan.worked.shift * scale,
    near: (plan.panelWidth - size.w - plan.worked.shift) * scale,
    face: ((glueThickness - size.t) / 2) * scale,
  };
  const bodies = useMemo(() => plan.bodies.map((body, i) => steadyBody(body, nth(plan.strips, i).id)), [plan]);
  const tops = stripTops(stripsOf(board));

  // Boards of cells are painted side by side from their wood.
  const thing = plan.lastly ? plan.wood?.board : undefined;
  const sides = useMemo(
    () => thing && Object.fromEntries(NARROW_SIDES.map((side) => [side, sideUp(thing, side)])),
    [thing],
  );
  const species = useStripSpecies(board, input.species);
  const cells = (side: WoodSide) =>
    thing && (
      <FaceWood
        thing={sides?.[side] ?? thing}
        side={side === 'under' ? 'under' : 'top'}
        scale={scale}
        species={species}
        oiled={oiled}
      />
    );
  const empty = stripsOf(board).length === 0 || (plan.lastly !== null && !thing);

  const wood = (i: number, side: WoodSide, x: number, y: number) => {
    if (thing) return cells(side);
    const strip = nth(stripsOf(board), i);
    return (
      <Wood
        key={strip.id}
        x={x}
        y={y}
        scale={scale}
        body={nth(bodies, i)}
        stripId={strip.id}
        species={input.species.find((s) => s.code === strip.species)}
        side={side}
        oiled={oiled}
      />
    );
  };
  const across = (side: WoodSide, x: number, reversed: boolean) =>
    thing
      ? cells(side)
      : stripsOf(board).map((strip, i) => {
          const top = reversed ? plan.panelWidth - nth(tops, i) - strip.width : nth(tops, i);
          return wood(i, side, x, top * scale - (reversed ? trims.near : trims.far));
        });
  const last = stripsOf(board).length - 1;
  const side = (of: Side, run: number) => <WorkedSide worked={plan.worked} side={of} run={run} scale={scale} />;
  const faces: { name: string; size: [number, number]; turn: string; normal: Triple; wood: ReactNode }[] = empty
    ? []
    : [
        {
          name: 'top',
          size: [l, w],
          turn: `translateZ(${t / 2}px)`,
          normal: [0, 0, 1],
          wood: (
            <>
              {across('top', -trims.end, false)}
              <WorkedFace
                worked={plan.worked}
                corners={board.worked.corners}
                face="top"
                scale={scale}
                through={false}
              />
            </>
          ),
        },
        {
          name: 'under',
          size: [l, w],
          turn: `rotateX(180deg) translateZ(${t / 2}px)`,
          normal: [0, 0, -1],
          wood: (
            <>
              {across('under', -trims.end, true)}
              <WorkedFace
                worked={plan.worked}
                corners={board.worked.corners}
                face="bottom"
                scale={scale}
                through={false}
              />
            </>
          ),
        },
        {
          name: 'firstEdge',
          size: [l, t],
          turn: `rotateX(90deg) translateZ(${w / 2}px)`,
          normal: [0, -1, 0],
          wood: (
            <>
              {wood(0, 'firstEdge', -trims.end, -trims.face)}
              {side('far', l)}
            </>
          ),
        },
        {
          name: 'lastEdge',
          size: [l, t],
          turn: `rotateX(-90deg) translateZ(${w / 2}px)`,
          normal: [0, 1, 0],
          wood: (
            <>
              {wood(last, 'lastEdge', -trims.end, -trims.face)}
              {side('near', l)}
            </>
          ),
        },
        {
          name: 'farEnd',
          size: [t, w],
          turn: `rotateY(90deg) translateZ(${l / 2}px)`,
          normal: [1, 0, 0],
          wood: (
            <>
              {across('farEnd', -trims.face, false)}
              {side('right', w)}
            </>
          ),
        },
        {
          name: 'firstEnd',
          size: [t, w],
          turn: `rotateY(-90deg) translateZ(${l / 2}px)`,
          normal: [-1, 0, 0],
          wood: (
            <>
              {across('firstEnd', -trims.face, false)}
              {side('left', w)}
            </>
          ),
        },
      ];

  const by = (tilt: number, spin: number) => setTurn((now) => ({ tilt: now.tilt + tilt, spin: now.spin + spin }));
  const begin = (event: PointerEvent<HTMLDivElement>) => {
    if (drag.current || event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { pointer: event.pointerId, x: event.clientX, y: event.clientY, from: turn };
  };
  const move = (event: PointerEvent<HTMLDivElement>) => {
    const d = drag.current;
    if (d?.pointer === event.pointerId)
      setTurn({
        tilt: d.from.tilt - (event.clientY - d.y) * DRAG_DEGREES,
        spin: d.from.spin + (event.clientX - d.x) * DRAG_DEGREES,
      });
  };
  const end = () => {
    drag.current = null;
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const turns: Record<string, [number, number]> = {
      ArrowUp: [STEP_DEGREES, 0],
      ArrowDown: [-STEP_DEGREES, 0],
      ArrowLeft: [0, -STEP_DEGREES],
      ArrowRight: [0, STEP_DEGREES],
    };
    const step = turns[event.key];
    if (event.altKey || (!step && event.key !== 'Home')) return;
    event.preventDefault();
    event.stopPropagation();
    if (step) by(...step);
    else setTurn(HOME);
  };

  return (
    <div className={classes.turntable}>
      <div
        className={classes.stage}
        style={{ height }}
        tabIndex={0}
        role="group"
        aria-label="The finished board in the round. Arrow keys turn it, Home sets it straight."
        onPointerDown={begin}
        onPointerMove={move}
        onPointerUp={end}
        onPointerCancel={end}
        onKeyDown={onKeyDown}
      >
        <div
          className={classes.board}
          style={{ transform: `rotateX(${turn.tilt}deg) rotateZ(${turn.spin}deg)` }}
          data-tilt={Math.round(turn.tilt)}
          data-spin={Math.round(turn.spin)}
        >
          {faces.map((face) => (
            <div
              key={face.name}
              className={classes.face}
              style={
                {
                  width: face.size[0],
                  height: face.size[1],
                  transform: `translate(-50%, -50%) ${face.turn}`,
                  '--shade': shade(face.normal, turn),
                } as CSSProperties
              }
            >
              <svg width={face.size[0]} height={face.size[1]} aria-hidden="true">
                {face.wood}
              </svg>
            </div>
          ))}
        </div>
      </div>
      <div className={classes.buttons} role="toolbar" aria-label="Turn the board">
        <ActionIcon variant="default" aria-label="Turn left" onClick={() => by(0, -STEP_DEGREES)}>
          <IconArrowLeft size={17} />
        </ActionIcon>
        <ActionIcon variant="default" aria-label="Turn right" onClick={() => by(0, STEP_DEGREES)}>
          <IconArrowRight size={17} />
        </ActionIcon>
        <ActionIcon variant="default" aria-label="Tip away" onClick={() => by(STEP_DEGREES, 0)}>
          <IconArrowUp size={17} />
        </ActionIcon>
        <ActionIcon variant="default" aria-label="Tip towards you" onClick={() => by(-STEP_DEGREES, 0)}>
          <IconArrowDown size={17} />
        </ActionIcon>
        <ActionIcon variant="default" aria-label="Set straight" onClick={() => setTurn(HOME)}>
          <IconHome size={17} />
        </ActionIcon>
        <span>Finished size, middle of the board at {scaleWords(scale)}</span>
      </div>
    </div>
  );
}

/** How much light a side misses, 0 to about 0.5. @param normal direction the side faces on the board */
function shade([x, y, z]: Triple, { tilt, spin }: Turn): number {
  const [a, b] = [(tilt * Math.PI) / 180, (spin * Math.PI) / 180];
  const [sx, sy] = [x * Math.cos(b) - y * Math.sin(b), x * Math.sin(b) + y * Math.cos(b)];
  const [ty, tz] = [sy * Math.cos(a) - z * Math.sin(a), sy * Math.sin(a) + z * Math.cos(a)];
  const facing = sx * firstOf(LIGHT) + ty * nth(LIGHT, 1) + tz * nth(LIGHT, 2);
  return 0.42 * (1 - Math.max(0, Math.min(1, facing * 0.9 + 0.25)));
}
