import { Button } from '@mantine/core';
import { IconPrinter } from '@tabler/icons-react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { DEFER_TO_MANUAL } from '#core/steps/cautions.ts';
import { ShownAs, useSettledBoard } from '../../data/openBoard.tsx';
import { BoardSizeLine } from '../../drawing/BoardSizeLine.tsx';
import { Length, Say } from '../../quantities/Length.tsx';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import { useDay } from '../../shell/useTime.ts';
import { PartsTable } from '../../planning/PartsTable.tsx';
import { BoardSteps } from '../../planning/BoardSteps.tsx';
import { otherPanelView } from '../glue/gluedViews.ts';
import { BackMap } from './BackMap.tsx';
import { FrameMap } from './FrameMap.tsx';
import { StackMap } from './StackMap.tsx';
import { PartMap } from './PartMap.tsx';
import { RowMap } from './RowMap.tsx';
import { SheetDrawing } from './SheetDrawing.tsx';
import classes from './SheetPlace.module.css';
import { stripsOf } from '#core/board/recipe.ts';

const TODAY = new Intl.DateTimeFormat(undefined, { dateStyle: 'long' });

/** The plan on paper: what is taken to the bench. */
export function SheetPlace() {
  const open = useSettledBoard();
  const today = useDay();
  const { board, plan, findings, input } = open;
  // Panels that rows come from in turn, each laid out on its own.
  const others = useMemo(
    () => (plan.again?.otherPanels ?? []).map((_, k) => otherPanelView(open, k)),
    [open, plan.again],
  );
  useShortcuts('Bench sheet', [{ keys: 'mod+p', does: 'Print', run: () => window.print() }]);
  const minded = findings.filter((f) => f.severity !== 'note');

  return (
    <div className={classes.page}>
      <div className={classes.tools}>
        <Button leftSection={<IconPrinter size={17} />} onClick={() => window.print()}>
          Print
        </Button>
        <span>Fits A4 and Letter.</span>
        {stripsOf(board).length === 0 && (
          <span>
            There is nothing on it yet:{' '}
            <Link to="../layout" relative="path">
              lay out strips
            </Link>{' '}
            first.
          </span>
        )}
      </div>
      <article className={classes.sheet} aria-label="Bench sheet">
        <header>
          <h2>{board.name}</h2>
          <p>
            {input.shop.name}, {TODAY.format(today)}
          </p>
          <p className={classes.size}>
            <BoardSizeLine board={board} />
            {board.use && `. ${board.use}.`}
          </p>
        </header>
        {stripsOf(board).length > 0 && (
          <>
            <SheetDrawing marks />
            {others.map((other) => (
              <ShownAs key={other.numbersFrom} open={other}>
                <SheetDrawing marks />
              </ShownAs>
            ))}
            {plan.recut && <RowMap recut={plan.recut} />}
            {plan.again?.how === 'parts' && <PartMap inset={plan.again} />}
            {plan.stacks.map(({ stack }, k) => (
              <StackMap key={stack.operation.id} stack={stack} number={plan.stacks.length > 1 ? k + 1 : null} />
            ))}
            {plan.frame && <FrameMap frame={plan.frame} />}
            {plan.back && <BackMap back={plan.back} />}
            {minded.length > 0 && (
              <section className={classes.mind}>
                <h3>Mind before you cut</h3>
                <ul>
                  {minded.map((f, i) => (
                    <li key={i}>
                      <b>{f.severity === 'stop' ? 'Stop. ' : ''}</b>
                      <Say phrase={f.what} />
                    </li>
                  ))}
                </ul>
              </section>
            )}
            <section>
              <h3>Cut list</h3>
              <PartsTable />
            </section>
            <section className={classes.ladders}>
              <h3>Sizes on the way</h3>
              {[plan.ladders.thickness, plan.ladders.width, plan.ladders.length].map((ladder) => (
                <p key={ladder.dimension}>
                  <b>{ladder.dimension}</b> {ladder.rungs[0] && <Length mm={ladder.rungs[0].before} bare />}
                  {ladder.rungs.map((r) => (
                    <span key={r.id}>
                      {' '}
                      → <Length mm={r.after} bare />{' '}
                      <small>
                        <Say phrase={r.label} />
                      </small>
                    </span>
                  ))}
                </p>
              ))}
            </section>
            <section>
              <h3>Steps</h3>
              <BoardSteps operations={plan.operations} findings={findings} forPaper />
            </section>
            <footer>
              <Say phrase={DEFER_TO_MANUAL} />
            </footer>
          </>
        )}
      </article>
    </div>
  );
}
