import { ActionIcon, Button } from '@mantine/core';
import { useViewportSize } from '@mantine/hooks';
import { IconDots, IconFolderOpen, IconPlus, IconSparkles } from '@tabler/icons-react';
import { lazy, Suspense, useMemo, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { newBoard, type Board } from '#core/board/board.ts';
import type { BoardFile } from '#core/format/boardFile.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import { sawStateFor } from '#core/saw/sawBook.ts';
import type { SawBook } from '#core/saw/sawRecords.ts';
import type { ListedBoard } from '#contract/boards.ts';
import { api } from '../../data/api.ts';
import { trouble, useBoards, useRack, useSawBook, useShop, useSpecies } from '../../data/queries.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { BoardMiniature } from '../../drawing/BoardMiniature.tsx';
import { BoardSizeLine } from '../../drawing/BoardSizeLine.tsx';
import { fitScale, scaleWords } from '../../drawing/scale.ts';
import { DemoNote } from '../../shell/DemoNote.tsx';
import { useDisplay } from '../../quantities/display.tsx';
import { useShortcuts } from '../../shortcuts/Shortcuts.tsx';
import { showProblem, showUndo } from '../../shell/notices.tsx';
import classes from './BoardsPlace.module.css';
import { BoardStanding } from './BoardStanding.tsx';

// Fetched when they are first asked for: the page is there sooner.
const ImportDialog = lazy(async () => ({ default: (await import('./ImportDialog.tsx')).ImportDialog }));
const CardMenu = lazy(async () => ({ default: (await import('./CardMenu.tsx')).CardMenu }));

/** The button of a card's menu until it is pressed, then the menu. */
function CardMore(props: { stored: ListedBoard; onDuplicate(): void; onRemove(): void }) {
  const [asked, setAsked] = useState(false);
  const button = (
    <ActionIcon
      className={classes.more}
      variant="subtle"
      color="gray"
      c="var(--ink-soft)"
      aria-haspopup="menu"
      aria-label={`More for ${props.stored.board.name}`}
      onClick={() => setAsked(true)}
    >
      <IconDots size={18} />
    </ActionIcon>
  );
  return asked ? (
    <Suspense fallback={button}>
      <CardMenu {...props} />
    </Suspense>
  ) : (
    button
  );
}

/** Room for a miniature, pixels; on a phone what its card leaves. */
const ROOM: [number, number] = [340, 250];
const BESIDE = 72;
const WHEN = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

interface CardPictureProps {
  stored: ListedBoard;
  input: Omit<PlanInput, 'board' | 'saw'> & { book: SawBook };
  scale: number;
}

/** The board as its plan draws it, with what is the matter with it. */
function BoardCardPicture({ stored, input: { book, ...rest }, scale }: CardPictureProps) {
  const saw = useMemo(() => sawStateFor(book, stored.id), [book, stored.id]);
  const input = useMemo(
    () => ({ rack: rest.rack, shop: rest.shop, species: rest.species, saw, facts: stored.facts }),
    [rest.rack, rest.shop, rest.species, saw, stored.facts],
  );
  return <BoardMiniature board={stored.board} input={input} scale={scale} />;
}

const reload = () => queryClient.invalidateQueries({ queryKey: keys.boards });

/** All boards, drawn to one scale, the one changed last first. */
export function BoardsPlace() {
  const boards = useBoards();
  const species = useSpecies();
  const navigate = useNavigate();
  const { display } = useDisplay();
  const fileInput = useRef<HTMLInputElement>(null);
  const [opened, setOpened] = useState<BoardFile | null>(null);

  const add = async (board: Board, station: string) => {
    try {
      const stored = await api.addBoard(board);
      void reload();
      await navigate(`/boards/${stored.id}/${station}`);
    } catch (error) {
      showProblem(error);
    }
  };
  const duplicate = async ({ id }: ListedBoard) => {
    try {
      const { board } = await api.board(id);
      await add({ ...board, name: `${board.name} (copy)`.slice(0, 120) }, 'layout');
    } catch (error) {
      showProblem(error);
    }
  };
  const openFile = async (file: File | undefined) => {
    if (fileInput.current) fileInput.current.value = '';
    if (!file) return;
    const { GREATEST_FILE_BYTES, readBoardFile } = await import('#core/format/boardFile.ts');
    if (file.size > GREATEST_FILE_BYTES) {
      showProblem(
        new Error(`${file.name}: the file is larger than ${GREATEST_FILE_BYTES / 1e6} MB; that is not a board file.`),
      );
      return;
    }
    const read = readBoardFile(await file.text());
    if (read.ok) setOpened(read.file);
    else
      showProblem(
        new Error(
          read.problems
            .slice(0, 3)
            .map((p) => p.message)
            .join(' '),
        ),
        `${file.name} cannot be opened`,
      );
  };
  const remove = async (stored: ListedBoard) => {
    try {
      await api.removeBoard(stored.id, stored.revision);
      await reload();
      showUndo(`“${stored.board.name}” removed.`, async () => {
        await api.restoreBoard(stored.id);
        await reload();
      });
    } catch (error) {
      showProblem(error);
      void reload();
    }
  };
  useShortcuts('Boards', [
    { keys: 'n', does: 'New board', run: () => void add(newBoard(display.system), 'brief') },
    { keys: 'o', does: 'Open a board file', run: () => fileInput.current?.click() },
  ]);

  const rack = useRack();
  const shop = useShop();
  const ids = useMemo(() => (boards.data ?? []).map((b) => b.id), [boards.data]);
  const book = useSawBook(ids);
  const input = useMemo(
    () =>
      rack.data && shop.data && species.data && book.data
        ? { rack: rack.data.map((p) => p.piece), shop: shop.data.shop, species: species.data, book: book.data }
        : null,
    [rack.data, shop.data, species.data, book.data],
  );
  const all = boards.data ?? [];
  const problem = trouble(boards, species);
  const { width } = useViewportSize();
  const scale = fitScale(
    [Math.max(400, ...all.map((b) => b.board.length)), Math.max(250, ...all.map((b) => b.board.width))],
    [width > 0 ? Math.min(ROOM[0], width - BESIDE) : ROOM[0], ROOM[1]],
    1,
  );

  return (
    <div className={classes.page}>
      <header>
        <h1>Boards</h1>
        <Button leftSection={<IconPlus size={17} />} onClick={() => void add(newBoard(display.system), 'brief')}>
          New board
        </Button>
        <Button variant="default" leftSection={<IconFolderOpen size={17} />} onClick={() => fileInput.current?.click()}>
          Open a file
        </Button>
        <Button variant="default" component={Link} to="/propose" leftSection={<IconSparkles size={17} />}>
          What could I make?
        </Button>
        <input
          ref={fileInput}
          type="file"
          accept=".json,application/json"
          hidden
          aria-label="Board file"
          onChange={(event) => void openFile(event.currentTarget.files?.[0])}
        />
        {all.length > 0 && <p>All drawn at {scaleWords(scale)}</p>}
      </header>
      <DemoNote />
      {problem && (
        <p role="alert" className={classes.problem}>
          {problem.message} Cadenza keeps trying.
        </p>
      )}
      {boards.data?.length === 0 && (
        <div className={classes.empty}>
          <p>No boards yet.</p>
          <ol>
            <li>
              Say which saws, planer, clamps and glue there are, on <Link to="/setup">one short page</Link>: every plan
              is made for them.
            </li>
            <li>
              Enter your <Link to="/rack/pile">pile</Link>, in any notation: boards are laid out from it.
            </li>
            <li>
              Begin with <b>New board</b>, its brief first, or ask <Link to="/propose">what the pile could become</Link>
              .
            </li>
          </ol>
        </div>
      )}
      <ul className={classes.grid}>
        {all.map((stored) => (
          <li key={stored.id}>
            <Link to={`/boards/${stored.id}/layout`} className={classes.card}>
              <span className={classes.picture} style={{ minHeight: ROOM[1] * 0.6 }}>
                {input && <BoardCardPicture stored={stored} input={input} scale={scale} />}
              </span>
              <b>{stored.board.name}</b>
              <span>
                <BoardSizeLine board={stored.board} />
              </span>
              {input && <BoardStanding stored={stored} input={input} />}
              <small>Saved {WHEN.format(new Date(stored.savedAt))}</small>
            </Link>
            <CardMore stored={stored} onDuplicate={() => void duplicate(stored)} onRemove={() => void remove(stored)} />
          </li>
        ))}
      </ul>
      {boards.hasNextPage && (
        <Button variant="default" loading={boards.isFetchingNextPage} onClick={() => void boards.fetchNextPage()}>
          Show older boards
        </Button>
      )}
      {opened && (
        <Suspense>
          <ImportDialog file={opened} onClose={() => setOpened(null)} />
        </Suspense>
      )}
    </div>
  );
}
