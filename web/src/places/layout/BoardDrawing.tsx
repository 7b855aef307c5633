import { nth } from '#core/lists/there.ts';
import { memo, useMemo, useState, type ReactNode, type RefObject } from 'react';
import { madeFor } from '#core/board/madeFor.ts';
import { allowancesFor, widthReached, endSpare } from '#core/board/allowances.ts';
import { moveJoint } from '#core/board/arrange.ts';
import { type Board, panelWidth as panelWidthOf, showsOf, stripTops } from '#core/board/board.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import type { SnapReason } from '#core/board/snapJoint.ts';
import type { Plan } from '#core/plan/plan.ts';
import { sampleBody } from '#core/bodies/stripBody.ts';
import { formatLength } from '#core/units/formatLength.ts';
import { useOpenBoard } from '../../data/openBoard.tsx';
import { DimensionLine } from '../../drawing/DimensionLine.tsx';
import { Ruler } from '../../drawing/Ruler.tsx';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { steadyBody } from '../../drawing/wood/steadyBody.ts';
import { LengthTspans } from '../../quantities/Length.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { AccentBits } from '../../drawing/AccentBits.tsx';
import classes from './BoardDrawing.module.css';
import type { PickUp } from './hand.ts';
import { Hatches } from './Hatches.tsx';
import { grip } from './moveRows.ts';
import { overlayMarks, type Overlay } from './overlay.ts';
import { StripRow } from './StripRow.tsx';
import { useStripGesture } from './useStripGesture.ts';
import { panelBoardOf } from '#core/board/again.ts';
import { fromPanel } from '#core/board/panels.ts';
import { NOTHING_MADE } from '#core/facts/made.ts';
import { type Strip, stripsOf, withStrips } from '#core/board/recipe.ts';
import { HAND_STEP } from '#core/units/length.ts';

