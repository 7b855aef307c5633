import { Button, Loader, Menu, MultiSelect, SegmentedControl } from '@mantine/core';
import { useElementSize } from '@mantine/hooks';
import { IconCut, IconLock, IconLockOpen, IconPlayerStop, IconPrinter, IconRefresh } from '@tabler/icons-react';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { RippedStrip } from '#core/cutting/cutPlan.ts';
import { cutSheets, type CutSheet } from '#core/cutting/cutSheet.ts';
import { moveStrip, withBan, withPin } from '#core/saw/moveStrip.ts';
import { phraseText } from '#core/units/phrase.ts';
import { api } from '../../data/api.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { takeBook, useAllBoards } from '../../data/queries.ts';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { buyWords } from '#core/checks/stockShortage.ts';
import { Length, Say } from '../../quantities/Length.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import { showProblem, showUndo } from '../../shell/notices.tsx';
import { CutPieceDrawing } from './CutPieceDrawing.tsx';
import { CutRail } from './CutRail.tsx';
import { CutTable } from './CutTable.tsx';
import { DoneCuts } from './DoneCuts.tsx';
import { MoveStripDialog } from './MoveStripDialog.tsx';
import { StripBar } from './StripBar.tsx';
import classes from './cuts.module.css';
import { gapWords, money } from './words.ts';
import { useCuts } from './useCuts.ts';
import { stripsOf } from '#core/board/recipe.ts';

