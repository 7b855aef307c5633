import { useEffect, useRef, useState, type PointerEvent, type RefObject } from 'react';
import { moveJoint, moveStrip, snapWidth } from '#core/board/arrange.ts';
import { allowancesFor, widthReached } from '#core/board/allowances.ts';
import { panelWidth as panelWidthOf, stripTops, type Strip } from '#core/board/board.ts';
import type { Plan } from '#core/plan/plan.ts';
import type { RingOrientation } from '#core/wood/rings.ts';
import { useOpenBoard } from '../../data/openBoard.tsx';
import { DimensionLine } from '../../drawing/DimensionLine.tsx';
import { Ruler } from '../../drawing/Ruler.tsx';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { LengthTspans } from '../../quantities/Length.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import classes from './BoardDrawing.module.css';
import { offeredWidths } from './offers.ts';
import { StripRow } from './StripRow.tsx';

interface BoardDrawingProps {
  svgRef: RefObject<SVGSVGElement | null>;
  width: number;
  height: number;
  /** Index of the strip in hand, -1 for none. */
  selected: number;
  onSelect(index: number): void;
  onStrips(edit: (strips: readonly Strip[]) => Strip[], mergeKey: string): void;
  onGestureEnd(): void;
}

interface Room {
  left: number;
  right: number;
  top: number;
  bottom: number;
  /** Between top view and end view. */
  end: number;
}

/** Room around the panel, pixels: rule and widths to the left, length above, the end view to the right. A phone has no room for the side rule. */
const ROOM: Room = { left: 138, right: 34, top: 56, bottom: 30, end: 58 };
const NARROW_ROOM: Room = { left: 92, right: 14, top: 56, bottom: 30, end: 40 };
const NARROW_PX = 600;

/** Height a drawing of this width takes when only the width limits its scale, pixels. */
export function naturalHeight(plan: Plan, width: number): number {
  const room = width < NARROW_PX ? NARROW_ROOM : ROOM;
  const { roughLength, glueThickness, wantedPanelWidth } = plan.allowances;
  const tallest = Math.max(plan.panelWidth, wantedPanelWidth);
  const scale = fitScale([roughLength + glueThickness, tallest], [width - room.left - room.right - room.end, 2000]);
  return tallest * scale + room.top + room.bottom;
}
/** How near an offered width must be to be snapped to, pixels. */
const SNAP_PX = 7;
const DRAG_START_PX = 4;

interface Gesture {
  pointer: number;
  kind: 'joint' | 'strip';
  index: number;
  startY: number;
  startWidth: number;
  scale: number;
  key: string;
  moving: boolean;
  /** Where the pointer was last, waiting for the next frame. */
  at: { dy: number; y: number; free: boolean; trade: boolean } | null;
}

