import { firstOf } from '#core/lists/there.ts';
import {
  memo,
  useEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
  type RefObject,
} from 'react';
import type { Species } from '#core/wood/species.ts';
import { formatLength } from '#core/units/formatLength.ts';
import { say } from '#core/units/phrase.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { sampleBody } from '#core/bodies/stripBody.ts';
import { sectionKey, sectionsLeft } from '#core/plan/sectionsLeft.ts';
import { NOTHING_SAWN } from '#core/saw/planInput.ts';
import { withoutSections, type WithoutSection } from '#core/cutting/withoutSections.ts';
import type { Piece } from '#core/stock/piece.ts';
import { Wood } from '../../drawing/Wood.tsx';
import { scaleWords } from '../../drawing/scale.ts';
import { useDisplay } from '../../quantities/display.tsx';
import { Length, Say } from '../../quantities/Length.tsx';
import classes from './SectionShelf.module.css';
import { shelfSections, type ShelfSection } from './offers.ts';

interface SectionShelfProps {
  /** Put a section into the board: where it was dropped on the drawing, or (null) behind the strip in hand. */
  onTake(section: ShelfSection, clientY: number | null): void;
  drawing: RefObject<SVGSVGElement | null>;
}

/** Height that sections are drawn in, pixels, and the largest scale. */
const SECTION_PX = 46;
const MOST_SCALE = 1.2;
const WIDEST_PX = 120;
const DRAG_START_PX = 6;

interface Drag {
  section: ShelfSection;
  pointer: number;
  from: [number, number];
  at: [number, number];
  moving: boolean;
}

/** Whether it was pulled, not pressed. */
const isMoved = ({ moving, from }: Drag, at: [number, number]): boolean =>
  moving || Math.hypot(at[0] - from[0], at[1] - from[1]) > DRAG_START_PX;

/** Whether a piece is left out because it is not as long as the panel: its way out speaks of a shorter board. */
const isTooShort = ({ wayOut: [first] }: WithoutSection): boolean =>
  typeof first === 'string' && /^(A board at most|No board is so short)/.test(first);
const FROM_MORE_PANELS = say`Slices from more panels make each shorter.`;

