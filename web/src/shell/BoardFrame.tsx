import { ActionIcon, Loader, Menu, Tooltip } from '@mantine/core';
import { IconArrowBackUp, IconArrowForwardUp, IconDots, IconDownload, IconPrinter } from '@tabler/icons-react';
import { useEffect } from 'react';
import { Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { OpenBoardProvider, useSettledBoard } from '../data/openBoard.tsx';
import { useShortcuts } from '../shortcuts/Shortcuts.tsx';
import classes from './BoardFrame.module.css';
import { ConflictDialog } from './ConflictDialog.tsx';
import { showProblem, showWord } from './notices.tsx';
import { SaveNote } from './SaveNote.tsx';
import { StationRule } from './StationRule.tsx';
import { NothingHere } from './Shell.tsx';

/** A board with its rule of stations; the station itself is the child route. */
export function BoardFrame() {
  const { id = '' } = useParams();
  return (
    <OpenBoardProvider
      key={id}
      id={id}
      loading={
        <div className={classes.loading}>
          <Loader aria-label="Loading the board" />
        </div>
      }
      failed={(message) =>
        message.includes('does not exist') ? (
          <NothingHere />
        ) : (
          <p className={classes.loading} role="alert">
            {message} Cadenza keeps trying.
          </p>
        )
      }
    >
      <Frame />
    </OpenBoardProvider>
  );
}

function Frame() {
  const { board, session, canUndo, canRedo, id } = useSettledBoard();
  const navigate = useNavigate();
  const { pathname } = useLocation();
  useEffect(() => {
    document.title = `${board.name} · Cadenza`;
    return () => {
      document.title = 'Cadenza';
    };
  }, [board.name]);

  const go = (station: string) => void navigate(`/boards/${id}/${station}`);
  useEffect(() => session.onTrouble(showProblem), [session]);
  const undo = () => {
    if (!session.undo()) showWord('Nothing further to take back: this is how the board began.');
  };
  const redo = () => {
    if (!session.redo()) showWord('Nothing to do again: nothing was taken back since.');
  };
  const download = () => void session.flush().then(() => window.location.assign(`/api/boards/${id}/file`));
  const print = () => {
    if (pathname.endsWith('/sheet')) window.print();
    else go('sheet');
  };
  useShortcuts('Board', [
    { keys: 'mod+z', does: 'Undo', run: undo },
    { keys: 'mod+y', does: 'Redo', run: redo },
    { keys: 'mod+shift+z', does: 'Redo', run: redo },
    { keys: '1', does: 'Brief', run: () => go('brief') },
    { keys: '2', does: 'Layout', run: () => go('layout') },
    { keys: '3', does: 'Cuts', run: () => go('cuts') },
    { keys: '4', does: 'Mill', run: () => go('mill') },
    { keys: '5', does: 'Glue', run: () => go('glue') },
    { keys: '6', does: 'Trim', run: () => go('trim') },
    { keys: '7', does: 'Finish', run: () => go('finish') },
    { keys: '8', does: 'Bench sheet', run: () => go('sheet') },
    { keys: '9', does: 'Bench, one step at a time', run: () => go('bench') },
    { keys: '0', does: 'Money: what it costs, what to ask', run: () => go('money') },
  ]);

  return (
    <>
      <div className={classes.head}>
        <h1 className={classes.name} title={board.name}>
          {board.name}
        </h1>
        <div className={classes.tools}>
          <SaveNote />
          <Tooltip label="Undo (Ctrl Z)">
            <ActionIcon
              variant="subtle"
              color="gray"
              c={canUndo ? 'var(--ink)' : undefined}
              aria-label="Undo"
              disabled={!canUndo}
              onClick={undo}
            >
              <IconArrowBackUp size={18} />
            </ActionIcon>
          </Tooltip>
          <Tooltip label="Redo (Ctrl Y)">
            <ActionIcon
              variant="subtle"
              color="gray"
              c={canRedo ? 'var(--ink)' : undefined}
              aria-label="Redo"
              disabled={!canRedo}
              onClick={redo}
            >
              <IconArrowForwardUp size={18} />
            </ActionIcon>
          </Tooltip>
          <Menu position="bottom-end">
            <Menu.Target>
              <ActionIcon variant="subtle" color="gray" c="var(--ink)" aria-label="More for this board">
                <IconDots size={18} />
              </ActionIcon>
            </Menu.Target>
            <Menu.Dropdown>
              <Menu.Item leftSection={<IconDownload size={16} />} onClick={download}>
                Save as file
              </Menu.Item>
              <Menu.Item leftSection={<IconPrinter size={16} />} onClick={print}>
                Print the bench sheet
              </Menu.Item>
            </Menu.Dropdown>
          </Menu>
        </div>
        <StationRule />
      </div>
      <Outlet />
      <ConflictDialog />
    </>
  );
}