/** Top and end view of the panel at one scale, in the manner of a bench drawing; strips and joints are dragged on it. */
export function BoardDrawing({ svgRef, width, height, selected, onSelect, onStrips, onGestureEnd }: BoardDrawingProps) {
  const { board, plan, findings, input } = useOpenBoard();
  const { display } = useDisplay();
  const gesture = useRef<Gesture | null>(null);
  const gestures = useRef(0);
  const [frozenScale, setFrozenScale] = useState<number | null>(null);
  const narrow = width < NARROW_PX;
  const room = narrow ? NARROW_ROOM : ROOM;
  // The drawing follows the hands at once; what the plan says of it may come a moment later.
  const { roughLength, glueThickness, wantedPanelWidth } = allowancesFor(board, input.shop);
  const panelWidth = panelWidthOf(board);

  const tallest = Math.max(panelWidth, wantedPanelWidth);
  const fitting = fitScale([roughLength + glueThickness, tallest], [width - room.left - room.right - room.end, height - room.top - room.bottom]);
  // While a joint is dragged the scale stays, or the board would shrink away under the finger.
  const scale = frozenScale ?? fitting;
  const [x0, y0] = [room.left, room.top];
  const panel = { w: roughLength * scale, h: panelWidth * scale };
  const endX = x0 + panel.w + room.end;
  const trim = ((panelWidth - widthReached(board, panelWidth, input.shop)) / 2) * scale;
  const endTrim = ((roughLength - board.length) / 2) * scale;
  const missing = Math.max(0, wantedPanelWidth - panelWidth) * scale;
  const flagged = new Map<number, 'stop' | 'caution'>();
  for (const f of findings) for (const n of f.strips) if (f.severity !== 'note' && flagged.get(n) !== 'stop') flagged.set(n, f.severity);
  const sourceOf = new Map(plan.strips.map((s) => [s.id, s.sources[0]?.pieceId]));
  const ringsOf = (stripId: string): RingOrientation => {
    const pieceId = sourceOf.get(stripId);
    return input.rack.find((p) => p.id === pieceId)?.rings ?? 'flat';
  };

  const begin = (event: PointerEvent<SVGSVGElement>) => {
    if (gesture.current || event.button !== 0) return;
    const target = (event.target as Element).closest<SVGElement>('[data-joint],[data-strip]');
    if (!target) return;
    const joint = target.dataset.joint !== undefined;
    const index = Number(joint ? target.dataset.joint : target.dataset.strip);
    // A finger scrolls the page over strips that are not in hand; a second touch on the one in hand drags it.
    const scrolls = !joint && event.pointerType === 'touch' && index !== selected;
    onSelect(index);
    if (scrolls) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    gestures.current += 1;
    gesture.current = {
      pointer: event.pointerId, kind: joint ? 'joint' : 'strip', index, startY: event.clientY, startWidth: board.strips[index]!.width,
      scale, key: `drag-${gestures.current}`, moving: false, at: null,
    };
  };
  const move = (event: PointerEvent<SVGSVGElement>) => {
    const g = gesture.current;
    if (!g || g.pointer !== event.pointerId) return;
    const dy = event.clientY - g.startY;
    if (!g.moving && Math.abs(dy) < DRAG_START_PX) return;
    if (!g.moving) setFrozenScale(g.scale);
    g.moving = true;
    // A pointer reports more often than the screen is drawn: only its last place before a frame counts.
    const pending = g.at !== null;
    g.at = { dy, y: event.clientY - event.currentTarget.getBoundingClientRect().top - y0, free: event.altKey, trade: event.shiftKey };
    if (!pending) requestAnimationFrame(() => drawing.current.follow(g));
  };
  const follow = (g: Gesture) => {
    if (!g.at) return;
    const { dy, y, free, trade } = g.at;
    g.at = null;
    if (g.kind === 'joint') {
      const strip = board.strips[g.index];
      if (!strip) return;
      const raw = g.startWidth + dy / g.scale;
      const snapped = free ? Math.max(1, raw) : snapWidth(raw, offeredWidths(plan.sections, strip.species), SNAP_PX / g.scale, display.system);
      onStrips((strips) => moveJoint(strips, g.index, snapped, trade), g.key);
      return;
    }
    const to = placeAt(board.strips, y / g.scale, g.index);
    if (to !== g.index) {
      onStrips((strips) => moveStrip(strips, g.index, to), g.key);
      g.index = to;
    }
  };
  const end = (event: PointerEvent<SVGSVGElement>) => {
    const g = gesture.current;
    if (g?.pointer !== event.pointerId) return;
    follow(g);
    gesture.current = null;
    setFrozenScale(null);
    onGestureEnd();
  };
  // The frame that comes must work on the board as it is then.
  const drawing = useRef({ follow });
  useEffect(() => {
    drawing.current = { follow };
  });
  // While something is dragged the page must not scroll. The touch-action property does not reach the shapes inside a drawing everywhere;
  // a listener that may prevent does.
  useEffect(() => {
    const svg = svgRef.current;
    const hold = (event: TouchEvent) => {
      if (gesture.current) event.preventDefault();
    };
    svg?.addEventListener('touchmove', hold, { passive: false });
    return () => svg?.removeEventListener('touchmove', hold);
  }, [svgRef]);
  const widthByKey = (index: number, by: number) => {
    const strip = board.strips[index];
    if (strip) onStrips((strips) => moveJoint(strips, index, strip.width + by, false), `joint-${strip.id}`);
  };

  const tops = stripTops(board.strips);
  const rows = board.strips.map((strip, i) => ({ strip, y: y0 + tops[i]! * scale, number: i + 1 }));

  const inHand = rows[selected];
  const captionX = narrow ? endX + glueThickness * scale : endX + (glueThickness * scale) / 2;

  return (
    <svg ref={svgRef} className={classes.drawing} width={width} height={Math.max(height, room.top + room.bottom + Math.max(panel.h, wantedPanelWidth * scale))}
      onPointerDown={begin} onPointerMove={move} onPointerUp={end} onPointerCancel={end} aria-label="The panel, drawn to scale">
      <Ruler x={x0 + endTrim} y={y0 - 8} length={board.length} scale={scale} direction="across" />
      {!narrow && <Ruler x={x0 - 10} y={y0 + trim} length={board.width} scale={scale} direction="down" />}
      <DimensionLine from={[x0 + endTrim, y0 - 34]} to={[x0 + endTrim + board.length * scale, y0 - 34]} mm={board.length} />

      <g role="listbox" aria-label="Strips of the board" aria-orientation="vertical">
        {rows.map(({ strip, y, number }) => (
          <StripRow key={strip.id} strip={strip} number={number} x={x0} y={y} endX={endX} scale={scale} length={roughLength} thickness={glueThickness}
            species={input.species.find((s) => s.code === strip.species)} rings={ringsOf(strip.id)} construction={board.construction}
            labelX={x0 + Math.max(0, endTrim)} chainX={narrow ? x0 - 14 : x0 - 47} seed={sourceOf.get(strip.id) ?? ''} selected={number - 1 === selected} flag={flagged.get(number)} onSelect={onSelect} />
        ))}
      </g>

      {missing > 1 && (
        <g className={classes.missing}>
          <rect x={x0} y={y0 + panel.h} width={panel.w} height={missing} />
          {missing > 16 && <text x={x0 + panel.w / 2} y={y0 + panel.h + missing / 2} dy="0.35em" textAnchor="middle"><LengthTspans mm={missing / scale} bare={false} /> still open</text>}
        </g>
      )}
      {board.strips.length > 0 && (
        <g className={classes.trim} pointerEvents="none">
          <path d={`M${x0} ${y0}h${panel.w}v${panel.h}h${-panel.w}zM${x0 + endTrim} ${y0 + trim}v${panel.h - 2 * trim}h${board.length * scale}v${-(panel.h - 2 * trim)}z`} fillRule="evenodd" />
          <rect x={x0 + endTrim} y={y0 + trim} width={board.length * scale} height={Math.max(0, panel.h - 2 * trim)} />
          <path d={`M${endX} ${y0}h${glueThickness * scale}v${trim}h${-glueThickness * scale}zM${endX} ${y0 + panel.h - trim}h${glueThickness * scale}v${trim}h${-glueThickness * scale}z`} />
        </g>
      )}

      <g role="group" aria-label="Joints">
        {rows.map(({ strip, y, number }) => (
          <rect key={strip.id} data-joint={number - 1} className={classes.joint} x={x0 - 4} y={y + strip.width * scale - grip(strip.width * scale) / 2} width={panel.w + 8} height={grip(strip.width * scale)}
            role="slider" tabIndex={number - 1 === selected ? 0 : -1} aria-orientation="vertical" aria-label={`Joint behind strip ${number}: its width in mm`}
            aria-valuenow={Number(strip.width.toFixed(2))} aria-valuemin={1} aria-valuemax={1000}
            onKeyDown={(event) => {
              const step = (event.shiftKey ? 10 : 1) * (display.system === 'metric' ? 0.5 : 25.4 / 32);
              const by = { ArrowDown: step, ArrowRight: step, ArrowUp: -step, ArrowLeft: -step }[event.key];
              if (by === undefined || event.altKey) return;
              event.preventDefault();
              widthByKey(number - 1, by);
            }} />
        ))}
      </g>

      {inHand && (
        <g className={classes.inHand} pointerEvents="none">
          <rect x={x0} y={inHand.y} width={panel.w} height={inHand.strip.width * scale} />
          <rect x={endX} y={inHand.y} width={glueThickness * scale} height={inHand.strip.width * scale} />
        </g>
      )}
      {panelWidth > 0 && <DimensionLine from={[26, y0]} to={[26, y0 + panel.h]} mm={panelWidth} tone={missing > 0.001 ? 'stop' : 'plain'} />}
      <g className={classes.caption}>
        <text x={captionX} y={y0 - 22} textAnchor={narrow ? 'end' : 'middle'}>{board.construction === 'edge' ? 'on edge' : 'flat'}</text>
        <text x={captionX} y={y0 - 8} textAnchor={narrow ? 'end' : 'middle'}><LengthTspans mm={glueThickness} /></text>
        <text x={narrow ? 12 : x0} y={y0 + Math.max(panel.h, wantedPanelWidth * scale) + 20}>Panel as glued, scale {scaleWords(scale)}. Dashed: the finished board.</text>
      </g>
    </svg>
  );
}

/** Height of the handle on a joint, pixels: narrow strips must still leave room to be taken up themselves. */
function grip(stripHeight: number): number {
  return Math.max(3, Math.min(8, stripHeight * 0.4));
}

/** The place a strip in hand takes when it is held at `y` mm from the first edge. */
function placeAt(strips: readonly Strip[], y: number, from: number): number {
  const others = strips.filter((_, i) => i !== from);
  let top = 0;
  for (let i = 0; i < others.length; i += 1) {
    const middle = top + others[i]!.width / 2 + (i >= from ? strips[from]!.width : 0);
    if (y < middle) return i;
    top += others[i]!.width;
  }
  return others.length;
}