interface BoardDrawingProps {
  svgRef: RefObject<SVGSVGElement | null>;
  width: number;
  height: number;
  /** Index of the strip in hand, -1 for none, and of all that are held. */
  selected: number;
  held: readonly number[];
  flipped: boolean;
  oiled: boolean;
  overlay: Overlay;
  onPick(index: number, how: PickUp): void;
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

/** What a panel measures as it is laid out, mm. @param seen the board as that panel sees it @param panel which of those that rows come from in turn, from 0 */
function sizesOf(seen: Board, { shop, facts }: PlanInput, panel: number) {
  const board = fromPanel(seen, panel);
  const made = panel === 0 ? madeFor(board, facts) : NOTHING_MADE;
  const { roughLength, glueThickness, wantedPanelWidth } = allowancesFor(board, shop, made, panel);
  return { roughLength, glueThickness, wantedPanelWidth, panelWidth: panelWidthOf(seen) };
}

/** The scale at which both views fit, pixels a mm. @param room beside and below them, pixels */
function fittingScale(sizes: ReturnType<typeof sizesOf>, room: [number, number]): number {
  const { roughLength, glueThickness, wantedPanelWidth, panelWidth } = sizes;
  return fitScale([roughLength + glueThickness, Math.max(panelWidth, wantedPanelWidth)], room);
}

/** Top and end view of the panel at one scale, in the manner of a bench drawing; strips and joints are dragged on it. */
export function BoardDrawing(props: BoardDrawingProps) {
  const { svgRef, width, height, selected, held, flipped, oiled, overlay, onPick, onStrips, onGestureEnd } = props;
  const { board: whole, plan, findings, input, numbersFrom = 0, panel: kind = 0 } = useOpenBoard();
  const { display } = useDisplay();
  const narrow = width < NARROW_PX;
  const room = narrow ? NARROW_ROOM : ROOM;
  const fitting = fittingScale(sizesOf(whole, input, kind), [
    width - room.left - room.right - room.end,
    height - room.top - room.bottom,
  ]);
  const bodies = useMemo(
    () => new Map(plan.bodies.map((body, i) => [nth(plan.strips, i).id, steadyBody(body, nth(plan.strips, i).id)])),
    [plan],
  );
  const [scale0, setScale0] = useState(fitting);
  const { frozen, live, snap, swapWith, handlers } = useStripGesture({
    svgRef,
    strips: stripsOf(whole),
    plan,
    bodies,
    display,
    scale: scale0,
    top: room.top,
    flipped,
    held,
    onPick,
    onStrips,
    onGestureEnd,
  });
  const scale = frozen?.scale ?? fitting;
  if (scale !== scale0) setScale0(scale);
  const now = useMemo(() => (live ? withStrips(whole, live) : whole), [whole, live]);
  // Of a board that is cut again the first panel is laid out, as a board of its own.
  const board = useMemo(() => panelBoardOf(fromPanel(now, kind), input.shop, kind), [now, input.shop, kind]);
  // The drawing follows the hands at once; what the plan says of it may come a moment later.
  const { roughLength, glueThickness, wantedPanelWidth, panelWidth } = sizesOf(now, input, kind);

  const [x0, y0] = [room.left, room.top];
  const panel = { w: roughLength * scale, h: panelWidth * scale };
  const endX = x0 + panel.w + room.end;
  const trim = ((panelWidth - widthReached(board, panelWidth, input.shop)) / 2) * scale;
  const endTrim = endSpare(board.length, { roughLength }) * scale;
  const missing = Math.max(0, wantedPanelWidth - panelWidth) * scale;
  const flagged = new Map<number, 'stop' | 'caution'>();
  for (const f of findings)
    for (const n of f.strips) if (f.severity !== 'note' && flagged.get(n) !== 'stop') flagged.set(n, f.severity);
  const marks = useMemo(
    () => overlayMarks(overlay, { plan, board }, (mm) => formatLength(mm, display)),
    [overlay, plan, board, display],
  );
  const drawn = frozen?.bodies ?? bodies;
  const bodyOf = (strip: Strip) =>
    drawn.get(strip.id) ??
    bodies.get(strip.id) ??
    steadyBody(
      sampleBody(null, showsOf(board.construction, strip), [roughLength, strip.width, glueThickness]),
      strip.id,
    );
  const widthByKey = (index: number, by: number) => {
    const strip = stripsOf(board)[index];
    if (strip) onStrips((strips) => moveJoint(strips, index, strip.width + by, false), `joint-${strip.id}`);
  };

  const tops = stripTops(stripsOf(board));
  const rows = stripsOf(board).map((strip, i) => ({
    strip,
    y: y0 + (flipped ? panelWidth - nth(tops, i) - strip.width : nth(tops, i)) * scale,
    index: i,
    number: numbersFrom + i + 1,
  }));
  const chainX = narrow ? x0 - 14 : x0 - 47;
  const captionX = narrow ? endX + glueThickness * scale : endX + (glueThickness * scale) / 2;
  const resting = snap && snap.reason.kind !== 'grid' ? rows[snap.index] : undefined;

  return (
    <svg
      ref={svgRef}
      className={classes.drawing}
      width={width}
      height={Math.max(height, room.top + room.bottom + Math.max(panel.h, wantedPanelWidth * scale))}
      {...handlers}
      aria-label={flipped ? 'The panel from below, drawn to scale' : 'The panel, drawn to scale'}
    >
      <Hatches />
      <Ruler x={x0 + endTrim} y={y0 - 8} length={board.length} scale={scale} direction="across" />
      {!narrow && <Ruler x={x0 - 10} y={y0 + trim} length={board.width} scale={scale} direction="down" />}
      <DimensionLine
        from={[x0 + endTrim, y0 - 34]}
        to={[x0 + endTrim + board.length * scale, y0 - 34]}
        mm={board.length}
      />

      <Still still={frozen?.joint ?? false}>
        <g role="listbox" aria-label="Strips of the board" aria-orientation="vertical" aria-multiselectable="true">
          {rows.map(({ strip, y, index, number }) => (
            <StripRow
              key={strip.id}
              strip={strip}
              index={index}
              number={number}
              x={x0}
              y={y}
              endX={endX}
              scale={scale}
              body={bodyOf(strip)}
              oiled={oiled}
              flipped={flipped}
              species={input.species.find((s) => s.code === strip.species)}
              mark={marks.get(strip.id)}
              labelX={x0 + Math.max(0, endTrim)}
              chainX={chainX}
              inHand={index === selected}
              held={held.includes(index)}
              flag={flagged.get(number)}
              onPick={onPick}
            />
          ))}
        </g>
        <AccentBits
          board={board}
          plan={plan}
          species={input.species}
          rows={rows}
          x0={x0}
          length={roughLength}
          scale={scale}
        />
      </Still>

      {missing > 1 && (
        <g className={classes.missing}>
          <rect x={x0} y={y0 + panel.h} width={panel.w} height={missing} />
          {missing > 16 && (
            <text x={x0 + panel.w / 2} y={y0 + panel.h + missing / 2} dy="0.35em" textAnchor="middle">
              <LengthTspans mm={missing / scale} bare={false} /> still open
            </text>
          )}
        </g>
      )}
      {stripsOf(board).length > 0 && (
        <g className={classes.trim} pointerEvents="none">
          <path
            d={`M${x0} ${y0}h${panel.w}v${panel.h}h${-panel.w}zM${x0 + endTrim} ${y0 + trim}v${panel.h - 2 * trim}h${board.length * scale}v${-(panel.h - 2 * trim)}z`}
            fillRule="evenodd"
          />
          <rect x={x0 + endTrim} y={y0 + trim} width={board.length * scale} height={Math.max(0, panel.h - 2 * trim)} />
          <path
            d={`M${endX} ${y0}h${glueThickness * scale}v${trim}h${-glueThickness * scale}zM${endX} ${y0 + panel.h - trim}h${glueThickness * scale}v${trim}h${-glueThickness * scale}z`}
          />
        </g>
      )}

      <Still still={frozen?.joint ?? false}>
        <g role="group" aria-label="Joints">
          {rows.map(({ strip, y, index, number }) => (
            <rect
              key={strip.id}
              data-joint={index}
              className={classes.joint}
              x={x0 - 4}
              y={(flipped ? y : y + strip.width * scale) - grip(strip.width * scale) / 2}
              width={panel.w + 8}
              height={grip(strip.width * scale)}
              role="slider"
              tabIndex={index === selected ? 0 : -1}
              aria-orientation="vertical"
              aria-label={`Joint behind strip ${number}: its width in mm`}
              aria-valuenow={Number(strip.width.toFixed(2))}
              aria-valuemin={1}
              aria-valuemax={1000}
              onKeyDown={(event) => {
                const step = (event.shiftKey ? 10 : 1) * HAND_STEP[display.system];
                const by = { ArrowDown: step, ArrowRight: step, ArrowUp: -step, ArrowLeft: -step }[event.key];
                if (by === undefined || event.altKey) return;
                event.preventDefault();
                widthByKey(index, by);
              }}
            />
          ))}
        </g>
      </Still>

      <g className={classes.inHand} pointerEvents="none">
        {rows
          .filter(({ index }) => held.includes(index))
          .map(({ strip, y, index }) => (
            <g
              key={strip.id}
              data-first={index === selected || undefined}
              data-in-hand={index === selected || undefined}
            >
              <rect x={x0} y={y} width={panel.w} height={strip.width * scale} />
              <rect x={endX} y={y} width={glueThickness * scale} height={strip.width * scale} />
            </g>
          ))}
        {swapWith !== null && rows[swapWith] && (
          <rect
            className={classes.swap}
            x={x0 + 3}
            y={rows[swapWith].y + 3}
            width={panel.w - 6}
            height={Math.max(2, rows[swapWith].strip.width * scale - 6)}
          />
        )}
      </g>
      <g className={classes.live} pointerEvents="none" aria-hidden="true">
        {[0, 1].map((which) => (
          <text key={which} data-live-width x={chainX - 7} dominantBaseline="central" textAnchor="end">
            <tspan />
            <tspan className="fraction" />
            <tspan />
          </text>
        ))}
      </g>
      {resting && snap && (
        <g className={classes.snap} pointerEvents="none">
          <path d={`M${x0 - 20} ${resting.y + (flipped ? 0 : resting.strip.width * scale)}H${x0 + panel.w + 20}`} />
          <text
            x={x0 + panel.w / 2}
            y={resting.y + (flipped ? 0 : resting.strip.width * scale) + 17}
            textAnchor="middle"
          >
            {SNAP_WORDS[snap.reason.kind]}
            {'strip' in snap.reason ? ` ${snap.reason.strip}` : ''}
          </text>
        </g>
      )}
      {panelWidth > 0 && (
        <DimensionLine
          from={[26, y0]}
          to={[26, y0 + panel.h]}
          mm={panelWidth}
          tone={missing > 0.001 ? 'stop' : 'plain'}
        />
      )}
      <g className={classes.caption}>
        <text x={captionX} y={y0 - 22} textAnchor={narrow ? 'end' : 'middle'}>
          {board.construction === 'edge' ? 'on edge' : 'flat'}
        </text>
        <text x={captionX} y={y0 - 8} textAnchor={narrow ? 'end' : 'middle'}>
          <LengthTspans mm={glueThickness} />
        </text>
        <text x={narrow ? 12 : x0} y={y0 + Math.max(panel.h, wantedPanelWidth * scale) + 20}>
          Panel as glued{flipped ? ', turned over' : ''}, scale {scaleWords(scale)}. Dashed:{' '}
          {plan.again
            ? plan.recut
              ? 'what is sawn into slices'
              : 'what is sawn through'
            : plan.frame
              ? 'what the frame goes round'
              : plan.back
                ? 'what the back is glued under'
                : 'the finished board'}
          .
        </text>
      </g>
    </svg>
  );
}

/** What it holds stays as React drew it while hands move it in the page themselves. */
const Still = memo(
  function Still({ children }: { still: boolean; children: ReactNode }) {
    return children;
  },
  (_, after) => after.still,
);

const SNAP_WORDS: Readonly<Record<SnapReason['kind'], string>> = {
  rack: 'as the rack gives it',
  resawn: 'half of a piece, resawn',
  symmetry: 'the mirror of strip',
  rhythm: 'like strip',
  fills: 'fills the board',
  grid: '',
};
