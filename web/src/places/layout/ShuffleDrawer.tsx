import { Button, Drawer } from '@mantine/core';
import { nanoid } from 'nanoid';
import { useEffect, useState } from 'react';
import { useOpenBoard } from '../../data/openBoard.tsx';
import { BoardMiniature } from '../../drawing/BoardMiniature.tsx';
import { fitScale } from '../../drawing/scale.ts';
import { useProposing } from '../../proposing/useProposing.ts';
import { Say } from '../../quantities/Length.tsx';
import { showProblem } from '../../shell/notices.tsx';
import classes from './ShuffleDrawer.module.css';
import { nextVersionName, setAside } from './versions.ts';
import { stripsOf, withStrips, type Strip } from '#core/board/recipe.ts';

/** Shuffling takes no longer than this, seconds. */
const MOST_SECONDS = 10;
const ROOM: [number, number] = [250, 150];

/** Other orders of the strips on the board; locked ones stay where they are. */
export function ShuffleDrawer({ onClose }: { onClose(): void }) {
  const { board, session, input } = useOpenBoard();
  const [seed, setSeed] = useState(1);
  const { answer, running, start, stop } = useProposing('shuffle');
  const [began] = useState({ strips: stripsOf(board), species: input.species });
  useEffect(() => start({ kind: 'shuffle', ...began, seed, seconds: MOST_SECONDS }), [start, began, seed]);
  const orders = answer?.orders ?? [];
  const locked = began.strips.filter((s) => s.locked).length;
  const scale = fitScale([board.length, board.width], ROOM, 1);
  const aside = (strips: readonly Strip[]) => {
    const added = setAside(board, nextVersionName(board.versions), nanoid(10), withStrips(board, strips));
    if (added) session.edit(() => added);
    else showProblem(new Error('There are as many versions as can be; remove one first.'));
  };
  return (
    <Drawer
      opened
      onClose={onClose}
      position="right"
      size={340}
      title="Shuffle this board"
      withOverlay={false}
      lockScroll={false}
      trapFocus={false}
      closeButtonProps={{ 'aria-label': 'Close' }}
      className={classes.drawer}
    >
      <p className={classes.lead}>
        The same strips in other orders
        {locked > 0
          ? `; ${locked} locked ${locked === 1 ? 'strip stays' : 'strips stay'} in place`
          : '. Lock strips to keep them in place'}
        .
      </p>
      <div className={classes.buttons}>
        {running ? (
          <Button key="stop" size="xs" variant="default" onClick={stop}>
            Stop
          </Button>
        ) : (
          <Button key="again" size="xs" onClick={() => setSeed(seed + 1)}>
            Shuffle again
          </Button>
        )}
        <Button size="xs" variant="default" onClick={() => session.edit((b) => withStrips(b, began.strips))}>
          As it was
        </Button>
        <span role="status">{running ? 'Looking …' : orders.length > 0 ? `${orders.length} orders` : ''}</span>
      </div>
      {!running && orders.length === 0 && (
        <p className={classes.none}>
          There is no other order:{' '}
          {locked >= began.strips.length - 1
            ? 'at most one strip is not locked. Unlock some.'
            : 'the strips that may move are all alike.'}
        </p>
      )}
      <ul className={classes.orders}>
        {orders.map((order, i) => (
          <li key={order.strips.map((s) => s.id).join()}>
            <BoardMiniature board={withStrips(board, order.strips)} input={input} scale={scale} />
            <p>
              <Say phrase={order.says} />{' '}
              <small>
                Contrast {order.contrast.toFixed(0)}, rhythm {Math.round(100 * order.rhythm)} %
              </small>
            </p>
            <Button
              size="compact-xs"
              aria-label={`Lay out order ${i + 1}`}
              onClick={() => session.edit((b) => withStrips(b, order.strips))}
            >
              Lay it out
            </Button>{' '}
            <Button
              size="compact-xs"
              variant="default"
              aria-label={`Set order ${i + 1} aside as a version`}
              onClick={() => aside(order.strips)}
            >
              Set aside
            </Button>
          </li>
        ))}
      </ul>
    </Drawer>
  );
}