/** Which strip comes from which piece: drawn to scale in cutting order, searched while you watch, kept, and booked after the saw. */
export function CutsPlace() {
  const open = useSettledBoard();
  const { board, session, input, id, plan: boardPlan } = open;
  const cuts = useCuts();
  const { display } = useDisplay();
  const boards = useAllBoards();
  const { ref, width } = useElementSize();
  const [lit, setLit] = useState<string | null>(null);
  const [view, setView] = useState('drawing');
  const [moving, setMoving] = useState<RippedStrip | null>(null);
  const [printing, setPrinting] = useState<string | null>(null);
  const { plan, kept } = cuts;
  const { shop, species, rack } = input;
  const pieces = useMemo(() => new Map(rack.map((p) => [p.id, p])), [rack]);
  const sheets = useMemo(() => cutSheets(plan, pieces, shop), [plan, pieces, shop]);
  const longest = Math.max(600, ...sheets.map((s) => s.piece.length));
  // On a narrow page a piece scrolls sideways rather than losing its numbers.
  const scale = Math.max(0.3, fitScale([longest + 4, 1], [Math.max(320, width), 1e6], 0.7));
  const { currency } = shop;
  useShortcuts('Cuts', [
    {
      keys: 'i',
      does: 'Search for a better cut plan, or stop',
      run: () => (cuts.running ? cuts.stop() : cuts.improve()),
    },
    { keys: 't', does: 'Drawing or table', run: () => setView(view === 'drawing' ? 'table' : 'drawing') },
  ]);
  if (stripsOf(board).length === 0) {
    return (
      <div className={classes.page}>
        <div>
          <h2>Nothing to cut yet</h2>
          <p>Lay out strips first; then the rack is searched for the best way to cut them.</p>
          <Button component={Link} to="../layout" relative="path">
            Lay out strips
          </Button>
        </div>
      </div>
    );
  }

  const nameOf = (key: string) =>
    key === id ? board.name : (boards.data?.find((b) => b.id === key)?.board.name ?? 'another board');
  const lettered = plan.blanks.some((b) => b.strips.some((s) => s.demand.copy > 1));
  const boardNumber = (key: string) => (cuts.together.length > 1 ? cuts.together.indexOf(key) + 1 : null);
  const pin = (strip: RippedStrip, pieceId: string | null) => {
    const mark = pieceId === null ? null : pieces.get(pieceId)?.mark;
    cuts.announce(mark ? `Strip ${strip.demand.strip} from ${mark}` : `Strip ${strip.demand.strip} from any piece`);
    session.edit((b) => withPin(b, strip.demand.stripId, pieceId));
  };
  const drop = (strip: RippedStrip, target: { pieceId: string; strip: string | null }) => {
    const moved = moveStrip(plan, strip, target, id, { rack, shop, species });
    if (moved?.kind === 'swapped') cuts.rearrange(moved.plan, phraseText(moved.says, display));
    else if (moved?.kind === 'pinned') pin(strip, moved.pieceId);
    else if (moved) showProblem(new Error(phraseText(moved.why, display)));
  };
  const cut = async ({ piece, unit }: CutSheet) => {
    if (!kept) return;
    try {
      const before = new Set(open.book.cuttings.map((c) => c.id));
      const book = await api.cutPiece({ planId: kept.id, pieceId: piece.id, unit });
      takeBook(id, book);
      const made = book.cuttings.find((c) => !before.has(c.id))!;
      showUndo(
        `${piece.mark} is cut. ${made.record.leftovers.length === 0 ? 'Nothing is left of it.' : `Back in the rack: ${made.record.leftovers.map((l) => l.mark).join(', ')}.`}`,
        async () => takeBook(id, await api.undoCutting(made.id)),
      );
    } catch (error) {
      showProblem(error);
    }
  };
  const print = (key: string | null) => {
    setPrinting(key);
    // Once the choice is drawn; afterwards everything prints again.
    setTimeout(() => {
      window.print();
      setPrinting(null);
    }, 50);
  };

  return (
    <div className={classes.page}>
      <div className={classes.head}>
        <h2>Cuts</h2>
        <div className={classes.status} role="status">
          {cuts.running && <Loader size={16} aria-hidden="true" />}
          <span>
            {cuts.allCut ? (
              <b>All strips are cut.</b>
            ) : cuts.showsKept ? (
              <>
                <b>Kept.</b> This wood is promised{kept!.boards.length > 1 ? ' to these boards' : ''}.
              </>
            ) : plan.method === 'first-fit' ? (
              <>
                <b>First answer.</b> Searching for better …
              </>
            ) : cuts.running ? (
              <b>Searching.</b>
            ) : (
              <b>Best found.</b>
            )}{' '}
            {!cuts.allCut && plan.score.total > 0 && <>{money(plan.score.wood, currency)} of wood. </>}
            {!cuts.allCut && <small>{gapWords(plan)}</small>}
          </span>
        </div>
        <span className={classes.grow} />
        {cuts.running ? (
          <Button variant="default" leftSection={<IconPlayerStop size={16} />} onClick={cuts.stop}>
            Stop and use this
          </Button>
        ) : (
          <Button
            variant="default"
            leftSection={<IconRefresh size={16} />}
            disabled={cuts.allCut}
            onClick={cuts.improve}
          >
            Search again
          </Button>
        )}
        {kept && (
          <Button
            variant="default"
            leftSection={<IconLockOpen size={16} />}
            loading={cuts.busy}
            onClick={() => void cuts.release()}
          >
            Release the wood
          </Button>
        )}
        {!cuts.showsKept && (
          <Button
            leftSection={<IconLock size={16} />}
            loading={cuts.busy}
            disabled={plan.blanks.every((b) => b.done)}
            onClick={() => void cuts.keep()}
          >
            Keep this plan
          </Button>
        )}
        <Menu position="bottom-end">
          <Menu.Target>
            <Button variant="default" leftSection={<IconPrinter size={16} />}>
              Print
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item onClick={() => print(null)}>A sheet for every piece</Menu.Item>
            {sheets.map((s) => (
              <Menu.Item key={`${s.piece.id}/${s.unit}`} onClick={() => print(`${s.piece.id}/${s.unit}`)}>
                Only {s.piece.mark}
                {s.piece.count > 1 ? `, number ${s.unit + 1}` : ''}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
        <SegmentedControl
          aria-label="View"
          value={view}
          onChange={setView}
          data={[
            { value: 'drawing', label: 'Drawing' },
            { value: 'table', label: 'Table' },
          ]}
        />
        {boardPlan.outdated && kept && !open.draft && (
          <p className={classes.outdated}>
            The plan that was kept no longer fits the board, the rack or the shop&apos;s ways. Its wood stays promised
            until you keep a new plan in its place, or release it.
          </p>
        )}
        {cuts.price && cuts.price.words && (
          <p className={classes.price} role="status">
            {cuts.price.words}:{' '}
            {Math.abs(cuts.price.more) < 0.005
              ? 'costs nothing'
              : cuts.price.more > 0
                ? `costs ${money(cuts.price.more, currency)} more`
                : `saves ${money(-cuts.price.more, currency)}`}
            {cuts.price.sure ? '.' : ' so far.'}
          </p>
        )}
      </div>
      <div className={classes.bar} ref={ref}>
        <StripBar
          plan={plan}
          done={boardPlan.cutting.blanks.filter((b) => b.done)}
          board={board}
          boardKey={id}
          species={species}
          width={width}
          lit={lit}
          onLight={setLit}
        />
        <span className={classes.soft}>
          All pieces at {scaleWords(scale)}. Point at a strip to see it in both; drag it to another piece, or press
          Enter on it.
        </span>
      </div>
      <div className={classes.list}>
        {plan.shortages.map((s) => (
          <div key={`${s.species}/${s.rip}/${s.thickness}`} className={classes.short} role="alert">
            <ShortageWords shortage={s} species={species} />
          </div>
        ))}
        {view === 'table' ? (
          <CutTable sheets={sheets} lit={lit} onLight={setLit} nameOf={nameOf} several={cuts.together.length > 1} />
        ) : (
          sheets.map((sheet) => (
            <section
              key={`${sheet.piece.id}/${sheet.unit}`}
              className={classes.item}
              aria-label={`Piece ${sheet.piece.mark}`}
              data-print={printing === null || printing === `${sheet.piece.id}/${sheet.unit}` ? 'yes' : 'no'}
            >
              <header>
                <h3>
                  <Link to={`/rack/${sheet.piece.id}`}>{sheet.piece.mark}</Link>
                  {sheet.piece.count > 1 && ` no. ${sheet.unit + 1}`}
                </h3>
                <span>
                  {species.find((s) => s.code === sheet.piece.species)?.name}, <Length mm={sheet.piece.length} bare /> ×{' '}
                  <Length mm={sheet.piece.width} bare /> × <Length mm={sheet.piece.thickness} />
                  {sheet.piece.shelf && `, ${sheet.piece.shelf}`}
                </span>
                <span className={classes.onlyPrint}>
                  {cuts.together.map(nameOf).join(', ')}. Crosscuts in red, numbered; then rips. Keep to the
                  machine&apos;s manual.
                </span>
                <span className={classes.actions}>
                  {cuts.showsKept && (
                    <Button size="compact-sm" leftSection={<IconCut size={14} />} onClick={() => void cut(sheet)}>
                      It is cut
                    </Button>
                  )}
                  <Button
                    size="compact-sm"
                    variant="subtle"
                    onClick={() => {
                      cuts.announce(`Without ${sheet.piece.mark}`);
                      session.edit((b) => withBan(b, sheet.piece.id));
                    }}
                  >
                    Leave this piece alone
                  </Button>
                </span>
              </header>
              <div className={classes.scroll}>
                <CutPieceDrawing
                  sheet={sheet}
                  species={species.find((s) => s.code === sheet.piece.species)}
                  scale={scale}
                  ripKerf={shop.saw.kerf}
                  boardNumber={boardNumber}
                  lettered={lettered}
                  lit={lit}
                  onLight={setLit}
                  onDrop={drop}
                  onMove={setMoving}
                />
              </div>
            </section>
          ))
        )}
        <DoneCuts lit={lit} onLight={setLit} />
      </div>
      <CutRail
        cuts={cuts}
        sheets={sheets}
        together={
          <MultiSelect
            label="Cut together with"
            placeholder={cuts.together.length > 1 ? undefined : 'only this board'}
            value={cuts.together.slice(1)}
            onChange={cuts.setTogether}
            data={(boards.data ?? [])
              .filter((b) => b.id !== id && stripsOf(b.board).length > 0)
              .map((b) => ({ value: b.id, label: b.board.name }))}
          />
        }
      />
      {moving && (
        <MoveStripDialog strip={moving} onClose={() => setMoving(null)} onMove={(pieceId) => pin(moving, pieceId)} />
      )}
    </div>
  );
}

function ShortageWords({
  shortage,
  species,
}: {
  shortage: ReturnType<typeof useCuts>['plan']['shortages'][number];
  species: ReturnType<typeof useSettledBoard>['input']['species'];
}) {
  const name = species.find((s) => s.code === shortage.species)?.name ?? shortage.species;
  return (
    <>
      <p>
        <b>
          {name}: {shortage.parts === 1 ? '1 strip' : `${shortage.parts} strips`} cannot be had
        </b>{' '}
        (number {shortage.strips.join(', ')}). <Say phrase={shortage.say} />
      </p>
      <p>
        To buy: <Say phrase={buyWords(shortage)} />.
      </p>
    </>
  );
}
