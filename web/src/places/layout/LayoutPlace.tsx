import { useElementSize, useMediaQuery } from '@mantine/hooks';
import { nanoid } from 'nanoid';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import * as arrange from '#core/board/arrange.ts';
import type { Board, Strip } from '#core/board/board.ts';
import { GREATEST_STRIP_COUNT } from '#core/board/board.ts';
import { useOpenBoard } from '../../data/openBoard.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { showProblem } from '../../shell/notices.tsx';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import { BoardDrawing, naturalHeight } from './BoardDrawing.tsx';
import classes from './LayoutPlace.module.css';
import { inHandIndex } from './inHand.ts';
import { offeredWidths, type ShelfSection } from './offers.ts';
import { Outcome } from './Outcome.tsx';
import { SectionShelf } from './SectionShelf.tsx';
import { StripRail, type StripActions } from './StripRail.tsx';

/** A step of the width keys: half a millimetre or 1/32 in, ten times as much with Shift. */
const WIDTH_STEP = { metric: 0.5, inch: 25.4 / 32 };

/** The board drawn to scale, with its strips under the hands and the rack's sections on a shelf below. */
export function LayoutPlace() {
  const { board, session, plan } = useOpenBoard();
  const { display } = useDisplay();
  const { ref, width, height } = useElementSize();
  const stacked = useMediaQuery('(max-width: 1000px)') ?? false;
  const drawing = useRef<SVGSVGElement>(null);
  const [selectedId, setSelectedId] = useState<string | null>(null);
  const [announcement, setAnnouncement] = useState('');
  const { strips } = board;
  const selected = inHandIndex(strips, selectedId);

  const change = (edit: (strips: readonly Strip[]) => Strip[], say: string, mergeKey?: string) => {
    const next = edit(session.snapshot().board.strips);
    if (next.length > GREATEST_STRIP_COUNT) {
      showProblem(new Error(`A board holds at most ${GREATEST_STRIP_COUNT} strips.`));
      return;
    }
    session.edit((b: Board) => ({ ...b, strips: next }), mergeKey);
    setAnnouncement(say);
  };
  const select = (index: number) => {
    const strip = session.snapshot().board.strips[index];
    if (strip) setSelectedId(strip.id);
  };

  const insert = (section: Pick<ShelfSection, 'species' | 'width'>, at: number) => {
    const strip: Strip = { id: nanoid(10), species: section.species, width: section.width, endForEnd: strips[Math.max(0, at - 1)]?.endForEnd ?? false };
    change((s) => arrange.insertStrip(s, at, strip), `Strip put in as number ${at + 1}`);
    setSelectedId(strip.id);
  };
  const stepWidth = (steps: number) => {
    const strip = strips[selected];
    if (strip) change((s) => arrange.moveJoint(s, selected, strip.width + steps * WIDTH_STEP[display.system], false), 'Width changed', `width-${strip.id}`);
  };
  const stepOffered = (direction: 1 | -1) => {
    const strip = strips[selected];
    if (!strip) return;
    const offered = offeredWidths(plan.sections, strip.species);
    const next = direction > 0 ? offered.find((w) => w > strip.width + 1e-6) : offered.findLast((w) => w < strip.width - 1e-6);
    if (next !== undefined) change((s) => arrange.changeStrip(s, selected, { width: next }), 'Width set to what the rack gives');
    else setAnnouncement('The rack offers no further width in this species.');
  };

  const actions: StripActions = {
    move: (by) => {
      if (selected + by < 0 || selected + by >= strips.length) return;
      change((s) => arrange.moveStrip(s, selected, selected + by), `Strip moved to place ${selected + by + 1}`);
      setSelectedId(strips[selected]!.id);
    },
    duplicate: () => {
      const id = nanoid(10);
      change((s) => arrange.duplicateStrip(s, selected, () => id), `Strip ${selected + 1} duplicated`);
      setSelectedId(id);
    },
    mirror: () => change((s) => arrange.mirrorAbout(s, selected, () => nanoid(10)), `Mirrored about strip ${selected + 1}`),
    reverse: () => change(arrange.reverseStrips, 'Order reversed'),
    turn: () => change((s) => arrange.changeStrip(s, selected, { endForEnd: !s[selected]?.endForEnd }), `Strip ${selected + 1} turned end for end`),
    remove: () => {
      const next = strips[selected + 1] ?? strips[selected - 1];
      change((s) => arrange.removeStrip(s, selected), `Strip ${selected + 1} removed`);
      setSelectedId(next?.id ?? null);
    },
    setWidth: (mm) => change((s) => arrange.changeStrip(s, selected, { width: mm }), 'Width changed'),
    setSpecies: (species) => change((s) => arrange.changeStrip(s, selected, { species }), 'Species changed'),
  };

  // What stands beside the drawing is rendered only when its own data change; it reaches the newest actions through this.
  const latest = useRef({ actions, insert, select, selected });
  useEffect(() => {
    latest.current = { actions, insert, select, selected };
  });
  const railActions = useMemo<StripActions>(() => ({
    move: (by) => latest.current.actions.move(by), duplicate: () => latest.current.actions.duplicate(), mirror: () => latest.current.actions.mirror(),
    reverse: () => latest.current.actions.reverse(), turn: () => latest.current.actions.turn(), remove: () => latest.current.actions.remove(),
    setWidth: (mm) => latest.current.actions.setWidth(mm), setSpecies: (code) => latest.current.actions.setSpecies(code),
  }), []);
  const pickUp = useCallback((index: number) => latest.current.select(index), []);
  const take = useCallback((section: ShelfSection, clientY: number | null) => {
    latest.current.insert(section, clientY === null ? latest.current.selected + 1 : insertionIndex(drawing.current, clientY));
  }, []);

  const onStrip = (run: () => void) => () => {
    if (selected >= 0) run();
  };
  useShortcuts('Layout', [
    { keys: 'ArrowUp', does: 'Pick up the strip before', run: () => select(Math.max(0, selected - 1)) },
    { keys: 'ArrowDown', does: 'Pick up the strip after', run: () => select(Math.min(strips.length - 1, selected + 1)) },
    { keys: 'alt+ArrowUp', does: 'Move the strip towards the start', run: onStrip(() => actions.move(-1)) },
    { keys: 'alt+ArrowDown', does: 'Move the strip towards the end', run: onStrip(() => actions.move(1)) },
    { keys: 'plus', does: 'Widen the strip a little', run: () => stepWidth(1) },
    { keys: '-', does: 'Narrow the strip a little', run: () => stepWidth(-1) },
    { keys: ']', does: 'Next wider width the rack gives', run: () => stepOffered(1) },
    { keys: '[', does: 'Next narrower width the rack gives', run: () => stepOffered(-1) },
    { keys: 'w', does: 'Type the width', run: () => typeInto('strip-width') },
    { keys: 's', does: 'Change the species', run: () => typeInto('strip-species') },
    { keys: 'd', does: 'Duplicate the strip', run: onStrip(actions.duplicate) },
    { keys: 'm', does: 'Mirror: repeat what lies before the strip behind it', run: onStrip(actions.mirror) },
    { keys: 'r', does: 'Reverse the order of all strips', run: onStrip(actions.reverse) },
    { keys: 't', does: 'Turn the strip end for end', run: onStrip(actions.turn) },
    { keys: 'Delete', does: 'Remove the strip', run: onStrip(actions.remove) },
    { keys: 'Backspace', does: 'Remove the strip', run: onStrip(actions.remove) },
    { keys: 'i', does: 'Take a section from the shelf (arrows choose, Enter puts it in)', run: () => document.querySelector<HTMLElement>('[data-shelf] button')?.focus() },
  ]);

  return (
    <div className={classes.place}>
      <StripRail selectedId={selectedId} actions={railActions} />
      <div className={classes.bench}>
        <div ref={ref} className={classes.drawing} style={stacked && width > 0 ? { height: Math.min(naturalHeight(plan, width), window.innerHeight * 0.7) } : undefined}>
          {width > 0 && (
            <BoardDrawing svgRef={drawing} width={width} height={height} selected={selected} onSelect={pickUp}
              onStrips={(edit, mergeKey) => session.edit((b) => ({ ...b, strips: edit(b.strips) }), mergeKey)} onGestureEnd={() => session.endMerge()} />
          )}
        </div>
        <SectionShelf onTake={take} drawing={drawing} />
      </div>
      <Outcome onSelect={pickUp} />
      <div className={classes.live} aria-live="polite">{announcement}</div>
    </div>
  );
}

/** Puts the hands on a field of the rail: what is typed next replaces what stands there. */
function typeInto(id: string): void {
  const field = document.getElementById(id) as HTMLInputElement | null;
  field?.focus();
  field?.select();
}

/** Between which strips a point on the drawing lies. */
function insertionIndex(svg: SVGSVGElement | null, clientY: number): number {
  const rows = [...(svg?.querySelectorAll('[data-strip-face]') ?? [])];
  const before = rows.filter((row) => {
    const box = row.getBoundingClientRect();
    return (box.top + box.bottom) / 2 < clientY;
  });
  return before.length;
}
