import { lastOf } from '#core/lists/there.ts';
import { Button, Drawer, Switch, TextInput } from '@mantine/core';
import { keepPreviousData, useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { Revision } from '#contract/boards.ts';
import { api } from '../../data/api.ts';
import { useOpenBoard } from '../../data/openBoard.tsx';
import { BoardMiniature } from '../../drawing/BoardMiniature.tsx';
import { BoardSizeLine } from '../../drawing/BoardSizeLine.tsx';
import { fitScale } from '../../drawing/scale.ts';
import { showProblem } from '../../shell/notices.tsx';
import classes from './ShuffleDrawer.module.css';

const ROOM: [number, number] = [250, 130];
const WHEN = new Intl.DateTimeFormat(undefined, {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
  second: '2-digit',
});
/** Revisions the server sends at once; fewer mean that it was the last page. */
const PAGE = 40;

/** Every state the board was saved in, newest first: to be looked at, named and brought back. */
export function HistoryDrawer({ onClose }: { onClose(): void }) {
  const { id, board, session, input, save } = useOpenBoard();
  const [named, setNamed] = useState(false);
  const client = useQueryClient();
  const key = ['revisions', id, named, save.kind === 'saved' ? save.at : ''];
  const history = useInfiniteQuery({
    queryKey: key,
    initialPageParam: null as number | null,
    queryFn: ({ pageParam }) => api.revisions(id, pageParam, named),
    // A save that lands meanwhile brings a new list; a name that is being typed must not go with the old one.
    placeholderData: keepPreviousData,
    getNextPageParam: (page: Revision[]) => (page.length < PAGE ? undefined : lastOf(page).number),
  });
  const revisions = history.data?.pages.flat() ?? [];
  const scale = fitScale(
    [
      Math.max(board.length, ...revisions.map((r) => r.board.length)),
      Math.max(board.width, ...revisions.map((r) => r.board.width)),
    ],
    ROOM,
    1,
  );
  const rename = async (number: number, name: string) => {
    try {
      await api.nameRevision(id, number, name);
      await client.invalidateQueries({ queryKey: ['revisions', id] });
    } catch (error) {
      showProblem(error);
    }
  };
  return (
    <Drawer
      opened
      onClose={onClose}
      position="right"
      size={340}
      title="History of this board"
      withOverlay={false}
      lockScroll={false}
      trapFocus={false}
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <p className={classes.lead}>
        Every step is kept. Name the ones you want to find again. Bringing one back is a step of its own, and undo takes
        it back.
      </p>
      <Switch
        size="sm"
        label="Only those with a name"
        checked={named}
        onChange={(event) => setNamed(event.currentTarget.checked)}
      />
      {history.error && (
        <p role="alert" className={classes.none}>
          {history.error.message}
        </p>
      )}
      {history.data && revisions.length === 0 && <p className={classes.lead}>None has a name yet.</p>}
      <ul className={classes.orders}>
        {revisions.map((r) => (
          <li key={r.number}>
            <BoardMiniature board={r.board} input={input} scale={scale} />
            <p>
              {WHEN.format(new Date(r.madeAt))}{' '}
              <small>
                <BoardSizeLine board={r.board} />
              </small>
            </p>
            <TextInput
              size="xs"
              aria-label={`Name of the state saved ${WHEN.format(new Date(r.madeAt))}`}
              placeholder="Give it a name"
              defaultValue={r.name}
              key={r.name}
              maxLength={80}
              mb={6}
              onBlur={(event) =>
                event.currentTarget.value.trim() !== r.name && void rename(r.number, event.currentTarget.value.trim())
              }
              onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
            />
            <Button
              size="compact-xs"
              variant="default"
              disabled={JSON.stringify(r.board) === JSON.stringify(board)}
              onClick={() => session.edit(() => r.board)}
            >
              Bring it back
            </Button>
          </li>
        ))}
      </ul>
      {history.hasNextPage && (
        <Button
          variant="default"
          size="xs"
          loading={history.isFetchingNextPage}
          onClick={() => void history.fetchNextPage()}
        >
          Earlier ones
        </Button>
      )}
    </Drawer>
  );
}
