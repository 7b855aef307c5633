import { nth } from '#core/lists/there.ts';
import { useLocalStorage, useMediaQuery } from '@mantine/hooks';
import { lazy, Suspense, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useOpenBoard } from '../../data/openBoard.tsx';
import { useMeasuredSize } from '../../drawing/useMeasuredSize.ts';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import { BoardDrawing, naturalHeight } from './BoardDrawing.tsx';
import { ExportDialog } from './ExportDialog.tsx';
import type { PickUp } from './hand.ts';
import { HistoryDrawer } from './HistoryDrawer.tsx';
import classes from './LayoutPlace.module.css';
import type { ShelfSection } from './offers.ts';
import { Outcome } from './Outcome.tsx';
import { OVERLAYS, type Overlay } from './overlay.ts';
import { SectionShelf } from './SectionShelf.tsx';
import { ShuffleDrawer } from './ShuffleDrawer.tsx';
import { StripRail } from './StripRail.tsx';
import { useStripActions, type StripActions } from './useStripActions.ts';
import { SwitchDialog } from './SwitchDialog.tsx';
import { VersionsView } from './VersionsView.tsx';
import { ViewBar, type View } from './ViewBar.tsx';
import { isCutAgain, stripsOf, withStrips } from '#core/board/recipe.ts';
import { backOperationOf } from '#core/board/back.ts';
import { framesOf } from '#core/board/frame.ts';
import { insertsOf } from '#core/board/inset.ts';
import { panelCount } from '#core/board/panels.ts';
import { recutRecipe } from '#core/board/recut.ts';
import { stackOperationsOf } from '#core/board/stack.ts';
import { PanelChoice } from './PanelChoice.tsx';
import { PanelLens } from './PanelLens.tsx';
import { stagesIn, type RecutStage } from './recut/stage.ts';

/** Loaded only for boards that are cut again, and when a board is turned in the round. */
const RecutBench = lazy(async () => ({ default: (await import('./recut/RecutBench.tsx')).RecutBench }));
const StageRow = lazy(async () => ({ default: (await import('./recut/StageRow.tsx')).StageRow }));
const Turntable = lazy(async () => ({ default: (await import('./Turntable.tsx')).Turntable }));

type Opened = 'shuffle' | 'history' | 'export' | 'switch' | null;

/** The board drawn to scale, with its strips under the hands and the rack's sections on a shelf below. */
export function LayoutPlace() {
  const { board } = useOpenBoard();
  const [stage, setStage] = useState<RecutStage>('panel');
  const [chosen, setPanel] = useState(0);
  const panel = Math.min(chosen, Math.max(0, panelCount(board) - 1));
  // Of several panels that rows come from in turn one is laid out at a time.
  return (
    <PanelLens panel={stage === 'panel' ? panel : 0}>
      <Layout
        key={stage === 'panel' ? panel : 0}
        chosenStage={stage}
        setStage={setStage}
        panel={panel}
        setPanel={setPanel}
      />
    </PanelLens>
  );
}

interface LayoutProps {
  chosenStage: RecutStage;
  setStage(stage: RecutStage): void;
  /** Which of several panels, from 0. */
  panel: number;
  setPanel(panel: number): void;
}

