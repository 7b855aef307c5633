import { certain } from '#core/lists/there.ts';
import { Button, MultiSelect } from '@mantine/core';
import { useElementSize } from '@mantine/hooks';
import { IconCut } from '@tabler/icons-react';
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
import { Length } from '../../quantities/Length.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import { showProblem, showUndo } from '../../shell/notices.tsx';
import { CutPieceDrawing } from './CutPieceDrawing.tsx';
import { CutRail } from './CutRail.tsx';
import { CutsHead } from './CutsHead.tsx';
import { CutTable } from './CutTable.tsx';
import { DoneCuts } from './DoneCuts.tsx';
import { MoveStripDialog } from './MoveStripDialog.tsx';
import { ShortageWords } from './ShortageWords.tsx';
import { StripBar } from './StripBar.tsx';
import classes from './cuts.module.css';
import { useCuts } from './useCuts.ts';
import { listNumbers } from '#core/steps/numberList.ts';
import { gluedStrips, isGlued } from '#core/plan/gluedStrips.ts';
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
  // What is glued is looked for no more, as every other page says; of several boards each says so itself.
  const inBoard = cuts.together.length > 1 ? new Set<number>() : gluedStrips(boardPlan, input.facts);
  const missing = plan.shortages.filter((s) => !isGlued(s, inBoard));
  const glued = plan.shortages.filter((s) => isGlued(s, inBoard)).flatMap((s) => s.strips);
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
      const made = certain(book.cuttings.find((c) => !before.has(c.id)));
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
      <CutsHead cuts={cuts} sheets={sheets} view={view} onView={setView} onPrint={print} />
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
        {missing.map((s) => (
          <div key={`${s.species}/${s.rip}/${s.thickness}`} className={classes.short} role="alert">
            <ShortageWords shortage={s} species={species} />
          </div>
        ))}
        {glued.length > 0 && (
          <p className={classes.soft}>
            Strips in the board already, glued: {listNumbers(glued)}. Their cuts were not booked.
          </p>
        )}
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