/** What the rack gives for this board, end on and to one scale, standing as it would stand in the board. */
export const SectionShelf = memo(function SectionShelf({ onTake, drawing }: SectionShelfProps) {
  const { board, plan, input } = useSettledBoard();
  const [drag, setDrag] = useState<Drag | null>(null);
  const { display } = useDisplay();
  const sections = useMemo(() => shelfSections(plan.sections, display), [plan.sections, display]);
  const thickness = plan.allowances.glueThickness;
  const scale = Math.min(MOST_SCALE, SECTION_PX / thickness, WIDEST_PX / Math.max(1, ...sections.map((s) => s.width)));
  const without = useMemo(
    () =>
      withoutSections(
        (plan.again ?? plan.frame ?? plan.back)?.board ?? board,
        plan.allowances,
        input.rack,
        plan.shop,
        plan.sections,
        (input.saw ?? NOTHING_SAWN).promised,
        // A panel that is too long for a piece may be two: its length is not the board's.
      ).map((one) => (plan.recut && isTooShort(one) ? { ...one, wayOut: FROM_MORE_PANELS } : one)),
    [
      plan.again,
      plan.frame,
      plan.back,
      plan.recut,
      board,
      plan.allowances,
      input.rack,
      plan.shop,
      plan.sections,
      input.saw,
    ],
  );
  const codes = [...new Set([...sections, ...without].map((s) => s.species))];
  const left = useMemo(() => sectionsLeft(plan, input), [plan, input]);
  const leftOf = (s: ShelfSection) =>
    s.pieces.reduce(
      (sum, { id }) => sum + (left.get(sectionKey({ pieceId: id, width: s.width, resawn: s.resawn })) ?? 0),
      0,
    );
  const gap = plan.allowances.wantedPanelWidth - plan.panelWidth;
  const fits = (s: ShelfSection) => gap > 0.05 && s.width <= gap + 0.05 && s.tooThinBy === 0;
  const pieces = useMemo(() => new Map(input.rack.map((p) => [p.id, p])), [input.rack]);
  const speciesOf = (code: string) => input.species.find((s) => s.code === code);

  const overDrawing = ([x, y]: [number, number]) => {
    const box = drawing.current?.getBoundingClientRect();
    return box !== undefined && x >= box.left && x <= box.right && y >= box.top && y <= box.bottom;
  };
  const begin = (section: ShelfSection, event: PointerEvent<HTMLButtonElement>) => {
    if (drag || event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const at: [number, number] = [event.clientX, event.clientY];
    setDrag({ section, pointer: event.pointerId, from: at, at, moving: false });
  };
  const move = (event: PointerEvent<HTMLButtonElement>) => {
    if (!drag || drag.pointer !== event.pointerId) return;
    const at: [number, number] = [event.clientX, event.clientY];
    setDrag({ ...drag, at, moving: isMoved(drag, at) });
  };
  const end = (event: PointerEvent<HTMLButtonElement>) => {
    if (!drag || drag.pointer !== event.pointerId) return;
    setDrag(null);
    const at: [number, number] = [event.clientX, event.clientY];
    // Its last moves may not be drawn yet.
    if (!isMoved(drag, at)) onTake(drag.section, null);
    else if (overDrawing(at)) onTake(drag.section, at[1]);
  };
  // Buttons are drawn anew only when their own section changes; their hands are always the newest.
  const latest = useRef({ begin, move, end, onTake });
  useEffect(() => {
    latest.current = { begin, move, end, onTake };
  });
  const hands = useMemo<SectionHands>(
    () => ({
      begin: (section, event) => latest.current.begin(section, event),
      move: (event) => latest.current.move(event),
      end: (event) => latest.current.end(event),
      cancel: () => setDrag(null),
      take: (section) => latest.current.onTake(section, null),
    }),
    [],
  );
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (step === undefined) return;
    const buttons = [...event.currentTarget.querySelectorAll('button')];
    buttons[buttons.indexOf(document.activeElement as HTMLButtonElement) + step]?.focus();
    event.preventDefault();
  };

  return (
    <section className={classes.shelf} data-shelf aria-label="Sections the rack gives" onKeyDown={onKeyDown}>
      <p className={classes.head}>
        From the rack, end on, {scaleWords(scale)}{' '}
        <span>
          {sections.some(fits) && (
            <>
              <b className={classes.fitting}>marked</b> fits what is still open (<Length mm={gap} />
              );{' '}
            </>
          )}
          {board.construction === 'edge'
            ? 'stock on edge: its planed thickness is the width that shows'
            : 'stock lying flat: what rips from it is the width that shows'}
        </span>
      </p>
      {sections.length === 0 && (
        <p className={classes.none}>
          No piece in the rack gives a strip for this board. Make it shorter or thinner, or add stock to the rack.
        </p>
      )}
      <div className={classes.boards}>
        {codes.map((code) => (
          <div key={code} className={classes.group}>
            <h2>{speciesOf(code)?.name ?? code}</h2>
            <div className={classes.row}>
              {sections
                .filter((s) => s.species === code)
                .map((section) => (
                  <SectionButton
                    key={`${section.width}|${section.tooThinBy}|${section.resawn}`}
                    section={section}
                    left={leftOf(section)}
                    fits={fits(section)}
                    piece={pieces.get(firstOf(section.pieces).id) ?? null}
                    thickness={thickness}
                    scale={scale}
                    species={speciesOf(code)}
                    shows={board.construction}
                    hands={hands}
                  />
                ))}
              <WithoutNotes without={without.filter((w) => w.species === code)} />
            </div>
          </div>
        ))}
      </div>
      {drag?.moving && (
        <div
          className={classes.ghost}
          style={{ translate: `${drag.at[0]}px ${drag.at[1]}px` }}
          data-over={overDrawing(drag.at) || undefined}
        >
          <SectionEnd
            section={drag.section}
            piece={pieces.get(firstOf(drag.section.pieces).id) ?? null}
            thickness={thickness}
            scale={scale}
            species={speciesOf(drag.section.species)}
            shows={board.construction}
          />
        </div>
      )}
    </section>
  );
});