function Layout({ chosenStage, setStage, panel, setPanel }: LayoutProps) {
  const { board, session, plan, numbersFrom = 0 } = useOpenBoard();
  const { ref, width, height } = useMeasuredSize();
  const strips = stripsOf(board);
  const stacked = useMediaQuery('(max-width: 1000px)') ?? false;
  const drawing = useRef<SVGSVGElement>(null);
  const [chosenView, setView] = useState<View>('top');
  const recutBoard = isCutAgain(board);
  const how = recutRecipe(board.recipe) ? 'rows' : insertsOf(board.recipe).length > 0 ? 'parts' : 'flat';
  // What comes after the first panel is worked on where it is drawn; a flat board is its panel.
  const stages = stagesIn(how, {
    stacked: stackOperationsOf(board.recipe).length > 0,
    framed: framesOf(board.recipe).length > 0,
    backed: backOperationOf(board.recipe) !== null,
  });
  const stage = recutBoard && strips.length > 0 && stages.includes(chosenStage) ? chosenStage : 'panel';
  // Of a board that is cut again only the board itself is seen in the round, and slices, rows and parts have no other side.
  const oneSided = recutBoard && stage !== 'panel' && stage !== 'board';
  const view =
    (recutBoard && stage !== 'board' && chosenView === 'round') || (oneSided && chosenView === 'under')
      ? 'top'
      : chosenView;
  const openStage = useCallback(
    (next: RecutStage) => {
      setStage(next);
      setView((seen) => (seen === 'versions' ? 'top' : seen));
    },
    [setStage],
  );
  const [oiled, setOiled] = useLocalStorage({ key: 'cadenza.oiled', defaultValue: false });
  const [overlay, setOverlay] = useState<Overlay>('none');
  const [opened, setOpened] = useState<Opened>(null);
  const { actions, selected, held, hold, hand, announcement } = useStripActions();

  // What stands beside the drawing is rendered only when its own data change; it reaches the newest actions through this.
  // Behind the strip in hand; at the end while nothing was picked up.
  const insertAt = hand.strip === null ? strips.length : selected + 1;
  const latest = useRef({ actions, hold, insertAt });
  useEffect(() => {
    latest.current = { actions, hold, insertAt };
  });
  const steadyActions = useMemo(
    () =>
      new Proxy({} as StripActions, {
        get:
          (_, name: keyof StripActions) =>
          (...args: [never, never]) =>
            latest.current.actions[name](...args),
      }),
    [],
  );
  const pick = useCallback((index: number, how: PickUp = 'only') => latest.current.hold(index, how), []);
  const pickOnly = useCallback((index: number) => latest.current.hold(index - numbersFrom, 'only'), [numbersFrom]);
  const take = useCallback((section: ShelfSection, clientY: number | null) => {
    latest.current.actions.insert(
      section,
      clientY === null ? latest.current.insertAt : insertionIndex(drawing.current, clientY),
    );
  }, []);
  const shuffle = useCallback(() => setOpened('shuffle'), []);
  const history = useCallback(() => setOpened('history'), []);
  const exporting = useCallback(() => setOpened('export'), []);
  const switching = useCallback(() => setOpened('switch'), []);

  const onStrip = (run: () => unknown) => () => {
    if (selected >= 0) run();
  };
  useShortcuts(
    'Layout',
    stage === 'panel'
      ? [
          { keys: 'ArrowUp', does: 'Pick up the strip before', run: () => hold(Math.max(0, selected - 1)) },
          {
            keys: 'ArrowDown',
            does: 'Pick up the strip after',
            run: () => hold(Math.min(strips.length - 1, selected + 1)),
          },
          {
            keys: 'shift+ArrowUp',
            does: 'Pick up the strip before as well',
            run: () => hold(Math.max(0, selected - 1), 'through'),
          },
          {
            keys: 'shift+ArrowDown',
            does: 'Pick up the strip after as well',
            run: () => hold(Math.min(strips.length - 1, selected + 1), 'through'),
          },
          { keys: 'a', does: 'Pick up all strips', run: onStrip(actions.holdAll) },
          { keys: 'alt+ArrowUp', does: 'Move what is held towards the start', run: onStrip(() => actions.move(-1)) },
          { keys: 'alt+ArrowDown', does: 'Move what is held towards the end', run: onStrip(() => actions.move(1)) },
          { keys: 'x', does: 'Swap two strips held, or the strip and the next', run: onStrip(actions.swap) },
          { keys: 'plus', does: 'Widen the strip a little', run: () => actions.stepWidth(1) },
          { keys: '-', does: 'Narrow the strip a little', run: () => actions.stepWidth(-1) },
          { keys: ']', does: 'Next wider width the rack gives', run: () => actions.stepOffered(1) },
          { keys: '[', does: 'Next narrower width the rack gives', run: () => actions.stepOffered(-1) },
          { keys: 'w', does: 'Type the width', run: () => typeInto('strip-width') },
          { keys: 's', does: 'Change the species', run: () => typeInto('strip-species') },
          { keys: 'd', does: 'Duplicate the strip, or repeat the motif held', run: onStrip(actions.repeat) },
          { keys: 'm', does: 'Mirror: repeat what lies before the strip behind it', run: onStrip(actions.mirror) },
          { keys: 'r', does: 'Reverse the order of what is held, or of all strips', run: onStrip(actions.reverse) },
          { keys: 'e', does: 'Even out widths until the board is full', run: onStrip(actions.evenOut) },
          { keys: 't', does: 'Turn end for end', run: onStrip(actions.turn) },
          { keys: 'o', does: 'Turn over: the other face shows', run: onStrip(actions.turnOver) },
          { keys: 'q', does: 'Roll a quarter turn: edge or face up', run: onStrip(actions.roll) },
          { keys: 'l', does: 'Lock or unlock place and width', run: onStrip(actions.lock) },
          { keys: 'f', does: 'Shuffle: other orders of these strips', run: shuffle },
          { keys: 'b', does: 'Look at the other side', run: () => setView(view === 'under' ? 'top' : 'under') },
          {
            keys: 'v',
            does: 'Show something else over the wood',
            run: () => setOverlay(nth(OVERLAYS, (OVERLAYS.indexOf(overlay) + 1) % OVERLAYS.length)),
          },
          { keys: 'Delete', does: 'Remove what is held', run: onStrip(actions.remove) },
          { keys: 'Backspace', does: 'Remove what is held', run: onStrip(actions.remove) },
          {
            keys: 'i',
            does: 'Take a section from the shelf (arrows choose, Enter puts it in)',
            run: () => document.querySelector<HTMLElement>('[data-shelf] button')?.focus(),
          },
        ]
      : [{ keys: 'b', does: 'Look at the other side', run: () => setView(view === 'under' ? 'top' : 'under') }],
  );

  return (
    <div className={classes.place}>
      <div className={classes.tools}>
        {recutBoard && strips.length > 0 && (
          <Suspense fallback={<div className={classes.stagesToCome} />}>
            <StageRow stage={stage} onStage={openStage} />
          </Suspense>
        )}
        {(stage === 'panel' || stage === 'slices') && panelCount(board) > 1 && (
          <PanelChoice panel={panel} count={panelCount(board)} laidOut={stage === 'panel'} onPanel={setPanel} />
        )}
        {stage === 'panel' && <StripRail hand={hand} actions={steadyActions} onShuffle={shuffle} />}
        <ViewBar
          view={view}
          oiled={oiled}
          overlay={overlay}
          versions={board.versions.length}
          construction={board.construction}
          stage={recutBoard ? stage : null}
          onView={setView}
          onOiled={setOiled}
          onOverlay={setOverlay}
          onShuffle={shuffle}
          onHistory={history}
          onExport={exporting}
          onSwitch={switching}
          onStage={openStage}
        />
      </div>
      <div className={classes.bench}>
        {view === 'versions' ? (
          <VersionsView oiled={oiled} />
        ) : (
          <div
            ref={ref}
            className={classes.drawing}
            style={
              stacked && width > 0
                ? {
                    height:
                      stage === 'panel'
                        ? Math.min(naturalHeight(plan, width), window.innerHeight * 0.7)
                        : window.innerHeight * 0.7,
                  }
                : undefined
            }
          >
            {width > 0 && view === 'round' && (
              <Suspense fallback={null}>
                <Turntable width={width} height={height} oiled={oiled} />
              </Suspense>
            )}
            {width > 0 && view !== 'round' && stage !== 'panel' && (
              <Suspense fallback={null}>
                <RecutBench
                  stage={stage}
                  panel={panel}
                  width={width}
                  height={height}
                  oiled={oiled}
                  under={view === 'under'}
                />
              </Suspense>
            )}
            {width > 0 && view !== 'round' && stage === 'panel' && (
              <BoardDrawing
                svgRef={drawing}
                width={width}
                height={height}
                selected={selected}
                held={held}
                flipped={view === 'under'}
                oiled={oiled}
                overlay={overlay}
                onPick={pick}
                onStrips={(edit, mergeKey) => session.edit((b) => withStrips(b, edit(stripsOf(b))), mergeKey)}
                onGestureEnd={() => session.endMerge()}
              />
            )}
          </div>
        )}
        {view !== 'versions' && stage === 'panel' && <SectionShelf onTake={take} drawing={drawing} />}
      </div>
      <Outcome onSelect={pickOnly} />
      <div className={classes.live} aria-live="polite">
        {announcement}
      </div>
      {opened === 'shuffle' && <ShuffleDrawer onClose={() => setOpened(null)} />}
      {opened === 'history' && <HistoryDrawer onClose={() => setOpened(null)} />}
      {opened === 'switch' && (
        <SwitchDialog to={board.construction === 'edge' ? 'face' : 'edge'} onClose={() => setOpened(null)} />
      )}
      {opened === 'export' && <ExportDialog oiled={oiled} onClose={() => setOpened(null)} />}
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
