import { memo } from 'react';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { FindingCards } from '../../planning/FindingCard.tsx';
import { MaterialFigures } from '../../planning/MaterialFigures.tsx';
import { Length } from '../../quantities/Length.tsx';
import classes from './Outcome.module.css';
import { SeasonPanel } from './SeasonPanel.tsx';
import { stripsOf } from '#core/board/recipe.ts';

/** What comes of the layout, always in sight: the sum against the wanted width, the other sizes, the wood, and what to mind. */
export const Outcome = memo(function Outcome({ onSelect }: { onSelect(index: number): void }) {
  const { board, plan, findings } = useSettledBoard();
  const { panelWidth, allowances, ladders, materials, finish, shop, again, frame, back } = plan;
  const difference = panelWidth - allowances.wantedPanelWidth;
  const short = difference < -1e-6;
  const share = Math.min(1, panelWidth / Math.max(1, allowances.wantedPanelWidth));

  return (
    <aside className={classes.outcome} aria-label="What comes of it">
      <section className={classes.sum} data-short={short || undefined} aria-label="Sum of the strips">
        <h2>Strips together</h2>
        <p className={classes.big}>
          <Length mm={panelWidth} />
        </p>
        <div className={classes.bar} aria-hidden="true">
          <span style={{ width: `${share * 100}%` }} />
        </div>
        <p>
          {short ? (
            <>
              <b>
                <Length mm={-difference} /> to go
              </b>{' '}
              to{' '}
            </>
          ) : difference > 0.05 ? (
            <>
              <b>
                <Length mm={difference} /> over
              </b>{' '}
            </>
          ) : (
            'exactly '
          )}
          <Length mm={allowances.wantedPanelWidth} />
          {again ? (
            `, for the ${again.how === 'rows' ? 'rows' : 'parts'} of the board`
          ) : frame || back ? (
            `, for what ${frame ? 'the frame goes round' : 'is above the back'}`
          ) : (
            <>
              : board <Length mm={board.width} bare /> + trim{' '}
              <Length mm={allowances.wantedPanelWidth - board.width} bare />
            </>
          )}
        </p>
      </section>
      <dl className={classes.sizes} aria-label="Finished sizes that come out">
        {stripsOf(board).length > 0 && (
          <>
            <Size label="Length" mm={ladders.length.reached} wanted={board.length} />
            <Size label="Width" mm={ladders.width.reached} wanted={board.width} />
            <Size label="Thickness" mm={ladders.thickness.reached} wanted={board.thickness} />
          </>
        )}
      </dl>
      {stripsOf(board).length > 0 && (
        <MaterialFigures materials={materials} shop={shop} coatings={finish.coatings} count={board.count} />
      )}
      {stripsOf(board).length > 0 && <SeasonPanel />}
      <section className={classes.findings} aria-label="What to mind">
        <FindingCards findings={findings} onSelect={onSelect} />
        {findings.length === 0 && stripsOf(board).length > 0 && (
          <p className={classes.fine}>Nothing to mind: this can be made from the rack.</p>
        )}
      </section>
    </aside>
  );
});

function Size({ label, mm, wanted }: { label: string; mm: number; wanted: number }) {
  const short = wanted - mm > 1e-6;
  return (
    <div data-short={short || undefined}>
      <dt>{label}</dt>
      <dd>
        <Length mm={mm} />
        {short && (
          <small>
            {' '}
            of <Length mm={wanted} />
          </small>
        )}
      </dd>
    </div>
  );
}
