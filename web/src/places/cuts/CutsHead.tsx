import { certain } from '#core/lists/there.ts';
import { Button, Loader, Menu, SegmentedControl } from '@mantine/core';
import { IconLock, IconLockOpen, IconPlayerStop, IconPrinter, IconRefresh } from '@tabler/icons-react';
import type { CutSheet } from '#core/cutting/cutSheet.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import classes from './cuts.module.css';
import type { Cuts } from './useCuts.ts';
import { gapWords, money } from './words.ts';

interface CutsHeadProps {
  cuts: Cuts;
  sheets: readonly CutSheet[];
  view: string;
  onView(view: string): void;
  /** A sheet for one piece (its id and which of several), or for every one. */
  onPrint(piece: string | null): void;
}

/** How it stands with the cut plan, and what can be done with it as a whole. */
export function CutsHead({ cuts, sheets, view, onView, onPrint }: CutsHeadProps) {
  const { input, plan: boardPlan, draft } = useSettledBoard();
  const { plan, kept } = cuts;
  const { currency } = input.shop;
  return (
    <div className={classes.head}>
      <h2>Cuts</h2>
      <div className={classes.status} role="status">
        {cuts.running && <Loader size={16} aria-hidden="true" />}
        <span>
          {cuts.allCut ? (
            <b>All strips are cut.</b>
          ) : cuts.showsKept ? (
            <>
              <b>Kept.</b> This wood is promised{certain(kept).boards.length > 1 ? ' to these boards' : ''}.
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
        <Button variant="default" leftSection={<IconRefresh size={16} />} disabled={cuts.allCut} onClick={cuts.improve}>
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
          <Menu.Item onClick={() => onPrint(null)}>A sheet for every piece</Menu.Item>
          {sheets.map((s) => (
            <Menu.Item key={`${s.piece.id}/${s.unit}`} onClick={() => onPrint(`${s.piece.id}/${s.unit}`)}>
              Only {s.piece.mark}
              {s.piece.count > 1 ? `, number ${s.unit + 1}` : ''}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
      <SegmentedControl
        aria-label="View"
        value={view}
        onChange={onView}
        data={[
          { value: 'drawing', label: 'Drawing' },
          { value: 'table', label: 'Table' },
        ]}
      />
      {boardPlan.outdated && kept && !draft && (
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
  );
}