/** So many pieces that give nothing are told one by one. */
const MOST_TOLD = 4;

/** Pieces that give this board nothing stay in sight, with the reason and the way out. */
function WithoutNotes({ without }: { without: readonly WithoutSection[] }) {
  if (without.length === 0) return null;
  return (
    <ul className={classes.without} aria-label="Pieces that give no strip">
      {without.slice(0, MOST_TOLD).map((w) => (
        <li key={w.pieceId} title={w.mark}>
          <b>{w.mark}</b> <Say phrase={w.why} />. <Say phrase={w.wayOut} />
        </li>
      ))}
      {without.length > MOST_TOLD && <li>and {without.length - MOST_TOLD} more of this species</li>}
    </ul>
  );
}

interface SectionHands {
  begin(section: ShelfSection, event: PointerEvent<HTMLButtonElement>): void;
  move(event: PointerEvent<HTMLButtonElement>): void;
  end(event: PointerEvent<HTMLButtonElement>): void;
  cancel(): void;
  take(section: ShelfSection): void;
}

interface SectionButtonProps extends SectionEndProps {
  left: number;
  fits: boolean;
  hands: SectionHands;
}

/** A section to be taken from the shelf: its end to scale, its width, where it comes from and how many are left. */
const SectionButton = memo(function SectionButton({ left, fits, hands, ...end }: SectionButtonProps) {
  const { section, species } = end;
  const { display } = useDisplay();
  const marks = section.pieces.map((p) => p.mark);
  return (
    <button
      type="button"
      className={classes.section}
      data-fits={fits || undefined}
      onPointerDown={(event) => hands.begin(section, event)}
      onPointerMove={hands.move}
      onPointerUp={hands.end}
      onPointerCancel={hands.cancel}
      // A click without a pointer is the keyboard's or a screen reader's.
      onClick={(event) => event.detail === 0 && hands.take(section)}
      aria-label={`Put in ${species?.name ?? section.species} ${formatLength(section.width, display)}${section.resawn ? ', resawn,' : ''} from ${marks.join(', ')}, ${left} left`}
      title={`${marks.join(', ')}: ${left} of ${section.count} strips left after this board and those with promised wood`}
    >
      <SectionEnd {...end} />
      <b>
        <Length mm={section.width} bare />
      </b>
      <small data-thin={section.tooThinBy > 0 || undefined}>
        {section.tooThinBy > 0 ? (
          <>
            <Length mm={section.tooThinBy} bare /> too thin
          </>
        ) : (
          <>
            {section.resawn && '½ '}
            {marks.length > 2 ? `${marks.length} pieces` : marks.join(' ')} · {left}
          </>
        )}
      </small>
    </button>
  );
});

interface SectionEndProps {
  section: ShelfSection;
  thickness: number;
  scale: number;
  species: Species | undefined;
  piece: Piece | null;
  shows: 'edge' | 'face';
}

function SectionEnd({ section, thickness, scale, species, piece, shows }: SectionEndProps) {
  const up = Math.max(1, thickness - section.tooThinBy);
  const body = useMemo(() => sampleBody(piece, shows, [100, section.width, up]), [piece, shows, section.width, up]);
  const height = Math.max(2, (thickness - section.tooThinBy) * scale);
  return (
    <svg width={section.width * scale + 2} height={thickness * scale + 2} aria-hidden="true">
      <g transform={`translate(1 ${thickness * scale - height + 1})`}>
        <Wood x={0} y={0} scale={scale} species={species} body={body} side="markedEnd" />
        <rect width={section.width * scale} height={height} fill="none" stroke="rgb(30 25 20 / 55%)" />
      </g>
    </svg>
  );
}
